import { addToRegional, finishRegional, latticeAt, REGIONAL_REACH, regionalSums } from '../attributes/regional.ts';
import { type BinGrid, toIndex } from '../earth/binGrid.ts';
import { type Region, type Shape3, sizeOf } from '../numerics/block.ts';
import { heed } from '../numerics/stop.ts';
import { STEEPEST } from './across.ts';
import type { FaultGrid } from './throw.ts';

/** How far from a fault its sides are looked at, bins: beyond the blur of its plane. */
const AWAY = [2, 3, 4];

/** Bins around a fault that its sides need. */
export const SIDES_REACH = AWAY[AWAY.length - 1] + 8;

/** Samples along both sides of a fault, `[row][level]`, NaN where there are none. */
export interface Sides {
  foot: Float32Array;
  hanging: Float32Array;
}

/** What lies around a fault: samples of a region with no more around it, NaN where there are none. */
export interface Around {
  data: Float32Array;
  region: Region;
  binGrid: BinGrid;
  first: number;
  step: number;
}

/**
 * The two sides of a fault: the mean of traces two to four bins away on each, brought to the fault along the dip that beds have
 * further out on that side.
 */
export function sidesOf(grid: FaultGrid, { data, region, binGrid, first, step }: Around): Sides {
  const shape: Shape3 = sizeOf(region);
  const [ni, nj, nk] = shape;
  const sums = regionalSums(shape, [4, 4, 8]);
  const padded = new Float32Array((ni + 2 * REGIONAL_REACH) * nj * nk).fill(Number.NaN);
  padded.set(data, REGIONAL_REACH * nj * nk);
  addToRegional(sums, padded, 0, ni);
  const dips = finishRegional(sums, [1, 1, 1.2], STEEPEST);
  const bin = Math.min(Math.hypot(...binGrid.perInline), Math.hypot(...binGrid.perCrossline));
  const sample = (i: number, j: number, k: number) => {
    const low = Math.floor(k);
    if (i < 0 || j < 0 || i >= ni || j >= nj || low < 0 || low + 1 >= nk) return Number.NaN;
    const n = (i * nj + j) * nk + low;
    const f = k - low;
    if (low < 1 || low + 2 >= nk) return (1 - f) * data[n] + f * data[n + 1];
    const [a, b, c, d] = [data[n - 1], data[n], data[n + 1], data[n + 2]];
    return b + 0.5 * f * (c - a + f * (2 * a - 5 * b + 4 * c - d + f * (3 * (b - c) + d - a)));
  };
  /** Between four traces, each moved along dip to the place. */
  const moved = (i: number, j: number, k: number, p: number, q: number) => {
    const [i0, j0] = [Math.floor(i), Math.floor(j)];
    let [sum, weight] = [0, 0];
    for (const [di, dj] of [
      [0, 0],
      [0, 1],
      [1, 0],
      [1, 1],
    ]) {
      const w = (di ? i - i0 : 1 - i + i0) * (dj ? j - j0 : 1 - j + j0);
      if (w < 1e-9) continue;
      const v = sample(i0 + di, j0 + dj, k + p * (i0 + di - i) + q * (j0 + dj - j));
      if (v !== v) continue;
      sum += w * v;
      weight += w;
    }
    return weight > 0.4 ? sum / weight : Number.NaN;
  };
  const out: Sides = {
    foot: new Float32Array(grid.rows * grid.levels).fill(Number.NaN),
    hanging: new Float32Array(grid.rows * grid.levels).fill(Number.NaN),
  };
  for (let r = 0; r < grid.rows; r++) {
    heed();
    for (let l = 0; l < grid.levels; l++) {
      const n = r * grid.levels + l;
      const [tx, ty] = [grid.towards[2 * n], grid.towards[2 * n + 1]];
      if (Number.isNaN(tx) || Number.isNaN(grid.x[n])) continue;
      const k = (grid.first + l * grid.step - first) / step;
      const [i, j] = toIndex(binGrid, grid.x[n], grid.y[n]);
      const [ai, aj] = toIndex(binGrid, grid.x[n] + bin * tx, grid.y[n] + bin * ty);
      const [ui, uj] = [ai - i, aj - j];
      for (const [side, s] of [
        [out.foot, -1],
        [out.hanging, 1],
      ] as const) {
        const [oi, oj] = [i - region.i[0], j - region.j[0]];
        // beds bend towards a fault: their dip is that further out
        const out6 = [oi + s * 5 * ui, oj + s * 5 * uj];
        const p = latticeAt(dips.p, dips, out6[0], out6[1], k - region.k[0]);
        const q = latticeAt(dips.q, dips, out6[0], out6[1], k - region.k[0]);
        let [sum, count] = [0, 0];
        for (const d of AWAY) {
          const [di, dj] = [s * d * ui, s * d * uj];
          const v = moved(oi + di, oj + dj, k - region.k[0] + p * di + q * dj, p, q);
          if (v !== v) continue;
          sum += v;
          count++;
        }
        if (count > 0) side[n] = sum / count;
      }
    }
  }
  return out;
}
