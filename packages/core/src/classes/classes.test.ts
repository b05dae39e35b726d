import { describe, expect, test } from 'vitest';
import { normal } from '../testing/random.ts';
import { nearestCentres, type PointSet } from './kinds.ts';
import { kMeans } from './kMeans.ts';
import { fitMixture, membership } from './mixture.ts';
import { orderOfCentres, randIndex } from './order.ts';
import { principal, projected } from './principal.ts';
import { selfOrganizingMap } from './selfOrganizing.ts';

/** Clouds of points about places of a plane, with the cloud of each. */
function clouds(places: [number, number, number][], each: number, seed: number) {
  const random = normal(seed);
  const values: number[] = [];
  const of: number[] = [];
  for (let n = 0; n < each; n++)
    for (const [c, [x, y, spread]] of places.entries()) {
      values.push(x + spread * random(), y + spread * random());
      of.push(c);
    }
  return { points: { values: Float32Array.from(values), dimensions: 2 } as PointSet, of };
}
const FOUR: [number, number, number][] = [
  [0, 0, 0.5],
  [6, 0, 0.5],
  [6, 5, 0.5],
  [-5, 4, 0.5],
];

describe('classes without training', () => {
  const { points, of } = clouds(FOUR, 120, 3);
  test('k-means finds clouds that stand apart, whatever the seed', () => {
    for (const seed of [1, 2, 3, 4, 5, 6]) {
      const { centres } = kMeans(points, 4, seed);
      expect(randIndex(nearestCentres(points, centres).first, of)).toBeGreaterThan(0.99);
    }
  });
  test('the same seed gives the same classes', () => {
    expect(kMeans(points, 5, 7)).toEqual(kMeans(points, 5, 7));
  });
  test('a self-organizing map finds them too, and neighbours along its chain are alike', () => {
    const { centres } = selfOrganizingMap(points, 4);
    expect(randIndex(nearestCentres(points, centres).first, of)).toBeGreaterThan(0.95);
    expect(orderOfCentres(centres, 2).join()).toMatch(/^(0,1,2,3|3,2,1,0)$/);
  });
  test('a mixture of wide and narrow clouds is told by its own spreads, and the number by the criterion', () => {
    const mixed = clouds(
      [
        [0, 0, 2.5],
        [7, 0, 0.4],
        [0, 9, 0.8],
      ],
      200,
      5,
    );
    const fits = [1, 2, 3, 4, 5, 6].map((k) => fitMixture(mixed.points, k, 1));
    expect(fits.map((f) => f.bic).indexOf(Math.min(...fits.map((f) => f.bic)))).toBe(2);
    const share = membership(mixed.points, fits[2]);
    const first = mixed.of.map((_, p) => [0, 1, 2].reduce((a, c) => (share[p * 3 + c] > share[p * 3 + a] ? c : a), 0));
    expect(randIndex(first, mixed.of)).toBeGreaterThan(0.95);
    for (let p = 0; p < 50; p++) expect(share.subarray(3 * p, 3 * p + 3).reduce((s, v) => s + v, 0)).toBeCloseTo(1, 5);
  });
  test('one more class than there are clouds gains little', () => {
    const within = [1, 2, 3, 4, 5, 6].map((k) => kMeans(points, k, 1).within);
    const gains = within.slice(1).map((w, n) => (within[n] - w) / within[0]);
    expect(gains[2]).toBeGreaterThan(10 * gains[3]);
  });
});

test('the order of centres is the shortest way through them', () => {
  // along a line, given in disorder
  const centres = Float64Array.from([3, 0, 1, 4, 2].flatMap((x) => [x, 2 * x]));
  expect(orderOfCentres(centres, 2)).toEqual([1, 2, 4, 0, 3]);
});

test('principal components are those of the cloud, and keep its distances', () => {
  const random = normal(9);
  const values = new Float32Array(900);
  for (let p = 0; p < 300; p++) {
    const [a, b] = [4 * random(), 0.5 * random()];
    values.set([a * 0.6 - b * 0.8, a * 0.8 + b * 0.6, 0.01 * random()], 3 * p);
  }
  const points: PointSet = { values, dimensions: 3 };
  const found = principal(points, 3);
  expect(Math.abs(found.vectors[0] * 0.6 + found.vectors[1] * 0.8)).toBeGreaterThan(0.999);
  expect(found.variances[0] / found.total).toBeGreaterThan(0.95);
  const flat = projected(points, found);
  const far = (v: Float32Array, a: number, b: number) =>
    Math.hypot(...[0, 1, 2].map((c) => v[3 * a + c] - v[3 * b + c]));
  for (const [a, b] of [
    [0, 1],
    [5, 77],
  ])
    expect(far(flat.values, a, b)).toBeCloseTo(far(values, a, b), 3);
});

test('the Rand index is one for the same parts by other names, and about nought for chance', () => {
  expect(randIndex([0, 0, 1, 1, 2], [5, 5, 3, 3, 9])).toBe(1);
  const random = normal(2);
  const [a, b] = [0, 1].map(() => Array.from({ length: 2000 }, () => (random() > 0 ? 1 : 0)));
  expect(Math.abs(randIndex(a, b))).toBeLessThan(0.02);
});
