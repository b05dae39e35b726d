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

test('what climbs through the heave of a fault is left out, as far as it is steep', () => {
  // level to trace 12, then over six traces to the other side, as a closed horizon runs
  const points = Array.from({ length: 40 }, (_, t): [number, number] => [
    t,
    t < 12 ? 1000 + t : t > 18 ? 940 + t : 1012 - 11 * (t - 12),
  ]);
  const seen = cutAt(points, [[20, 700, 14, 1100]]).filter(([, v]) => !Number.isNaN(v));
  const traces = seen.map(([t]) => t);
  expect(traces).toContain(11);
  expect(traces).toContain(20);
  for (const t of [14, 15, 16]) expect(traces).not.toContain(t);
  // away from faults a steep horizon stays
  expect(cutAt(points, [[35, 0, 35, 100]])).toEqual(points);
});
