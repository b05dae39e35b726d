import { beforeAll, describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import { toMap } from '../earth/binGrid.ts';
import type {
  EarthObject,
  Fault,
  Horizon,
  Picks,
  QuantityMap,
  ResultTable,
  SeismicLine,
  VelocityModel,
  Volume,
} from '../earth/objects.ts';
import { TOP_COLUMNS } from '../earth/objects.ts';
import { RunningStatistics } from '../numerics/statistics.ts';
import { newDrawn } from '../project/given.ts';
import { readModel } from '../project/velocityModel.ts';
import { readWhole, writeWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import { readPlane } from '../storage/planes.ts';
import type { Store } from '../storage/store.ts';
import { MADE, madeHorizon, named } from '../testing/objects.ts';
import { madeVolume } from '../testing/volume.ts';
import { depthOfTime, velocityOfTime } from '../velocity/column.ts';
import { runStep } from './index.ts';

const axis = (first: number, count: number) => ({ first, step: 1, count });
const GRID: BinGrid = {
  inline: axis(100, 12),
  crossline: axis(200, 18),
  origin: [1000, 2000],
  perInline: [0, 50],
  perCrossline: [50, 0],
};
const BINS = 12 * 18;
const [SEA, WATER] = [90, 1500];
const SEA_MS = (2000 * SEA) / WATER;

/** TWT of the two horizons. */
const upper = (i: number, j: number) => 600 + 5 * i + 3 * j;
const lower = (i: number, j: number) => 900 + 2 * i + 4 * j;
/** Interval velocity by time, faster to the east. */
const speed = (j: number, t: number) => 1700 + 6 * j + 0.5 * t;

let store: Store;
const run = async (step: string, name: string, inputs: Record<string, string[]>, params = {}) => {
  const made = await runStep({ step, name, inputs, params }, store);
  return { made, first: made[0], warnings: made[0].madeBy.warnings };
};
const idOf = async (name: string) => (await named(store, name)).id;
const valuesOf = async (object: EarthObject) => readWhole(store, (object as Horizon).values);

/** Depth at a bin by adding up the velocities that the earth has. */
function depthTo(j: number, t: number): number {
  let z = 0;
  for (let s = 0; s < t; s += 1) z += ((s < SEA_MS ? WATER : speed(j, s)) * Math.min(1, t - s)) / 2000;
  return z;
}

async function well(name: string, i: number, j: number) {
  const [x, y] = toMap(GRID, i, j);
  const base = { revision: '1', stage: 'wells', madeBy: MADE };
  const tops = [
    ['Upper', depthTo(j, upper(i, j))],
    ['Lower', depthTo(j, lower(i, j))],
  ] as const;
  const table = (kind: 'tops' | 'checkshots', rows: (string | number | null)[][]) =>
    ({
      ...base,
      id: `${kind}-${name}`,
      kind,
      name: `${name} ${kind}`,
      well: name,
      rows,
      columns: kind === 'tops' ? TOP_COLUMNS : [],
    }) as unknown as EarthObject;
  const shots = Array.from({ length: 11 }, (_, n) => 150 + 80 * n).map((t) => [null, depthTo(j, t), t, null]);
  await store.commit({
    put: [
      { ...base, id: `well-${name}`, kind: 'well', name, x, y, kbM: 0, totalMdM: 2000 } as EarthObject,
      table(
        'tops',
        tops.map(([top, z]) => [top, z, null]),
      ),
      table('checkshots', shots),
    ],
  });
}

/** A 2D line of reflectors, with its water, sediment and crust. */
async function line(): Promise<SeismicLine> {
  const path = Array.from({ length: 120 }, (_, n): [number, number] => [9000 + 25 * n, 4000 + 10 * n]);
  const count = 501;
  const data = Float32Array.from({ length: 120 * count }, (_, n) => Math.sin(0.15 * (n % count)));
  const statistics = new RunningStatistics();
  statistics.add(data);
  const made: SeismicLine = {
    id: 'line',
    kind: 'seismic line',
    name: 'Line',
    revision: '1',
    stage: 'data',
    madeBy: MADE,
    domain: 'twt',
    quantity: 'amplitude',
    unit: '',
    vertical: { first: 0, step: 8, count },
    path,
    cdps: path.map((_, n) => n + 1),
    samples: await writeWhole(store, 'line/samples', [120, count], data, ['trace', 'sample']),
    statistics: statistics.finish(),
  };
  const picks = (name: string, every: number, t: (n: number) => number) =>
    newDrawn<Picks>({
      kind: 'picks',
      name,
      domain: 'twt',
      event: 'peak',
      points: path.flatMap(([x, y], n): Picks['points'] => (n % every === 0 ? [[x, y, t(n)]] : [])),
      erased: [],
    });
  await store.commit({
    put: [
      made,
      picks('Bed of the sea', 7, (n) => 1000 + n),
      picks('Top of crust', 10, (n) => 2400 + 3 * n),
      picks('Deep', 13, () => 3600),
    ],
  });
  return made;
}

beforeAll(async () => {
  store = memoryStore();
  await madeHorizon(store, 'Sea', 'depth', () => SEA, GRID);
  await madeHorizon(store, 'Upper', 'twt', upper, GRID);
  await madeHorizon(store, 'Lower', 'twt', lower, GRID);
  await madeVolume(store, (i, j, k) => Math.sin(0.31 * k + 0.2 * i) * Math.cos(0.023 * k * (1 + 0.01 * j)), {
    binGrid: GRID,
    samples: 301,
    first: 0,
    name: 'Seismic',
  });
  const cube = async (name: string, of: (j: number, t: number) => number, more: Partial<Volume> = {}) => {
    const made = await madeVolume(store, (_, j, k) => of(j, 20 * k), {
      binGrid: GRID,
      samples: 61,
      first: 0,
      step: 20,
      name,
    });
    const volume = { ...made, quantity: 'interval velocity' as const, unit: 'm/s', ...more };
    await store.commit({ put: [volume] });
    return volume;
  };
  const inWater = (j: number, t: number) => (t < SEA_MS ? WATER : speed(j, t + 10));
  await cube('Interval', inWater);
  await cube('Bad', (j, t) =>
    t > 300 && t < 400 ? -1 : t > 800 ? Number.NaN : t > 500 && t < 560 ? 0 : inWater(j, t),
  );
  await cube('Average', (j, t) => (t > 0 ? (2000 * depthTo(j, t)) / t : WATER), { quantity: 'average velocity' });
  await cube('Small', inWater, { binGrid: { ...GRID, crossline: axis(200, 18), perCrossline: [20, 0] } });
  for (const [name, i, j] of [
    ['A', 2, 3],
    ['B', 8, 14],
    ['C', 5, 9],
  ] as const)
    await well(name, i, j);
  await line();
}, 60_000);

const wells = ['well-A', 'well-B', 'well-C'];
const horizons = async () =>
  Promise.all(
    ['Upper', 'Lower'].map(
      async (n) => (await store.list()).find((o) => o.name === n && (o as Horizon).domain === 'twt')?.id as string,
    ),
  );

/** Greatest departure of a horizon in depth from the earth, m. */
const worst = (values: Float32Array, times: (i: number, j: number) => number) =>
  values.reduce((m, z, n) => Math.max(m, Math.abs(z - depthTo(n % 18, times(Math.floor(n / 18), n % 18)))), 0);

describe('by a velocity volume alone', () => {
  test('a horizon and a volume go to depth with no horizon, well or model', async () => {
    const [top] = await horizons();
    for (const name of ['Interval', 'Average']) {
      const { first } = await run('depth.horizon', `By ${name}`, { horizon: [top], model: [await idOf(name)] });
      expect(first).toMatchObject({ kind: 'horizon', domain: 'depth', top: 'Upper' });
      expect(worst(await valuesOf(first), upper)).toBeLessThan(0.5);
    }
    const { first } = await run('depth.volume', 'In depth', {
      volume: [await idOf('Seismic')],
      model: [await idOf('Interval')],
    });
    const made = first as Volume;
    expect(made).toMatchObject({ domain: 'depth', quantity: 'amplitude', vertical: { first: 0, step: 4 } });
    // as deep as the data go where they go deepest
    const last = made.vertical.step * (made.vertical.count - 1);
    expect(last).toBeGreaterThanOrEqual(depthTo(17, 1200) - 1);
    expect(last).toBeLessThan(depthTo(17, 1200) + 6);
  });
  test('time to depth and back keeps the samples of the band to a thousandth', async () => {
    const [volume, model] = [await idOf('Seismic'), await idOf('Interval')];
    const there = await run('depth.volume', 'There', { volume: [volume], model: [model] }, { stepM: 2 });
    const back = await run('depth.volume', 'Back', { volume: [there.first.id], model: [model] }, { stepMs: 4 });
    const [a, b] = [await named<Volume>(store, 'Seismic'), back.first as Volume];
    expect(b).toMatchObject({ domain: 'twt', vertical: { first: 0, step: 4 } });
    const [was, now] = [await readPlane(store, a, 'inline', 5), await readPlane(store, b, 'inline', 5)];
    let [signal, noise] = [0, 0];
    for (let j = 0; j < 18; j++)
      for (let k = 20; k < 270; k++) {
        const [v, w] = [was[j * 301 + k], now[j * b.vertical.count + k]];
        signal += v * v;
        noise += (v - w) ** 2;
      }
    expect(10 * Math.log10(signal / noise)).toBeGreaterThan(60);
  });
  test('negative, zero and missing velocities are told by those around them, and that is said', async () => {
    const [top] = await horizons();
    const { first, warnings } = await run('depth.horizon', 'By bad', { horizon: [top], model: [await idOf('Bad')] });
    expect(warnings.join(' ')).toMatch(/% of the samples of Bad are nothing, less or not there/);
    expect(worst(await valuesOf(first), upper)).toBeLessThan(3);
    const none = await madeVolume(store, () => -3, { binGrid: GRID, samples: 5, first: 0, step: 20, name: 'None' });
    await store.commit({ put: [{ ...none, quantity: 'interval velocity', unit: 'm/s' }] });
    await expect(run('depth.horizon', 'X', { horizon: [top], model: [none.id] })).rejects.toThrow(
      'holds no velocity above nothing',
    );
  });
  test('a volume that does not cover the survey leaves empty what it does not reach, and says how much', async () => {
    const [top] = await horizons();
    const horizon = await run('depth.horizon', 'By small', { horizon: [top], model: [await idOf('Small')] });
    expect(horizon.warnings.join(' ')).toMatch(/\d+ bins of Upper lie where there is no velocity/);
    const volume = await run('depth.volume', 'V by small', {
      volume: [await idOf('Seismic')],
      model: [await idOf('Small')],
    });
    expect(volume.warnings.join(' ')).toMatch(/\d+ of 216 traces lie where there is no velocity: they are empty/);
    const away = await named<Volume>(store, 'Small');
    await store.commit({ put: [{ ...away, id: 'away', name: 'Away', binGrid: { ...GRID, origin: [90000, 2000] } }] });
    await expect(run('depth.volume', 'X', { volume: [await idOf('Seismic')], model: ['away'] })).rejects.toThrow(
      'No trace of Seismic lies where the velocities are',
    );
  });
  test('what is by age, or has no velocity for a model, is refused with what to do', async () => {
    const seismic = await named<Volume>(store, 'Seismic');
    await store.commit({ put: [{ ...seismic, id: 'aged', name: 'Aged', domain: 'age' }] });
    await expect(run('depth.volume', 'X', { volume: ['aged'], model: [await idOf('Interval')] })).rejects.toThrow(
      'is by age',
    );
    await expect(run('depth.volume', 'X', { volume: [seismic.id], model: [seismic.id] })).rejects.toThrow(
      'holds amplitude, and interval velocity or RMS velocity',
    );
  });
});

describe('layers', () => {
  test('each goes by a law of its own; typed numbers stay where a fit is used', async () => {
    const inputs = {
      horizons: await horizons(),
      wells,
      seaBed: [await idOf('Sea')],
      velocity: [await idOf('Interval')],
    };
    const rows = [
      { base: 'Upper', law: 'from top to base', use: 'fitted to wells', v0: 1234, vBase: 2345 },
      { base: 'Lower', law: 'velocity volume' },
    ];
    const { first, made } = await run('depth.layers', 'Mixed', inputs, { layers: rows });
    const model = first as VelocityModel;
    expect(model.layers.map((l) => l.form)).toEqual(['from top to base', 'velocity volume']);
    expect(model.layers[0].v0).toBeGreaterThan(1700);
    expect(model.madeBy.params.layers).toMatchObject([{ v0: 1234, vBase: 2345 }, {}]);
    // each layer keeps what wells have of it
    expect(model.layers[0].wells).toHaveLength(3);
    expect((made[1] as ResultTable).rows).toHaveLength(6);
    const honoured = await run('depth.correct', 'Mixed at wells', { model: [model.id], wells });
    for (const [n, id] of (await horizons()).entries()) {
      const { first } = await run('depth.horizon', `Mixed ${n}`, { horizon: [id], model: [honoured.first.id], wells });
      expect(worst(await valuesOf(first), n ? lower : upper)).toBeLessThan(15);
    }
    const typed = await run('depth.layers', 'Typed', inputs, { layers: [{ ...rows[0], use: 'typed' }] });
    expect((typed.first as VelocityModel).layers[0]).toMatchObject({ v0: 1234, vBase: 2345, points: 0 });
  });
  test('a law that needs a volume, and a layer without any velocity, say what to do', async () => {
    const inputs = { horizons: await horizons() };
    await expect(run('depth.layers', 'X', inputs, { law: 'velocity volume' })).rejects.toThrow('none was chosen');
    await expect(run('depth.layers', 'X', inputs)).rejects.toThrow('No well has a top “Upper”');
    const { warnings } = await run('depth.layers', 'Odd', { ...inputs, wells }, { layers: [{ base: 'Nowhere' }] });
    expect(warnings.join(' ')).toContain('No boundary is called “Nowhere”');
  });
  test('where a horizon is missing its layer goes on from around, and where horizons cross there is none', async () => {
    const gap = await madeHorizon(
      store,
      'Gap',
      'twt',
      (i, j) => (i > 3 && i < 7 && j > 5 && j < 10 ? Number.NaN : lower(i, j)),
      GRID,
    );
    const cross = await madeHorizon(store, 'Cross', 'twt', (i, j) => upper(i, j) + 40 - 6 * j, GRID);
    const [top] = await horizons();
    const seaBed = [await idOf('Sea')];
    const inputs = { horizons: [top, gap.id], wells, seaBed };
    const { first, warnings } = await run('depth.layers', 'With a gap', inputs, {
      layers: [{ base: 'Gap', law: 'constant', v0: 2300 }],
    });
    expect(warnings.join(' ')).toMatch(/Gap is missing at 12 of 216 bins: the time from Upper to it was carried on/);
    const times = await readWhole(
      store,
      (first as VelocityModel).layers[1].times as NonNullable<VelocityModel['seaBed']>,
    );
    times.forEach((t, n) => {
      expect(Math.abs(t - lower(Math.floor(n / 18), n % 18))).toBeLessThan(1.5);
    });
    const laws = { layers: ['Upper', 'Cross'].map((base) => ({ base, law: 'constant', v0: 2000 })) };
    const crossing = await run('depth.layers', 'Crossing', { horizons: [top, cross.id], seaBed }, laws);
    expect(crossing.warnings.join(' ')).toMatch(
      /lies above .* at \d+ of 216 bins: there is no layer between them there/,
    );
    const model = await readModel(store, crossing.first as VelocityModel);
    const column = model.column(...toMap(GRID, 3, 0));
    expect(column?.boundaries[1].z).toBeCloseTo(column?.boundaries[0].z ?? 0, 6);
    const nothing = await madeHorizon(store, 'Elsewhere', 'twt', () => 800, { ...GRID, origin: [90000, 0] });
    await expect(run('depth.layers', 'X', { horizons: [top, nothing.id], wells })).rejects.toThrow(
      'Elsewhere has no time where the model lies',
    );
  });
  test('water, sediment and crust between picks on a 2D line, and the line in depth', async () => {
    const picks = await Promise.all(['Bed of the sea', 'Top of crust', 'Deep'].map(idOf));
    const layers = [
      { base: 'Bed of the sea', law: 'constant', v0: 1500 },
      { base: 'Top of crust', law: 'from top to base', v0: 1500, vBase: 2400 },
      { base: 'Deep', law: 'from top to base', v0: 5500, vBase: 6500 },
    ];
    await expect(run('depth.layers', 'X', { horizons: picks }, { layers })).rejects.toThrow('Picks alone do not say');
    const { first } = await run('depth.layers', 'Three layers', { horizons: picks, line: ['line'] }, { layers });
    const model = await readModel(store, first as VelocityModel);
    const seismic = await named<SeismicLine>(store, 'Line');
    const column = model.column(...seismic.path[53]);
    if (!column) throw new Error('the line lies on the model');
    const [sea, crust] = [1053, 2400 + 3 * 53];
    expect(column.boundaries[0].z).toBeCloseTo((1500 * sea) / 2000, 3);
    // evenly from 1500 to 2400: thickness is the difference over the gradient
    const k = (2000 * Math.log(2400 / 1500)) / (crust - sea);
    expect(column.boundaries[1].z - column.boundaries[0].z).toBeCloseTo(900 / k, 2);
    expect(velocityOfTime(column, sea + 0.001)).toBeCloseTo(1500, 1);
    expect(velocityOfTime(column, crust - 0.001)).toBeCloseTo(2400, 1);
    expect(velocityOfTime(column, 3599)).toBeCloseTo(6500, -1);
    const deep = await run('depth.line', 'Line in depth', { line: ['line'], model: [first.id] }, { stepM: 10 });
    expect(deep.first).toMatchObject({ kind: 'seismic line', domain: 'depth', vertical: { first: 0, step: 10 } });
    const back = await run('depth.line', 'Line back', { line: [deep.first.id], model: [first.id] }, { stepMs: 8 });
    expect(back.first).toMatchObject({ domain: 'twt' });
    const turned = await run('depth.picks', 'Picks', { picks, model: [first.id] });
    expect(turned.made).toHaveLength(3);
    expect((turned.made[1] as Picks).points[3][2]).toBeCloseTo(
      model.column(...seismic.path[30])?.boundaries[1].z ?? 0,
      3,
    );
  });
});

describe('wells', () => {
  test('alone, along a volume, or by a single law without boundaries, honour themselves', async () => {
    const inputs = { horizons: await horizons(), wells, seaBed: [await idOf('Sea')] };
    const velocity = [await idOf('Interval')];
    const cases = [
      ['none', inputs],
      ['depth of burial', inputs],
      ['velocity volume', { ...inputs, velocity }],
      ['burial and volume', { ...inputs, velocity }],
      ['none', { wells, seaBed: inputs.seaBed }],
    ] as const;
    for (const [drift, given] of cases) {
      const { first, warnings } = await run('depth.wells', `W ${drift}`, given as Record<string, string[]>, { drift });
      const model = await readModel(store, first as VelocityModel);
      for (const [i, j] of [
        [2, 3],
        [8, 14],
        [5, 9],
      ]) {
        const column = model.column(...toMap(GRID, i, j));
        const t = 'horizons' in given ? lower(i, j) : 950;
        const z = column ? depthOfTime(column, t) : Number.NaN;
        expect(Math.abs(z - depthTo(j, t))).toBeLessThan('horizons' in given ? 0.6 : 3);
      }
      if (drift === 'velocity volume')
        expect(warnings.join(' ')).toMatch(/wells are [01]\.\d+ times as fast as Interval/);
      if (drift === 'burial and volume') expect(warnings[0]).toMatch(/Interval counts \d+ of a hundred/);
    }
    await expect(run('depth.wells', 'X', inputs, { drift: 'velocity volume' })).rejects.toThrow('none was chosen');
  });
  test('residuals before and after, with each well left out, stand in a table', async () => {
    const inputs = { horizons: await horizons(), wells, seaBed: [await idOf('Sea')] };
    const { first } = await run('depth.layers', 'Laws', inputs);
    const { made } = await run('depth.correct', 'At wells', { model: [first.id], wells });
    const table = made[1] as ResultTable;
    expect(table.rows).toHaveLength(6);
    const column = (name: string) => table.rows.map((r) => Number(r[table.columns.findIndex((c) => c.name === name)]));
    expect(Math.max(...column('Residual before').map(Math.abs))).toBeGreaterThan(0.5);
    expect(Math.max(...column('Residual after').map(Math.abs))).toBeLessThan(1e-3);
    const out = column('Residual with the well left out');
    expect(out.every(Number.isFinite)).toBe(true);
    expect(Math.max(...out.map(Math.abs))).toBeGreaterThan(0.5);
    const renamed = {
      ...(first as VelocityModel),
      id: 'strange',
      name: 'Strange',
      layers: (first as VelocityModel).layers.map((l) => ({ ...l, base: `${l.base}!` })),
    };
    await store.commit({ put: [renamed] });
    await expect(run('depth.correct', 'X', { model: ['strange'], wells })).rejects.toThrow('No chosen well has a top');
  });
});

describe('models together', () => {
  test('zones come from models and a volume, with a factor', async () => {
    const models = [await idOf('Laws'), await idOf('W none')];
    const zones = [
      { base: 'Upper', from: 'volume', factor: 1.02 },
      { base: 'Lower', from: 'W none', factor: 0.9 },
    ];
    const { first } = await run('depth.model', 'Mix', { models, velocity: [await idOf('Interval')] }, { zones });
    const [mix, none] = await Promise.all(
      [first as VelocityModel, await named<VelocityModel>(store, 'W none')].map((m) => readModel(store, m)),
    );
    const at = toMap(GRID, 6, 6);
    const [a, b] = [mix.column(...at), none.column(...at)];
    if (!a || !b) throw new Error('both reach there');
    expect(velocityOfTime(a, 300)).toBeCloseTo(1.02 * speed(6, 300 + 10), -1);
    expect(velocityOfTime(a, 800) / velocityOfTime(b, 800)).toBeCloseTo(0.9, 6);
    await expect(run('depth.model', 'X', { models }, { zones: [{ base: 'Upper', from: 'volume' }] })).rejects.toThrow(
      'none was chosen',
    );
    await expect(run('depth.model', 'X', { models }, { zones: [{ base: 'Nowhere' }] })).rejects.toThrow(
      'has no zone down to “Nowhere”',
    );
    await expect(run('depth.model', 'X', { models }, { zones: [{ base: 'Upper', from: 'Someone' }] })).rejects.toThrow(
      'No model called “Someone”',
    );
  });
  test('faults go to depth stick by stick, and back to where they were', async () => {
    const sticks: Fault['sticks'] = [2, 6, 9].map((i) =>
      [400, 700, 1000].map((t): [number, number, number] => [...toMap(GRID, i, 4 + t / 200), t]),
    );
    const fault = newDrawn<Fault>({ kind: 'fault', name: 'F', domain: 'twt', sticks });
    await store.commit({ put: [fault] });
    const model = [await idOf('Laws')];
    const deep = await run('depth.faults', 'Deep', { faults: [fault.id], model });
    expect(deep.first).toMatchObject({ kind: 'fault', domain: 'depth' });
    const back = await run('depth.faults', 'Back', { faults: [deep.first.id], model });
    (back.first as Fault).sticks.flat().forEach((p, n) => {
      expect(p[2]).toBeCloseTo(sticks.flat()[n][2], 6);
    });
    const away = newDrawn<Fault>({ kind: 'fault', name: 'Away', domain: 'twt', sticks: [[[0, 0, 500]]] });
    await store.commit({ put: [away] });
    await expect(run('depth.faults', 'X', { faults: [away.id], model })).rejects.toThrow(
      'No point of Away lies where there is a velocity',
    );
  });
  test('uncertainty is small at wells and grows from them; realizations are kept together; closures are told', async () => {
    const ids = await horizons();
    const { made, warnings } = await run(
      'depth.uncertainty',
      'U',
      { model: [await idOf('At wells')], horizons: ids, wells },
      { realizations: 20, keep: 2, rangeM: 1000 },
    );
    expect(warnings.join(' ')).toMatch(/off by \d\.\d % where no well is: by how 6 factors of wells scatter/);
    const maps = made.filter((o): o is QuantityMap => o.kind === 'map');
    expect(maps).toHaveLength(2);
    const deviation = await readWhole(store, maps[0].values);
    expect(deviation[2 * 18 + 3]).toBeLessThan(0.5 * deviation[11 * 18]);
    expect(maps[0].unit).toBe('m');
    const kept = made.filter((o) => o.kind === 'horizon');
    expect(kept.map((o) => o.name)).toEqual([
      'Realization 1 of Upper',
      'Realization 2 of Upper',
      'Realization 1 of Lower',
      'Realization 2 of Lower',
    ]);
    const table = made.find((o) => o.kind === 'result table') as ResultTable;
    expect(table.rows.filter((r) => r[0] === 'Upper').map((r) => r[1])).toEqual([
      'highest place',
      'spill',
      'height of the closure',
      'deviation at the highest place',
    ]);
    expect(kept.length).toBeLessThan(BINS);
    const other = await madeHorizon(store, 'Other', 'twt', () => 700, GRID);
    await expect(
      run('depth.uncertainty', 'X', { model: [await idOf('At wells')], horizons: [other.id], wells }),
    ).rejects.toThrow('Other is no boundary of At wells');
  });
});
