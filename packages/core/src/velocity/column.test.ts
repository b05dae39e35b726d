import { describe, expect, test } from 'vitest';
import {
  columnOf,
  depthOfTime,
  downColumn,
  type LayerHere,
  thicknessByTrace,
  timeAbove,
  timeOfDepth,
  type VelocitySamples,
  velocityOfTime,
} from './column.ts';
import { type Law, LEAST_VELOCITY } from './law.ts';

const laws: Law[] = [
  { form: 'v0 + k·z from the datum', v0: 1500, k: 0.8 },
  { form: 'v0 + k·z from the top', v0: 2200, k: 0.3 },
  { form: 'v0 + k·t from the top', v0: 2400, k: 500 },
  { form: 'from top to base', v0: 2600, k: 0, vBase: 3100 },
  { form: 'constant', v0: 3300, k: 0 },
];
const bases = [600, 800, 950, 1200, 1400];
const layers = laws.map((law, n): LayerHere => ({ law, base: bases[n] }));
const ABOVE = { waterVelocity: 1490 };

describe('a column', () => {
  const column = columnOf(90, ABOVE, layers);
  test('agrees with fine integration of every law to a hundredth of a metre', () => {
    let z = 90;
    let t = column.t[0];
    laws.forEach((law, n) => {
      const [z0, t0, dt] = [z, t, bases[n] - t];
      const velocity = (depth: number, time: number): number => {
        if (law.form === 'v0 + k·z from the datum') return law.v0 + law.k * depth;
        if (law.form === 'v0 + k·z from the top') return law.v0 + law.k * (depth - z0);
        if (law.form === 'v0 + k·t from the top') return law.v0 + (law.k * (time - t0)) / 1000;
        if (law.form === 'constant') return law.v0;
        const thick = column.boundaries[n].z - z0;
        return law.v0 + (((law.vBase ?? 0) - law.v0) * (depth - z0)) / thick;
      };
      const steps = 40000;
      for (let s = 0; s < steps; s++) {
        const h = dt / steps;
        const half = z + (velocity(z, t) * h) / 4000;
        z += (velocity(half, t + h / 2) * h) / 2000;
        t += h;
      }
      expect(Math.abs(column.boundaries[n].z - z)).toBeLessThan(0.01);
    });
  });
  test('time to depth and back returns to far less than a tenth of a millisecond, in water and below the last horizon too', () => {
    for (let t = 0; t < 2000; t += 3.7) expect(timeOfDepth(column, depthOfTime(column, t))).toBeCloseTo(t, 7);
  });
  test('is walked down as it is asked place by place', () => {
    const even = new Float64Array(600);
    downColumn(column, 'twt', -8, 4, even);
    even.forEach((t, k) => {
      expect(t).toBeCloseTo(timeOfDepth(column, 4 * k - 8), 9);
    });
    downColumn(column, 'depth', 0, 3, even);
    even.forEach((z, k) => {
      expect(z).toBeCloseTo(depthOfTime(column, 3 * k), 9);
    });
  });
  test('says the velocity that holds at a time', () => {
    expect(velocityOfTime(column, 20)).toBe(1490);
    expect(velocityOfTime(column, 700)).toBeCloseTo(
      (2000 * (depthOfTime(column, 700.01) - depthOfTime(column, 699.99))) / 0.02,
      3,
    );
    // below one that runs from top to base its base counts
    const deep = columnOf(90, ABOVE, layers.slice(0, 4));
    expect(velocityOfTime(deep, 2000)).toBe(3100);
  });
  test('times begin at the datum: 300 m above the sea all are later by its replacement, and depths come back', () => {
    const above = { waterVelocity: 1490, datumM: 300, replacementVelocity: 2400 };
    const later = (2000 * 300) / 2400;
    const raised = columnOf(
      90,
      above,
      layers.map((l) => ({ ...l, base: l.base + later })),
    );
    raised.boundaries.forEach(({ z }, n) => {
      expect(z).toBeCloseTo(column.boundaries[n].z, 9);
    });
    expect(timeOfDepth(raised, -300)).toBeCloseTo(0, 9);
    expect(timeOfDepth(raised, -60)).toBeCloseTo((2000 * 240) / 2400, 9);
    for (const t of [0, 100, 251, 400, 900, 1500])
      expect(timeOfDepth(raised, depthOfTime(raised, t))).toBeCloseTo(t, 8);
    // on land, from the datum down with nothing but layers
    const land = columnOf(-300, above, [{ law: { form: 'constant', v0: 2400, k: 0 }, base: 500 }]);
    expect(land.t[0]).toBeCloseTo(0, 9);
    expect(land.boundaries[0].z).toBeCloseTo(300, 9);
    // a datum below the sea
    expect(timeAbove({ waterVelocity: 1500, datumM: -30 }, 90)).toBeCloseTo(80, 9);
  });
  test('horizons that cross leave no layer between them, and a layer pinches out to nothing', () => {
    const crossed = columnOf(
      90,
      ABOVE,
      [600, 580, 800].map((base, n) => ({ law: laws[n], base })),
    );
    expect(crossed.boundaries[1].z).toBeCloseTo(crossed.boundaries[0].z, 9);
    expect(crossed.boundaries[1].t).toBe(600);
    expect(crossed.boundaries[2].z).toBeGreaterThan(crossed.boundaries[1].z);
    expect(timeOfDepth(crossed, crossed.boundaries[2].z)).toBeCloseTo(800, 9);
  });
  test('no law falls below the least velocity, however far it goes on', () => {
    for (const law of [
      { form: 'v0 + k·z from the top', v0: 2000, k: -1.5 },
      { form: 'v0 + k·t from the top', v0: 2000, k: -2000 },
    ] satisfies Law[]) {
      const slowing = columnOf(0, ABOVE, [{ law, base: 200 }]);
      expect(velocityOfTime(slowing, 4000)).toBe(LEAST_VELOCITY);
      for (const t of [100, 900, 3000, 9000]) expect(timeOfDepth(slowing, depthOfTime(slowing, t))).toBeCloseTo(t, 6);
    }
    expect(velocityOfTime(columnOf(0, ABOVE, [{ law: { form: 'constant', v0: -5, k: 0 }, base: 200 }]), 100)).toBe(300);
  });
});

describe('a velocity trace', () => {
  const means = [1500, 1900, 2600, 2500];
  const trace = (first: number, samples: VelocitySamples) => ({
    values: means,
    domain: 'twt' as const,
    first,
    step: 20,
    samples,
  });
  const begin = { t: 0, z: 0 };
  test('of interval means gives the thickness of the intervals, whichever side of their time they lie', () => {
    const exact = (1500 * 20 + 1900 * 20 + 2600 * 15) / 2000;
    expect(thicknessByTrace(trace(0, 'the interval below it'), begin, 55)).toBeCloseTo(exact, 9);
    expect(thicknessByTrace(trace(20, 'the interval above it'), begin, 55)).toBeCloseTo(exact, 9);
    expect(thicknessByTrace(trace(0, 'the interval below it'), { t: 50, z: 0 }, 100)).toBeCloseTo(
      (2600 * 10 + 2500 * 40) / 2000,
      9,
    );
    // points at the middles of those intervals are nearly as good, points at their beginnings are not
    expect(thicknessByTrace(trace(10, 'its own time or depth'), begin, 55)).toBeCloseTo(exact, 0);
    expect(Math.abs(thicknessByTrace(trace(0, 'its own time or depth'), begin, 55) - exact)).toBeGreaterThan(5);
  });
  test('of points runs in straight lines between them', () => {
    const exact = ((1500 + 1900) * 20 + (1900 + 2600) * 20) / 4000;
    expect(thicknessByTrace(trace(0, 'its own time or depth'), begin, 40)).toBeCloseTo(exact, 9);
    const column = columnOf(0, ABOVE, [
      {
        law: { form: 'velocity volume', v0: 1, k: 0 },
        base: Number.POSITIVE_INFINITY,
        trace: trace(0, 'its own time or depth'),
      },
    ]);
    expect(velocityOfTime(column, 30)).toBeCloseTo(2250, 9);
    expect(velocityOfTime(column, 500)).toBe(2500);
    for (const t of [1, 19.9, 20, 33, 60, 75]) expect(timeOfDepth(column, depthOfTime(column, t))).toBeCloseTo(t, 8);
  });
  test('by depth gives the times that its intervals take, from wherever a layer begins', () => {
    const byDepth = {
      values: [1500, 2000, 2500],
      domain: 'depth' as const,
      first: 0,
      step: 100,
      samples: 'the interval below it' as const,
    };
    const column = columnOf(0, ABOVE, [
      { law: { form: 'velocity volume', v0: 1, k: 0 }, base: Number.POSITIVE_INFINITY, trace: byDepth },
    ]);
    expect(timeOfDepth(column, 250)).toBeCloseTo(2000 * (100 / 1500 + 100 / 2000 + 50 / 2500), 9);
    expect(depthOfTime(column, 1000)).toBeCloseTo(200 + (2500 * (1000 - 2000 * (100 / 1500 + 100 / 2000))) / 2000, 6);
    const below = columnOf(150, ABOVE, [
      { law: { form: 'velocity volume', v0: 1.1, k: 0 }, base: Number.POSITIVE_INFINITY, trace: byDepth },
    ]);
    expect(timeOfDepth(below, 250) - timeAbove(ABOVE, 150)).toBeCloseTo((2000 * (50 / 2000 + 50 / 2500)) / 1.1, 9);
  });
});
