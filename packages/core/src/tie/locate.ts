import { hilbert } from '../numerics/fft.ts';
import { type Series, seriesAt } from './match.ts';

/** Where a match is looked for. */
export interface SearchOptions {
  fromMs: number;
  toMs: number;
  mostShiftMs: number;
  /** Phases within `mostPhaseDeg` of `phaseDeg` are searched, degrees. */
  mostPhaseDeg: number;
  phaseDeg: number;
}

/** What checkshots say of the shift: their own, give or take a standard error that rests on so many free readings. */
export interface ShiftPrior {
  centreMs: number;
  errorMs: number;
  freedom: number;
}

/** A window of a trace, and the synthetic (as it is, and turned by a quarter) at every shift that is searched. */
export interface Search {
  /** Samples of the trace that are compared: those in the window where both trace and synthetic are known. */
  samples: Int32Array;
  n: number;
  half: number;
  phases: number[];
  /** Products of the two with themselves and each other, at each shift of −half … half ms. */
  at: { a: Float64Array; b: Float64Array; aa: number; bb: number; ab: number }[];
  /** Synthetic and quarter turn about their means at any shift. */
  vectors(shiftMs: number): { a: Float64Array; b: Float64Array };
}

export interface Located {
  shiftMs: number;
  phaseDeg: number;
  correlation: number;
}

/** Phases are tried this far apart, degrees, and shifts in this part of a millisecond. */
const PHASE_STEP = 5;
const SHIFT_PARTS = 4;
/** Part of wells whose checkshots and seismic have times of their own: what lets a good match overrule checkshots. */
const APART = 0.1;

export function searchOf(seismic: Series, made: Series, o: SearchOptions): Search {
  const turned: Series = { ...made, values: hilbert(made.values) };
  const k0 = Math.max(0, Math.ceil((o.fromMs - seismic.firstMs) / seismic.stepMs));
  const k1 = Math.min(seismic.values.length - 1, Math.floor((o.toMs - seismic.firstMs) / seismic.stepMs));
  const timeOf = (k: number) => seismic.firstMs + k * seismic.stepMs;
  // what is null is not known: it is no reflection, and no absence of one
  const samples = Int32Array.from({ length: Math.max(0, k1 - k0 + 1) }, (_, k) => k0 + k).filter(
    (k) => !Number.isNaN(seismic.values[k]) && !Number.isNaN(seriesAt(made, timeOf(k))),
  );
  const n = samples.length;
  const half = Math.round(o.mostShiftMs);
  const about = (series: Series, shift: number) => {
    const v = Float64Array.from({ length: n }, (_, k) => {
      const value = seriesAt(series, timeOf(samples[k]) - shift);
      return Number.isNaN(value) ? 0 : value;
    });
    const mean = v.reduce((a, b) => a + b, 0) / Math.max(1, n);
    return v.map((x) => x - mean);
  };
  const vectors = (shift: number) => ({ a: about(made, shift), b: about(turned, shift) });
  const steps = Math.floor(o.mostPhaseDeg / PHASE_STEP);
  return {
    samples,
    n,
    half,
    phases: Array.from({ length: 2 * steps + 1 }, (_, p) => o.phaseDeg + (p - steps) * PHASE_STEP),
    vectors,
    at: Array.from({ length: 2 * half + 1 }, (_, s) => {
      const { a, b } = vectors(s - half);
      let [aa, bb, ab] = [0, 0, 0];
      for (let k = 0; k < n; k++) {
        aa += a[k] * a[k];
        bb += b[k] * b[k];
        ab += a[k] * b[k];
      }
      return { a, b, aa, bb, ab };
    }),
  };
}

/** Cosine and sine with which a phase mixes the synthetic and its quarter turn. */
export function mixing(phaseDeg: number): [number, number] {
  return [Math.cos((phaseDeg * Math.PI) / 180), -Math.sin((phaseDeg * Math.PI) / 180)];
}

/** The compared samples of a trace about their mean. */
export function windowOf(seismic: Series, { samples, n }: Search): Float64Array {
  const own = Float64Array.from(samples, (k) => seismic.values[k]);
  const mean = own.reduce((a, b) => a + b, 0) / Math.max(1, n);
  return own.map((v) => v - mean);
}

/** Catmull–Rom value of a table between its entries. */
function between(table: ArrayLike<number>, x: number): number {
  const last = table.length - 1;
  const i = Math.min(last - 1, Math.max(0, Math.floor(x)));
  if (last < 1) return table[0];
  const at = (k: number) => table[Math.min(last, Math.max(0, k))];
  const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
  const f = x - i;
  return b + 0.5 * f * (c - a + f * (2 * a - 5 * b + 4 * c - d + f * (3 * (b - c) + d - a)));
}

/** Place of the highest of even values, refined by a parabola. */
function peakOf(values: ArrayLike<number>): number {
  let top = 0;
  for (let n = 1; n < values.length; n++) if (values[n] > values[top]) top = n;
  if (top === 0 || top === values.length - 1) return top;
  const [a, b, c] = [values[top - 1], values[top], values[top + 1]];
  const bend = a - 2 * b + c;
  return bend < 0 ? top + (0.5 * (a - c)) / bend : top;
}

/** Log of what checkshots make of a shift: near theirs, or anywhere in the search where both have times of their own. */
function logPrior(prior: ShiftPrior | null, half: number): (shiftMs: number) => number {
  if (!prior) return () => 0;
  const normal = (x: number, sigma: number) => Math.exp(-0.5 * (x / sigma) ** 2) / sigma;
  const [near, wide] = [Math.max(0.05, prior.errorMs), Math.max(1, half / 2)];
  return (shift) => {
    const x = shift - prior.centreMs;
    return Math.log((1 - APART) * normal(x, near) + APART * normal(x, Math.hypot(near, wide)) + 1e-300);
  };
}

/**
 * Log of how likely each shift of a search is, by millisecond and up to a constant: amplitude and phase are taken as
 * unknown, noise as normal with `freedom` independent samples (as in Box & Tiao 1973, section 2.7).
 */
export function logLikelihood(trace: Float64Array, search: Search, freedom: number) {
  let dd = 0;
  for (const v of trace) dd += v * v;
  const products = search.at.map(({ a, b }) => {
    let [da, db] = [0, 0];
    for (let k = 0; k < search.n; k++) {
      da += trace[k] * a[k];
      db += trace[k] * b[k];
    }
    return { da, db };
  });
  const correlation = (da: number, db: number, aa: number, bb: number, ab: number, phase: number) => {
    const [p, q] = mixing(phase);
    const power = (p * p * aa + q * q * bb + 2 * p * q * ab) * dd;
    return power > 0 ? (p * da + q * db) / Math.sqrt(power) : 0;
  };
  const byPhase = search.phases.map((phase) =>
    Float64Array.from(products, ({ da, db }, s) => {
      const { aa, bb, ab } = search.at[s];
      return correlation(da, db, aa, bb, ab, phase);
    }),
  );
  const log = (r: number) => -0.5 * freedom * Math.log(1 - Math.min(0.9999, Math.max(0, r)) ** 2);
  const byShift = Float64Array.from(products, (_, s) => {
    const each = byPhase.map((row) => log(row[s]));
    const most = Math.max(...each);
    return most + Math.log(each.reduce((sum, v) => sum + Math.exp(v - most), 0) / each.length);
  });
  return { byPhase, byShift };
}

/** The likeliest shift, whatever the phase, and the phase that matches best there. */
export function locate(
  trace: Float64Array,
  search: Search,
  freedom: number,
  prior: ShiftPrior | null,
  fixedMs: number | null = null,
): Located {
  const { byPhase, byShift } = logLikelihood(trace, search, freedom);
  const before = logPrior(prior, search.half);
  const count = SHIFT_PARTS * 2 * search.half + 1;
  const fine = Float64Array.from(
    { length: count },
    (_, n) => between(byShift, n / SHIFT_PARTS) + before(n / SHIFT_PARTS - search.half),
  );
  const shiftMs = fixedMs ?? peakOf(fine) / SHIFT_PARTS - search.half;
  const place = Math.min(2 * search.half, Math.max(0, shiftMs + search.half));
  const there = byPhase.map((row) => between(row, place));
  const p = peakOf(there);
  return {
    shiftMs,
    phaseDeg: search.phases[0] + p * PHASE_STEP,
    correlation: between(there, p),
  };
}

/** Log likelihood of each phase searched, the shift taken as unknown: what several wells can be asked together. */
export function phaseLikelihood(
  trace: Float64Array,
  search: Search,
  freedom: number,
  prior: ShiftPrior | null,
): Float64Array {
  const { byPhase } = logLikelihood(trace, search, freedom);
  const before = logPrior(prior, search.half);
  return Float64Array.from(byPhase, (row) => {
    const each = Array.from({ length: SHIFT_PARTS * 2 * search.half + 1 }, (_, n) => {
      const r = Math.min(0.9999, Math.max(0, between(row, n / SHIFT_PARTS)));
      return -0.5 * freedom * Math.log(1 - r * r) + before(n / SHIFT_PARTS - search.half);
    });
    const most = Math.max(...each);
    return most + Math.log(each.reduce((sum, v) => sum + Math.exp(v - most), 0));
  });
}
