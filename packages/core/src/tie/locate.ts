import { cubicBetween } from '../numerics/cubic.ts';
import { hilbert } from '../numerics/fft.ts';
import { heed } from '../numerics/stop.ts';
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
  /** Cosine and sine with which each phase mixes the two. */
  mixed: [number, number][];
  /** The two at each shift of −half … half ms. */
  at: { a: Float64Array; b: Float64Array }[];
  /** One over the length of their mix, `[phase][shift]`; nothing where there is none. */
  norms: Float64Array[];
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
  const phases = Array.from({ length: 2 * steps + 1 }, (_, p) => o.phaseDeg + (p - steps) * PHASE_STEP);
  const at = Array.from({ length: 2 * half + 1 }, (_, s) => vectors(s - half));
  return { samples, n, half, vectors, at, ...turnsOf(at, phases) };
}

/** What a search needs of its phases: the same shifts may be searched at others. */
export function turnsOf(at: Search['at'], phases: number[]): Pick<Search, 'phases' | 'mixed' | 'norms'> {
  const products = at.map(({ a, b }) => {
    let [aa, bb, ab] = [0, 0, 0];
    for (let k = 0; k < a.length; k++) {
      aa += a[k] * a[k];
      bb += b[k] * b[k];
      ab += a[k] * b[k];
    }
    return { aa, bb, ab };
  });
  const mixed = phases.map(mixing);
  const norms = mixed.map(([p, q]) =>
    Float64Array.from(products, ({ aa, bb, ab }) => {
      const power = p * p * aa + q * q * bb + 2 * p * q * ab;
      return power > 0 ? 1 / Math.sqrt(power) : 0;
    }),
  );
  return { phases, mixed, norms };
}

/** Cosine and sine with which a phase mixes the synthetic and its quarter turn. */
export function mixing(phaseDeg: number): [number, number] {
  return [Math.cos((phaseDeg * Math.PI) / 180), -Math.sin((phaseDeg * Math.PI) / 180)];
}

/** The compared samples of a trace about their mean. */
export function comparedSamples(seismic: Series, { samples, n }: Search): Float64Array {
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
  return cubicBetween(a, b, c, d, f);
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
  const length = dd > 0 ? 1 / Math.sqrt(dd) : 0;
  const count = search.at.length;
  const [da, db] = [new Float64Array(count), new Float64Array(count)];
  heed();
  for (let s = 0; s < count; s++) {
    const { a, b } = search.at[s];
    let [x, y] = [0, 0];
    for (let k = 0; k < search.n; k++) {
      x += trace[k] * a[k];
      y += trace[k] * b[k];
    }
    da[s] = x;
    db[s] = y;
  }
  const byPhase = search.mixed.map(([p, q], n) => {
    const norms = search.norms[n];
    const row = new Float64Array(count);
    for (let s = 0; s < count; s++) row[s] = (p * da[s] + q * db[s]) * norms[s] * length;
    return row;
  });
  const byShift = new Float64Array(count);
  for (let s = 0; s < count; s++) {
    // the likelihood is a power of this, so logarithms are taken once a shift
    let [sum, best] = [0, 0];
    for (const row of byPhase) best = Math.max(best, row[s]);
    const least = 1 - Math.min(0.9999, best) ** 2;
    for (const row of byPhase) {
      const left = 1 - Math.min(0.9999, Math.max(0, row[s])) ** 2;
      sum += (least / left) ** (0.5 * freedom);
    }
    byShift[s] = -0.5 * freedom * Math.log(least) + Math.log(sum / byPhase.length);
  }
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
