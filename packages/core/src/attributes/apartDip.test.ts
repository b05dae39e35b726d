import { expect, test } from 'vitest';
import type { Shape3 } from '../numerics/block.ts';
import { normal } from '../testing/random.ts';
import { APART_REACH, addApart, apartSums, withApart } from './apartDip.ts';
import { addToRegional, finishRegional, REGIONAL_REACH, regionalSums } from './regional.ts';

const SHAPE: Shape3 = [40, 44, 120];
const [P, Q] = [0.45, -0.3];

/** Beds without a period. */
const beds = (k: number) => {
  let v = 0;
  for (let n = 4; n <= 16; n++) v += Math.sin(0.055 * n * k + 2.3 * n * n);
  return v;
};

test('dips are not drawn towards level by noise that neighbouring traces share', () => {
  const [ni, nj, nk] = SHAPE;
  const reach = Math.max(APART_REACH, REGIONAL_REACH);
  const random = normal(7);
  const white = Float32Array.from({ length: (ni + 2 * reach + 2) * (nj + 2) * nk }, () => random());
  const data = new Float32Array((ni + 2 * reach) * nj * nk);
  for (let i = 0; i < ni + 2 * reach; i++)
    for (let j = 0; j < nj; j++)
      for (let k = 0; k < nk; k++) {
        // noise over three traces each way, level
        let noise = 0;
        for (let a = 0; a < 3; a++) for (let b = 0; b < 3; b++) noise += white[((i + a) * (nj + 2) + j + b) * nk + k];
        data[(i * nj + j) * nk + k] = beds(k - P * (i - reach) - Q * j) + 1.4 * noise;
      }
  const from = (own: number) => data.subarray((reach - own) * nj * nk, (ni + reach + own) * nj * nk);
  const sums = regionalSums(SHAPE, [2, 2, 4]);
  addToRegional(sums, from(REGIONAL_REACH), 0, ni);
  const first = finishRegional(sums, [1.2, 1.2, 1.5], 4);
  let dips = first;
  for (let n = 0; n < 3; n++) {
    const apart = apartSums(SHAPE, dips);
    addApart(apart, dips, from(APART_REACH), 0, ni);
    dips = withApart(dips, apart, [1.2, 1.2, 1.5], 4);
  }
  /** Mean over cells away from the sides. */
  const mean = (values: Float32Array) => {
    const [li, lj, lk] = dips.size;
    let [sum, count] = [0, 0];
    for (let i = 4; i < li - 4; i++)
      for (let j = 4; j < lj - 4; j++)
        for (let k = 4; k < lk - 4; k++) {
          sum += values[(i * lj + j) * lk + k];
          count++;
        }
    return sum / count;
  };
  // gradients alone are far off, which is what the second look is for
  expect(Math.abs(mean(first.p) - P)).toBeGreaterThan(0.08);
  expect(Math.abs(mean(dips.p) - P)).toBeLessThan(0.045);
  expect(Math.abs(mean(dips.q) - Q)).toBeLessThan(0.045);
});
