import { LithagonError } from '../../earth/errors.ts';
import type { Volume, Wavelet, Well } from '../../earth/objects.ts';
import { smoothCorrelation } from '../../inversion/detail.ts';
import {
  factorOf,
  forwardOf,
  likeliestNoise,
  type NoiseFound,
  noiseShape,
  posteriorOf,
  powerOfWavelet,
  type StackResponse,
  stationary,
} from '../../inversion/posterior.ts';
import { type Level, type Response, responseOf, seen, type WellResiduals } from '../../inversion/traceInversion.ts';
import { during } from '../../numerics/stop.ts';
import { spreadTraces, traceAt } from '../../project/traces.ts';
import type { ElasticCurve } from '../../project/wells/timedLogs.ts';
import type { Store } from '../../storage/store.ts';
import type { WaveletShape } from '../../tie/wavelet.ts';
import { detailsOf, honour, ratioOf, wellLogs } from './wellEvidence.ts';

/** What an inversion is told: stacks with their wavelets, a model of each unknown with its deviation, and wells. */
export interface Told {
  stacks: { volume: Volume; wavelet: Wavelet; angle: number }[];
  models: { volume: Volume; deviation: Volume | undefined; curve: ElasticCurve }[];
  wells: Well[];
}

export interface ToldParams {
  fromMs: number;
  toMs: number;
  /** Deviation of a model that comes without one. */
  deviation: number;
  /** Whether wells are honoured, beside telling how rock varies. */
  wells: 'honoured' | 'left blind';
  rangeM: number;
}

/** All that one trace after another needs. */
export interface Known {
  kinds: number;
  /** First sample of the window, and samples in it. */
  k0: number;
  count: number;
  /** −1 for stacks in which an increase of impedance is negative. */
  signs: number[];
  responses: Response[];
  levels: Level[];
  noise: NoiseFound;
  /** Deviation of each unknown beyond its model. */
  details: number[];
  wells: WellResiduals[];
  /** How far logs are off, as a part. */
  logError: number;
  rangeM: number;
  notes: string[];
}

/** Levels of deviation of the model between which traces lie, of one unknown and of several. */
const LEVELS = [5, 2];
/** Samples of the parts of traces from which noise is told, and those beside them. */
const PART = 112;
const BESIDE = 16;
const PARTS = { lines: 8, each: 6 };
/** Low-pass of a model of which nothing says at what frequency it was cut, Hz. */
const CUT_HZ = 8;

const shapeOfWavelet = (w: Wavelet): WaveletShape => ({
  stepMs: w.stepMs,
  firstMs: w.firstMs,
  samples: Float64Array.from(w.samples),
});

/** What each stack sees; of one unknown at normal incidence, of three at its angle. */
export type Respond = (stack: { wavelet: WaveletShape; angle: number }, ratio: (k: number) => number) => StackResponse;

/** Bring together what an inversion of every trace needs: how rock varies, how much noise there is, and what follows from both. */
export async function knownFor(
  told: Told,
  p: ToldParams,
  respond: Respond,
  work: { store: Store; signal?: AbortSignal; factors?: boolean },
): Promise<Known> {
  const { store, signal } = work;
  const [{ volume }] = told.stacks;
  const { first, step, count: all } = volume.vertical;
  const index = (ms: number) => Math.round((ms - first) / step);
  const k0 = Math.max(0, Math.min(all, index(p.fromMs)));
  const count = Math.min(all, index(p.toMs) + 1) - k0;
  if (count < 24)
    throw new LithagonError(
      'window',
      `The window from ${p.fromMs} to ${p.toMs} ms holds ${Math.max(0, count)} samples of ${volume.name}; 24 are the least.`,
      {
        object: volume.name,
        fix: 'Widen the window. Nothing was changed.',
      },
    );
  const notes: string[] = [];
  const objects = await store.list();
  const logs = await wellLogs(store, objects, told, volume, notes);
  const kinds = told.models.length;
  const details = detailsOf(logs, told, k0, count, step);
  const ratio = ratioOf(logs, k0, count);
  const stacks = told.stacks.map(({ wavelet, angle }) => respond({ wavelet: shapeOfWavelet(wavelet), angle }, ratio));
  const cuts = told.models.map(({ volume: m }) => Number(m.madeBy.params.cutHz ?? CUT_HZ));
  const smooth = (lag: number) => smoothCorrelation(lag * step, cuts.reduce((a, b) => a + b, 0) / kinds);
  const signs = told.stacks.map((s) => (s.volume.polarity === 'harder-negative' ? -1 : 1));
  const prior = (background: number, n: number) => {
    const detail = stationary(details.covariance, (lag) => details.correlation[lag] ?? 0, n);
    const square = background ** 2;
    const model = stationary(
      Array.from({ length: kinds }, (_, a) =>
        Array.from({ length: kinds }, (_, b) => (a === b ? square * details.shares[a] ** 2 : 0)),
      ),
      smooth,
      n,
    );
    for (let q = 0; q < detail.length; q++) detail[q] += model[q];
    return detail;
  };
  const range = deviationsOf(told, p);
  // jumps of the first unknown stand for those of all
  const jumps = 0.5 * details.covariance[0][0] * (1 - (details.correlation[1] ?? 0));
  const ofWavelet = told.stacks.map(({ wavelet }, n) =>
    powerOfWavelet(stacks[n].wavelet, wavelet.estimate?.halfWidth, jumps, step),
  );
  const noise = await noiseOf(
    told,
    { k0, count, step, signs, ofWavelet },
    stacks,
    (n) => prior((range[0] + range[1]) / 2, n),
    store,
    signal,
  );
  const wanted = range[1] - range[0] < 1e-6 * (range[1] || 1) ? 1 : LEVELS[kinds === 1 ? 0 : 1];
  const shape = noiseShape(stacks, count, step, noise.white, noise.level, ofWavelet);
  const forward = forwardOf(stacks, count, step);
  const covariances: Float64Array[] = [];
  const levels = during(signal, () =>
    Array.from({ length: wanted }, (_, n): Level => {
      const background = wanted === 1 ? range[0] : range[0] + ((range[1] - range[0]) * n) / (wanted - 1);
      const found = posteriorOf(forward, prior(background, count), shape);
      if (!found)
        throw new LithagonError('inversion', 'Noise and rock together make no regular system.', {
          fix: 'Choose another wavelet.',
        });
      covariances.push(found.covariance);
      return {
        background,
        gain: found.gain,
        deviation: found.deviation,
        ...(work.factors ? { factor: factorOf(found, forward.unknowns) } : {}),
      };
    }),
  );
  notes.push(
    `The uncertainty of ${told.stacks.length === 1 ? 'the wavelet' : 'wavelets'} makes ${ofWavelet.map((v) => Math.sqrt(v).toPrecision(3)).join(', ')} rms of noise of its own.`,
  );
  const known: Known = {
    kinds,
    k0,
    count,
    signs,
    responses: stacks.map((s) => responseOf(s, count, step)),
    levels,
    noise,
    details: details.covariance.map((row, a) => Math.sqrt(row[a])),
    wells: [],
    logError: 0,
    rangeM: p.rangeM,
    notes,
  };
  if (p.wells === 'honoured') await honour(store, told, p, known, logs, covariances, signal);
  return known;
}

/** Least and greatest deviation of the model of the first unknown. */
function deviationsOf({ models: [{ deviation }] }: Told, p: ToldParams): [number, number] {
  return deviation ? [deviation.statistics.min, deviation.statistics.max] : [p.deviation, p.deviation];
}

async function noiseOf(
  told: Told,
  {
    k0,
    count,
    step,
    signs,
    ofWavelet,
  }: { k0: number; count: number; step: number; signs: number[]; ofWavelet: number[] },
  stacks: StackResponse[],
  prior: (n: number) => Float64Array,
  store: Store,
  signal?: AbortSignal,
): Promise<NoiseFound> {
  const part = Math.min(PART, count);
  const whole = Math.min(count, part + 2 * BESIDE);
  const lead = (whole - part) >> 1;
  const all = told.stacks[0].volume.vertical.count;
  const { data, bins } = await spreadTraces(store, told.stacks[0].volume, PARTS.lines, PARTS.each);
  const full = told.stacks.map((_, s) => responseOf(stacks[s], count, step));
  const residuals: number[] = [];
  const logs = new Float64Array(told.models.length * count);
  const made = new Float64Array(told.stacks.length * count);
  let used = 0;
  for (const [t, [i, j]] of bins.entries()) {
    const models = await Promise.all(told.models.map((m) => traceAt(store, m.volume, i, j)));
    const traces = await Promise.all(
      told.stacks.map((s, n) => (n === 0 ? data.subarray(t * all, (t + 1) * all) : traceAt(store, s.volume, i, j))),
    );
    for (const [u, m] of models.entries())
      for (let k = 0; k < count; k++) logs[u * count + k] = Math.log((m as Float32Array)[k0 + k]);
    if (logs.some((v) => v !== v) || traces.some((trace) => !trace || trace.some((v) => v !== v))) continue;
    seen(full, logs, count, made);
    // parts one below the other, in turn
    const room = count - whole;
    const from = room > 0 ? Math.round((((used * 5) % 8) / 7) * room) + lead : lead;
    for (let s = 0; s < traces.length; s++)
      for (let k = 0; k < part; k++)
        residuals.push(signs[s] * (traces[s] as Float32Array)[k0 + from + k] - made[s * count + from + k]);
    used++;
  }
  if (used < 4)
    throw new LithagonError('empty', 'Too few traces have both seismic and a model to tell noise by.', {
      object: told.stacks[0].volume.name,
      fix: 'Choose a model on the same bins. Nothing was changed.',
    });
  // of a longer piece of rock the middle is what was recorded
  const longer = forwardOf(stacks, whole, step);
  const rows = new Float64Array(stacks.length * part * longer.unknowns);
  for (let s = 0; s < stacks.length; s++)
    rows.set(
      longer.matrix.subarray((s * whole + lead) * longer.unknowns, (s * whole + lead + part) * longer.unknowns),
      s * part * longer.unknowns,
    );
  const forward = { matrix: rows, data: stacks.length * part, unknowns: longer.unknowns };
  return during(signal, () =>
    likeliestNoise(forward, prior(whole), stacks, Float64Array.from(residuals), part, step, ofWavelet),
  );
}
