import { describe, expect, test } from 'vitest';
import { cornersOf } from '../earth/binGrid.ts';
import { crsTable } from '../earth/crsTable.ts';
import { metresPerUnit } from '../earth/transform.ts';
import { crsOf, frameFor } from '../files/coordinates.ts';
import { loadFile } from '../files/load.ts';
import { memorySource } from '../formats/source.ts';
import { memoryStore } from '../storage/memory.ts';
import { outOfDate } from './catalogue/staleness.ts';
import { mapBetween, previewReframe, reframed, relabelBetween } from './reframe.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const HEADS = 'well,x,y,kb_m\nA-1,515000,7643000,25\nA-2,518000,7645000,20\n';
const GRID = [
  'inline,crossline,x_m,y_m,depth_m',
  ...[0, 1, 2].flatMap((i) => [0, 1, 2].map((j) => `${i},${j},${515000 + 25 * j},${7643000 + 25 * i},${900 + i}`)),
].join('\n');

async function project() {
  const store = memoryStore();
  for (const [name, text] of [
    ['heads.csv', HEADS],
    ['bed.csv', GRID],
  ])
    await loadFile(memorySource(name, bytes(text)), { crs: 'EPSG:32740' }, { store, crsTable });
  return store;
}

describe('another coordinate system', () => {
  test('there and back returns every position to a millimetre, and makes nothing out of date', async () => {
    const store = await project();
    const objects = await store.list();
    const [a, b] = [await crsOf('EPSG:32740', crsTable), await crsOf('EPSG:32739', crsTable)];
    const there = mapBetween(a, b);
    expect(there.says).toContain('one datum');
    const moved = reframed(objects, there.toMap, frameFor(b));
    expect(moved).toHaveLength(objects.length);
    const well = moved.find((o) => o.kind === 'well' && o.name === 'A-1');
    // six degrees of longitude further east in the zone beside it
    expect(well?.kind === 'well' && well.x).toBeGreaterThan(1.1e6);
    const back = reframed(moved, mapBetween(b, a).toMap, frameFor(a));
    for (const object of back) {
      const before = objects.find((o) => o.id === object.id);
      if (object.kind === 'well' && before?.kind === 'well')
        expect(Math.hypot(object.x - before.x, object.y - before.y)).toBeLessThan(1e-3);
      if (object.kind === 'horizon' && before?.kind === 'horizon')
        cornersOf(object.binGrid).forEach((c, n) => {
          const d = cornersOf(before.binGrid)[n];
          expect(Math.hypot(c[0] - d[0], c[1] - d[1])).toBeLessThan(2e-3);
        });
    }
    expect(outOfDate(moved).size).toBe(0);
  });
  test('shows what each way does to a well and a corner, in the units of each system', async () => {
    const objects = await (await project()).list();
    const [a, feet] = [await crsOf('EPSG:32740', crsTable), await crsOf('EPSG:2278', crsTable)];
    const { examples, says } = previewReframe(objects, a, feet);
    expect(says).toMatch(/by operation EPSG:\d+.*stated as good to/);
    expect(examples[0].name).toBe('A-1');
    expect(examples[0].now).toEqual([515000, 7643000]);
    expect(examples[0].converted?.[0]).not.toBeCloseTo(515000, 0);
  });
  test('relabelling keeps the numbers, also where the other system counts in feet', async () => {
    const objects = await (await project()).list();
    const [metres, feet] = [await crsOf('EPSG:32740', crsTable), await crsOf('EPSG:2278', crsTable)];
    expect(relabelBetween(metres, await crsOf('EPSG:32739', crsTable))).toBeNull();
    const toMap = relabelBetween(metres, feet);
    if (!toMap) throw new Error('positions inside are metres, and must move');
    const well = reframed(objects, toMap, frameFor(feet)).find((o) => o.kind === 'well' && o.name === 'A-1');
    // 515 000 m are said to be 515 000 survey feet
    expect(well?.kind === 'well' && well.x / metresPerUnit(feet)).toBeCloseTo(515000, 6);
  });
  test('a datum whose shift is not known is refused, not taken for none', async () => {
    const objects = await (await project()).list();
    const { says, refused } = previewReframe(
      objects,
      await crsOf('EPSG:32740', crsTable),
      // NAD27(76), of which the registry has grids of shifts alone
      await crsOf('EPSG:2029', crsTable),
    );
    expect(says).toBeNull();
    expect(refused).toContain('No transformation is known');
  });
});

describe('mixed frames', () => {
  test('a table in another system is converted on the way in, and says so', async () => {
    const store = await project();
    const other = 'well,x,y,kb_m\nB-1,-106000,7638000,10\n';
    const { warnings, objects } = await loadFile(
      memorySource('b.csv', bytes(other)),
      { crs: 'EPSG:32741' },
      { store, crsTable },
    );
    expect(warnings.join(' ')).toContain('Converted from EPSG:32741');
    const [well] = objects;
    const { convert } = {
      convert: mapBetween(await crsOf('EPSG:32741', crsTable), await crsOf('EPSG:32740', crsTable)).toMap,
    };
    expect(well.kind === 'well' && [well.x, well.y]).toEqual(convert(-106000, 7638000));
  });
  test('longitude and latitude are recognised by their headings', async () => {
    const store = await project();
    const { objects, warnings } = await loadFile(
      memorySource('geo.csv', bytes('well,longitude,latitude,kb_m\nC-1,57.1,-21.3,10\n')),
      {},
      { store, crsTable },
    );
    expect(warnings.join(' ')).toContain('EPSG:4326');
    const [well] = objects;
    // 0.1° east of the central meridian: 0.9996·N·cos φ·Δλ, the series' next term being under a centimetre
    const n = 6378137 / Math.sqrt(1 - 0.00669438 * Math.sin((21.3 * Math.PI) / 180) ** 2);
    const east = 0.9996 * n * Math.cos((21.3 * Math.PI) / 180) * ((0.1 * Math.PI) / 180);
    expect(well.kind === 'well' && well.x).toBeCloseTo(500000 + east, 1);
  });
  test('feet in headings become metres, survey feet differ from feet', async () => {
    const store = await project();
    const load = async (unit: string) => {
      const text = `well,x (${unit}),y (${unit}),kb (ft)\nD-${unit},1000000,2000000,100\n`;
      const { objects } = await loadFile(memorySource(`${unit}.csv`, bytes(text)), {}, { store, crsTable });
      const [well] = objects;
      return well.kind === 'well' ? [well.x, well.y, well.kbM] : [];
    };
    expect((await load('ft'))[0]).toBeCloseTo(304800, 6);
    const [x, y, kb] = await load('us-ft');
    expect(x).toBeCloseTo((1e6 * 1200) / 3937, 6);
    expect(y).toBeCloseTo((2e6 * 1200) / 3937, 6);
    expect(kb).toBeCloseTo(30.48, 6);
  });
});
