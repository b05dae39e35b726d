import { backwardRows, cholesky, forwardRows, logDeterminant, timesTransposed } from '../numerics/cholesky.ts';
import type { WaveletShape } from '../tie/wavelet.ts';

/**
 * Linear inversion with Gaussian errors in closed form (Buland & Omre 2003, Geophysics 68, 185–198). A trace of the logarithm of
 * impedance, or of Vp, Vs and density one after another, is `m`; what seismic sees of it is `d = G·m + e`.
 */
export interface Forward {
  /** `[datum][unknown]`. */
  matrix: Float64Array;
  data: number;
  unknowns: number;
}

/** A wavelet at any time, between its samples by straight lines; nothing outside. */
export function waveletAt(w: WaveletShape, ms: number): number {
  const x = (ms - w.firstMs) / w.stepMs;
  const n = Math.floor(x);
  if (n < 0 || n >= w.samples.length - 1) return n === w.samples.length - 1 && x === n ? w.samples[n] : 0;
  return w.samples[n] + (x - n) * (w.samples[n + 1] - w.samples[n]);
}

/** What a stack sees of contrasts in each unknown at a sample: `weights[unknown](k)` times the jump of its logarithm. */
export interface StackResponse {
  wavelet: WaveletShape;
  weights: ((k: number) => number)[];
}

/**
 * The forward model of traces of `count` samples: jumps of the logarithms between samples, weighed as the reflection coefficient has
 * them, and the wavelet of each stack about the time between the two samples.
 */
export function forwardOf(stacks: StackResponse[], count: number, stepMs: number): Forward {
  const kinds = stacks[0].weights.length;
  const [data, unknowns] = [stacks.length * count, kinds * count];
  const matrix = new Float64Array(data * unknowns);
  for (const [s, { wavelet, weights }] of stacks.entries())
    for (let i = 0; i < count; i++) {
      const row = (s * count + i) * unknowns;
      for (let b = 1; b < count; b++) {
        const w = waveletAt(wavelet, (i - b + 0.5) * stepMs);
        if (w === 0) continue;
        for (let u = 0; u < kinds; u++) {
          const v = w * weights[u](b);
          matrix[row + u * count + b] += v;
          matrix[row + u * count + b - 1] -= v;
        }
      }
    }
  return { matrix, data, unknowns };
}

/** One stack at normal incidence: half the jump of the logarithm of impedance. */
export const impedanceResponse = (wavelet: WaveletShape): StackResponse => ({ wavelet, weights: [() => 0.5] });

/**
 * A stack at an angle, of jumps of ln Vp, ln Vs and ln ρ (Aki & Richards 2002; Buland & Omre 2003, equations 2 and 3).
 * @param ratio Vs/Vp of the background at a sample
 */
export function angleResponse(wavelet: WaveletShape, angleDeg: number, ratio: (k: number) => number): StackResponse {
  const a = (angleDeg * Math.PI) / 180;
  const [sin2, tan2] = [Math.sin(a) ** 2, Math.tan(a) ** 2];
  return {
    wavelet,
    weights: [() => 0.5 * (1 + tan2), (k) => -4 * ratio(k) ** 2 * sin2, (k) => 0.5 * (1 - 4 * ratio(k) ** 2 * sin2)],
  };
}

/** What is known of a trace beside the data. */
export interface Prior {
  /** Covariance of the unknowns, `[unknown][unknown]`. */
  covariance: Float64Array;
  unknowns: number;
}

/** Covariance of unknowns of which each kind has the same correlation in time: `kinds[a][b] · along(lag)`, of a spread that changes along time. */
export function stationary(kinds: number[][], along: (lag: number) => number, count: number): Float64Array {
  const n = kinds.length * count;
  const out = new Float64Array(n * n);
  for (const [a, row] of kinds.entries())
    for (const [b, v] of row.entries())
      for (let p = 0; p < count; p++)
        for (let q = 0; q < count; q++) out[(a * count + p) * n + b * count + q] = v * along(Math.abs(p - q));
  return out;
}

/**
 * Covariance of noise, `[datum][datum]`: a part white, the rest in the wavelet's band, within each stack and between them not at all; and
 * beside it what an uncertain wavelet makes of reflections, which is white as they are.
 * @param level rms of each stack; @param ofWavelet power that its uncertainty makes of it
 */
export function noiseShape(
  stacks: Pick<StackResponse, 'wavelet'>[],
  count: number,
  stepMs: number,
  white: number,
  level: number[],
  ofWavelet: number[],
): Float64Array {
  const n = stacks.length * count;
  const out = new Float64Array(n * n);
  for (const [s, { wavelet }] of stacks.entries()) {
    // autocorrelation of the wavelet at lags of the sample interval
    const lags = Float64Array.from({ length: count }, (_, lag) => {
      let sum = 0;
      for (let k = 0; k < wavelet.samples.length; k++)
        sum += wavelet.samples[k] * waveletAt(wavelet, wavelet.firstMs + k * wavelet.stepMs + lag * stepMs);
      return sum;
    });
    const power = level[s] ** 2;
    for (let p = 0; p < count; p++)
      for (let q = 0; q < count; q++) {
        const lag = Math.abs(p - q);
        const coloured = lags[0] > 0 ? lags[lag] / lags[0] : 0;
        out[(s * count + p) * n + s * count + q] =
          power * ((1 - white) * coloured + (lag === 0 ? white : 0)) + (lag === 0 ? ofWavelet[s] : 0);
      }
  }
  return out;
}

/** G·C, `[datum][unknown]`, and G·C·Gᵀ. */
function carried({ matrix, data, unknowns }: Forward, covariance: Float64Array) {
  const gc = timesTransposed(matrix, data, covariance, unknowns, unknowns);
  return { gc, gcg: timesTransposed(gc, data, matrix, data, unknowns) };
}

/** What data say of the unknowns: `mean = prior + gain·(d − G·prior)`, whatever the data, and how sure that is. */
export interface Posterior {
  /** `[unknown][datum]`. */
  gain: Float32Array;
  /** Standard deviation of each unknown. */
  deviation: Float32Array;
  /** Covariance of the unknowns given the data, `[unknown][unknown]`. */
  covariance: Float64Array;
}

/** @returns null where the noise is nothing and the data cannot be independent */
export function posteriorOf(forward: Forward, prior: Float64Array, noise: Float64Array): Posterior | null {
  const { data, unknowns } = forward;
  const { gc, gcg } = carried(forward, prior);
  const a = gcg.map((v, n) => v + noise[n]);
  const l = cholesky(a, data);
  if (!l) return null;
  // columns of gc are the right sides: turned over they are rows
  const right = new Float64Array(unknowns * data);
  for (let d = 0; d < data; d++) for (let u = 0; u < unknowns; u++) right[u * data + d] = gc[d * unknowns + u];
  forwardRows(l, data, right, unknowns);
  const taken = timesTransposed(right, unknowns, right, unknowns, data);
  const covariance = prior.map((v, n) => v - taken[n]);
  backwardRows(l, data, right, unknowns);
  return {
    gain: Float32Array.from(right),
    deviation: Float32Array.from({ length: unknowns }, (_, u) => Math.sqrt(Math.max(0, covariance[u * unknowns + u]))),
    covariance,
  };
}

/** Factor of a posterior by which independent draws become correlated ones; what rounding took is made up for. */
export function factorOf({ covariance }: Pick<Posterior, 'covariance'>, unknowns: number): Float32Array {
  let most = 0;
  for (let u = 0; u < unknowns; u++) most = Math.max(most, covariance[u * unknowns + u]);
  for (let part = 1e-9; part < 1; part *= 10) {
    const raised = covariance.slice();
    for (let u = 0; u < unknowns; u++) raised[u * unknowns + u] += part * most;
    const l = cholesky(raised, unknowns);
    if (l) return Float32Array.from(l);
  }
  throw new Error('a covariance with a great diagonal has a factor');
}

/** Noise that makes what was recorded most likely. */
export interface NoiseFound {
  /** rms of the noise of each stack. */
  level: number[];
  /** Part of its power that is white. */
  white: number;
  /** rms of it with what uncertain wavelets make beside it. */
  all: number[];
}

/**
 * Power that an uncertain wavelet makes: that of reflections times the variances of its samples, summed over the sample interval of the data.
 * One without error bars is taken to be off by a part of its energy.
 */
export function powerOfWavelet(
  wavelet: WaveletShape,
  halfWidth: number[] | undefined,
  reflections: number,
  stepMs: number,
): number {
  const energy = (wavelet.samples.reduce((s, v) => s + v * v, 0) * wavelet.stepMs) / stepMs;
  const variances = halfWidth ? halfWidth.reduce((s, v) => s + (v / 1.645) ** 2, 0) : UNKNOWN_PART * energy;
  return reflections * variances;
}

/** Part of its energy by which a wavelet without error bars may be off. */
const UNKNOWN_PART = 0.05;

const WHITE = [0.02, 0.1, 0.3, 0.7];
/** From what part of the rms of the data noise is looked for, and the factor from one that is tried to the next. */
const TRIED = { from: 0.03, factor: 1.3, to: 1.2 };

/**
 * The noise under which traces are most likely, given what is expected of the rock (maximum of the marginal likelihood: MacKay 1992,
 * Neural Computation 4, 415–447). Stacks have the same part of noise.
 * @param residuals data less what the prior's mean makes, `[trace][datum]`
 */
export function likeliestNoise(
  forward: Forward,
  prior: Float64Array,
  stacks: Pick<StackResponse, 'wavelet'>[],
  residuals: Float64Array,
  count: number,
  stepMs: number,
  ofWavelet: number[],
): NoiseFound {
  const { data } = forward;
  const traces = residuals.length / data;
  const { gcg } = carried(forward, prior);
  const rms = stacks.map((_, s) => {
    let sum = 0;
    for (let t = 0; t < traces; t++) for (let k = 0; k < count; k++) sum += residuals[t * data + s * count + k] ** 2;
    return Math.sqrt(sum / (traces * count)) || 1;
  });
  let best = { level: rms, white: WHITE[0], value: Number.NEGATIVE_INFINITY };
  for (const white of WHITE)
    for (let part = TRIED.from; part < TRIED.to; part *= TRIED.factor) {
      const level = rms.map((v) => part * v);
      const noise = noiseShape(stacks, count, stepMs, white, level, ofWavelet);
      const l = cholesky(
        gcg.map((v, n) => v + noise[n]),
        data,
      );
      if (!l) continue;
      const rows = residuals.slice();
      forwardRows(l, data, rows, traces);
      const value = -0.5 * (rows.reduce((s, v) => s + v * v, 0) + traces * logDeterminant(l, data));
      if (value > best.value) best = { level, white, value };
    }
  return {
    level: best.level,
    white: best.white,
    all: best.level.map((v, s) => Math.hypot(v, Math.sqrt(ofWavelet[s]))),
  };
}
