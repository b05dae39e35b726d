import { describe, expect, test } from 'vitest';
import type { EarthObject, Fault, Logs } from '../earth/objects.ts';
import { memorySource } from '../formats/source.ts';
import { findObject } from '../project/catalogue/find.ts';
import { topInTime } from '../project/wells/seeds.ts';
import { pathOf, topsOf, waitingFor } from '../project/wells/wells.ts';
import { readWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import { pointAtMd } from '../wells/path.ts';
import { inspectFile } from './inspect.ts';
import { loadFile } from './load.ts';

const FILES: Record<string, string> = {
  'heads.csv': 'well,x_m,y_m,kb_m,total_depth_md_m,status\nA-1,1000,2000,25,1500,oil\nA-2,1500,2500,20,1400,water\n',
  'surveys.csv': 'well,md_m,inclination_deg,azimuth_grid_deg\nA-1,0,0,0\nA-1,500,0,0\nA-1,1500,40,90\n',
  'tops.csv': 'well,top,md_m\nA-1,Brack Top,600\nA-2,Brack Top,640\n',
  'deep tops.csv': 'well,top,tvdss_m\nA-1,Pell Top,1100\n',
  'checkshots.csv': 'well,md_ft,tvdss_ft,owt_ms\nA-1,1640.42,1558.40,240\nA-1,3280.84,3198.82,450\n',
  'A-1.las':
    '~V\n VERS. 2.0 :\n WRAP. NO :\n~W\n STRT.FT 1000 :\n NULL. -999.25 :\n WELL. A-1 :\n~C\n DEPT.FT :\n DT.US/FT :\n DEN.G/CC :\n~A\n1000 100 2.3\n1000.5 101 -999.25\n1001 102 2.4\n',
  'sticks.csv': 'fault,stick,x_m,y_m,twt_ms\nF,0,0,0,900\nF,0,10,0,700\nF,1,0,500,700\nF,1,10,500,900\n',
  'nav.csv': 'line,cdp,x_m,y_m\nQL-3,1,0,0\nQL-3,50,980,0\n',
  'core.csv': 'well,md_m,porosity (%)\nA-2,700,21\n',
  'pressures.csv': 'well,md_m,pressure_bar\nA-1,900,95\n',
  'A-2.las':
    '~V\n VERS. 2.0 :\n WRAP. NO :\n~W\n NULL. -999.25 :\n WELL. A-2 :\n~C\n DEPT.M :\n GR.GAPI :\n~A\n100 40\n101 45\n',
  'bed.csv': 'inline,crossline,x_m,y_m,depth_m\n10,20,0,0,80\n10,22,50,0,81\n12,20,0,50,82\n12,22,50,50,83\n',
};

async function loadAll(names: string[]) {
  const store = memoryStore();
  for (const name of names)
    await loadFile(memorySource(name, new TextEncoder().encode(FILES[name])), {}, { store, crsTable: async () => [] });
  return store;
}

/** What a project holds, without what differs from load to load. */
const plain = (objects: EarthObject[]) =>
  objects
    .map((o) =>
      JSON.stringify({ ...o, id: '', madeBy: '' }, (key, value) => (key === 'key' || key === 'wellId' ? '' : value)),
    )
    .sort();

describe('the order of loading', () => {
  test('never changes the result', async () => {
    const names = Object.keys(FILES);
    const first = plain(await (await loadAll(names)).list());
    for (let seed = 1; seed <= 50; seed++) {
      let state = seed;
      const shuffled = [...names];
      for (let n = shuffled.length - 1; n > 0; n--) {
        state = (Math.imul(state, 1103515245) + 12345) >>> 0;
        const m = state % (n + 1);
        [shuffled[n], shuffled[m]] = [shuffled[m], shuffled[n]];
      }
      expect(plain(await (await loadAll(shuffled)).list())).toEqual(first);
    }
  });
  test('what came before its well waits for it, and says so', async () => {
    const store = await loadAll(['tops.csv', 'A-1.las']);
    expect([...waitingFor(await store.list()).values()]).toContain('the head of well A-1');
    await loadFile(
      memorySource('heads.csv', new TextEncoder().encode(FILES['heads.csv'])),
      {},
      { store, crsTable: async () => [] },
    );
    expect(waitingFor(await store.list()).size).toBe(0);
  });
});

test('units come out as one: logs in metres and the unit of their class, checkshots in two-way ms', async () => {
  const store = await loadAll(Object.keys(FILES));
  const objects = await store.list();
  const logs = objects.find((o): o is Logs => o.kind === 'logs') as Logs;
  expect(logs.depth.firstM).toBeCloseTo(304.8, 6);
  expect(logs.curves.map((c) => [c.class, c.unit])).toEqual([
    ['sonic', 'us/m'],
    ['density', 'kg/m3'],
  ]);
  expect((await readWhole(store, logs.curves[0].data))[0]).toBeCloseTo(100 / 0.3048, 3);
  expect(logs.curves[1].nulls).toBe(1);
  const shots = findObject(objects, 'A-1 checkshots');
  expect('rows' in shots && shots.rows[0].map((v) => Math.round(Number(v)))).toEqual([500, 475, 480]);
  const well = findObject(objects, 'well/A-1');
  expect(well.kind === 'well' && pointAtMd(pathOf(objects, well), 1500).x).toBeGreaterThan(1300);
});

test('a top that is given by its depth below the sea lies on its deviated well', async () => {
  const objects = await (await loadAll(['deep tops.csv', 'surveys.csv', 'heads.csv'])).list();
  const well = findObject(objects, 'well/A-1');
  if (well.kind !== 'well') throw new Error('not a well');
  const [top] = topsOf(objects, 'A-1');
  expect(pointAtMd(pathOf(objects, well), top.md).tvdss).toBeCloseTo(1100, 6);
  expect(top.md).toBeGreaterThan(1125);
});

test('sticks are kept from the top down, and a top knows its time', async () => {
  const objects = await (await loadAll(Object.keys(FILES))).list();
  const fault = objects.find((o): o is Fault => o.kind === 'fault') as Fault;
  expect(fault.sticks.map((s) => s.map((p) => p[2]))).toEqual([
    [700, 900],
    [700, 900],
  ]);
  const axis = { first: 0, step: 1, count: 200 };
  const seismic = {
    binGrid: { inline: axis, crossline: axis, origin: [0, 0], perInline: [0, 25], perCrossline: [25, 0] },
  } as never;
  const well = findObject(objects, 'well/A-1');
  if (well.kind !== 'well') throw new Error('not a well');
  const at = topInTime(objects, well, 'Brack Top', seismic);
  expect(at).toMatchObject({ well: 'A-1', i: 80, j: 40 });
  expect(at?.twt).toBeGreaterThan(480);
  expect(topInTime(objects, well, 'No Top', seismic)).toBeNull();
});

test('names that are not there or not unique are refused with what is near', async () => {
  const objects = await (await loadAll(['heads.csv', 'tops.csv'])).list();
  expect(() => findObject(objects, 'A-1 top')).toThrow(
    expect.objectContaining({ fix: expect.stringContaining('A-1 tops') }),
  );
  const twice = [...objects, { ...objects[0], id: 'x', kind: 'fault' } as unknown as EarthObject];
  expect(() => findObject(twice, objects[0].name)).toThrow(/2 objects are called/);
  expect(findObject(twice, `well/${objects[0].name}`).kind).toBe('well');
});

test('a sketch and facts for every kind of file, before anything is loaded', async () => {
  for (const [name, text] of Object.entries(FILES)) {
    const report = await inspectFile(memorySource(name, new TextEncoder().encode(text)));
    expect(report.refused, name).toBeUndefined();
    expect(report.facts.length, name).toBeGreaterThan(0);
    expect(
      report.questions.filter((q) => !q.optional),
      name,
    ).toEqual([]);
  }
  const sticks = await inspectFile(memorySource('sticks.csv', new TextEncoder().encode(FILES['sticks.csv'])));
  expect(sticks.sketch.lines).toHaveLength(2);
});
