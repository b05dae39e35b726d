import { z } from 'zod';
import { toMap } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { Fault, Horizon, ResultTable, Volume, Well } from '../../earth/objects.ts';
import type { Quantity } from '../../earth/quantities.ts';
import type { LocalStep } from '../../engine/local.ts';
import { gridAt } from '../../horizons/grid.ts';
import {
  atBed,
  type BedAxis,
  LEAST_WELLS,
  type LogByBed,
  lagsOf,
  lowPassed,
  type Spread,
  spreader,
  spreadOf,
  variogramOf,
} from '../../inversion/background.ts';
import { type FaultTrace, faultTrace, placeAt } from '../../inversion/faultSides.ts';
import { bedAt, inOrder, type Layering, layeringOf } from '../../inversion/layering.ts';
import { type Lag, semivarianceAt, VARIOGRAMS, type VariogramFit } from '../../inversion/variogram.ts';
import { sizeOf } from '../../numerics/block.ts';
import { binsAlong, samplesAlong } from '../../project/traces.ts';
import { ELASTIC_CURVES, type TimedLog, timedLog } from '../../project/wells/timedLogs.ts';
import { onBinsOf } from '../../project/windows.ts';
import { readWhole } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';
import { choice, type Draft, defineStep, number, text, wellsInput } from '../define.ts';

const params = z.object({
  curve: text(
    { title: 'Log', description: 'That is spread: an elastic one, or any curve.', names: 'log' },
    'P impedance',
  ),
  cutHz: number(
    { title: 'Up to', description: 'Frequencies of the logs that are kept.', unit: 'Hz' },
    { min: 1, max: 60, step: 0.5, initial: 8 },
  ),
  shape: choice({ title: 'Variogram', description: 'Its shape.' }, [...VARIOGRAMS], 'exponential'),
  fit: choice(
    { title: 'Range and sill', description: 'Fitted to the differences of wells, or typed.' },
    ['fitted', 'typed'],
    'fitted',
  ),
  rangeM: number(
    {
      title: 'Range',
      description: 'Where it is typed: distance at which wells tell nothing of each other.',
      unit: 'm',
    },
    { min: 50, max: 100000, step: 50, initial: 3000 },
  ),
  deviation: number(
    {
      title: 'Deviation',
      description:
        'Where it is typed: standard deviation far from wells, as a part; in the unit of the log for one that is not elastic.',
    },
    { min: 0.0001, max: 1e6, step: 0.005, initial: 0.06 },
  ),
  acrossM: number(
    {
      title: 'A fault counts for',
      description: 'Distance by which places on its two sides are further apart.',
      unit: 'm',
    },
    { min: 0, max: 100000, step: 100, initial: 1000 },
  ),
});
type Params = z.infer<typeof params>;

/** What is spread, and over what. */
interface Prepared {
  spread: Spread;
  layering: Layering;
  /** TWT of each horizon on the bins; none where ages are followed. */
  horizons: Float32Array[];
  traces: FaultTrace[];
  /** Whether values are logarithms. */
  log: boolean;
  lags: Lag[];
  fitted: VariogramFit | null;
  notes: string[];
}

interface Ready extends Prepared {
  like: Volume;
  age: Volume | undefined;
  acrossM: number;
  at: ReturnType<typeof spreader>['at'];
}

/** How curves are kept as volumes; those that are positive are spread as logarithms. */
const KEPT: Record<string, { quantity: Quantity; unit: string }> = {
  'P impedance': { quantity: 'impedance', unit: 'kg/m²s' },
  'P velocity': { quantity: 'interval velocity', unit: 'm/s' },
  'S velocity': { quantity: 'S velocity', unit: 'm/s' },
  density: { quantity: 'density', unit: 'kg/m3' },
};

const elastic = (curve: string) => (ELASTIC_CURVES as readonly string[]).includes(curve);

/** Horizons from the top down by their mean times. */
const sorted = (horizons: Horizon[]) => [...horizons].sort((a, b) => a.range[0] + a.range[1] - b.range[0] - b.range[1]);

/** Numbers of the beds that a log passes, at its own fine times. */
async function bedsOf(
  store: Store,
  log: TimedLog,
  given: { horizons: { values: Float32Array; of: Horizon }[]; layering: Layering; age: Volume | undefined },
): Promise<Float64Array> {
  const { horizons, layering, age } = given;
  const out = new Float64Array(log.values.length);
  if (age) {
    const along = await samplesAlong(store, age, binsAlong(age, log.place));
    const { first, step, count } = age.vertical;
    for (let n = 0; n < out.length; n++) {
      const x = (log.firstMs + n * log.stepMs - first) / step;
      const k = Math.max(0, Math.min(count - 2, Math.floor(x)));
      out[n] = x < 0 || x > count - 1 ? Number.NaN : along[k] + (x - k) * (along[k + 1] - along[k]);
    }
    return out;
  }
  const times = new Float64Array(horizons.length);
  for (let n = 0; n < out.length; n++) {
    const ms = log.firstMs + n * log.stepMs;
    const [x, y] = log.place(ms);
    for (const [h, { values, of }] of horizons.entries()) times[h] = gridAt(values, of.binGrid, x, y);
    inOrder(layering, times);
    out[n] = bedAt(layering, times, ms);
  }
  return out;
}

/** A log by bed: means of its low frequencies over even steps, and where it passes them. */
function byBed(
  log: TimedLog,
  low: Float64Array,
  beds: Float64Array,
  axis: BedAxis,
  traces: FaultTrace[],
  acrossM: number,
): LogByBed {
  const [sums, counts, times] = [
    new Float64Array(axis.count),
    new Float64Array(axis.count),
    new Float64Array(axis.count),
  ];
  for (let n = 0; n < low.length; n++) {
    const k = Math.round((beds[n] - axis.first) / axis.step);
    if (!(k >= 0 && k < axis.count) || low[n] !== low[n]) continue;
    sums[k] += low[n];
    times[k] += log.firstMs + n * log.stepMs;
    counts[k]++;
  }
  return {
    well: log.well,
    values: sums.map((s, k) => (counts[k] > 0 ? s / counts[k] : Number.NaN)),
    places: Array.from(counts, (c, k) => {
      const [x, y] = log.place(c > 0 ? times[k] / c : log.firstMs);
      return placeAt(traces, acrossM, x, y);
    }),
  };
}

async function prepareBackground(
  given: Record<string, unknown>,
  { store, params: p }: { store: Store; params: Params },
): Promise<Prepared> {
  const like = given.like as Volume;
  const age = given.age as Volume | undefined;
  const wells = given.wells as Well[];
  const faults = (given.faults ?? []) as Fault[];
  const chosen = sorted((given.horizons ?? []) as Horizon[]);
  const objects = await store.list();
  const notes: string[] = [];
  const horizons = await Promise.all(chosen.map(async (of) => ({ of, values: await readWhole(store, of.values) })));
  const onBins = await Promise.all(chosen.map((h) => onBinsOf(store, h, like.binGrid)));
  const layering = layeringOf(age ? [] : onBins);
  if (!age && chosen.length === 0)
    throw new LithagonError(
      'input',
      'Nothing tells how beds run between wells: neither horizons nor ages were chosen.',
      {
        fix: 'Choose horizons in time, or relative ages. Nothing was changed.',
      },
    );
  const level =
    layering.marks.length > 0
      ? layering.marks[layering.marks.length >> 1]
      : like.vertical.first + (like.vertical.step * like.vertical.count) / 2;
  const traces = faults.filter((f) => f.domain === 'twt').map((f) => faultTrace(f.sticks, level));
  const found: { log: TimedLog; low: Float64Array; beds: Float64Array }[] = [];
  const positive = elastic(p.curve);
  for (const well of wells) {
    const log = await timedLog(store, objects, well, p.curve);
    if (typeof log === 'string') {
      notes.push(`${log}; it was left out.`);
      continue;
    }
    const values = positive ? log.values.map(Math.log) : log.values;
    const low = lowPassed(values, log.stepMs, p.cutHz);
    const beds = await bedsOf(store, log, { horizons, layering, age });
    found.push({ log, low, beds });
    const last = layering.marks[layering.marks.length - 1];
    let deepest = Number.NEGATIVE_INFINITY;
    for (let n = 0; n < beds.length; n++) if (low[n] === low[n]) deepest = Math.max(deepest, beds[n]);
    if (last !== undefined && deepest < last)
      notes.push(
        `The ${p.curve} of ${well.name} ends above ${chosen[chosen.length - 1].name}; below its end it says nothing.`,
      );
  }
  if (found.length === 0)
    throw new LithagonError('background', `None of the wells has ${p.curve} in time.`, {
      fix: 'Choose tied wells that have it, or another log. Nothing was changed.',
    });
  let [from, to] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const { low, beds } of found)
    for (let n = 0; n < low.length; n++)
      if (low[n] === low[n] && beds[n] === beds[n]) {
        from = Math.min(from, beds[n]);
        to = Math.max(to, beds[n]);
      }
  const { step } = like.vertical;
  const axis: BedAxis = { first: from, step, count: Math.max(2, Math.floor((to - from) / step) + 1) };
  const logs = found.map(({ log, low, beds }) => byBed(log, low, beds, axis, traces, p.acrossM));
  const lags = lagsOf(logs, axis, p.cutHz);
  const farthest = 3 * Math.max(1000, ...lags.map((l) => l.distance));
  const fitted = p.fit === 'fitted' ? variogramOf(lags, logs.length, p.shape, farthest) : null;
  if (p.fit === 'fitted' && !fitted)
    throw new LithagonError(
      'background',
      logs.length < LEAST_WELLS
        ? `A variogram is fitted to ${LEAST_WELLS} wells or more, and ${logs.length === 1 ? 'one has' : `${logs.length} have`} ${p.curve}.`
        : 'The differences of the wells tell no variogram.',
      { fix: 'Choose more wells, or type range and deviation. Nothing was changed.' },
    );
  const variogram = fitted ?? { shape: p.shape, range: p.rangeM, sill: p.deviation ** 2 };
  return {
    spread: spreadOf(logs, axis, variogram),
    layering,
    horizons: age ? [] : onBins,
    traces,
    log: positive,
    lags,
    fitted,
    notes,
  };
}

const local: LocalStep<Params, Prepared, Ready> = {
  volumes: ['like', 'age'],
  own: ['age'],
  fills: true,
  halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
  prepareRestsOn: ['curve', 'cutHz', 'shape', 'fit', 'rangeM', 'deviation', 'acrossM'],
  prepare: (given, work) => prepareBackground(given, work),
  ready: (prepared, p, { like, age }) => ({
    ...prepared,
    like,
    age,
    acrossM: p.acrossM,
    at: spreader(prepared.spread).at,
  }),
  outputOf: (_, p, __, role) => {
    const own = KEPT[p.curve] ?? { quantity: 'attribute' as const, unit: '' };
    if (role === 'deviation')
      return elastic(p.curve) ? { quantity: 'spread', unit: '1' } : { ...own, polarity: undefined };
    return { ...own, polarity: undefined };
  },
  evaluate(blocks, _, ready, region) {
    const { like, layering, horizons, traces, acrossM, spread, log, at, age } = ready;
    const [ni, nj, nk] = sizeOf(region);
    const background = new Float32Array(ni * nj * nk);
    const deviation = new Float32Array(ni * nj * nk);
    const times = new Float64Array(horizons.length);
    const columns = like.binGrid.crossline.count;
    const { first, step } = like.vertical;
    for (let t = 0; t < ni * nj; t++) {
      const [i, j] = [region.i[0] + Math.floor(t / nj), region.j[0] + (t % nj)];
      const { means, variances } = at(placeAt(traces, acrossM, ...toMap(like.binGrid, i, j)));
      for (let h = 0; h < horizons.length; h++) times[h] = horizons[h][i * columns + j];
      inOrder(layering, times);
      for (let k = 0; k < nk; k++) {
        const ms = first + (region.k[0] + k) * step;
        let bed: number;
        if (age) {
          const { vertical } = age;
          const x = Math.max(0, Math.min(vertical.count - 1, (ms - vertical.first) / vertical.step));
          const n = Math.min(vertical.count - 2, Math.floor(x));
          const o = t * vertical.count;
          bed = blocks.age.data[o + n] + (x - n) * (blocks.age.data[o + n + 1] - blocks.age.data[o + n]);
        } else bed = bedAt(layering, times, ms);
        const mean = atBed(spread.axis, means, bed);
        background[t * nk + k] = log ? Math.exp(mean) : mean;
        const inside =
          bed >= spread.axis.first && bed <= spread.axis.first + spread.axis.step * (spread.axis.count - 1);
        // beyond every log nothing is sure
        deviation[t * nk + k] = Math.sqrt(inside ? atBed(spread.axis, variances, bed) : 2 * spread.variogram.sill);
      }
    }
    return { background, deviation };
  },
  says: ({ notes, fitted, lags }) => [
    ...notes,
    ...(fitted
      ? [
          `Variogram of ${lags.length} pairs of wells: range ${fitted.range.toFixed(0)} m (between ${fitted.ranges[0].toFixed(0)} and ${fitted.ranges[1].toFixed(0)} m fits no worse than twice as badly), deviation ${Math.sqrt(fitted.sill).toPrecision(3)}.`,
        ]
      : []),
  ],
};

export const background = defineStep({
  id: 'invert.background',
  version: 1,
  stage: 'invert',
  purpose: 'Absolute impedance',
  title: 'Low-frequency model',
  summary:
    'Spreads the low frequencies of a log from wells along horizons or ages, by kriging with a variogram that is fitted and shown; its deviation is nothing at wells and full far away.',
  formula: 'm(x, bed) = Σ λᵢ(x)·mᵢ(bed), Σ λᵢ = 1; deviation² = C(0) − λ·c.',
  avoid: 'With frequencies that seismic has: beds of one well are then painted over the field.',
  source:
    'Chilès & Delfiner (2012), Geostatistics, Wiley, ch. 3; variogram Cressie (1985), Mathematical Geology 17, 563–586',
  reach: 'local',
  inputs: {
    like: { kind: 'volume', title: 'On the samples of', domain: 'twt', quantity: ['amplitude', 'relative impedance'] },
    wells: wellsInput(['directional surveys', 'logs', 'checkshots', 'time-depth relation']),
    horizons: { kind: 'horizon', title: 'Along horizons', many: true, domain: 'twt', optional: true, begins: true },
    age: { kind: 'volume', title: 'Or along ages', quantity: ['relative age'], domain: 'twt', optional: true },
    faults: { kind: 'fault', title: 'Faults', many: true, domain: 'twt', optional: true },
  },
  params,
  outputs: {
    background: { kind: 'volume', title: 'Low-frequency model' },
    deviation: { kind: 'volume', title: 'Deviation of the model' },
    variogram: { kind: 'result table', title: 'Variogram' },
  },
  local,
  async run(context) {
    const { lags, spread } = (await context.prepared()) as Prepared;
    return { ...(await context.stored()), variogram: variogramTable(lags, spread) };
  },
});

function variogramTable(lags: Lag[], { variogram }: Spread): Draft<ResultTable> {
  return {
    kind: 'result table',
    columns: [
      { name: 'Distance', unit: 'm' },
      { name: 'Semivariance', unit: '' },
      { name: 'Model', unit: '' },
      { name: 'Pairs', unit: '' },
    ],
    rows: lags.map((l) => [l.distance, l.semivariance, semivarianceAt(variogram, l.distance), l.pairs]),
  };
}
