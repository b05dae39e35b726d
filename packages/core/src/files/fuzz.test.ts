import { expect, test } from 'vitest';
import { complaints, goodFiles, mutated, seeded } from '../testing/fuzz.ts';

test('good files of every kind load', async () => {
  for (const { name, bytes, declare } of await goodFiles())
    expect([name, await complaints(name, bytes, declare)]).toEqual([name, []]);
});

const COUNT = Number(process.env.FUZZ_N ?? 260);
const SEED = Number(process.env.FUZZ_SEED ?? 1) * 1_000_000;

test(`${COUNT} mutated files: no crash, no hang, nothing half loaded, a sentence every time`, async () => {
  const files = await goodFiles();
  const misbehaved: string[] = [];
  for (let n = 0; n < COUNT; n++) {
    const { name, bytes, declare } = files[n % files.length];
    const said = await complaints(name, mutated(bytes, seeded(SEED + n)), declare);
    if (said.length > 0) misbehaved.push(`${name}, seed ${SEED + n}: ${said.join('; ')}`);
  }
  expect(misbehaved).toEqual([]);
}, 600_000);

test('names and cells of ten megabytes, markup and prototypes are only text', async () => {
  const long = 'x'.repeat(10e6);
  const text = (t: string) => new TextEncoder().encode(t);
  for (const [name, content] of [
    ['long.las', `~V\n VERS. 2.0 :\n WRAP. NO :\n~W\n WELL. ${long} :\n~C\n DEPT.M :\n GR.GAPI :\n~A\n1 2\n2 3\n`],
    ['proto.csv', 'well,top,md_m\n__proto__,constructor,100\n<b>A</b>,toString,200\n'],
    ['columns.csv', '__proto__,constructor,well\n1,2,3\n'],
    ['cell.csv', `well,x_m,y_m,kb_m\n${long},1,2,3\n`],
    [
      'proto.geojson',
      '{"type":"FeatureCollection","features":[{"type":"Feature","properties":{"name":"__proto__","__proto__":{"polluted":1}},"geometry":{"type":"LineString","coordinates":[[0,0],[1,1]]}}]}',
    ],
  ])
    expect([name, await complaints(name, text(content), {})]).toEqual([name, []]);
}, 60_000);
