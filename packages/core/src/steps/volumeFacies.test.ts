import { beforeAll, describe, expect, test } from 'vitest';
import { type BinGrid, toMap } from '../earth/binGrid.ts';
import type { EarthObject, Horizon, ResultTable, Volume } from '../earth/objects.ts';
import { memoryStore } from '../storage/memory.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import { MADE, madeHorizon, TURNED } from '../testing/objects.ts';
import { normalApart } from '../testing/random.ts';
import { madeVolume } from '../testing/volume.ts';
import { runStep } from './index.ts';

const BIN_GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1000, step: 1, count: 24 },
  crossline: { first: 2000, step: 1, count: 30 },
};
const [FIRST, STEP, SAMPLES] = [900, 4, 60];
/** Sand lies in every other bed, and is thicker to one side. */
const isSand = (j: number, z: number) => (z - 900) % 40 < 14 + 0.5 * j;

let store: Store;
let volumes: Volume[];
let horizons: Horizon[];

beforeAll(async () => {
  store = memoryStore();
  const random = normalApart(5);
  const made = async (name: string, sand: number, shale: number, spread: number): Promise<Volume> => {
    const volume = await madeVolume(
      store,
      (_, j, k) => (isSand(j, FIRST + STEP * k) ? sand : shale) + spread * random(),
      { binGrid: BIN_GRID, samples: SAMPLES, first: FIRST, step: STEP, name },
    );
    const inDepth: Volume = { ...volume, domain: 'depth' };
    await store.commit({ put: [inDepth] });
    return inDepth;
  };
  volumes = [await made('Impedance', 10, 14, 1), await made('Ratio', 1.7, 2.1, 0.15), await made('Noise', 0, 0, 1)];
  horizons = [
    await madeHorizon(store, 'Upper', 'depth', () => 905, BIN_GRID),
    await madeHorizon(store, 'Lower', 'depth', () => 1125, BIN_GRID),
  ];
  const put: EarthObject[] = [];
  for (const [name, i, j] of [
    ['W1', 4, 5],
    ['W2', 12, 15],
    ['W3', 20, 24],
  ] as const) {
    const [x, y] = toMap(BIN_GRID, i, j);
    const beds: [number, number, string][] = [];
    for (let md = 900; md < 1130; md += 2) beds.push([md, md + 2, isSand(j, md) ? 'Sand' : 'Shale']);
    put.push(
      {
        id: name,
        name,
        kind: 'well',
        revision: '1',
        stage: 'wells',
        madeBy: MADE,
        x,
        y,
        kbM: 0,
        totalMdM: 1200,
      } as EarthObject,
      {
        id: `f-${name}`,
        name: `${name} facies`,
        kind: 'facies',
        well: name,
        wellId: name,
        revision: '1',
        stage: 'wells',
        madeBy: MADE,
        columns: [
          { name: 'From MD', unit: 'm' },
          { name: 'To MD', unit: 'm' },
          { name: 'Facies', unit: '' },
        ],
        rows: beds,
      } as EarthObject,
    );
  }
  const area = (name: string, j0: number, j1: number) => ({
    id: name,
    name,
    kind: 'polygon',
    revision: '1',
    stage: 'interpret',
    madeBy: MADE,
    closed: true,
    rings: [
      [
        [1, j0],
        [22, j0],
        [22, j1],
        [1, j1],
      ].map(([i, j]) => toMap(BIN_GRID, i, j)),
    ],
  });
  put.push(area('Thin', 0.5, 9.5) as EarthObject, area('Thick', 20.5, 28.5) as EarthObject);
  await store.commit({ put });
});

const run = (params: Record<string, unknown>, inputs: Record<string, string[]>, more = {}) =>
  runStep(
    {
      step: 'attributes.facies',
      inputs: { A: [volumes[0].id], B: [volumes[1].id], C: [volumes[2].id], ...inputs },
      params,
      ...more,
    },
    store,
  );
const wells = { wells: ['W1', 'W2', 'W3'] };
const whole = { i: [0, 24], j: [0, 30], k: [0, SAMPLES] } as const;

describe('facies of volumes', () => {
  test.each([
    'Gaussian discriminant',
    'random forest',
    'neural network',
  ])('by a %s are those of the beds, tried blind', async (method) => {
    const made = await run({ method }, wells);
    const [classes, sure, probability] = made as Volume[];
    expect([classes.quantity, sure.quantity, probability.quantity]).toEqual(['class', 'probability', 'probability']);
    const [c, p] = [
      await readRegion(store, classes, whole as never),
      await readRegion(store, probability, whole as never),
    ];
    let [right, all, off] = [0, 0, 0];
    for (let n = 0; n < c.length; n++) {
      const sand = isSand(Math.floor(n / SAMPLES) % 30, FIRST + STEP * (n % SAMPLES));
      if (c[n] === 0) off++;
      else if ((c[n] === 1) === sand) right++;
      all++;
      expect(p[n]).toBeGreaterThanOrEqual(0);
      expect(p[n]).toBeLessThanOrEqual(1);
    }
    expect(right / all).toBeGreaterThan(0.93);
    expect(off / all).toBeLessThan(0.05);
    const table = made.find((o): o is ResultTable => o.kind === 'result table') as ResultTable;
    const rows = new Map(table.rows.map((r) => [String(r[0]), r]));
    expect(rows.get('Sand')?.[1]).toBe(1);
    expect(Number(rows.get('Blind: W2')?.at(-1))).toBeGreaterThan(85);
    // noise adds nothing, and what tells the beds apart does
    const lost = (name: string) => Number(rows.get(`Lost without ${name}`)?.at(-1));
    expect(lost('Impedance')).toBeGreaterThan(lost('Noise') + 3);
  });

  test('are kept live as they are stored, and heard anew when a description changes', async () => {
    const [live] = (await run({}, wells, { live: true })) as Volume[];
    const [stored] = (await run({}, wells)) as Volume[];
    expect(await readRegion(store, live, whole as never)).toEqual(await readRegion(store, stored, whole as never));
    const table = (await store.get('f-W1')) as EarthObject & { rows: unknown[][] };
    const turned = table.rows.map(([a, b, f]) => [a, b, f === 'Sand' ? 'Shale' : 'Sand']);
    await store.commit({ put: [{ ...table, revision: '2', rows: turned } as EarthObject] });
    const again = await run({}, wells);
    const report = again.find((o): o is ResultTable => o.kind === 'result table') as ResultTable;
    expect(Number(report.rows.find((r) => r[0] === 'Blind: W1')?.at(-1))).toBeLessThan(30);
    await store.commit({ put: [table] });
  });

  test('are learned inside painted areas between surfaces, whose halves are tried blind', async () => {
    const made = await run(
      { prior: 'even' },
      { areas: ['Thin', 'Thick'], top: [horizons[0].id], base: [horizons[1].id] },
    );
    const table = made.find((o): o is ResultTable => o.kind === 'result table') as ResultTable;
    expect(table.rows.slice(0, 2).map((r) => r[0])).toEqual(['Thick', 'Thin']);
    expect(table.rows.some((r) => String(r[0]).startsWith('Blind: one half'))).toBe(true);
    await expect(run({}, { areas: ['Thin', 'Thick'] })).rejects.toThrow('need an upper and a lower surface');
  });

  test('say what they lack', async () => {
    await expect(run({}, {})).rejects.toThrow('no classes to learn from');
    await expect(run({ probabilityOf: 'Coal' }, wells)).rejects.toThrow('no facies “Coal”');
    const one = await run({}, { wells: ['W2'] });
    expect(one[0].madeBy.warnings.join(' ')).toContain('nothing could be tried blind');
  });
});
