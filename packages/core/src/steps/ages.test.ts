import { beforeAll, describe, expect, test } from 'vitest';
import { type BinGrid, toMap } from '../earth/binGrid.ts';
import type { Fault, Horizon, Volume } from '../earth/objects.ts';
import { readWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import { MADE, madeHorizon, TURNED } from '../testing/objects.ts';
import { normal } from '../testing/random.ts';
import { madeVolume } from '../testing/volume.ts';
import { runStep } from './index.ts';

const [NI, NJ, NK, STEP] = [33, 37, 100, 4];
const GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1000, step: 1, count: NI },
  crossline: { first: 2000, step: 1, count: NJ },
};
const FULL = { level: 'full', thinInlines: 1, thinCrosslines: 1, thinSamples: 1 };

/** Beds without a period. */
const beds = (k: number) => {
  let v = 0;
  for (let n = 1; n <= 14; n++) v += Math.sin(0.06 * n * k + 2.3 * n * n) / (1 + 0.03 * n);
  return v;
};
const fold = (i: number, j: number) => 4 * Math.sin(i / 10) + 3 * Math.cos(j / 12);
/** Where the fault stands, and how far (samples) it throws. */
const [AT, SLOPE, THROWN] = [14, 0.1, 8];
const side = (j: number, k: number) => (j > AT + SLOPE * k ? THROWN / 2 : -THROWN / 2);

let store: Store;
let seismic: Volume;
let horizons: Horizon[];
let fault: Fault;
beforeAll(async () => {
  store = memoryStore();
  const random = normal(2);
  seismic = {
    ...(await madeVolume(store, (i, j, k) => beds(k - fold(i, j) - side(j, k)) + 0.15 * random(), {
      binGrid: GRID,
      samples: NK,
      first: 0,
      step: STEP,
      name: 'Folded',
    })),
    quantity: 'amplitude',
  };
  const bed = (at: number) => (i: number, j: number) => {
    // where a bed is, on the side of the fault that it is on there
    const [hanging, foot] = [THROWN / 2, -THROWN / 2].map((s) => at + fold(i, j) + s);
    const k = j > AT + SLOPE * hanging ? hanging : j <= AT + SLOPE * foot ? foot : Number.NaN;
    return k * STEP;
  };
  horizons = await Promise.all([30, 65].map((at, n) => madeHorizon(store, `Bed ${n}`, 'twt', bed(at), GRID)));
  fault = {
    id: 'fault-parting',
    name: 'Parting',
    kind: 'fault',
    revision: '1',
    stage: 'interpret',
    madeBy: MADE,
    domain: 'twt',
    sticks: Array.from({ length: 6 }, (_, n) =>
      [-4, 50, 104].map((k): [number, number, number] => [
        ...toMap(GRID, -1 + (n * (NI + 1)) / 5, AT + SLOPE * k),
        k * STEP,
      ]),
    ),
  };
  await store.commit({ put: [seismic, ...horizons, fault] });
});

const run = (inputs: Record<string, string[]>, params: Record<string, unknown> = FULL) =>
  runStep({ step: 'interpret.age', inputs: { seismic: [seismic.id], ...inputs }, params }, store) as Promise<Volume[]>;
const whole = (volume: Volume) => readRegion(store, volume, { i: [0, NI], j: [0, NJ], k: [0, NK] });

describe('relative age of a volume', () => {
  test('is that of its beds on both sides of a fault, within half a sample, and holds its horizons', async () => {
    const [volume, misfit] = await run({ horizons: horizons.map((h) => h.id), faults: [fault.id] });
    expect(volume.quantity).toBe('relative age');
    expect(misfit.unit).toBe('ms');
    const ages = await whole(volume);
    // ages are relative: what is compared is what a straight line makes of them
    const pairs: [found: number, truth: number][] = [];
    for (let i = 2; i < NI - 2; i++)
      for (let j = 2; j < NJ - 2; j++)
        for (let k = 20; k < 80; k++) pairs.push([ages[(i * NJ + j) * NK + k] / STEP, k - fold(i, j) - side(j, k)]);
    const mean = (of: (p: [number, number]) => number) => pairs.reduce((sum, p) => sum + of(p), 0) / pairs.length;
    const [mx, my] = [mean((p) => p[0]), mean((p) => p[1])];
    const slope = mean((p) => (p[0] - mx) * (p[1] - my)) / mean((p) => (p[0] - mx) ** 2);
    expect(slope).toBeCloseTo(1, 1);
    expect(Math.sqrt(mean((p) => (slope * (p[0] - mx) + my - p[1]) ** 2))).toBeLessThan(0.5);
    // where a horizon lies there is one age
    for (const horizon of horizons) {
      const values = await readWhole(store, horizon.values);
      const own: number[] = [];
      for (let t = 0; t < values.length; t++) {
        const k = values[t] / STEP;
        if (!(k > 0)) continue;
        const low = Math.floor(k);
        // the fault itself has no age
        if (side(t % NJ, low - 3) !== side(t % NJ, low + 4)) continue;
        own.push((ages[t * NK + low] + (k - low) * (ages[t * NK + low + 1] - ages[t * NK + low])) / STEP);
      }
      const middle = own.reduce((sum, v) => sum + v, 0) / own.length;
      expect(Math.max(...own.map((v) => Math.abs(v - middle)))).toBeLessThan(0.5);
    }
    // down every trace ages rise
    for (let n = 1; n < ages.length; n++)
      if (n % NK > 0) expect(ages[n]).toBeGreaterThan(ages[n - 1] - THROWN * STEP - 1);
  });

  test('its slices are horizons of one age, and a place gives the one through it', async () => {
    const [volume] = await run({ horizons: horizons.map((h) => h.id), faults: [fault.id] });
    const slices = (await runStep(
      { step: 'interpret.ageSlices', inputs: { age: [volume.id] }, params: { count: 5, from: 120, to: 280 } },
      store,
    )) as Horizon[];
    expect(slices.map((s) => s.name)).toEqual([1, 2, 3, 4, 5].map((n) => `Age slice ${n}`));
    const [third] = await Promise.all([readWhole(store, slices[2].values)]);
    const [x, y] = toMap(GRID, 20, 8);
    const [through] = (await runStep(
      {
        step: 'interpret.ageSlices',
        inputs: { age: [volume.id] },
        params: { take: 'through a place', x, y, at: third[20 * NJ + 8] },
      },
      store,
    )) as Horizon[];
    const values = await readWhole(store, through.values);
    expect(values[20 * NJ + 8]).toBeCloseTo(third[20 * NJ + 8], 1);
    for (let t = 0; t < values.length; t++)
      if (!Number.isNaN(values[t]) && !Number.isNaN(third[t])) expect(Math.abs(values[t] - third[t])).toBeLessThan(1);
    // on beds: they follow the fold, and step at the fault
    const [a, b] = [third[16 * NJ + 4], third[16 * NJ + 34]].map((z, n) => z / STEP - fold(16, n ? 34 : 4));
    expect(b - a).toBeGreaterThan(0.7 * THROWN);
    expect(b - a).toBeLessThan(1.3 * THROWN);
    await expect(
      runStep({ step: 'interpret.ageSlices', inputs: { age: [volume.id] }, params: { from: 9000, to: 9100 } }, store),
    ).rejects.toThrow('No sample of');
  });

  test('is left out above and below what limits it', async () => {
    const [volume] = await run({ horizons: horizons.map((h) => h.id) }, { ...FULL, level: 'low', from: 100, to: 300 });
    const ages = await whole(volume);
    for (let k = 0; k < NK; k++) expect(Number.isNaN(ages[k])).toBe(k * STEP < 100 || k * STEP > 300);
  });

  test('horizons that contradict each other are named with the place', async () => {
    const crossing = await madeHorizon(store, 'Crossing', 'twt', (i, j) => (i === 20 && j === 9 ? 300 : 100), GRID);
    await store.commit({ put: [crossing] });
    await expect(run({ horizons: [crossing.id, horizons[1].id] })).rejects.toThrow(
      /Crossing lies below Bed 1 in 1 bins, by \d+ ms at inline 1020, crossline 2009/,
    );
  });

  test('what is above an unconformity and what is below are solved apart', async () => {
    const own = memoryStore();
    const truncated = {
      ...(await madeVolume(own, (_, j, k) => beds(k < 50 ? k : k - 0.5 * j), {
        binGrid: GRID,
        samples: NK,
        first: 0,
        step: STEP,
        name: 'Truncated',
      })),
      quantity: 'amplitude' as const,
    };
    const upper = await madeHorizon(own, 'Upper', 'twt', () => 80, GRID);
    const lower = await madeHorizon(own, 'Lower', 'twt', (_, j) => (55 + 0.5 * j) * STEP, GRID);
    const cut = await madeHorizon(own, 'Cut', 'twt', () => 198, GRID);
    await own.commit({ put: [truncated, upper, lower, cut] });
    const [volume] = (await runStep(
      {
        step: 'interpret.age',
        inputs: { seismic: [truncated.id], horizons: [upper.id, lower.id], unconformities: [cut.id] },
        params: FULL,
      },
      own,
    )) as Volume[];
    const ages = await readRegion(own, volume, { i: [16, 17], j: [0, NJ], k: [0, NK] });
    const at = (j: number, k: number) => ages[j * NK + k];
    // above it beds lie flat, below they dip, up to it on both sides
    for (let j = 4; j < NJ - 5; j++) {
      expect(Math.abs(at(j, 46) - at(j + 1, 46))).toBeLessThan(0.8);
      expect(at(j, 58) - at(j + 1, 58)).toBeGreaterThan(1);
    }
  });
});
