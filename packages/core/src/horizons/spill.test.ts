import { describe, expect, test } from 'vitest';
import { closureOf } from './spill.ts';

/** A surface of domes on a slope. */
const surface = (rows: number, columns: number, at: (i: number, j: number) => number) =>
  Float32Array.from({ length: rows * columns }, (_, n) => at(Math.floor(n / columns), n % columns));

const dome = (i: number, j: number, ci: number, cj: number, high: number, wide: number) =>
  high * Math.exp(-((i - ci) ** 2 + (j - cj) ** 2) / (2 * wide * wide));

describe('a closure', () => {
  test('of one dome on flat ground spills at the edge, at the depth of the ground', () => {
    const z = surface(41, 51, (i, j) => 1000 - dome(i, j, 20, 25, 80, 5));
    const closure = closureOf(z, 41, 51);
    expect(closure?.crest).toBe(20 * 51 + 25);
    expect(closure?.crestM).toBeCloseTo(920, 4);
    expect(closure?.spillM).toBeGreaterThan(999.9);
    expect(closure?.beyond).toBe('the edge of the surface');
  });
  test('between two domes spills over the saddle to the higher one', () => {
    const z = surface(41, 81, (i, j) => 1000 - dome(i, j, 20, 25, 60, 8) - dome(i, j, 20, 52, 80, 8));
    const saddle = z[20 * 81 + 38];
    const closure = closureOf(z, 41, 81, (bin) => bin % 81 < 38);
    expect(closure?.crest).toBe(20 * 81 + 25);
    expect(closure?.spillM).toBeGreaterThan(saddle - 1);
    expect(closure?.spillM).toBeLessThan(saddle + 1.5);
    expect(closure?.beyond).toBe('a higher place');
    expect(closure?.bins).toBeGreaterThan(200);
  });
  test('is bounded by what is not there, and none where nothing is', () => {
    const z = surface(21, 21, (i, j) =>
      // tilted a little, so that no other way is as deep
      j > 13 ? Number.NaN : 1000 + 0.1 * j - dome(i, j, 10, 10, 50, 3),
    );
    const closure = closureOf(z, 21, 21);
    // the way out is beside the first column without a depth
    expect(closure?.spill !== undefined && closure.spill % 21).toBe(13);
    expect(closureOf(new Float32Array(9).fill(Number.NaN), 3, 3)).toBeNull();
    expect(closureOf(z, 21, 21, () => false)).toBeNull();
  });
});
