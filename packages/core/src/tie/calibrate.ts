import { solve } from '../numerics/leastSquares.ts';
import { AT_SEA, type TimeDepth } from '../wells/timeDepth.ts';

/** Slowness down a well: depths below the datum (m, rising) and s/m, without gaps. */
export interface Slowness {
  tvdss: Float64Array;
  secondsPerMetre: Float64Array;
}

export interface Knee {
  tvdss: number;
  driftMs: number;
}

export interface Calibration {
  /** TWT of every sample by the sonic alone, ms, from 0 at the first. */
  sonicMs: Float64Array;
  /** TWT of every sample after calibration, ms. */
  twt: Float64Array;
  /** Drift, checkshot − sonic, at each checkshot that the sonic reaches. */
  drift: Knee[];
  /** Where the correction bends, and its value there. */
  knees: Knee[];
}

/** TWT (ms) down a sonic log by the trapezoid rule over slowness, from 0 at its first sample. */
export function integrateSonic(log: Slowness): Float64Array {
  const { tvdss, secondsPerMetre: s } = log;
  const out = new Float64Array(tvdss.length);
  for (let n = 1; n < out.length; n++) out[n] = out[n - 1] + 1000 * (s[n] + s[n - 1]) * (tvdss[n] - tvdss[n - 1]);
  return out;
}

/** Linear interpolation in rising `x`; held at the ends. */
export function lookup(x: ArrayLike<number>, y: ArrayLike<number>, at: number): number {
  const n = x.length;
  if (at <= x[0]) return y[0];
  if (at >= x[n - 1]) return y[n - 1];
  let [low, high] = [0, n - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (x[middle] <= at) low = middle;
    else high = middle;
  }
  return y[low] + ((at - x[low]) * (y[high] - y[low])) / (x[high] - x[low]);
}

/** Part of each knee's hat function at a depth. */
function hats(knees: number[], z: number): number[] {
  const out = knees.map(() => 0);
  const last = knees.length - 1;
  if (z <= knees[0]) out[0] = 1;
  else if (z >= knees[last]) out[last] = 1;
  else {
    const k = knees.findIndex((d, n) => z >= d && z <= knees[n + 1]);
    const f = (z - knees[k]) / (knees[k + 1] - knees[k]);
    out[k] = 1 - f;
    out[k + 1] = f;
  }
  return out;
}

/** Depths of knees when none are given: the ends of the sonic, and between them as even as `spacing` (m) allows. */
export function evenKnees(from: number, to: number, spacing: number): number[] {
  const pieces = Math.max(1, Math.round((to - from) / spacing));
  return Array.from({ length: pieces + 1 }, (_, n) => from + ((to - from) * n) / pieces);
}

/** Normal equations of a drift of straight pieces; a little stiffness holds knees that no checkshot is near. */
function equations(kneeDepths: number[], drift: Knee[]) {
  const n = kneeDepths.length;
  const matrix = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  const right = new Array<number>(n).fill(0);
  const add = (row: number[], value: number, weight: number) => {
    for (let a = 0; a < n; a++) {
      if (row[a] === 0) continue;
      right[a] += weight * row[a] * value;
      for (let b = 0; b < n; b++) matrix[a][b] += weight * row[a] * row[b];
    }
  };
  for (const d of drift) add(hats(kneeDepths, d.tvdss), d.driftMs, 1);
  for (let k = 0; k + 1 < n; k++) {
    const row = new Array<number>(n).fill(0);
    row[k] = -1;
    row[k + 1] = 1;
    add(row, 0, 0.02);
  }
  return { matrix, right, add };
}

/** Readings that are free beside the knees, below which their scatter says nothing. */
const FEW = 3;
/** No checkshot is read more exactly than this, ms, however well a few happen to agree. */
const FINEST_MS = 0.1;
/** Standard error of a checkshot where its readings are too few to say, ms. */
const USUAL_MS = 1;

/** Covariance of the knees for checkshots of unit variance; null where the fit has none. */
function covariance(kneeDepths: number[], drift: Knee[]): number[][] | null {
  const { matrix } = equations(kneeDepths, drift);
  const rows = matrix.map((_, n) =>
    solve(
      matrix,
      matrix.map((__, m) => (m === n ? 1 : 0)),
    ),
  );
  return rows.every((row) => row !== null) ? (rows as number[][]) : null;
}

/**
 * Variance (ms²/m) by which drift wanders from knee to knee beside its mean rate, as a random walk would, less what errors of
 * the checkshots alone make of it. A sonic that drifts unevenly there does so between knees as well, where none is seen.
 */
function wanderOf(knees: Knee[], unit: number[][], readingVariance: number): number {
  const pieces = knees.length - 1;
  if (pieces < 2) return 0;
  const whole = knees[pieces].tvdss - knees[0].tvdss;
  const rate = (knees[pieces].driftMs - knees[0].driftMs) / whole;
  let [squares, noise] = [0, 0];
  for (let k = 0; k < pieces; k++) {
    const length = knees[k + 1].tvdss - knees[k].tvdss;
    squares += (knees[k + 1].driftMs - knees[k].driftMs - rate * length) ** 2 / length;
    noise += (readingVariance * (unit[k][k] + unit[k + 1][k + 1] - 2 * unit[k][k + 1])) / length;
  }
  // a few pieces say little: what noise makes of them by chance is no wander either
  const byChance = (noise / pieces) * (1 + Math.sqrt(2 / (pieces - 1)));
  return Math.max(0, squares / (pieces - 1) - byChance);
}

/**
 * Standard error of calibrated times at a depth, and the readings that it rests on: the scatter of checkshots about their
 * drift, or their own error where it is given, carried through the fit, and what drift may do between knees.
 * @param readingMs standard error of one checkshot, ms; null to go by their scatter
 */
export function calibrationError(
  { drift, knees }: Calibration,
  tvdss: number,
  readingMs: number | null,
): { ms: number; freedom: number } {
  const depths = knees.map((k) => k.tvdss);
  const driftOf = knees.map((k) => k.driftMs);
  const squares = drift.reduce((sum, d) => sum + (d.driftMs - lookup(depths, driftOf, d.tvdss)) ** 2, 0);
  const free = drift.length - knees.length;
  const scatter =
    free >= FEW ? { ms: Math.max(FINEST_MS, Math.sqrt(squares / free)), freedom: free } : { ms: USUAL_MS, freedom: 60 };
  const reading = readingMs === null ? scatter : { ms: readingMs, freedom: 60 };
  const unit = covariance(depths, drift);
  if (!unit) return reading;
  const row = hats(depths, tvdss);
  const part = unit.reduce((sum, own, a) => sum + row[a] * own.reduce((s, v, b) => s + v * row[b], 0), 0);
  const piece = Math.max(
    0,
    Math.min(
      depths.length - 2,
      depths.findIndex((d, n) => tvdss <= (depths[n + 1] ?? d)),
    ),
  );
  const length = depths[piece + 1] - depths[piece];
  // the mean square of a walk about the straight line between two places that it has in common with it
  const between = (wanderOf(knees, unit, reading.ms ** 2) * length) / 6;
  return { ms: Math.sqrt(reading.ms ** 2 * Math.max(0, part) + between), freedom: reading.freedom };
}

/**
 * Calibrate a sonic to checkshots: the drift is fitted by straight pieces between knees, so that velocity jumps only
 * where a knee is shown.
 * @param shots checkshots, TVDSS in m and TWT in ms
 * @param kneeDepths TVDSS of the knees, rising; those with a given drift keep it
 */
export function calibrate(
  log: Slowness,
  shots: { tvdss: number; twt: number }[],
  kneeDepths: number[],
  moved: Knee[] = [],
): Calibration | null {
  const sonicMs = integrateSonic(log);
  const { tvdss } = log;
  const [top, bottom] = [tvdss[0], tvdss[tvdss.length - 1]];
  const drift = shots
    .filter((s) => s.tvdss >= top && s.tvdss <= bottom)
    .map((s) => ({ tvdss: s.tvdss, driftMs: s.twt - lookup(tvdss, sonicMs, s.tvdss) }));
  if (drift.length < 2) return null;
  const { matrix, right, add } = equations(kneeDepths, drift);
  const n = kneeDepths.length;
  for (const { tvdss: z, driftMs } of moved) {
    const k = kneeDepths.findIndex((d) => Math.abs(d - z) < 0.5);
    if (k < 0) continue;
    const row = new Array<number>(n).fill(0);
    row[k] = 1;
    add(row, driftMs, 1e4);
  }
  const values = solve(matrix, right);
  if (!values) return null;
  const knees = kneeDepths.map((z, k) => ({ tvdss: z, driftMs: values[k] }));
  const twt = sonicMs.map((t, k) => t + lookup(kneeDepths, values, tvdss[k]));
  return { sonicMs, twt, drift, knees };
}

/**
 * The whole relation of a well: from where times begin (`start`) checkshots above the sonic, the calibrated sonic below, by steps of about `stepM`, each
 * time moved by what `moved` adds to it (growing from nothing at the datum down to the first checkshot).
 */
export function relationFrom(
  log: Slowness,
  twt: Float64Array,
  shots: { tvdss: number; twt: number }[],
  moved: (twt: number) => number,
  start = AT_SEA,
  stepM = 4,
): TimeDepth {
  const pairs = start.map(({ tvdss, twt }): [number, number] => [tvdss, twt]);
  const [beginsM] = pairs[0];
  const push = (z: number, t: number) => {
    const [lastZ, lastT] = pairs[pairs.length - 1];
    if (z > lastZ + 1e-6 && t > lastT + 1e-6) pairs.push([z, t]);
  };
  const above = shots.filter((s) => s.tvdss > beginsM && s.tvdss < log.tvdss[0] - 10).sort((a, b) => a.tvdss - b.tvdss);
  for (const s of above) push(s.tvdss, s.twt + moved(s.twt));
  let next = log.tvdss[0];
  for (let n = 0; n < twt.length; n++)
    if (log.tvdss[n] >= next || n === twt.length - 1) {
      push(log.tvdss[n], twt[n] + moved(twt[n]));
      next = log.tvdss[n] + stepM;
    }
  const deepest = log.tvdss[log.tvdss.length - 1];
  for (const s of shots) if (s.tvdss > deepest + 10) push(s.tvdss, s.twt + moved(s.twt));
  return { tvdss: Float64Array.from(pairs, (p) => p[0]), twt: Float64Array.from(pairs, (p) => p[1]) };
}
