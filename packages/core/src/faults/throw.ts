import { heed } from '../numerics/stop.ts';
import { inOrder } from './surface.ts';

/** A fault as a grid of places: `[row][level]`, rows along strike, levels down it; NaN where it is not. */
export interface FaultGrid {
  rows: number;
  levels: number;
  x: Float64Array;
  y: Float64Array;
  /** TWT or depth of the first level, and from one to the next. */
  first: number;
  step: number;
  /** Metres along strike from the first row. */
  along: Float64Array;
  /** Unit vector, east and north, from each place into the hanging wall. */
  towards: Float64Array;
}

type Point = [number, number, number];

/** Where a stick is at a level; null above and below it. */
function atLevel(stick: Point[], level: number): [number, number] | null {
  for (let n = 0; n + 1 < stick.length; n++) {
    const [a, b] = [stick[n], stick[n + 1]];
    if (level < Math.min(a[2], b[2]) || level > Math.max(a[2], b[2]) || a[2] === b[2]) continue;
    const f = (level - a[2]) / (b[2] - a[2]);
    return [a[0] + f * (b[0] - a[0]), a[1] + f * (b[1] - a[1])];
  }
  return null;
}

/** A fault's sticks as a grid: rows every `everyM` along strike, levels every `step`. Null where it has no surface. */
export function faultGrid(sticks: Point[][], everyM: number, step: number): FaultGrid | null {
  const ordered = inOrder(sticks.filter((s) => s.length > 1).map((s) => [...s].sort((a, b) => a[2] - b[2])));
  if (ordered.length < 2) return null;
  const middles = ordered.map((s) => s[s.length >> 1]);
  const distance = [0];
  for (let n = 1; n < middles.length; n++)
    distance.push(
      distance[n - 1] +
        Math.max(1e-6, Math.hypot(middles[n][0] - middles[n - 1][0], middles[n][1] - middles[n - 1][1])),
    );
  const length = distance[distance.length - 1];
  const rows = Math.max(2, Math.round(length / everyM) + 1);
  let [top, base] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const s of ordered) {
    top = Math.min(top, s[0][2]);
    base = Math.max(base, s[s.length - 1][2]);
  }
  const first = Math.ceil(top / step) * step;
  const levels = Math.max(1, Math.floor((base - first) / step) + 1);
  const made = () => new Float64Array(rows * levels).fill(Number.NaN);
  const grid: FaultGrid = {
    rows,
    levels,
    x: made(),
    y: made(),
    first,
    step,
    along: Float64Array.from({ length: rows }, (_, r) => (length * r) / (rows - 1)),
    towards: new Float64Array(2 * rows * levels).fill(Number.NaN),
  };
  for (let r = 0; r < rows; r++) {
    let n = 0;
    while (n < distance.length - 2 && distance[n + 1] < grid.along[r]) n++;
    const f = (grid.along[r] - distance[n]) / (distance[n + 1] - distance[n]);
    for (let k = 0; k < levels; k++) {
      const level = first + k * step;
      const [a, b] = [atLevel(ordered[n], level), atLevel(ordered[n + 1], level)];
      // one of two that reaches further than the other goes on alone
      const at = a && b ? [a[0] + f * (b[0] - a[0]), a[1] + f * (b[1] - a[1])] : f < 1e-9 ? a : f > 1 - 1e-9 ? b : null;
      if (!at) continue;
      grid.x[r * levels + k] = at[0];
      grid.y[r * levels + k] = at[1];
    }
  }
  towardsHanging(grid);
  return grid;
}

/** Which way the hanging wall lies: across the strike, to the side that the fault goes to with depth. */
export function towardsHanging(grid: FaultGrid): void {
  const { rows, levels, x, y, towards } = grid;
  const known = (r: number, k: number) =>
    r >= 0 && r < rows && k >= 0 && k < levels && !Number.isNaN(x[r * levels + k]) ? r * levels + k : -1;
  const wide = 4;
  // the side that it dips to on the whole, so that a place where it stands upright is of the same
  let [sx, sy] = [0, 0];
  for (let r = 0; r < rows; r++) {
    let [top, base] = [-1, -1];
    for (let k = 0; k < levels; k++) {
      const n = known(r, k);
      if (n < 0) continue;
      if (top < 0) top = n;
      base = n;
    }
    if (top >= 0) {
      sx += x[base] - x[top];
      sy += y[base] - y[top];
    }
  }
  for (let r = 0; r < rows; r++)
    for (let k = 0; k < levels; k++) {
      const n = known(r, k);
      if (n < 0) continue;
      let [a, b] = [n, n];
      for (let d = wide; d > 0 && a === n; d--) a = known(r - d, k) >= 0 ? known(r - d, k) : n;
      for (let d = wide; d > 0 && b === n; d--) b = known(r + d, k) >= 0 ? known(r + d, k) : n;
      const [dx, dy] = [x[b] - x[a], y[b] - y[a]];
      const size = Math.hypot(dx, dy);
      if (size === 0) continue;
      const sign = dy * sx - dx * sy < 0 ? -1 : 1;
      towards[2 * n] = (sign * dy) / size;
      towards[2 * n + 1] = (-sign * dx) / size;
    }
}

export interface ThrowSpec {
  /** Most that is looked for, both ways, in levels. */
  most: number;
  /** Levels over which the two sides are compared. */
  window: number;
  /** Most that throw may change from a level to the next, and from a row to the next, in levels. */
  strain: number;
}

export interface Throws {
  /** `[row][level]`, in levels, positive where the hanging wall lies deeper; of the bed whose two ends are centred there. */
  values: Float32Array;
  /** Correlation of the two sides, put back, from −1 to 1. */
  match: Float32Array;
}

/** Lags are halves of levels. */
const PER_LEVEL = 2;

/**
 * Throw over a fault by warping the one side onto the other: squared differences of the two, each over its own loudness, for every
 * throw; smoothed along strike; and the path of least difference down each row, of bounded strain (Hale 2013, Geophysics 78,
 * S105–S115, and O33–O43 for faults).
 * @param foot, hanging samples along both sides, `[row][level]`, NaN where there are none
 */
export function matchSides(
  foot: Float32Array,
  hanging: Float32Array,
  rows: number,
  levels: number,
  spec: ThrowSpec,
): Throws {
  const half = Math.round(spec.most * PER_LEVEL);
  const lags = 2 * half + 1;
  const values = new Float32Array(rows * levels).fill(Number.NaN);
  const match = new Float32Array(rows * levels).fill(Number.NaN);
  const [a, b] = [evened(foot, rows, levels, 2 * spec.window), evened(hanging, rows, levels, 2 * spec.window)];
  const at = (s: Float32Array, r: number, k: number) => {
    const low = Math.floor(k);
    if (low < 0 || low >= levels - 1) return low === levels - 1 && k === low ? s[r * levels + low] : Number.NaN;
    const f = k - low;
    return f === 0 ? s[r * levels + low] : (1 - f) * s[r * levels + low] + f * s[r * levels + low + 1];
  };
  /** Differences of one row at every level and throw; NaN where one of the two is not there. */
  const errorsOf = (r: number) => {
    const e = new Float32Array(levels * lags);
    for (let k = 0; k < levels; k++)
      for (let l = 0; l < lags; l++) {
        const shift = (l - half) / PER_LEVEL / 2;
        const d = at(a, r, k - shift) - at(b, r, k + shift);
        // two sides that have nothing in common differ by 2
        e[k * lags + l] = d === d ? Math.min(4, d * d) : 2;
      }
    return runningMean(e, levels, lags, spec.window >> 1);
  };
  const span = 3;
  const held = new Map<number, Float32Array>();
  for (let r = 0; r < rows; r++) {
    heed();
    const sum = new Float32Array(levels * lags);
    let weight = 0;
    for (let d = -span; d <= span; d++) {
      const q = r + d;
      if (q < 0 || q >= rows) continue;
      let own = held.get(q);
      if (!own) {
        own = errorsOf(q);
        held.set(q, own);
      }
      const w = 1 - Math.abs(d) / (span + 1);
      weight += w;
      for (let n = 0; n < sum.length; n++) sum[n] += w * own[n];
    }
    held.delete(r - span);
    for (let n = 0; n < sum.length; n++) sum[n] /= weight;
    const path = leastPath(sum, levels, lags, spec.strain * PER_LEVEL);
    for (let k = 0; k < levels; k++) {
      if (Number.isNaN(foot[r * levels + k]) || Number.isNaN(hanging[r * levels + k])) continue;
      const l = path[k];
      // between lags by a parabola
      let off = 0;
      if (l > 0 && l < lags - 1) {
        const [p, q, s] = [sum[k * lags + l - 1], sum[k * lags + l], sum[k * lags + l + 1]];
        const bend = p - 2 * q + s;
        if (bend > 0) off = Math.max(-0.5, Math.min(0.5, (0.5 * (p - s)) / bend));
      }
      values[r * levels + k] = (l + off - half) / PER_LEVEL;
      match[r * levels + k] = 1 - sum[k * lags + l] / 2;
    }
  }
  return { values, match };
}

/** Each row over its own loudness within a window. */
function evened(s: Float32Array, rows: number, levels: number, window: number): Float32Array {
  const out = new Float32Array(s.length).fill(Number.NaN);
  for (let r = 0; r < rows; r++)
    for (let k = 0; k < levels; k++) {
      const own = s[r * levels + k];
      if (own !== own) continue;
      let [sum, count] = [0, 0];
      for (let q = Math.max(0, k - window); q <= Math.min(levels - 1, k + window); q++) {
        const v = s[r * levels + q];
        if (v !== v) continue;
        sum += v * v;
        count++;
      }
      out[r * levels + k] = sum > 0 ? own / Math.sqrt(sum / count) : 0;
    }
  return out;
}

/** Mean over `half` levels on each side, for every lag. */
function runningMean(e: Float32Array, levels: number, lags: number, half: number): Float32Array {
  const out = new Float32Array(e.length);
  const sum = new Float64Array(lags);
  let count = 0;
  const add = (k: number, sign: number) => {
    if (k < 0 || k >= levels) return;
    count += sign;
    for (let l = 0; l < lags; l++) sum[l] += sign * e[k * lags + l];
  };
  for (let k = 0; k < half; k++) add(k, 1);
  for (let k = 0; k < levels; k++) {
    add(k + half, 1);
    for (let l = 0; l < lags; l++) out[k * lags + l] = sum[l] / count;
    add(k - half, -1);
  }
  return out;
}

/** The path of least sum down the levels that changes by no more than one lag in `1 / strain` levels. */
function leastPath(e: Float32Array, levels: number, lags: number, strain: number): Int32Array {
  const every = Math.max(1, Math.round(1 / strain));
  const cost = new Float64Array(levels * lags);
  const from = new Int8Array(levels * lags);
  for (let l = 0; l < lags; l++) cost[l] = e[l];
  for (let k = 1; k < levels; k++)
    for (let l = 0; l < lags; l++) {
      let best = cost[(k - 1) * lags + l];
      let step = 0;
      // a change is allowed at every so many levels
      if (k % every === 0)
        for (const d of [-1, 1]) {
          const m = l + d;
          if (m < 0 || m >= lags) continue;
          const c = cost[(k - 1) * lags + m];
          if (c < best) [best, step] = [c, d];
        }
      cost[k * lags + l] = best + e[k * lags + l];
      from[k * lags + l] = step;
    }
  const path = new Int32Array(levels);
  let l = 0;
  for (let m = 1; m < lags; m++) if (cost[(levels - 1) * lags + m] < cost[(levels - 1) * lags + l]) l = m;
  for (let k = levels - 1; k >= 0; k--) {
    path[k] = l;
    l += from[k * lags + l];
  }
  return path;
}

/** How throw changes along strike: the greatest of each row, and whether it dies out at both ends. */
export interface Profile {
  /** Greatest throw of each row over its levels, smoothed a little; NaN where none is known. */
  most: Float32Array;
  greatest: number;
  /** Whether it falls below a third of the greatest at the first and at the last row. */
  tapers: [boolean, boolean];
}

/** @param match correlations below `least` do not count */
export function profileOf({ values, match }: Throws, rows: number, levels: number, least: number): Profile {
  const most = new Float32Array(rows).fill(Number.NaN);
  for (let r = 0; r < rows; r++) {
    const own: number[] = [];
    for (let k = 0; k < levels; k++) {
      const n = r * levels + k;
      if (match[n] >= least && !Number.isNaN(values[n])) own.push(values[n]);
    }
    // a few places that match by chance are no throw
    if (own.length < Math.max(5, 0.15 * levels)) continue;
    // of either sign, but for the few that stand out
    own.sort((p, q) => Math.abs(p) - Math.abs(q));
    most[r] = own[Math.floor(0.9 * (own.length - 1))];
  }
  const known = [...most.keys()].filter((r) => !Number.isNaN(most[r]));
  if (known.length === 0) return { most, greatest: Number.NaN, tapers: [false, false] };
  const greatest = known.reduce((g, r) => (Math.abs(most[r]) > Math.abs(g) ? most[r] : g), 0);
  const low = (r: number) => Math.abs(most[r]) < Math.abs(greatest) / 3;
  return { most, greatest, tapers: [low(known[0]), low(known[known.length - 1])] };
}
