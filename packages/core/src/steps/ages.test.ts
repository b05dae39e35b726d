import { beforeAll, describe, expect, test } from 'vitest';
import { type BinGrid, toMap } from '../earth/binGrid.ts';
import type { Fault, Horizon, QuantityMap, Volume } from '../earth/objects.ts';
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
    // beside the fault too
    const near = pairs.filter((_, n) => {
      const j = 2 + (Math.floor(n / 60) % (NJ - 4));
      const k = 20 + (n % 60);
      return Math.abs(j - AT - SLOPE * k) < 3 && Math.abs(j - AT - SLOPE * k) > 0.6;
    });
    const off = near.map((p) => slope * (p[0] - mx) + my - p[1]);
    expect(near.length).toBeGreaterThan(1000);
    expect(Math.sqrt(off.reduce((sum, v) => sum + v * v, 0) / off.length)).toBeLessThan(0.8);
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

  test('between nodes two apart it keeps to its own side of the fault', async () => {
    const inputs = { horizons: horizons.map((h) => h.id), faults: [fault.id] };
    const [each, second] = [
      await whole((await run(inputs))[0]),
      await whole((await run(inputs, { level: 'full' }))[0]),
    ];
    let [sum, count, most] = [0, 0, 0];
    for (let i = 3; i < NI - 3; i++)
      for (let k = 20; k < 80; k++)
        for (const j of [-2, -1, 0, 1, 2].map((d) => Math.round(AT + SLOPE * k + d))) {
          const n = (i * NJ + j) * NK + k;
          // on the fault itself a sample may be on either side
          if (Math.abs(j - AT - SLOPE * k) < 0.6) continue;
          const off = Math.abs(each[n] - second[n]) / STEP;
          sum += off * off;
          most = Math.max(most, off);
          count++;
        }
    expect(count).toBeGreaterThan(4000);
    // what is drawn across it would be off by half of the throw
    expect(Math.sqrt(sum / count)).toBeLessThan(0.7);
    expect(most).toBeLessThan(0.75 * THROWN);
  });

  test('throw ties the two sides where a horizon is on one of them alone', async () => {
    const one = await madeHorizon(
      store,
      'One side',
      'twt',
      (i, j) => (j > AT + SLOPE * (65 + fold(i, j) + THROWN / 2) ? (65 + fold(i, j) + THROWN / 2) * STEP : Number.NaN),
      GRID,
    );
    await store.commit({ put: [one] });
    const [thrown] = await runStep(
      {
        step: 'interpret.throw',
        inputs: { fault: [fault.id], seismic: [seismic.id] },
        params: { most: 80, window: 64 },
      },
      store,
    );
    const jump = async (throws: string[]) => {
      const [volume] = await run({ horizons: [one.id], faults: [fault.id], throws });
      const ages = await whole(volume);
      const off: number[] = [];
      for (let i = 6; i < NI - 6; i++)
        for (let k = 35; k < 75; k++) {
          const at = Math.round(AT + SLOPE * k);
          const age = (j: number) => ages[(i * NJ + j) * NK + k] / STEP + fold(i, j) + side(j, k);
          off.push(Math.abs(age(at + 5) - age(at - 5)));
        }
      off.sort((a, b) => a - b);
      return off[off.length >> 1];
    };
    const untied = await jump([]);
    expect(untied).toBeGreaterThan(2.5);
    expect(await jump([thrown.id])).toBeLessThan(Math.min(1.5, untied / 2));
  });

  test('is solved again only below a surface, and keeps what is above', async () => {
    const inputs = { horizons: horizons.map((h) => h.id), faults: [fault.id] };
    const [before] = await run({ horizons: [horizons[0].id] });
    const surface = await madeHorizon(store, 'Valid', 'twt', () => 45 * STEP, GRID);
    await store.commit({ put: [surface] });
    const [after] = await run({ ...inputs, before: [before.id], beneath: [surface.id] });
    const [a, b] = [await whole(before), await whole(after)];
    let moved = 0;
    for (let n = 0; n < a.length; n++) {
      if (n % NK <= 45) expect(b[n]).toBeCloseTo(a[n], 4);
      else moved = Math.max(moved, Math.abs(a[n] - b[n]));
    }
    expect(moved).toBeGreaterThan(STEP);
    await expect(run({ ...inputs, before: [before.id] })).rejects.toThrow('both the ages so far and the surface');
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

describe('by age', () => {
  const byAge = async (params: Record<string, unknown> = {}) => {
    const [age, misfit] = await run({ horizons: horizons.map((h) => h.id), faults: [fault.id] });
    const [flat] = (await runStep(
      { step: 'interpret.flatten', inputs: { volume: [seismic.id], age: [age.id] }, params: { step: 4, ...params } },
      store,
    )) as Volume[];
    return { age, misfit, flat };
  };

  test('beds are level, and come back to where they were', async () => {
    const { age, flat } = await byAge();
    expect(flat.domain).toBe('age');
    expect(flat.quantity).toBe('amplitude');
    const { first, step, count } = flat.vertical;
    const data = await readRegion(store, flat, { i: [0, NI], j: [0, NJ], k: [0, count] });
    // a level of one age is one bed, on both sides of the fault: what varies along it is noise
    let [within, between] = [0, 0];
    for (let n = 0; n < count; n++) {
      const a = first + n * step;
      if (a < 110 || a > 290) continue;
      const own: number[] = [];
      for (let i = 4; i < NI - 4; i++)
        for (let j = 4; j < NJ - 4; j++) {
          const v = data[(i * NJ + j) * count + n];
          if (v === v) own.push(v);
        }
      const mean = own.reduce((sum, v) => sum + v, 0) / own.length;
      within += own.reduce((sum, v) => sum + (v - mean) ** 2, 0) / own.length;
      between += mean * mean;
    }
    expect(within).toBeLessThan(0.25 * between);
    const [back] = (await runStep(
      { step: 'interpret.unflatten', inputs: { volume: [flat.id], age: [age.id] }, params: {} },
      store,
    )) as Volume[];
    expect([back.domain, back.quantity]).toEqual(['twt', 'amplitude']);
    const [was, is] = [await whole(seismic), await whole(back)];
    let [off, all] = [0, 0];
    for (let i = 4; i < NI - 4; i++)
      for (let j = 4; j < NJ - 4; j++)
        for (let k = 25; k < 75; k++) {
          const n = (i * NJ + j) * NK + k;
          if (Math.abs(j - AT - SLOPE * k) < 1.5) continue;
          off += (is[n] - was[n]) ** 2;
          all += was[n] ** 2;
        }
    expect(off / all).toBeLessThan(0.03);
  });

  test('a horizon has one age, and comes back to where it was', async () => {
    const { age } = await byAge();
    const turn = async (id: string) =>
      (await runStep(
        { step: 'interpret.horizonAge', inputs: { horizon: [id], age: [age.id] }, params: {} },
        store,
      )) as Horizon[];
    const [own] = await turn(horizons[1].id);
    expect(own.domain).toBe('age');
    const ages = (await readWhole(store, own.values)).filter((v) => !Number.isNaN(v)).sort((a, b) => a - b);
    expect(ages[Math.floor(0.95 * ages.length)] - ages[Math.floor(0.05 * ages.length)]).toBeLessThan(STEP);
    const [back] = await turn(own.id);
    expect(back.domain).toBe('twt');
    const [was, is] = [await readWhole(store, horizons[1].values), await readWhole(store, back.values)];
    let held = 0;
    for (let t = 0; t < was.length; t++) {
      if (Number.isNaN(was[t]) || Number.isNaN(is[t])) continue;
      // beside the fault the same age may be met on its other side first
      if (Math.abs((t % NJ) - AT - (SLOPE * was[t]) / STEP) < 2) continue;
      expect(Math.abs(was[t] - is[t])).toBeLessThan(0.01);
      held++;
    }
    expect(held).toBeGreaterThan(0.8 * NI * NJ);
  });

  test('thickness is even where beds are, and so is growth across the fault', async () => {
    const { age } = await byAge();
    const made = await runStep(
      {
        step: 'interpret.sequences',
        inputs: { age: [age.id], faults: [fault.id] },
        params: { from: 120, to: 280, bands: 4 },
      },
      store,
    );
    const thickness = made.find((o) => 'madeBy' in o && o.madeBy.output === 'thickness') as Volume;
    const { mean } = thickness.statistics;
    expect(mean).toBeGreaterThan(0.9);
    expect(mean).toBeLessThan(1.1);
    const table = made.find((o) => o.kind === 'result table');
    const rows = (table as unknown as { rows: (string | number)[][] }).rows;
    expect(rows).toHaveLength(4);
    for (const row of rows) {
      expect(row[0]).toBe('Parting');
      expect(row[5]).toBeGreaterThan(0.8);
      expect(row[5]).toBeLessThan(1.25);
    }
  });

  test('ages are valid to the end where they keep to the dips, and no further than a limit', async () => {
    const { age, misfit } = await byAge();
    const valid = async (params: Record<string, unknown>) => {
      const [surface, reason] = (await runStep(
        { step: 'interpret.ageValid', inputs: { age: [age.id], misfit: [misfit.id] }, params },
        store,
      )) as [Horizon, QuantityMap];
      return { values: await readWhole(store, surface.values), why: await readWhole(store, reason.values), reason };
    };
    const all = await valid({ mostMisfit: 4 });
    const ends = all.values.filter((v) => v === (NK - 1) * STEP).length;
    expect(ends).toBeGreaterThan(0.8 * NI * NJ);
    expect(all.reason.classes?.[0]).toBe('to the end of the ages');
    const none = await valid({ mostMisfit: 0.02, mostBad: 0.05, window: 40 });
    expect(none.values.filter((v) => v < (NK - 1) * STEP).length).toBeGreaterThan(0.8 * NI * NJ);
    expect([...none.why].filter((v) => v === 3).length).toBeGreaterThan(0.5 * NI * NJ);
  });

  test('beds that are cut at an unconformity are painted, and its surface is proposed', async () => {
    const own = memoryStore();
    const cut = {
      ...(await madeVolume(own, (_, j, k) => beds(k < 50 ? k : k - 0.5 * j), {
        binGrid: GRID,
        samples: NK,
        first: 0,
        step: STEP,
        name: 'Cut',
      })),
      quantity: 'amplitude' as const,
    };
    // older by 80 below it
    const age = {
      ...(await madeVolume(own, (_, j, k) => (k < 50 ? 4 * k : 4 * (k - 0.5 * j) + 140), {
        binGrid: GRID,
        samples: NK,
        first: 0,
        step: STEP,
        name: 'Age',
      })),
      quantity: 'relative age' as const,
    };
    await own.commit({ put: [cut, age] });
    const made = await runStep(
      { step: 'interpret.terminations', inputs: { seismic: [cut.id], age: [age.id] }, params: {} },
      own,
    );
    const laps = made.find((o) => 'madeBy' in o && o.madeBy.output === 'laps') as Volume;
    const data = await readRegion(own, laps, { i: [16, 17], j: [6, NJ - 6], k: [0, NK] });
    const below = [...data].filter((v) => v === 4).length;
    expect(below).toBeGreaterThan(0.6 * 10 * (NJ - 12));
    // above it beds go along
    for (let n = 0; n < data.length; n++) if (n % NK < 44) expect(data[n]).toBeNaN();
    const proposed = made.filter((o): o is Horizon => o.kind === 'horizon');
    expect(proposed).toHaveLength(1);
    const at = await readWhole(own, proposed[0].values);
    expect(proposed[0].filled).toBeGreaterThan(0.9);
    for (const v of at) if (v === v) expect(v).toBeCloseTo(49.5 * STEP, 3);
  });
});
