import { expect, test } from 'vitest';
import { cutAt } from './cuts';

test('a horizon has a gap where it would run across a fault, and only there', () => {
  const points = Array.from({ length: 20 }, (_, t): [number, number] => [t, t < 10 ? 500 : 560]);
  const gaps = (cuts: [number, number, number, number][]) =>
    cutAt(points, cuts)
      .filter(([, v]) => Number.isNaN(v))
      .map(([t]) => t);
  expect(gaps([[8, 100, 11, 900]])).toEqual([9.5]);
  // a fault that ends above the horizon does not cut it
  expect(gaps([[8, 100, 9.2, 400]])).toEqual([]);
  expect(gaps([])).toEqual([]);
  expect(cutAt(points, [[3.5, 400, 3.5, 600]]).filter(([, v]) => Number.isNaN(v))).toHaveLength(1);
});
