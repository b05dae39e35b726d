import { describe, expect, test } from 'vitest';
import { BLEND_AXES } from '../earth/objects.ts';
import { mixed, partOf } from './blend.ts';

const CORNERS = [0, 1].flatMap((r) => [0, 1].flatMap((g) => [0, 1].map((b) => [r, g, b] as [number, number, number])));

/** How someone without one kind of cone sees a colour: Viénot et al. (1999), Color Research and Application 24, 243–252. */
function seen(rgb: readonly number[], lacks: 'red' | 'green'): number[] {
  const linear = rgb.map((v) => v ** 2.2);
  const lms = [
    [17.8824, 43.5161, 4.11935],
    [3.45565, 27.1554, 3.86714],
    [0.0299566, 0.184309, 1.46709],
  ].map((row) => row.reduce((sum, m, n) => sum + m * linear[n], 0));
  if (lacks === 'red') lms[0] = 2.02344 * lms[1] - 2.52581 * lms[2];
  else lms[1] = 0.494207 * lms[0] + 1.24827 * lms[2];
  return [
    [0.0809444479, -0.130504409, 0.116721066],
    [-0.0102485335, 0.0540193266, -0.113614708],
    [-0.000365296938, -0.00412161469, 0.693511405],
  ].map(
    (row) =>
      Math.max(
        0,
        row.reduce((sum, m, n) => sum + m * lms[n], 0),
      ) **
      (1 / 2.2),
  );
}

describe('colours of a blend', () => {
  test.each(BLEND_AXES)('along %s run from black to white, and no two corners are one colour', (axes) => {
    const of = (parts: [number, number, number]) => mixed(parts, 1, { axes, strength: 1 }) as number[];
    expect(of([0, 0, 0])).toEqual([0, 0, 0]);
    for (const v of of([1, 1, 1])) expect(v).toBeCloseTo(1, 6);
    for (const [n, a] of CORNERS.entries())
      for (const b of CORNERS.slice(n + 1))
        expect(Math.hypot(...of(a).map((v, c) => v - of(b)[c]))).toBeGreaterThan(0.15);
  });

  test('along blue and amber are told apart without red or green cones, as those of red and green are not', () => {
    const apart = (axes: (typeof BLEND_AXES)[number], lacks: 'red' | 'green') => {
      const [a, b] = [
        [1, 0, 0],
        [0, 0, 1],
      ].map((parts) => seen(mixed(parts as [number, number, number], 1, { axes, strength: 1 }) as number[], lacks));
      const [r, g] = [
        [1, 0.2, 0],
        [0.2, 0.55, 0],
      ].map((parts) => seen(mixed(parts as [number, number, number], 1, { axes, strength: 1 }) as number[], lacks));
      return { ends: Math.hypot(...a.map((v, n) => v - b[n])), near: Math.hypot(...r.map((v, n) => v - g[n])) };
    };
    for (const lacks of ['red', 'green'] as const) {
      expect(apart('blue, grey, amber', lacks).ends).toBeGreaterThan(0.6);
      expect(apart('blue, grey, amber', lacks).near).toBeGreaterThan(
        1.5 * apart('red, green, blue', lacks === 'red' ? 'green' : lacks).near,
      );
    }
  });

  test('are darkened by the shade as strongly as is said, and lie nowhere without a channel', () => {
    const axes = 'red, green, blue';
    expect(mixed([1, 0.5, 0], 0, { axes, strength: 0.6 })?.map((v) => +v.toFixed(6))).toEqual([0.4, 0.2, 0]);
    expect(mixed([1, 0.5, 0], 1, { axes, strength: 0.6 })).toEqual([1, 0.5, 0]);
    expect(mixed([1, Number.NaN, 0], 1, { axes, strength: 0.6 })).toBeNull();
  });

  test('take channels from end to end, either way round', () => {
    expect(partOf(15, { from: 10, to: 20 })).toBe(0.5);
    expect(partOf(12, { from: 20, to: 10 })).toBe(0.8);
    expect([partOf(-99, { from: 20, to: 10 }), partOf(99, { from: 20, to: 10 })]).toEqual([1, 0]);
    expect(partOf(Number.NaN, { from: 1, to: 1 })).toBeNaN();
  });
});
