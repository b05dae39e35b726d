import { fromSpectrum, powerOfTwo, spectrum } from '../numerics/fft.ts';
import { heed } from '../numerics/stop.ts';
import {
  comparedSamples,
  type Located,
  locate,
  mixing,
  phaseLikelihood,
  type Search,
  type SearchOptions,
  type ShiftPrior,
  searchOf,
  turnsOf,
} from './locate.ts';
import type { Series } from './match.ts';

/** What a match is held against. */
export interface EvidenceOptions extends SearchOptions {
  seed: number;
  draws: number;
  /** What checkshots say of the shift; null where nothing but the match says it. */
  prior: ShiftPrior | null;
  /** A shift that was typed. */
  shiftMs: number | null;
  /** Of a wavelet that was estimated in this very window, how well such a wavelet predicts parts that it was not made of. */
  leftOut: ((trace: Float64Array, samples: Int32Array) => number) | null;
}

export interface Evidence {
  /** Part of noise traces of the same band that match as well, searched as widely. */
  chance: number;
  /** Best correlation over the shifts and phases searched, as declared and turned over. */
  asDeclared: number;
  turnedOver: number;
  /** Independent samples in the window: twice bandwidth times length. */
  freedom: number;
  /** Shift and phase that match and checkshots together make likeliest. */
  found: Located;
  /** 90 % half widths of shift (ms) and phase (degrees). */
  uncertaintyMs: number;
  uncertaintyDeg: number;
  /** The shift by the match alone, and by checkshots alone, each with its 90 % half width, ms. */
  byMatch: { shiftMs: number; uncertaintyMs: number };
  byCheckshots: { shiftMs: number; uncertaintyMs: number } | null;
  /** Correlation with parts of the trace that the wavelet was not made of; null where it was made elsewhere. */
  leftOut: number | null;
  /** Log likelihood of each phase searched, the shift taken as unknown. */
  phases: { deg: number[]; log: number[] };
}

function random(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return (state + 0.5) / 2 ** 32;
  };
}

/** Series of a power spectrum with random phases (Theiler et al. 1992, Physica D 58, 77–94). */
function noiseOf(power: Float64Array, n: number, next: () => number): Float64Array {
  const size = 2 * power.length;
  const noise = new Float64Array(2 * size);
  for (let f = 1; f < power.length; f++) {
    const [amplitude, phase] = [Math.sqrt(power[f]), 2 * Math.PI * next()];
    noise[2 * f] = noise[2 * (size - f)] = amplitude * Math.cos(phase);
    noise[2 * f + 1] = amplitude * Math.sin(phase);
    noise[2 * (size - f) + 1] = -noise[2 * f + 1];
  }
  const made = fromSpectrum(noise).subarray(0, n);
  let mean = 0;
  for (const v of made) mean += v / n;
  for (let k = 0; k < n; k++) made[k] -= mean;
  return made;
}

/** Power spectrum of a short series, smooth enough to be known: its autocovariance under a Parzen window. */
function smoothPower(values: Float64Array): Float64Array {
  const n = values.length;
  const size = powerOfTwo(4 * n);
  const most = Math.max(4, Math.round(n / 3));
  const lags = new Float64Array(size);
  for (let lag = 0; lag < most; lag++) {
    let sum = 0;
    for (let k = 0; k + lag < n; k++) sum += values[k] * values[k + lag];
    const x = lag / most;
    const window = x <= 0.5 ? 1 - 6 * x * x * (1 - x) : 2 * (1 - x) ** 3;
    lags[lag] = (sum / n) * window;
    if (lag > 0) lags[size - lag] = lags[lag];
  }
  const s = spectrum(lags, size);
  // so that a series made of it has the variance of this one
  return Float64Array.from({ length: size / 2 }, (_, f) => Math.max(0, s[2 * f]) * size);
}

/** Independent samples in a window: twice the equivalent bandwidth of a spectrum times its length. */
function freedomOf(power: Float64Array, stepMs: number, lengthMs: number): number {
  let [sum, squares] = [0, 0];
  for (const p of power) {
    sum += p;
    squares += p * p;
  }
  const stepHz = 1000 / (2 * power.length * stepMs);
  const bandHz = squares > 0 ? (sum * sum * stepHz) / squares : 0;
  return Math.max(2, (2 * bandHz * lengthMs) / 1000);
}

/** A number of Student's distribution, made of normal ones. */
function student(freedom: number, next: () => number): number {
  const normal = () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
  const n = Math.min(60, Math.max(1, Math.round(freedom)));
  let squares = 0;
  for (let k = 0; k < n; k++) squares += normal() ** 2;
  return normal() / Math.sqrt(squares / n);
}

/** Value that 90 % of others do not exceed. */
function ninety(values: number[]): number {
  const sorted = values.map(Math.abs).sort((a, b) => a - b);
  const x = 0.9 * (sorted.length + 1) - 1;
  const n = Math.min(sorted.length - 1, Math.max(0, Math.floor(x)));
  return sorted[n] + (x - n) * ((sorted[n + 1] ?? sorted[n]) - sorted[n]);
}

const turn = (a: number, b: number) => ((a - b + 540) % 360) - 180;

/**
 * How far a match is off: what is left of the trace beside the synthetic is taken for noise, noise of its spectrum is laid
 * over the synthetic anew many times, checkshots err anew each time, and each is searched as the trace was (a parametric
 * bootstrap: Efron & Tibshirani 1993, section 6.5). So the phase that was searched, the band and the bounds all count.
 */
function spreads(
  trace: Float64Array,
  search: Search,
  found: Located,
  stepMs: number,
  o: EvidenceOptions,
  prior: ShiftPrior | null,
  next: () => number,
): { ms: number; deg: number; freedom: number } {
  const [p, q] = mixing(found.phaseDeg);
  const { a, b } = search.vectors(found.shiftMs);
  const shape = a.map((v, k) => p * v + q * b[k]);
  const [ds, ss] = shape.reduce(([d, s], v, k) => [d + v * trace[k], s + v * v], [0, 0]);
  const scale = ss > 0 ? Math.max(0, ds / ss) : 0;
  const left = trace.map((v, k) => v - scale * shape[k]);
  const power = smoothPower(left);
  const freedom = freedomOf(power, stepMs, search.n * stepMs);
  // amplitude, phase and shift were fitted, which the residual lacks
  const lost = freedom > 6 ? freedom / (freedom - 3) : 2;
  const noise = power.map((v) => v * lost);
  const [ms, deg]: [number[], number[]] = [[], []];
  // checkshots that were overruled are no nearer in another draw
  const held = prior && Math.abs(found.shiftMs - prior.centreMs) <= 3 * prior.errorMs;
  for (let draw = 0; draw < o.draws; draw++) {
    heed();
    const extra = noiseOf(noise, search.n, next);
    const again = extra.map((v, k) => v + scale * shape[k]);
    const centreMs = held ? found.shiftMs + prior.errorMs * student(prior.freedom, next) : (prior?.centreMs ?? 0);
    const other = locate(again, search, freedom, prior && { ...prior, centreMs });
    ms.push(other.shiftMs - found.shiftMs);
    deg.push(turn(other.phaseDeg, found.phaseDeg));
  }
  return { ms: ninety(ms), deg: ninety(deg), freedom };
}

/**
 * Where a match lies, how far that may be off, and how far it stands above chance: noise with the trace's own amplitude
 * spectrum and random phases is searched over the same shifts and phases, so that a long search pays for itself.
 */
export function evidenceOf(seismic: Series, made: Series, o: EvidenceOptions): Evidence {
  const search = searchOf(seismic, made, o);
  const trace = comparedSamples(seismic, search);
  const { stepMs } = seismic;
  // the band from a piece of trace longer than the window, so that its spectrum is well known
  const length = Math.min(seismic.values.length, Math.max(search.n, Math.round(600 / stepMs)));
  const start = Math.max(
    0,
    Math.min(seismic.values.length - length, Math.round((search.samples[search.n >> 1] ?? 0) - length / 2)),
  );
  const piece = seismic.values.slice(start, start + length).map((v) => (Number.isNaN(v) ? 0 : v));
  const power = smoothPower(piece);
  const freedom = freedomOf(power, stepMs, o.toMs - o.fromMs);
  const best = (deg: number) => {
    const turned = {
      ...search,
      ...turnsOf(
        search.at,
        search.phases.map((v) => v + deg),
      ),
    };
    return locate(trace, turned, freedom, null, o.shiftMs).correlation;
  };
  const next = random(o.seed);
  // noise says how much the match weighs: its own freedom takes the place of the trace's
  const rough = locate(trace, search, freedom, o.prior, o.shiftMs);
  const own = spreads(trace, search, rough, stepMs, { ...o, draws: 0 }, o.prior, next).freedom;
  const found = locate(trace, search, own, o.prior, o.shiftMs);
  const { ms, deg } = spreads(trace, search, found, stepMs, o, o.prior, next);
  const alone = o.prior ? locate(trace, search, own, null) : found;
  const byMatch = {
    shiftMs: alone.shiftMs,
    uncertaintyMs: o.prior ? spreads(trace, search, alone, stepMs, o, null, next).ms : ms,
  };
  const leftOut = o.leftOut ? o.leftOut(trace, search.samples) : null;
  let better = 0;
  for (let draw = 0; draw < o.draws; draw++) {
    heed();
    const noise = noiseOf(power, search.n, next);
    if (o.leftOut && leftOut !== null) {
      if (o.leftOut(noise, search.samples) >= leftOut) better++;
    } else if (locate(noise, search, own, o.prior, o.shiftMs).correlation >= found.correlation) better++;
  }
  return {
    chance: (better + 1) / (o.draws + 1),
    asDeclared: best(0),
    turnedOver: best(180),
    freedom,
    found,
    uncertaintyMs: ms,
    uncertaintyDeg: deg,
    byMatch,
    byCheckshots: o.prior && {
      shiftMs: o.prior.centreMs,
      uncertaintyMs: studentNinety(o.prior.freedom) * o.prior.errorMs,
    },
    leftOut,
    phases: { deg: search.phases, log: Array.from(phaseLikelihood(trace, search, own, o.prior)) },
  };
}

/** What 90 of 100 numbers of Student's distribution stay within (Abramowitz & Stegun 1964, 26.7.5). */
function studentNinety(freedom: number): number {
  const z = 1.6449;
  const n = Math.max(1, freedom);
  return z + (z ** 3 + z) / (4 * n) + (5 * z ** 5 + 16 * z ** 3 + 3 * z) / (96 * n * n);
}

/** How many standard errors the better of two correlations stands over the other (Fisher 1921, Metron 1(4), 3–32). */
export function standsOver(better: number, other: number, freedom: number): number {
  const z = (r: number) => Math.atanh(Math.max(-0.999, Math.min(0.999, r)));
  return (z(better) - z(other)) * Math.sqrt(Math.max(1, freedom - 3) / 2);
}
