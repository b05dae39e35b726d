import { describe, expect, test } from 'vitest';
import type { Block, Halo } from '../numerics/block.ts';
import { madeBlock } from '../testing/blocks.ts';
import { normal } from '../testing/random.ts';
import { searchHalo, searchSlopes } from './searchDip.ts';
import { gaussian, type Slopes, tensorHalo, tensorSlopes } from './tensorDip.ts';

/** Bins of 25 m and samples of 4 m: what a slope in samples a trace is as an angle. */
const degrees = (slope: number) => (Math.atan((slope * 4) / 25) * 180) / Math.PI;

const NONE: Halo = { inline: 0, crossline: 0, sample: 0 };
const TENSOR = { lateral: 1.5, vertical: 4 };
const SEARCH = { radius: 2, half: 6, most: 3 };

/** Beds of many frequencies below Nyquist, at any depth. */
const beds = (z: number) => {
  let v = 0;
  for (let n = 1; n <= 12; n++) v += Math.sin(0.11 * n * z + 1.7 * n * n) / (1 + 0.05 * n);
  return v;
};

/** Angles between slopes that were found and known ones, degrees, sorted. */
function misses(
  found: Slopes,
  p: (i: number, j: number, k: number) => number,
  q: (i: number, j: number, k: number) => number,
) {
  const [ni, nj, nk] = found.size;
  const out: number[] = [];
  for (let i = 0, n = 0; i < ni; i++)
    for (let j = 0; j < nj; j++)
      for (let k = 0; k < nk; k++, n++)
        out.push(
          Math.abs(degrees(found.p[n]) - degrees(p(i, j, k))),
          Math.abs(degrees(found.q[n]) - degrees(q(i, j, k))),
        );
  return out.sort((a, b) => a - b);
}
const median = (sorted: number[]) => sorted[sorted.length >> 1];

const WAYS = [
  ['the structure tensor', tensorHalo(TENSOR), (b: Block) => tensorSlopes(b, TENSOR, NONE)],
  ['search', searchHalo(SEARCH), (b: Block) => searchSlopes(b, SEARCH, NONE)],
] as const;

describe.each(WAYS)('slopes by %s', (_, halo, find) => {
  test.each([
    [0, 0],
    [0.8, -0.3],
    [-1.7, 1.2],
  ])('of planar beds that drop by %f and %f samples a trace are right to half a degree everywhere', (a, b) => {
    const found = find(madeBlock([5, 6, 40], halo, (i, j, k) => beds(k - a * i - b * j)));
    const off = misses(
      found,
      () => a,
      () => b,
    );
    expect(off[off.length - 1]).toBeLessThan(0.5);
    expect(Math.max(...found.chaos)).toBeLessThan(0.12);
  });

  test('of curved beds are right to half a degree everywhere', () => {
    // a dome: z = k + ½ c (i² + j²), so that a bed drops by c·i a trace
    const c = 0.03;
    const found = find(madeBlock([9, 9, 30], halo, (i, j, k) => beds(k - 0.5 * c * ((i - 4) ** 2 + (j - 4) ** 2))));
    const off = misses(
      found,
      (i) => c * (i - 4),
      (_, j) => c * (j - 4),
    );
    expect(off[off.length - 1]).toBeLessThan(0.5);
  });

  test('under noise of a quarter of the signal are right to a degree in the median', () => {
    const noise = normal(5);
    const clean = madeBlock([8, 8, 60], halo, (i, j, k) => beds(k - 0.9 * i + 0.5 * j));
    const rms = Math.sqrt(clean.data.reduce((s, v) => s + v * v, 0) / clean.data.length);
    const data = clean.data.map((v) => v + (rms / 4) * noise());
    const off = misses(
      find({ ...clean, data }),
      () => 0.9,
      () => -0.5,
    );
    expect(median(off)).toBeLessThan(1);
  });

  test('are the same wherever a region is cut', () => {
    const at = (i: number, j: number, k: number) => beds(k - 0.7 * i + 0.2 * j * Math.sin(i / 5));
    const whole = find(madeBlock([6, 5, 24], halo, at));
    const part = find(madeBlock([2, 3, 10], halo, (i, j, k) => at(i + 3, j + 1, k + 8)));
    for (let i = 0; i < 2; i++)
      for (let j = 0; j < 3; j++)
        for (let k = 0; k < 10; k++) {
          const a = ((i + 3) * 5 + j + 1) * 24 + k + 8;
          const b = (i * 3 + j) * 10 + k;
          expect(part.p[b]).toBeCloseTo(whole.p[a], 4);
          expect(part.q[b]).toBeCloseTo(whole.q[a], 4);
        }
  });

  test('are there beside missing traces, and at the edge of the survey', () => {
    const found = find(
      madeBlock([4, 4, 20], halo, (i, j, k) =>
        i < 0 || (i === 2 && j === 2) ? Number.NaN : beds(k - 0.5 * i - 0.5 * j),
      ),
    );
    const off = misses(
      found,
      () => 0.5,
      () => 0.5,
    );
    expect(off.every(Number.isFinite)).toBe(true);
    expect(median(off)).toBeLessThan(0.6);
  });
});

test('noise alone is disorder', () => {
  const noise = normal(8);
  const found = tensorSlopes(madeBlock([5, 5, 30], tensorHalo(TENSOR), noise), TENSOR, NONE);
  const mean = found.chaos.reduce((s, v) => s + v, 0) / found.chaos.length;
  expect(mean).toBeGreaterThan(0.35);
});

test('a Gaussian has a sum of one', () => {
  expect(gaussian(1.5, 4).reduce((s, v) => s + v, 0)).toBeCloseTo(1, 6);
});
