import type { AgeProblem } from './solve.ts';

/**
 * Make ages rise down every trace, moving them as little as can be in the least-squares sense (pool adjacent violators: Ayer et al.
 * 1955, Ann. Math. Stat. 26, 641–647). Across a fault they may fall, where it repeats beds; on each side of it they rise.
 * @param least age by which a sample is older than the one above it at least
 * @returns how many samples were moved by more than half a step
 */
export function riseDown(
  ages: Float32Array,
  { shape, cuts, layer, step }: Pick<AgeProblem, 'shape' | 'cuts' | 'layer' | 'step'>,
  least: number,
): number {
  const nk = shape[2];
  const sum = new Float64Array(nk);
  const count = new Int32Array(nk);
  let moved = 0;
  const settle = (from: number, to: number) => {
    let blocks = 0;
    for (let n = from; n < to; n++) {
      // less what they must rise by, they may not fall
      sum[blocks] = ages[n] - (n - from) * least;
      count[blocks] = 1;
      blocks++;
      while (blocks > 1 && sum[blocks - 2] / count[blocks - 2] > sum[blocks - 1] / count[blocks - 1]) {
        sum[blocks - 2] += sum[blocks - 1];
        count[blocks - 2] += count[blocks - 1];
        blocks--;
      }
    }
    let n = from;
    for (let b = 0; b < blocks; b++)
      for (let m = 0; m < count[b]; m++, n++) {
        const v = sum[b] / count[b] + (n - from) * least;
        if (Math.abs(v - ages[n]) > step / 2) moved++;
        ages[n] = v;
      }
  };
  for (let t = 0; t < ages.length; t += nk) {
    let from = t;
    for (let n = t; n < t + nk; n++) {
      const last = n === t + nk - 1;
      // a patch ends at a fault, or where an unconformity parts what is above and below
      if (last || cuts[n] & 4 || layer[n] !== layer[n + 1]) {
        settle(from, n + 1);
        from = n + 1;
      }
    }
  }
  return moved;
}

/** Least rise of age over what is usual: where ages had to be made to rise, they do so by this. */
export const LEAST_RATE = 0.02;

/** Put kept ages back, and what lies below them no younger than they are. */
export function keepAges(
  ages: Float32Array,
  kept: Float32Array,
  { shape, cuts, layer }: Pick<AgeProblem, 'shape' | 'cuts' | 'layer'>,
  least: number,
): void {
  const nk = shape[2];
  for (let t = 0; t < ages.length; t += nk)
    for (let n = t; n < t + nk; n++) {
      if (kept[n] === kept[n]) ages[n] = kept[n];
      else if (n > t && !(cuts[n - 1] & 4) && layer[n - 1] === layer[n])
        ages[n] = Math.max(ages[n], ages[n - 1] + least);
    }
}

/** How far beds followed along the ages leave the dips: the root mean square of what is off from a node to the next ones, samples. */
export function misfitOf(
  ages: Float32Array,
  { shape: [ni, nj, nk], p, q, cuts, layer, step }: AgeProblem,
): Float32Array {
  const squares = new Float32Array(ages.length);
  const counts = new Uint8Array(ages.length);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++)
      for (let axis = 0; axis < 2; axis++) {
        if (axis === 0 ? i + 1 >= ni : j + 1 >= nj) continue;
        const own = (i * nj + j) * nk;
        const other = own + (axis === 0 ? nj * nk : nk);
        const slope = axis === 0 ? p : q;
        for (let k = 1; k < nk - 1; k++) {
          if (cuts[own + k] & (axis === 0 ? 1 : 2) || layer[own + k] !== layer[other + k]) continue;
          const across = ages[other + k] - ages[own + k];
          const down = Math.max(
            0.1 * step,
            (ages[own + k + 1] - ages[own + k - 1] + ages[other + k + 1] - ages[other + k - 1]) / 4,
          );
          // beds of one age drop by as much as ages fall across, over how they rise down
          const off = -across / down - 0.5 * (slope[own + k] + slope[other + k]);
          for (const n of [own + k, other + k]) {
            squares[n] += off * off;
            counts[n]++;
          }
        }
      }
  return squares.map((v, n) => (counts[n] > 0 ? Math.sqrt(v / counts[n]) : 0));
}
