import { beforeAll, describe, expect, test } from 'vitest';
import { randIndex } from '../classes/order.ts';
import { classify, type InSeveral, plotted } from '../classes/plotted.ts';
import type { BinGrid } from '../earth/binGrid.ts';
import type { Horizon, PlotClass, QuantityMap, ResultTable, Volume } from '../earth/objects.ts';
import { readWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import { MADE, madeHorizon, TURNED } from '../testing/objects.ts';
import { normal } from '../testing/random.ts';
import { madeVolume } from '../testing/volume.ts';
import { runStep } from './index.ts';

const BIN_GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1000, step: 1, count: 30 },
  crossline: { first: 2000, step: 1, count: 40 },
};
const COLUMNS = 40;
const [FIRST, STEP, SAMPLES] = [400, 4, 100];

const top = (i: number, j: number) => 560 + 1.7 * i + 0.4 * j;
/** A belt across the survey, and what lies beside it. */
const inBelt = (i: number, j: number) => Math.abs(j - 14 - 0.3 * i) < 5;
const ricker = (t: number, hz: number) => {
  const a = (Math.PI * hz * t) / 1000;
  return (1 - 2 * a * a) * Math.exp(-a * a);
};

let store: Store;
let seismic: Volume;
let horizon: Horizon;
/** Two volumes whose bodies part in a third alone. */
let volumes: Volume[];

beforeAll(async () => {
  store = memoryStore();
  const noise = normal(4);
  seismic = await madeVolume(
    store,
    (i, j, k) => {
      const t = FIRST + k * STEP - top(i, j);
      // a bed under the horizon, thin in the belt and thick beside it
      const thick = inBelt(i, j) ? 10 : 28;
      return 100 * (ricker(t, 35) - ricker(t - thick, 35)) + 8 * noise();
    },
    { binGrid: BIN_GRID, samples: SAMPLES, first: FIRST, step: STEP, name: 'Seismic' },
  );
  horizon = await madeHorizon(store, 'Top', 'twt', top, BIN_GRID);
  const box = (i: number, k: number, a: number, b: number) => i >= a && i < a + 6 && k >= b && k < b + 10;
  const makeOne = (name: string, one: number, other: number) =>
    madeVolume(
      store,
      (i, j, k) => {
        const middle = j > 10 && j < 20;
        if (middle && box(i, k, 4, 30)) return one;
        return middle && box(i, k, 18, 60) ? other : 0.5 + 0.1 * Math.sin(i + 2 * j + 3 * k);
      },
      { binGrid: BIN_GRID, samples: SAMPLES, first: FIRST, step: STEP, name },
    );
  volumes = [await makeOne('X', 8, 8), await makeOne('Y', 70, 70), await makeOne('Z', 3, 5)];
});

describe('waveform classes', () => {
  const run = async (params: Record<string, unknown>, more: Record<string, string[]> = {}) => {
    const made = await runStep(
      { step: 'attributes.waveforms', inputs: { volume: [seismic.id], horizon: [horizon.id], ...more }, params },
      store,
    );
    const of = <O>(output: string) => made.find((o) => o.madeBy.output === output) as O;
    return {
      classes: await readWhole(store, of<QuantityMap>('classes').values),
      match: await readWhole(store, of<QuantityMap>('match').values),
      centres: of<ResultTable>('centres'),
      gains: of<ResultTable>('gains'),
    };
  };
  const belt = Array.from({ length: 30 * COLUMNS }, (_, n) => (inBelt(Math.floor(n / COLUMNS), n % COLUMNS) ? 1 : 0));

  test.each([
    'self-organizing map',
    'k-means',
    'mixture',
  ])('by %s part the belt from what lies beside it', async (way) => {
    const { classes, match, centres } = await run({ way, classes: 2, above: 20, below: 60 });
    expect(randIndex(classes, belt)).toBeGreaterThan(0.9);
    expect(match.reduce((s, v) => s + v, 0) / match.length).toBeGreaterThan(0.9);
    expect(centres.columns).toHaveLength(3);
    expect(centres.rows).toHaveLength(21);
  });
  test('gain most by the second class, and little by more', async () => {
    const { gains } = await run({ classes: 2, above: 20, below: 60 });
    const gain = gains.rows.map((r) => Number(r[2]));
    expect(gain[1]).toBeGreaterThan(8 * gain[2]);
  });
  test('of one run are found in another place by its centres', async () => {
    const first = await run({ classes: 4, above: 20, below: 60 });
    const again = await run({ classes: 9, above: 20, below: 60 }, { like: [first.centres.id] });
    expect([...again.classes]).toEqual([...first.classes]);
    await expect(run({ above: 20, below: 40 }, { like: [first.centres.id] })).rejects.toThrow(
      'holds no class centres of 16 samples',
    );
  });
  test('are merged and named, and seen while they settle', async () => {
    const inputs = { volume: [seismic.id], horizon: [horizon.id] };
    const seen: number[] = [];
    const go = async (params: Record<string, unknown>) => {
      const [made] = (await runStep(
        { step: 'attributes.waveforms', inputs, params: { classes: 5, above: 20, below: 60, ...params } },
        store,
        { onPreview: (map) => seen.push(map.values.length) },
      )) as QuantityMap[];
      return { made, values: await readWhole(store, made.values) };
    };
    const plain = await go({});
    expect(seen.length).toBeGreaterThan(4);
    expect(plain.made.classes).toEqual(['Class 1', 'Class 2', 'Class 3', 'Class 4', 'Class 5']);
    const merged = await go({ groups: [{ name: 'Belt', classes: '2, 5' }] });
    expect(merged.made.classes).toEqual(['Belt', 'Class 1', 'Class 3', 'Class 4']);
    const becomes = [0, 2, 1, 3, 4, 1];
    for (let n = 0; n < plain.values.length; n++)
      if (!Number.isNaN(plain.values[n])) expect(merged.values[n]).toBe(becomes[plain.values[n]]);
    await expect(go({ groups: [{ name: 'Belt', classes: '9' }] })).rejects.toThrow('classes 1 to 5');
    await expect(
      go({
        groups: [
          { name: 'A', classes: '1' },
          { name: 'B', classes: '1' },
        ],
      }),
    ).rejects.toThrow('in “A” and in “B”');
  });
  test('are the same for the same seed, and refuse a window of nothing', async () => {
    const params = { way: 'k-means', classes: 5, seed: 3, above: 20, below: 60 };
    expect((await run(params)).classes).toEqual((await run(params)).classes);
    await expect(run({ above: 2, below: 2 })).rejects.toThrow('a waveform needs three');
  });
});

test('crossplot classes are parted by a limited third axis where two cannot', async () => {
  const plotted: PlotClass = {
    id: 'strong',
    kind: 'crossplot class',
    name: 'Strong',
    revision: 'strong-1',
    stage: 'attributes',
    madeBy: MADE,
    x: { of: volumes[0].id, log: false },
    y: { of: volumes[1].id, log: true },
    ring: [
      [5, 30],
      [10, 30],
      [10, 200],
      [5, 200],
    ],
  };
  await store.commit({ put: [plotted] });
  const [x, y, third] = volumes.map((v) => [v.id]);
  const sum = async (params: Record<string, unknown>) => {
    const [made] = (await runStep(
      { step: 'attributes.plotClass', inputs: { x, y, third, classes: [plotted.id] }, params },
      store,
    )) as Volume[];
    const data = await readRegion(store, made, { i: [0, 30], j: [0, COLUMNS], k: [0, SAMPLES] });
    return data.reduce((s, v) => s + v, 0);
  };
  expect(await sum({})).toBe(2 * 6 * 9 * 10);
  expect(await sum({ thirdFrom: 4 })).toBe(6 * 9 * 10);
  // a class may bring its limits with it
  await store.commit({
    put: [{ ...plotted, revision: 'strong-2', limits: [{ of: volumes[2].id, from: 4, to: 1e9 }] }],
  });
  expect(await sum({})).toBe(6 * 9 * 10);
  await expect(
    runStep({ step: 'attributes.plotClass', inputs: { x, y, classes: [plotted.id] }, params: {} }, store),
  ).rejects.toThrow('Strong is limited by');
});

describe('crossplot classes of places', () => {
  const square = (x0: number, y0: number, x1: number, y1: number): [number, number][] => [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
  const of = (ring: [number, number][], more: Partial<PlotClass> = {}): PlotClass => ({
    id: 'c',
    kind: 'crossplot class',
    name: 'C',
    revision: '1',
    stage: 'attributes',
    madeBy: MADE,
    x: { of: 'a', log: false },
    y: { of: 'b', log: false },
    ring,
    ...more,
  });
  const x = Float32Array.of(1, 3, 5, 9, Number.NaN);
  const y = Float32Array.of(1, 3, 5, 9, 1);
  const two = [of(square(0, 0, 4, 4)), of(square(2, 2, 6, 6), { limits: [{ of: 'z', from: 0, to: 1 }] })];

  test('go by the rule where there are several, and by the limits that each has', () => {
    const ready = plotted(two, ['z'], (id) => id);
    const inside = Float32Array.of(0.5, 0.5, 0.5, 0.5, 0.5);
    const run = (rule: InSeveral, z = inside) => [...classify(ready, x, y, [z], rule)];
    expect(run('the first of them')).toEqual([1, 1, 2, 0, Number.NaN]);
    expect(run('the last of them')).toEqual([1, 2, 2, 0, Number.NaN]);
    expect(run('none')).toEqual([1, 0, 2, 0, Number.NaN]);
    const out = Float32Array.of(5, 5, Number.NaN, 5, 5);
    expect(run('none', out)).toEqual([1, 1, 0, 0, Number.NaN]);
  });

  test('of maps are those of their bins', async () => {
    const own = memoryStore();
    const horizons = [
      await madeHorizon(own, 'A', 'twt', (i) => i, BIN_GRID),
      await madeHorizon(own, 'B', 'twt', (_, j) => j, BIN_GRID),
    ];
    await own.commit({
      put: [
        of(square(1.5, 2.5, 4.5, 9.5), {
          x: { of: horizons[0].id, log: false },
          y: { of: horizons[1].id, log: false },
        }),
      ],
    });
    const [made] = (await runStep(
      {
        step: 'attributes.plotClassMap',
        inputs: { x: [horizons[0].id], y: [horizons[1].id], third: [horizons[1].id], classes: ['c'] },
        params: { thirdTo: 7 },
      },
      own,
    )) as QuantityMap[];
    const values = await readWhole(own, made.values);
    expect(values.reduce((s, v) => s + v, 0)).toBe(3 * 5);
    expect(values[3 * COLUMNS + 7]).toBe(1);
    expect(made.quantity).toBe('class');
  });
});

test('bodies of a known size come out of a volume across its slabs, with volume, footprint and thickness', async () => {
  const made = await runStep(
    {
      step: 'attributes.bodies',
      inputs: { volume: [volumes[0].id] },
      params: { from: 5, to: 10, smallest: 10, velocity: 2500 },
    },
    store,
  );
  const table = made.find((o): o is ResultTable => o.kind === 'result table') as ResultTable;
  const bin = Math.abs(
    BIN_GRID.perInline[0] * BIN_GRID.perCrossline[1] - BIN_GRID.perInline[1] * BIN_GRID.perCrossline[0],
  );
  expect(table.rows.map((r) => r[1])).toEqual([540, 540]);
  expect(Number(table.rows[0][2])).toBeCloseTo(540 * bin * 5, 3);
  expect(Number(table.rows[0][3])).toBeCloseTo(54 * bin, 3);
  expect(table.rows.map((r) => [r[4], r[5]])).toEqual([
    [FIRST + 30 * STEP, FIRST + 39 * STEP],
    [FIRST + 60 * STEP, FIRST + 69 * STEP],
  ]);
  const map = made.find((o): o is QuantityMap => o.kind === 'map') as QuantityMap;
  const thickness = await readWhole(store, map.values);
  expect(thickness.filter((v) => !Number.isNaN(v))).toEqual(new Float32Array(108).fill(50));
  const volume = made.find((o): o is Volume => o.kind === 'volume') as Volume;
  const numbers = await readRegion(store, volume, { i: [0, 30], j: [0, COLUMNS], k: [0, SAMPLES] });
  expect([1, 2].map((n) => numbers.filter((v) => v === n).length)).toEqual([540, 540]);
});

test('classes of several attributes part what the attributes part, and say what each adds', async () => {
  const made = await runStep(
    {
      step: 'attributes.cluster',
      inputs: { A: [volumes[0].id], B: [volumes[1].id], C: [volumes[2].id] },
      params: { classes: 3, way: 'k-means', trainOn: 20000 },
    },
    store,
  );
  const [classes] = made as Volume[];
  const data = await readRegion(store, classes, { i: [0, 30], j: [0, COLUMNS], k: [0, SAMPLES] });
  const at = (i: number, j: number, k: number) => data[(i * COLUMNS + j) * SAMPLES + k];
  expect(new Set([at(5, 15, 35), at(20, 15, 65), at(0, 0, 0)]).size).toBe(3);
  expect(new Set(data).size).toBe(3);
  const table = made.find((o): o is ResultTable => o.kind === 'result table') as ResultTable;
  expect(table.rows.map((r) => r[0])).toEqual(['X', 'Y', 'Z']);
  for (const row of table.rows) expect(Number(row[1])).toBeGreaterThan(80);
});
