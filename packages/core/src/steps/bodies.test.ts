import { beforeAll, describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import { toMap } from '../earth/binGrid.ts';
import type { Bodies, Horizon, QuantityMap, ResultTable, Volume } from '../earth/objects.ts';
import { exportObject } from '../files/out/export.ts';
import { runsOf } from '../project/bodies.ts';
import { readWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import type { Store } from '../storage/store.ts';
import { FRAME, madeHorizon, TURNED } from '../testing/objects.ts';
import { normal } from '../testing/random.ts';
import { madeVolume } from '../testing/volume.ts';
import { runStep } from './index.ts';

const [ROWS, COLUMNS] = [44, 52];
const BIN_GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1000, step: 1, count: ROWS },
  crossline: { first: 2000, step: 1, count: COLUMNS },
};
const [CONTACT, STEP] = [1040, 4];

/** Depth of the reservoir (m), and its time by a velocity that changes across the survey. */
const depth = (i: number, j: number) => 1000 + 0.14 * ((i - 20) ** 2 + (j - 26) ** 2);
const time = (i: number, j: number) => (2000 * depth(i, j)) / (2100 + 3 * i);
/** Bright from the top down to the contact, and in a small patch beside. */
const isBright = (i: number, j: number, ms: number) =>
  (depth(i, j) < CONTACT && ms >= time(i, j) && ms < time(i, j) + 24) ||
  (i > 38 && j > 46 && ms >= time(i, j) && ms < time(i, j) + 24);

let store: Store;
let volume: Volume;
let horizons: Horizon[];

beforeAll(async () => {
  store = memoryStore();
  const random = normal(2);
  volume = await madeVolume(store, (i, j, k) => (isBright(i, j, 800 + STEP * k) ? 100 : 20) + 3 * random(), {
    binGrid: BIN_GRID,
    samples: 160,
    first: 800,
    step: STEP,
    name: 'Envelope',
  });
  horizons = [
    await madeHorizon(store, 'Top', 'twt', time, BIN_GRID),
    await madeHorizon(store, 'Top', 'depth', depth, BIN_GRID),
  ];
});

async function bodies(params: Record<string, unknown>, inputs: Record<string, string[]> = {}) {
  const made = await runStep(
    {
      step: 'attributes.bodies',
      inputs: { volume: [volume.id], top: [horizons[0].id], depth: [horizons[1].id], ...inputs },
      params: { below: 40, smallest: 20, ...params },
    },
    store,
  );
  const of = <K extends string>(kind: K) => made.find((o) => o.kind === kind);
  const table = of('result table') as ResultTable;
  const rows = table.rows.map((r) => Object.fromEntries(table.columns.map((c, n) => [c.name, r[n]])));
  return { rows, set: of('bodies') as Bodies, thickness: of('map') as QuantityMap };
}

describe('bodies', () => {
  test('are found by percentiles as by the values that these are', async () => {
    expect((await bodies({ from: 60 })).rows.length).toBe(2);
    const total = async (params: Record<string, unknown>) =>
      (await bodies({ smallest: 1, most: 10000, ...params })).rows.reduce((sum, r) => sum + Number(r.Samples), 0);
    const all = await total({ from: -1e6 });
    for (const from of [50, 85])
      expect((await total({ test: 'percentiles', from, to: 100 })) / all).toBeCloseTo(1 - from / 100, 2);
  });

  test('end where a fluid does: the edge lies at its contact, and is flatter than chance would make it', async () => {
    const { rows, set } = await bodies({ from: 60 });
    expect(Math.abs(Number(rows[0].Edge) - CONTACT)).toBeLessThan(2);
    expect(Math.abs(Number(rows[0]['Lowest of the edge']) - CONTACT)).toBeLessThan(4);
    expect(Number(rows[0]['As flat by chance'])).toBeLessThan(0.02);
    expect(set.bodies[0].edgeM).toBe(rows[0].Edge);
    // without a surface in depth there is nothing to say of it
    expect((await bodies({ from: 60 }, { depth: [] })).rows[0].Edge).toBeUndefined();
  });

  test('lie between surfaces moved up and down, and maps of times may be such', async () => {
    const { rows } = await bodies({ from: 60, above: -8, below: 16 });
    const samples = Number(rows[0].Samples) / Number(rows[0].Footprint);
    const all = await bodies({ from: 60 });
    // two samples or three of those six that are bright
    expect(samples / (Number(all.rows[0].Samples) / Number(all.rows[0].Footprint))).toBeGreaterThan(0.3);
    expect(samples / (Number(all.rows[0].Samples) / Number(all.rows[0].Footprint))).toBeLessThan(0.52);
    const [base] = await runStep(
      {
        step: 'attributes.mapFormula',
        inputs: { horizons: [horizons[0].id], maps: [] },
        params: { formula: 'Top + 0.008' },
      },
      store,
    );
    const byMap = await bodies({ from: 60, below: 0 }, { base: [base.id] });
    const byShift = await bodies({ from: 60, below: 8 });
    expect(byMap.rows[0].Samples).toBe(byShift.rows[0].Samples);
    await expect(bodies({ from: 60 }, { top: [horizons[1].id] })).rejects.toThrow('not both in one domain');
  });

  test('are kept run by run, and leave as rows and as surfaces', async () => {
    const { rows, set, thickness } = await bodies({ from: 60, velocity: 2500 });
    const runs = await runsOf(store, set);
    expect([...runs.keys()]).toEqual([1, 2]);
    const count = Array.from(runs.get(1)?.from ?? []).reduce(
      (sum, from, n) => sum + (runs.get(1)?.to[n] ?? 0) - from,
      0,
    );
    expect(count).toBe(rows[0].Samples);
    const values = await readWhole(store, thickness.values);
    expect(values[20 * COLUMNS + 26]).toBeCloseTo(6 * 5, 3);
    const csv = new TextDecoder()
      .decode(await exportObject(store, set, 'csv', FRAME))
      .trim()
      .split('\n');
    expect(csv[0]).toBe('body,x_m,y_m,top_ms,base_ms');
    const first = csv[1].split(',').map(Number);
    const [x, y] = toMap(BIN_GRID, runs.get(1)?.i[0] ?? 0, runs.get(1)?.j[0] ?? 0);
    expect(first.slice(0, 3)).toEqual([1, Number(x.toFixed(3)), Number(y.toFixed(3))]);
    expect(new TextDecoder().decode((await exportObject(store, set, 'vtp', FRAME)).slice(0, 200))).toContain(
      'PolyData',
    );
  });

  test('are corrected by strokes of a brush, the later over the earlier', async () => {
    const plain = await bodies({ from: 60 });
    const [x, y] = toMap(BIN_GRID, 20, 26);
    const ball = { x, y, at: time(20, 26) + 10, wide: 80, tall: 60 };
    const cut = await bodies({ from: 60, strokes: [{ does: 'takes out', ...ball }] });
    const lost = Number(plain.rows[0].Samples) - Number(cut.rows[0].Samples);
    expect(lost).toBeGreaterThan(60);
    const values = await readWhole(store, cut.thickness.values);
    expect(values[20 * COLUMNS + 26]).toBeNaN();
    expect(values[20 * COLUMNS + 30]).not.toBeNaN();
    const back = await bodies({
      from: 60,
      strokes: [
        { does: 'takes out', ...ball },
        { does: 'puts in', ...ball, wide: 90, tall: 70 },
      ],
    });
    expect(Number(back.rows[0].Samples)).toBeGreaterThan(Number(plain.rows[0].Samples));
  });

  test('say when nothing passes', async () => {
    await expect(bodies({ from: 1e6, to: 1e7 })).rejects.toThrow('No body of 20 samples');
    await expect(bodies({ from: 5, to: 1 })).rejects.toThrow('No value lies from 5 to 1');
  });
});
