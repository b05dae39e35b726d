import { cubicBetween } from '../numerics/cubic.ts';
import { hilbert } from '../numerics/fft.ts';
import type { ElasticInTime } from './elastic.ts';
import type { WaveletShape } from './wavelet.ts';

/** A series in even steps of time. */
export interface Series {
  firstMs: number;
  stepMs: number;
  values: Float64Array;
}

/** Convolve reflectivity with a wavelet of the same step. */
export function synthetic(
  elastic: Pick<ElasticInTime, 'firstMs' | 'stepMs' | 'reflectivity'>,
  wavelet: WaveletShape,
): Series {
  const { reflectivity: r, stepMs, firstMs } = elastic;
  const { samples: w } = wavelet;
  const out = new Float64Array(r.length);
  const first = Math.round(wavelet.firstMs / stepMs);
  for (let n = 0; n < r.length; n++) {
    if (r[n] === 0) continue;
    const from = Math.max(0, -(n + first));
    const to = Math.min(w.length, out.length - n - first);
    for (let k = from; k < to; k++) out[n + first + k] += r[n] * w[k];
  }
  return { firstMs, stepMs, values: out };
}

/** Catmull–Rom value of a series at a time; NaN outside. */
export function seriesAt(series: Series, ms: number): number {
  const x = (ms - series.firstMs) / series.stepMs;
  const i = Math.floor(x);
  const { values: v } = series;
  if (i < 0 || i >= v.length || (i === v.length - 1 && x > i)) return Number.NaN;
  const at = (k: number) => v[Math.min(v.length - 1, Math.max(0, k))];
  const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
  const f = x - i;
  return cubicBetween(a, b, c, d, f);
}

export interface Match {
  shiftMs: number;
  phaseDeg: number;
  correlation: number;
}

export interface MatchMap {
  shifts: Float64Array;
  phases: Float64Array;
  /** Correlation `[phase][shift]`, −1 to 1. */
  values: Float32Array;
  best: Match;
  /** The best match at the phase that was asked for. */
  atPhase: Match;
  /** Best match at that phase at least half a period away; null where nothing there matches at all. */
  runnerUp: Match | null;
}

export interface MatchOptions {
  fromMs: number;
  toMs: number;
  /** Largest shift searched either way, ms. */
  mostShiftMs: number;
  /** Phase at which the shift is read, degrees. */
  phaseDeg: number;
  /** Distance beyond which another match counts as another event, ms. */
  halfPeriodMs: number;
}

/** Correlation of two series over the samples of the seismic inside a window, the synthetic moved by a shift. */
function products(seismic: Series, a: Series, b: Series, shift: number, from: number, to: number) {
  let [n, sd, sa, sb, dd, aa, bb, da, db, ab] = [0, 0, 0, 0, 0, 0, 0, 0, 0, 0];
  const k0 = Math.max(0, Math.ceil((from - seismic.firstMs) / seismic.stepMs));
  const k1 = Math.min(seismic.values.length - 1, Math.floor((to - seismic.firstMs) / seismic.stepMs));
  for (let k = k0; k <= k1; k++) {
    const d = seismic.values[k];
    const t = seismic.firstMs + k * seismic.stepMs - shift;
    const x = seriesAt(a, t);
    const y = seriesAt(b, t);
    if (Number.isNaN(d) || Number.isNaN(x) || Number.isNaN(y)) continue;
    n++;
    sd += d;
    sa += x;
    sb += y;
    dd += d * d;
    aa += x * x;
    bb += y * y;
    da += d * x;
    db += d * y;
    ab += x * y;
  }
  return {
    n,
    dd: dd - (sd * sd) / n,
    aa: aa - (sa * sa) / n,
    bb: bb - (sb * sb) / n,
    da: da - (sd * sa) / n,
    db: db - (sd * sb) / n,
    ab: ab - (sa * sb) / n,
  };
}

/**
 * Correlation of a synthetic with the seismic over shift and constant phase. Turning the phase by φ makes
 * cos φ · synthetic − sin φ · its Hilbert transform, so one pass over shifts gives all phases.
 */
export function matchMap(seismic: Series, made: Series, options: MatchOptions): MatchMap {
  const turned: Series = { ...made, values: hilbert(made.values) };
  const count = 2 * Math.round(options.mostShiftMs) + 1;
  const shifts = Float64Array.from({ length: count }, (_, n) => n - (count - 1) / 2);
  const phases = Float64Array.from({ length: 73 }, (_, n) => -180 + 5 * n);
  const values = new Float32Array(count * phases.length);
  const correlate = (p: ReturnType<typeof products>, phase: number): number => {
    const [c, s] = [Math.cos((phase * Math.PI) / 180), -Math.sin((phase * Math.PI) / 180)];
    const power = c * c * p.aa + s * s * p.bb + 2 * c * s * p.ab;
    return p.n < 8 || power <= 0 || p.dd <= 0 ? 0 : (c * p.da + s * p.db) / Math.sqrt(power * p.dd);
  };
  const rows = Array.from(shifts, (shift) => products(seismic, made, turned, shift, options.fromMs, options.toMs));
  let best: Match = { shiftMs: 0, phaseDeg: 0, correlation: Number.NEGATIVE_INFINITY };
  for (let p = 0; p < phases.length; p++)
    for (let n = 0; n < count; n++) {
      const v = correlate(rows[n], phases[p]);
      values[p * count + n] = v;
      if (v > best.correlation) best = { shiftMs: shifts[n], phaseDeg: phases[p], correlation: v };
    }
  const line = rows.map((r) => correlate(r, options.phaseDeg));
  const peak = (allowed: (n: number) => boolean): Match | null => {
    let top = -1;
    for (let n = 0; n < count; n++) {
      const local = (n === 0 || line[n] >= line[n - 1]) && (n === count - 1 || line[n] > line[n + 1]);
      if (local && allowed(n) && (top < 0 || line[n] > line[top])) top = n;
    }
    if (top < 0) return null;
    let at = shifts[top];
    if (top > 0 && top < count - 1) {
      const [a, b, c] = [line[top - 1], line[top], line[top + 1]];
      at += (0.5 * (a - c)) / (a - 2 * b + c || -1);
    }
    return { shiftMs: at, phaseDeg: options.phaseDeg, correlation: line[top] };
  };
  const atPhase = peak(() => true) ?? best;
  const second = peak((n) => Math.abs(shifts[n] - atPhase.shiftMs) > options.halfPeriodMs);
  const runnerUp = second && second.correlation > 0 ? second : null;
  return { shifts, phases, values, best, atPhase, runnerUp };
}

/** Correlation in a window that slides along time: one value a sample of the seismic. */
export function runningMatch(seismic: Series, made: Series, shiftMs: number, halfMs: number): Series {
  const values = seismic.values.map((_, k) => {
    const t = seismic.firstMs + k * seismic.stepMs;
    const p = products(seismic, made, made, shiftMs, t - halfMs, t + halfMs);
    return p.n < 6 || p.aa <= 0 || p.dd <= 0 ? Number.NaN : p.da / Math.sqrt(p.aa * p.dd);
  });
  return { ...seismic, values };
}
