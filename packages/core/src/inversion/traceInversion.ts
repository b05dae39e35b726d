import type { WaveletShape } from '../tie/wavelet.ts';
import { krigerOf, type Place } from './kriging.ts';
import type { Posterior, StackResponse } from './posterior.ts';

/** What a stack makes of a trace of logarithms: its wavelet between samples, and the weight of each unknown's jumps. */
export interface Response {
  /** The wavelet at (lag + ½) samples, from −half on. */
  kernel: Float64Array;
  half: number;
  /** `[unknown][sample]`. */
  weights: Float64Array[];
}

export function responseOf({ wavelet, weights }: StackResponse, count: number, stepMs: number): Response {
  const reach = Math.max(-wavelet.firstMs, wavelet.firstMs + wavelet.stepMs * (wavelet.samples.length - 1));
  const half = Math.ceil(reach / stepMs) + 1;
  return {
    half,
    kernel: Float64Array.from({ length: 2 * half + 1 }, (_, n) => at(wavelet, (n - half + 0.5) * stepMs)),
    weights: weights.map((w) => Float64Array.from({ length: count }, (_, k) => w(k))),
  };
}

function at(w: WaveletShape, ms: number): number {
  const x = (ms - w.firstMs) / w.stepMs;
  const n = Math.floor(x);
  if (n < 0 || n >= w.samples.length - 1) return 0;
  return w.samples[n] + (x - n) * (w.samples[n + 1] - w.samples[n]);
}

/** What stacks see of a trace of logarithms, `[stack][sample]`. */
export function seen(responses: Response[], logs: Float64Array, count: number, out: Float64Array): void {
  out.fill(0);
  for (const [s, { kernel, half, weights }] of responses.entries())
    for (let b = 1; b < count; b++) {
      let r = 0;
      for (let u = 0; u < weights.length; u++) r += weights[u][b] * (logs[u * count + b] - logs[u * count + b - 1]);
      if (r === 0) continue;
      const from = Math.max(0, b - half);
      const to = Math.min(count - 1, b + half);
      for (let i = from; i <= to; i++) out[s * count + i] += r * kernel[i - b + half];
    }
}

/** One level of how unsure the background is, with what data say then. */
export interface Level extends Pick<Posterior, 'gain' | 'deviation'> {
  /** Deviation of the background. */
  background: number;
  /** By which independent draws become draws of the posterior; where such are wanted. */
  factor?: Float32Array;
}

/** The two levels that a deviation of the background lies between, and how far from the first. */
export function between(levels: Level[], background: number): [n: number, f: number] {
  const last = levels.length - 1;
  if (!(background > levels[0].background)) return [0, 0];
  if (background >= levels[last].background) return [last, 0];
  let n = 0;
  while (levels[n + 1].background < background) n++;
  return [n, (background - levels[n].background) / (levels[n + 1].background - levels[n].background)];
}

/** `out += scale · gain · residual`. */
export function addGain(gain: Float32Array, residual: Float64Array, scale: number, out: Float64Array): void {
  const n = residual.length;
  for (let u = 0, o = 0; u < out.length; u++, o += n) {
    let [a, b, c, d] = [0, 0, 0, 0];
    let k = 0;
    for (; k + 3 < n; k += 4) {
      a += gain[o + k] * residual[k];
      b += gain[o + k + 1] * residual[k + 1];
      c += gain[o + k + 2] * residual[k + 2];
      d += gain[o + k + 3] * residual[k + 3];
    }
    for (; k < n; k++) a += gain[o + k] * residual[k];
    out[u] += scale * (a + b + c + d);
  }
}

/** What wells say beyond seismic: how far their logs lie from what it gives there, by unknown; NaN where they are not logged. */
export interface WellResiduals {
  well: string;
  place: Place;
  /** Bins that the well is in, by sample. */
  bins: [number, number][];
  values: Float64Array;
}

/**
 * What is known at wells, spread to their sides. Where unknowns of neighbouring traces are alike as the square of a Gaussian of distance has
 * it, and down the trace as the posterior has it, this is the same Gaussian field given the logs: sample by sample, since logs leave nothing
 * unknown where they are (simple kriging: Chilès & Delfiner 2012, chapter 3).
 */
export function conditioner(wells: WellResiduals[], rangeM: number, unknowns: number) {
  const keys = new Map<string, number>();
  const sets: number[][] = [];
  const setOf = new Int16Array(unknowns).fill(-1);
  for (let u = 0; u < unknowns; u++) {
    const own = wells.flatMap((w, n) => (w.values[u] === w.values[u] ? [n] : []));
    if (own.length === 0) continue;
    const key = own.join();
    if (!keys.has(key)) {
      keys.set(key, sets.length);
      sets.push(own);
    }
    setOf[u] = keys.get(key) as number;
  }
  const krigers = sets.map((own) =>
    krigerOf(
      own.map((n) => wells[n].place),
      { shape: 'Gaussian', range: rangeM },
      'nothing',
    ),
  );
  const weights = sets.map((own) => new Float64Array(own.length));
  const left = new Float64Array(sets.length);
  return {
    /** Weigh the wells at a place. */
    to(place: Place): void {
      for (let s = 0; s < sets.length; s++) left[s] = krigers[s].at(place, weights[s]);
    },
    /** What the wells' values at an unknown come to there. */
    sum(values: (n: number) => ArrayLike<number>, u: number): number {
      const s = setOf[u];
      if (s < 0) return 0;
      let sum = 0;
      for (let q = 0; q < sets[s].length; q++) sum += weights[s][q] * values(sets[s][q])[u];
      return sum;
    },
    /** Part of the variance that is left. */
    left: (u: number): number => (setOf[u] < 0 ? 1 : left[setOf[u]]),
  };
}
