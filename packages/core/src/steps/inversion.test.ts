import { beforeAll, describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import type { EarthObject, QuantityMap, ResultTable, Volume } from '../earth/objects.ts';
import { readWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import { madeHorizon, TURNED } from '../testing/objects.ts';
import { normal } from '../testing/random.ts';
import { madeVolume } from '../testing/volume.ts';
import { bedsOf, wellsInTime } from '../testing/wellsInTime.ts';
import { runStep } from './index.ts';

const GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1, step: 1, count: 16 },
  crossline: { first: 1, step: 1, count: 18 },
};
const [FIRST, STEP, COUNT] = [300, 4, 180];
const WELLS: [number, number][] = [
  [3, 3],
  [12, 4],
  [4, 14],
  [13, 14],
];

let store: Store;
const named = new Map<string, EarthObject>();
const ids = (...names: string[]) => names.map((name) => named.get(name)?.id ?? `no ${name}`);
const keep = (objects: EarthObject[]) => {
  for (const o of objects) named.set(o.name, o);
  return objects;
};
const run = async (
  step: string,
  inputs: Record<string, string[]>,
  params: Record<string, unknown> = {},
  name?: string,
) => keep(await runStep({ step, inputs, params, name }, store));

/** ln impedance at a sample of the earth that the wells stand in: that of the first two wells, mixed across the lines. */
const [west, east] = [bedsOf(0), bedsOf(1)];
function rock(i: number, k: number): number {
  const at = (beds: Float64Array) => {
    let sum = 0;
    for (let n = 0; n < 8; n++)
      sum += beds[Math.round((FIRST + (k - 0.5) * STEP - 120) * 2) + n] ?? beds[beds.length - 1];
    return 1.25 * (sum / 8) + Math.log(310);
  };
  const f = i / (GRID.inline.count - 1);
  return (1 - f) * at(west) + f * at(east);
}

beforeAll(async () => {
  store = memoryStore();
  const wells = await wellsInTime(store, GRID, WELLS);
  await store.commit({ put: wells });
  keep(wells);
  const wavelet = named.get('Wavelet') as Extract<EarthObject, { kind: 'wavelet' }>;
  const w = (ms: number) => wavelet.samples[Math.round((ms - wavelet.firstMs) / wavelet.stepMs)] ?? 0;
  const random = normal(33);
  const seismic = await madeVolume(
    store,
    (i, _, k) => {
      let sum = 30 * random();
      for (let b = Math.max(1, k - 16); b <= Math.min(COUNT - 1, k + 16); b++)
        sum += 0.5 * (rock(i, b) - rock(i, b - 1)) * w((k - b + 0.5) * STEP);
      return sum;
    },
    { binGrid: GRID, samples: COUNT, first: FIRST, step: STEP, name: 'Seismic' },
  );
  await store.commit({ put: [seismic] });
  keep([
    seismic,
    await madeHorizon(store, 'Top', 'twt', () => 500, GRID),
    await madeHorizon(store, 'Base', 'twt', () => 760, GRID),
    await madeHorizon(store, 'Deep', 'twt', () => 2400, GRID),
  ]);
  const own = ids('W-1', 'W-2', 'W-3', 'W-4');
  await run('invert.background', { like: ids('Seismic'), wells: own, horizons: ids('Top', 'Base') }, {}, 'Model');
  await run(
    'invert.impedance',
    {
      seismic: ids('Seismic'),
      wavelet: ids('Wavelet'),
      background: ids('Model'),
      deviation: ids('Deviation of the model of Seismic'),
      wells: own.slice(0, 2),
    },
    { fromMs: 340, toMs: 980 },
    'Impedance',
  );
}, 120_000);

describe('an inversion', () => {
  test('is nearer to the rock than its model, and its spread covers the rock about as often as it says', async () => {
    const of = (name: string) => named.get(name) as Volume;
    const [model, mean, spread] = await Promise.all(
      [of('Model'), of('Impedance'), of('Spread of impedance of Seismic')].map((v) =>
        readRegion(store, v, { i: [7, 10], j: [8, 11], k: [0, COUNT] }),
      ),
    );
    let [before, after, inside, all] = [0, 0, 0, 0];
    for (let n = 0; n < mean.length; n++) {
      const k = n % COUNT;
      if (Number.isNaN(mean[n]) || k < 16 || k > 160) continue;
      const truth = rock(7 + Math.floor(n / (3 * COUNT)), k);
      before += (Math.log(model[n]) - truth) ** 2;
      const e = Math.log(mean[n]) - truth;
      after += e * e;
      all++;
      if (Math.abs(e) < 1.2816 * spread[n]) inside++;
    }
    expect(after).toBeLessThan(0.7 * before);
    expect(inside / all).toBeGreaterThan(0.55);
    expect(mean.some(Number.isNaN)).toBe(true);
  });
  test('leaves no more of the seismic than the noise that was found', async () => {
    const misfit = await readWhole(store, (named.get('Misfit of Seismic') as QuantityMap).values);
    expect(Math.max(...misfit)).toBeLessThan(1.1);
  });
  test('tells its noise, what logs vary by and which wells it honours', () => {
    const said = named.get('Impedance')?.madeBy.warnings.join(' ') ?? '';
    expect(said).toMatch(/Noise is \d/);
    expect(said).toContain('W-1, W-2 are honoured');
  });
  test('has realizations that agree with logs at wells and differ elsewhere; their count is a probability', async () => {
    const made = await run('invert.realizations', { of: ids('Impedance') }, { count: 12, fromMs: 500, toMs: 760 });
    expect(made).toHaveLength(12);
    const error = Number(/off by ([\d.]+) %/.exec(named.get('Impedance')?.madeBy.warnings.join(' ') ?? '')?.[1]) / 100;
    const spreadAt = async (i: number, j: number) => {
      const traces = await Promise.all(
        made.map((v) => readRegion(store, v as Volume, { i: [i, i + 1], j: [j, j + 1], k: [0, 60] })),
      );
      let sum = 0;
      for (let k = 0; k < 60; k++) {
        const logs = traces.map((t) => Math.log(t[k]));
        const mean = logs.reduce((a, b) => a + b, 0) / logs.length;
        sum += logs.reduce((s, v) => s + (v - mean) ** 2, 0) / (logs.length - 1);
      }
      return Math.sqrt(sum / 60);
    };
    expect(await spreadAt(...WELLS[0])).toBeLessThan(1.3 * error);
    expect(await spreadAt(9, 9)).toBeGreaterThan(await spreadAt(...WELLS[0]));
    const [part] = await run(
      'invert.probability',
      { volumes: made.map((v) => v.id) },
      { gives: 'range of realizations', from: 0, to: 1e9 },
    );
    expect((part as Volume).statistics).toMatchObject({ min: 1, max: 1 });
    const [mean] = await run(
      'invert.probability',
      { volumes: made.map((v) => v.id) },
      { gives: 'mean of realizations' },
    );
    expect((mean as Volume).quantity).toBe('impedance');
  });
});

describe('net pay', () => {
  test('comes with maps of what it was made of, and a table of wells and the sum', async () => {
    await run(
      'invert.operator',
      { seismic: ids('Seismic'), wells: ids('W-1', 'W-2', 'W-3') },
      { fromMs: 320, toMs: 1000 },
      'Operator',
    );
    await run('invert.coloured', { seismic: ids('Seismic'), operator: ids('Operator') }, {}, 'Relative');
    const made = await run(
      'invert.netPay',
      { impedance: ids('Relative'), top: ids('Top'), base: ids('Base'), wells: ids('W-1', 'W-2') },
      {},
      'Pay',
    );
    expect(made.map((o) => o.kind)).toEqual(['map', 'map', 'map', 'map', 'map', 'result table']);
    const table = made[5] as ResultTable;
    expect(table.rows.slice(0, 2).map((r) => r[0])).toEqual(['W-1', 'W-2']);
    const [low, middle, high] = ['P90', 'P50', 'P10'].map((p) =>
      Number(table.rows.find((r) => String(r[0]).includes(p))?.[5]),
    );
    expect(low).toBeLessThan(middle);
    expect(middle).toBeLessThan(high);
  });
  test('of a top that lies under its base is refused', async () => {
    await expect(
      run(
        'invert.netPay',
        { impedance: ids('Relative'), top: ids('Base'), base: ids('Top'), wells: [] },
        { scaleBy: 'typed' },
      ),
    ).rejects.toThrow('Base lies under Top at 288 of 288 bins, so the two are no top and base.');
  });
  test('of a volume whose band nobody knows is refused', async () => {
    const other = {
      ...(named.get('Seismic') as Volume),
      id: 'other',
      name: 'Other',
      quantity: 'relative impedance' as const,
    };
    await store.commit({ put: [other] });
    await expect(
      run('invert.netPay', { impedance: ['other'], top: ids('Top'), base: ids('Base'), wells: [] }),
    ).rejects.toThrow('Other was not made by an operator, so its band is not known.');
    await store.commit({ remove: ['other'] });
  });
});

describe('what cannot be has its sentence', () => {
  test('fewer wells than a variogram needs', async () => {
    await expect(
      run('invert.background', { like: ids('Seismic'), wells: ids('W-1', 'W-2'), horizons: ids('Top') }),
    ).rejects.toThrow('A variogram is fitted to 3 wells or more, and 2 have P impedance.');
    const [model] = await run(
      'invert.background',
      { like: ids('Seismic'), wells: ids('W-1'), horizons: ids('Top') },
      { fit: 'typed', rangeM: 500, deviation: 0.1 },
    );
    expect((model as Volume).quantity).toBe('impedance');
  });
  test('a log that ends above the deepest horizon', async () => {
    const [model] = await run('invert.background', {
      like: ids('Seismic'),
      wells: ids('W-1', 'W-2', 'W-3'),
      horizons: ids('Top', 'Deep'),
    });
    expect(model.madeBy.warnings.join(' ')).toContain(
      'The P impedance of W-1 ends above Deep; below its end it says nothing.',
    );
  });
  test('neither horizons nor ages, a log that no well has, a window without samples, a wedge of nothing', async () => {
    await expect(run('invert.background', { like: ids('Seismic'), wells: ids('W-1') })).rejects.toThrow(
      'Nothing tells how beds run between wells',
    );
    await expect(
      run('invert.background', { like: ids('Seismic'), wells: ids('W-1'), horizons: ids('Top') }, { curve: 'caliper' }),
    ).rejects.toThrow('None of the wells has caliper in time.');
    await expect(run('invert.operator', { seismic: ids('Seismic') }, { fromMs: 990, toMs: 1000 })).rejects.toThrow(
      'a spectrum needs 24',
    );
    await expect(run('invert.wedge', {})).rejects.toThrow('A wedge needs a wavelet, or an operator');
    await expect(run('invert.realizations', { of: ids('Model') })).rejects.toThrow('is no inversion with a spread');
    await expect(run('invert.probability', {})).rejects.toThrow('Neither an inversion nor realizations were chosen.');
  });
  test('a stack on other lines, one without an angle', async () => {
    const other = await madeVolume(store, (i) => i, {
      binGrid: { ...GRID, origin: [0, 0] },
      samples: COUNT,
      first: FIRST,
      step: STEP,
      name: 'Far 25-35 degrees',
    });
    const near = { ...(named.get('Seismic') as Volume), id: 'near', name: 'Near 5-15 degrees' };
    await store.commit({ put: [other, near] });
    await expect(run('invert.interceptGradient', { stacks: ['near', other.id] })).rejects.toThrow(
      'Far 25-35 degrees and Near 5-15 degrees do not lie on the same',
    );
    await expect(run('invert.interceptGradient', { stacks: ['near', ids('Seismic')[0]] })).rejects.toThrow(
      'Seismic has no angle',
    );
  });
  test('a wedge has its tuning told, and its curve kept', async () => {
    const [table] = await run('invert.wedge', { wavelet: ids('Wavelet') }, { mostM: 60 });
    expect(table.madeBy.warnings[0]).toMatch(/^Tuned at \d/);
    expect((table as ResultTable).rows).toHaveLength(60);
  });
});
