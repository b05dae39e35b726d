import { expect, test } from 'vitest';
import { loadFile } from '../../files/load.ts';
import { memorySource } from '../../formats/source.ts';
import { memoryStore } from '../../storage/memory.ts';
import { pressurePoints, shotDepths, shotsOf } from './checkshots.ts';
import { tableOf } from './wells.ts';

const HEADS = 'well,x_m,y_m,kb_m,total_depth_md_m\nA-1,0,0,30,2000\n';

async function project(files: Record<string, string>, declare: Record<string, string> = {}) {
  const store = memoryStore();
  for (const [name, text] of Object.entries(files))
    await loadFile(memorySource(name, new TextEncoder().encode(text)), name === 'shots.csv' ? declare : {}, {
      store,
      crsTable: async () => [],
    });
  return store.list();
}
const shots = (objects: Awaited<ReturnType<typeof project>>) => {
  const table = tableOf(objects, 'A-1', 'checkshots');
  return table ? shotsOf(objects, table) : [];
};

// in a vertical well with its kelly bushing 30 m above the sea, MD 530 is TVD 530 and TVDSS 500
test.each([
  ['TVDSS', 'well,tvdss_m,twt_ms\nA-1,500,480\n'],
  ['MD alone', 'well,md_m,twt_ms\nA-1,530,480\n'],
  ['TVD from the kelly bushing', 'well,tvd_m,twt_ms\nA-1,530,480\n'],
  ['one-way time', 'well,md_m,owt_s\nA-1,530,0.24\n'],
])('%s gives the same checkshot', async (_, text) => {
  const objects = await project({ 'heads.csv': HEADS, 'shots.csv': text });
  const [shot] = shots(objects);
  expect(shot.tvdss).toBeCloseTo(500, 6);
  expect(shot.twt).toBeCloseTo(480, 9);
  const table = tableOf(objects, 'A-1', 'checkshots');
  expect(table && shotDepths(objects, table)[0]).toBeCloseTo(530, 6);
});

test('times from the kelly bushing are brought down to the datum, whichever file comes first', async () => {
  const text = 'well,md_m,twt_ms\nA-1,530,520\n';
  for (const files of [
    { 'heads.csv': HEADS, 'shots.csv': text },
    { 'shots.csv': text, 'heads.csv': HEADS },
  ]) {
    const [shot] = shots(await project(files, { reference: 'kb' }));
    // 30 m at 1500 m/s, there and back
    expect(shot.twt).toBeCloseTo(520 - 40, 9);
  }
});

test('what needs a head that is not there yet is left out, not taken for zero', async () => {
  expect(shots(await project({ 'shots.csv': 'well,md_m,twt_ms\nA-1,530,520\n' }))).toEqual([]);
});

test('pressures by measured depth take their depth from the path', async () => {
  const objects = await project({ 'heads.csv': HEADS, 'p.csv': 'well,md_m,pressure_bar\nA-1,1030,105\n' });
  const table = tableOf(objects, 'A-1', 'pressures');
  expect(table && pressurePoints(objects, table)).toEqual([{ z: 1000, p: 10500000 }]);
});
