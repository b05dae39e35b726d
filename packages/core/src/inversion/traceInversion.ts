import { krigerOf, type Place } from './kriging.ts';
import { type Posterior, type StackResponse, waveletAt } from './posterior.ts';
import type { Honoured } from './wellError.ts';

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
    kernel: Float64Array.from({ length: 2 * half + 1 }, (_, n) => waveletAt(wavelet, (n - half + 0.5) * stepMs)),
    weights: weights.map((w) => Float64Array.from({ length: count }, (_, k) => w(k))),
  };
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

/** The mean of a trace's unknowns given its data, in logarithms; `residual` is data less what the model makes. */
export function meanOf(
  levels: Level[],
  model: Float64Array,
  residual: Float64Array,
  background: number,
  out: Float64Array,
): void {
  const [n, f] = between(levels, background);
  out.set(model);
  addGain(levels[n].gain, residual, 1 - f, out);
  if (f > 0) addGain(levels[n + 1].gain, residual, f, out);
}

/** Mean of a trace over the window, of what is there. */
export function meanIn(trace: ArrayLike<number>, k0: number, count: number, from = 0): number {
  let [sum, n] = [0, 0];
  for (let k = k0; k < k0 + count; k++) {
    const v = trace[from + k];
    if (v !== v) continue;
    sum += v;
    n++;
  }
  return n > 0 ? sum / n : Number.NaN;
}

/** What a well says beyond seismic. */
export interface WellResiduals extends Honoured {
  well: string;
  place: Place;
  /** Bins that the well is in, by sample. */
  bins: [number, number][];
}

/**
 * What is known at wells, spread to their sides: unknowns of traces are alike as a Gaussian of their distance has it, and down the trace as
 * the posterior has it, so that one weight a well serves for the whole trace (simple kriging: Chilès & Delfiner 2012, chapter 3).
 */
export function conditioner(wells: WellResiduals[], rangeM: number) {
  const kriger = krigerOf(
    wells.map((w) => w.place),
    { shape: 'Gaussian', range: rangeM },
    'nothing',
  );
  const weights = new Float64Array(wells.length);
  let [explained, total] = [0, 0];
  return {
    /** Weigh the wells at a place. */
    to(place: Place): void {
      explained = 1 - kriger.at(place, weights);
      total = weights.reduce((s, w) => s + Math.abs(w), 0);
    },
    /** What the wells' values at an unknown come to there. */
    sum(values: (n: number) => ArrayLike<number>, u: number): number {
      let sum = 0;
      for (let n = 0; n < wells.length; n++) sum += weights[n] * values(n)[u];
      return sum;
    },
    /** Part of the variance that is left. */
    left(u: number): number {
      if (total === 0) return 1;
      let certainty = 0;
      for (let n = 0; n < wells.length; n++) certainty += Math.abs(weights[n]) * wells[n].certainty[u];
      return 1 - (explained * certainty) / total;
    },
  };
}
