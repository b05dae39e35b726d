import { randomOf } from '../classes/kinds.ts';
import { heed } from '../numerics/stop.ts';

/** Where a body ends down dip. */
export interface BodyEdge {
  /** Bins of the rim that have the surface. */
  rim: number;
  /** Depth that half of the rim lies above, and nine tenths of it. */
  middle: number;
  lowest: number;
  /** Between a quarter and three quarters of the rim. */
  spread: number;
  /**
   * How often an outline of the same shape, laid elsewhere and turned, has a rim that is as flat: small where the edge follows a
   * contour, as that of a fluid does. NaN where there was no room to try.
   */
  chance: number;
}

/** Outlines that are laid elsewhere. */
const TRIES = 199;
/** Part of an outline's bins that must have the surface where it is laid. */
const ENOUGH = 0.8;
/** A rim of fewer bins says nothing. */
const FEWEST = 12;

const BESIDE = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
];

/** Depths of the surface where an outline ends and the surface goes on deeper, half way to the bin beside it. */
export function rimDepths(footprint: Uint8Array, depth: Float32Array, rows: number, columns: number): number[] {
  const rim: number[] = [];
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++) {
      const own = i * columns + j;
      if (!footprint[own]) continue;
      let deepest = Number.NaN;
      for (const [di, dj] of BESIDE) {
        const [a, b] = [i + di, j + dj];
        if (a < 0 || b < 0 || a >= rows || b >= columns || footprint[a * columns + b]) continue;
        const other = depth[a * columns + b];
        if (other > depth[own] && !(other <= deepest)) deepest = other;
      }
      if (!Number.isNaN(deepest)) rim.push((depth[own] + deepest) / 2);
    }
  return rim.sort((a, b) => a - b);
}

const at = (sorted: number[], part: number) => sorted[Math.round(part * (sorted.length - 1))];
const spreadOf = (rim: number[]) => at(rim, 0.75) - at(rim, 0.25);

/**
 * The down-dip edge of a body against the depth of a surface, with a test of its flatness: outlines of the same shape are laid at
 * random over the surface, turned by quarters (Fisher 1935, The Design of Experiments, ch. 3: what chance alone would give).
 * @param footprint 1 where the body lies, `[inline][crossline]`; @param depth m, NaN where the surface is not
 * @returns null where no rim is left: the body ends at no deeper bin
 */
export function edgeOf(footprint: Uint8Array, depth: Float32Array, rows: number, columns: number): BodyEdge | null {
  const rim = rimDepths(footprint, depth, rows, columns);
  if (rim.length < FEWEST) return null;
  const spread = spreadOf(rim);
  const bins: [number, number][] = [];
  for (let n = 0; n < footprint.length; n++) if (footprint[n]) bins.push([Math.floor(n / columns), n % columns]);
  const random = randomOf(1);
  const middle = [0, 1].map((c) => bins.reduce((sum, b) => sum + b[c], 0) / bins.length);
  let [tried, flat] = [0, 0];
  const laid = new Uint8Array(footprint.length);
  for (let n = 0; n < TRIES; n++) {
    heed();
    const [ci, cj] = [random() * rows, random() * columns];
    const quarters = Math.floor(random() * 4);
    const [cos, sin] = [
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
    ][quarters];
    laid.fill(0);
    let held = 0;
    for (const [i, j] of bins) {
      const [u, v] = [i - middle[0], j - middle[1]];
      const [a, b] = [Math.round(ci + cos * u - sin * v), Math.round(cj + sin * u + cos * v)];
      if (a < 0 || b < 0 || a >= rows || b >= columns || Number.isNaN(depth[a * columns + b])) continue;
      laid[a * columns + b] = 1;
      held++;
    }
    if (held < ENOUGH * bins.length) continue;
    const other = rimDepths(laid, depth, rows, columns);
    if (other.length < Math.max(FEWEST, rim.length / 2)) continue;
    tried++;
    if (spreadOf(other) <= spread) flat++;
  }
  return {
    rim: rim.length,
    middle: at(rim, 0.5),
    lowest: at(rim, 0.9),
    spread,
    chance: tried < 19 ? Number.NaN : (1 + flat) / (1 + tried),
  };
}
