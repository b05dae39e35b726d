import type { Shape3 } from '../numerics/block.ts';
import { latticeTrace, type Regional, smoothLattice } from './regional.ts';

/** Traces on each side of a place that are compared: noise that goes from one trace to the next has ended by then. */
const APART = 4;

/** Lines around a slab that are compared with those of it. */
export const APART_REACH = APART;

/** How far dips are off, as sums over cells while a volume is read slab by slab. */
export interface ApartSums {
  shape: Shape3;
  /** Along inlines' count and along crosslines': slope times difference, and slope squared. */
  across: [Float64Array, Float64Array];
  squares: [Float64Array, Float64Array];
}

export function apartSums(shape: Shape3, { size }: Regional): ApartSums {
  const made = (): [Float64Array, Float64Array] => {
    const length = size[0] * size[1] * size[2];
    return [new Float64Array(length), new Float64Array(length)];
  };
  return { shape, across: made(), squares: made() };
}

/**
 * Compare the traces `APART` to each side of every place of the lines from `from` to `to` (excluded), both moved along the dips that are
 * known so far; `data` holds those lines and `APART_REACH` on each side, NaN where there is none.
 */
export function addApart(sums: ApartSums, regional: Regional, data: Float32Array, from: number, to: number): void {
  const [ni, nj, nk] = sums.shape;
  const { cell, size } = regional;
  const drop = new Float32Array(nk);
  for (let i = from; i < to; i++)
    for (let j = 0; j < nj; j++)
      for (let axis = 0; axis < 2; axis++) {
        const [at, count] = axis === 0 ? [i, ni] : [j, nj];
        if (at < APART || at >= count - APART) continue;
        const stride = axis === 0 ? nj * nk : nk;
        const middle = ((i - from + APART) * nj + j) * nk;
        const [before, after] = [middle - APART * stride, middle + APART * stride];
        latticeTrace(axis === 0 ? regional.p : regional.q, regional, i, j, 0, drop);
        const row = (Math.floor(i / cell[0]) * size[1] + Math.floor(j / cell[1])) * size[2];
        const [across, squares] = [sums.across[axis], sums.squares[axis]];
        for (let k = 0; k < nk; k++) {
          const shift = APART * drop[k];
          const [ka, kb] = [Math.floor(k - shift), Math.floor(k + shift)];
          if (ka < 1 || kb < 1 || ka + 2 >= nk || kb + 2 >= nk) continue;
          const [fa, fb] = [k - shift - ka, k + shift - kb];
          const [a, b] = [before + ka, after + kb];
          const difference = (1 - fb) * data[b] + fb * data[b + 1] - (1 - fa) * data[a] - fa * data[a + 1];
          const slope =
            0.25 *
            ((1 - fa) * (data[a + 1] - data[a - 1]) +
              fa * (data[a + 2] - data[a]) +
              (1 - fb) * (data[b + 1] - data[b - 1]) +
              fb * (data[b + 2] - data[b]));
          const product = difference * slope;
          if (product !== product) continue;
          const n = row + Math.floor(k / cell[2]);
          across[n] += product;
          squares[n] += slope * slope;
        }
      }
}

/**
 * Dips moved by what the two traces still are apart (least squares on a first-order expansion: Lucas & Kanade 1981, Proc. IJCAI,
 * 674–679). Noise that is alike on neighbouring traces draws dips of gradients towards level; traces further apart do not share it.
 * @param sigma cells over which what is off is smoothed
 * @param steepest samples a trace beyond which no dip is believed
 */
export function withApart(
  regional: Regional,
  sums: ApartSums,
  sigma: [number, number, number],
  steepest: number,
): Regional {
  const moved = (dip: Float32Array, axis: 0 | 1) => {
    const across = smoothLattice(sums.across[axis], regional.size, sigma);
    const squares = smoothLattice(sums.squares[axis], regional.size, sigma);
    return dip.map((v, n) => {
      if (!(squares[n] > 0)) return v;
      // no further at once than what is less than half a cycle of usual seismic
      const by = Math.max(-0.25, Math.min(0.25, -across[n] / (2 * APART * squares[n])));
      return Math.max(-steepest, Math.min(steepest, v + by));
    });
  };
  return { ...regional, p: moved(regional.p, 0), q: moved(regional.q, 1) };
}
