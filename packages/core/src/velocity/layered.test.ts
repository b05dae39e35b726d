import { describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import { type GuideSamples, guidedV0, guideOf, v0ForThickness } from './guide.ts';
import { depthAfter, fitLayer, misfitOf, timeBetween } from './layer.ts';
import { columnOf, depthOfTime, timeAbove, timeOfDepth } from './layered.ts';

const laws = [
  { v0: 1500, k: 0.8 },
  { v0: 2400, k: 0.3 },
  { v0: 3100, k: 0 },
];

describe('a layered column', () => {
  const column = columnOf(90, { waterVelocity: 1490 }, [600, 950, 1100], laws);
  test('one way agrees with the closed forms to a hundredth of a metre', () => {
    expect(column.t[0]).toBeCloseTo((2000 * 90) / 1490, 9);
    // v = dz/dt: z' = v0 + k z, stepped finely
    let z = 90;
    const steps = 200000;
    const dt = (600 - column.t[0]) / 2000 / steps;
    for (let n = 0; n < steps; n++) {
      const half = z + 0.5 * dt * (1500 + 0.8 * z);
      z += dt * (1500 + 0.8 * half);
    }
    expect(Math.abs(column.z[1] - z)).toBeLessThan(0.01);
  });
  test('time to depth and back returns to a thousandth of a millisecond, in water and below the last horizon too', () => {
    for (const t of [0, 40, 121, 300, 599.9, 700, 1050, 1500])
      expect(timeOfDepth(column, depthOfTime(column, t))).toBeCloseTo(t, 3);
  });
  test('times begin at the datum: 300 m above the sea all are later by its replacement, and depths come back', () => {
    const above = { waterVelocity: 1490, datumM: 300, replacementVelocity: 2400 };
    const later = (2000 * 300) / 2400;
    const raised = columnOf(
      90,
      above,
      [600, 950, 1100].map((t) => t + later),
      laws,
    );
    raised.z.forEach((z, n) => {
      expect(z).toBeCloseTo(column.z[n], 9);
    });
    expect(timeOfDepth(raised, -300)).toBeCloseTo(0, 9);
    expect(timeOfDepth(raised, -60)).toBeCloseTo((2000 * 240) / 2400, 9);
    for (const t of [0, 100, 251, 400, 900, 1500])
      expect(timeOfDepth(raised, depthOfTime(raised, t))).toBeCloseTo(t, 9);
    // on land, from the datum down with nothing but layers
    const land = columnOf(-300, above, [500], [{ v0: 2400, k: 0 }]);
    expect(land.t[0]).toBeCloseTo(0, 9);
    expect(land.z[1]).toBeCloseTo(300, 9);
    // a datum below the sea
    expect(timeAbove({ waterVelocity: 1500, datumM: -30 }, 90)).toBeCloseTo(80, 9);
  });
  test('horizons that cross leave no layer between them', () => {
    const crossed = columnOf(90, { waterVelocity: 1490 }, [600, 580, 800], laws);
    expect(crossed.z[2]).toBeCloseTo(crossed.z[1], 9);
    expect(crossed.t[2]).toBe(600);
    expect(crossed.z[3]).toBeGreaterThan(crossed.z[2]);
  });
  test('a typed law is judged by its misfit at the wells', () => {
    const top = { z: 100, t: 130 };
    const points = [300, 500, 700].map((z) => ({ z, t: 130 + timeBetween(laws[0], 100, z) }));
    expect(misfitOf(laws[0], [{ top, points }])).toBeCloseTo(0, 9);
    expect(misfitOf({ v0: 1600, k: 0.8 }, [{ top, points }])).toBeGreaterThan(10);
    const fit = fitLayer([{ top, points }]);
    expect(fit?.rms).toBeLessThan(0.5);
  });
});

describe('a guide', () => {
  const axis = (count: number) => ({ first: 0, step: 1, count });
  const binGrid: BinGrid = {
    inline: axis(21),
    crossline: axis(31),
    origin: [0, 0],
    perInline: [0, 100],
    perCrossline: [100, 0],
  };
  const coarse: BinGrid = {
    ...binGrid,
    inline: axis(3),
    crossline: axis(4),
    perInline: [0, 1000],
    perCrossline: [1000, 0],
  };
  // faster to the east: 2000 m/s at x = 0, 2300 m/s at x = 3000
  const speed = (x: number) => 2000 + 0.1 * x;
  const vertical = { first: 0, step: 20, count: 60 };
  const volume = Float32Array.from({ length: 3 * 4 * 60 }, (_, n) => speed((Math.floor(n / 60) % 4) * 1000));
  const guide = guideOf(volume, coarse, vertical);
  test('gives the thickness that its velocities make, between traces and between samples', () => {
    expect(guide.thickness(1500, 700, 213, 477)).toBeCloseTo((speed(1500) * (477 - 213)) / 2000, 6);
    expect(guide.thickness(9000, 700, 200, 400)).toBeNaN();
  });
  test('of interval means gives the thickness of the intervals, whichever side of their time they lie', () => {
    const one: BinGrid = { ...coarse, inline: axis(2), crossline: axis(2) };
    const means = [1500, 1900, 2600, 2500];
    const volume = Float32Array.from({ length: 16 }, (_, n) => means[n % 4]);
    const of = (first: number, samples: GuideSamples) => guideOf(volume, one, { first, step: 20, count: 4 }, samples);
    const exact = (1500 * 20 + 1900 * 20 + 2600 * 15) / 2000;
    expect(of(0, 'the interval below it').thickness(500, 500, 0, 55)).toBeCloseTo(exact, 9);
    expect(of(20, 'the interval above it').thickness(500, 500, 0, 55)).toBeCloseTo(exact, 9);
    expect(of(0, 'the interval below it').thickness(500, 500, 50, 100)).toBeCloseTo((2600 * 10 + 2500 * 40) / 2000, 9);
    // points at the middles of those intervals are nearly as good, points at their beginnings are not
    expect(of(10, 'its own time').thickness(500, 500, 0, 55)).toBeCloseTo(exact, 0);
    expect(Math.abs(of(0, 'its own time').thickness(500, 500, 0, 55) - exact)).toBeGreaterThan(5);
  });
  test('the v0 that a thickness asks for makes that thickness', () => {
    for (const k of [0, 0.6, -0.2]) {
      const v0 = v0ForThickness(k, 500, 300, 390);
      expect(depthAfter({ v0, k }, 500, 300)).toBeCloseTo(890, 6);
    }
  });
  test('wells set how fast a layer is, the guide how that changes between them', () => {
    // the earth is 3 % faster than the guide everywhere
    const k = 0.4;
    const base = new Float32Array(21 * 31).fill(800);
    const sea = new Float32Array(21 * 31).fill(100);
    const t0 = (2000 * 100) / 1490;
    const truth = (x: number) => 100 + (1.03 * speed(x) * (800 - t0)) / 2000;
    const well = (x: number) => ({
      x,
      y: 1000,
      points: { top: { z: 100, t: t0 }, points: [{ z: truth(x), t: 800 }] },
    });
    const layer = { v0: 1700, k, typed: false, values: base, binGrid, wells: [well(400), well(900)] };
    const options = { binGrid, guide, seaBed: { values: sea, binGrid }, above: { waterVelocity: 1490 }, rangeM: 4000 };
    const [map] = guidedV0({ ...options, layers: [layer] });
    for (const j of [0, 9, 20, 30]) {
      const z = depthAfter({ v0: map[10 * 31 + j], k }, 100, 800 - t0);
      expect(Math.abs(z - truth(j * 100))).toBeLessThan(1);
    }
    const [typed] = guidedV0({ ...options, layers: [{ ...layer, typed: true }] });
    expect(new Set(typed)).toEqual(new Set([1700]));
  });
});
