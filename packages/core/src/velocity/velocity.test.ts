import { describe, expect, test } from 'vitest';
import { krige } from './kriging.ts';
import { depthAfter, fitLayer, timeBetween } from './layer.ts';

describe('v0 + k·z', () => {
  test('closed forms agree with integration to a hundredth of a metre, and undo each other', () => {
    for (const law of [
      { v0: 1800, k: 0.6 },
      { v0: 2500, k: 0 },
      { v0: 1500, k: 1.1 },
    ]) {
      let z = 300;
      const dt = 0.001;
      for (let t = 0; t < 800; t += dt) {
        const half = z + ((law.v0 + law.k * z) * dt) / 4000;
        z += ((law.v0 + law.k * half) * dt) / 2000;
      }
      expect(Math.abs(depthAfter(law, 300, 800) - z)).toBeLessThan(0.01);
      expect(timeBetween(law, 300, depthAfter(law, 300, 800))).toBeCloseTo(800, 8);
    }
  });
  test('a well with hundreds of points counts no more than one with a few, and a gradient at its bound is said', () => {
    const pointsOf = (law: { v0: number; k: number }, count: number) => ({
      top: { z: 400, t: 400 },
      points: Array.from({ length: count }, (_, n) => {
        const t = (400 * (n + 1)) / count;
        return { t: 400 + t, z: depthAfter(law, 400, t) };
      }),
    });
    const [tied, shot] = [pointsOf({ v0: 2000, k: 0.4 }, 400), pointsOf({ v0: 2200, k: 0.4 }, 400)];
    const even = fitLayer([tied, shot]);
    const few = fitLayer([tied, pointsOf({ v0: 2200, k: 0.4 }, 8)]);
    const speed = (law: typeof even) => depthAfter(law ?? { v0: 0, k: 0 }, 400, 400);
    // half way between the two, whichever has more points
    expect(Math.abs(speed(even) - speed(few))).toBeLessThan(6);
    expect(even?.atBound).toBe(false);
    expect(fitLayer([pointsOf({ v0: 1500, k: 2 }, 30)])?.atBound).toBe(true);
    expect(fitLayer([pointsOf({ v0: 2500, k: -0.5 }, 30)])).toMatchObject({ k: 0, atBound: true });
  });
  test('a law is found again from the points of wells that begin at different depths', () => {
    const law = { v0: 1900, k: 0.5 };
    const wells = [350, 420, 500].map((z0) => ({
      top: { z: z0, t: 400 },
      points: [100, 250, 400].map((t) => ({ t: 400 + t, z: depthAfter(law, z0, t) })),
    }));
    const fit = fitLayer(wells);
    expect(fit?.k).toBeCloseTo(0.5, 6);
    expect(fit?.v0).toBeCloseTo(1900, 4);
    expect(fit?.rms).toBeLessThan(1e-6);
    expect(fitLayer([])).toBeNull();
  });
});

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
