import { expect, test } from 'vitest';
import { krige } from './kriging.ts';

test('kriging is exact at wells and fades away from them', () => {
  const points = [
    { x: 0, y: 0, value: 5 },
    { x: 800, y: 0, value: -3 },
    { x: 0, y: 900, value: 2 },
  ];
  const at = krige(points, 3000);
  for (const p of points) expect(at(p.x, p.y)).toBeCloseTo(p.value, 9);
  expect(Math.abs(at(30000, 30000))).toBeLessThan(1e-6);
  expect(krige([], 1000)(3, 4)).toBe(0);
  // two wells from one place: one point with their mean, and the others as they were
  const twice = krige([...points, { ...points[0], value: points[0].value + 4 }], 3000);
  expect(twice(points[0].x, points[0].y)).toBeCloseTo(points[0].value + 2, 9);
  expect(twice(points[1].x, points[1].y)).toBeCloseTo(points[1].value, 9);
  expect(Math.abs(twice(30000, 30000))).toBeLessThan(1e-6);
  // side tracks a few metres apart are places of their own
  const near = krige([...points, { ...points[0], x: points[0].x + 3, value: points[0].value + 1 }], 3000);
  expect(near(points[0].x + 3, points[0].y)).toBeCloseTo(points[0].value + 1, 6);
});
