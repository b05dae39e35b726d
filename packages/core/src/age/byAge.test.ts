import { describe, expect, test } from 'vitest';
import { ageAxis, placesOfAges } from './flat.ts';
import { growthOf, traceByAge } from './sequences.ts';
import { gatherJumps, jumpsOf, LAPS, lapOf, nearestJump } from './terminations.ts';
import { VALID_ENDS, validDown } from './valid.ts';

const AXIS = ageAxis(0, 40, 4);

describe('places of ages', () => {
  test('lie between samples where ages rise, and are missing across a hiatus', () => {
    const ages = [0, 4, 8, 30, 34, 38, 42];
    const at = placesOfAges(ages, 0, 7, AXIS, 'the upper', 12);
    expect([...at.slice(0, 3)]).toEqual([0, 1, Number.NaN]);
    // 8 itself begins the jump
    expect(at[7]).toBeNaN();
    expect(at[8]).toBeCloseTo(3.5);
    expect(at[10]).toBeCloseTo(5.5);
    expect(placesOfAges(ages, 0, 7, AXIS, 'the upper', 100)[5]).toBeCloseTo(2 + 12 / 22);
  });

  test('are two where a reverse fault repeats beds: the one that is asked for is taken', () => {
    const ages = [0, 8, 16, 24, 8, 16, 24, 32];
    expect(placesOfAges(ages, 0, 8, AXIS, 'the upper', 99)[5]).toBeCloseTo(2.5);
    expect(placesOfAges(ages, 0, 8, AXIS, 'the lower', 99)[5]).toBeCloseTo(5.5);
    // the fall between them is no bed
    expect(placesOfAges(ages, 0, 8, AXIS, 'the lower', 99)[2]).toBeCloseTo(4);
  });

  test('an axis holds the steps of a range', () => {
    expect(ageAxis(3, 21, 4)).toEqual({ first: 4, step: 4, count: 5 });
    expect(ageAxis(-6, -6, 4).count).toBe(1);
  });
});

describe('a trace by age', () => {
  test('has thickness, its change, and hiatus between what there is', () => {
    // 0.5 ms an age, growing by a hundredth of itself an age; nothing between 16 and 28
    const places = Float64Array.from({ length: 11 }, (_, n) => {
      const a = 4 * n;
      return a > 16 && a < 28 ? Number.NaN : (50 * (Math.exp(0.01 * a) - 1)) / 4;
    });
    const { thickness, change, hiatus } = traceByAge(places, AXIS, 4, 16);
    expect(thickness[1]).toBeCloseTo(0.5 * Math.exp(0.04), 2);
    expect(change[2]).toBeCloseTo(0.01, 2);
    expect([...hiatus]).toEqual([0, 0, 0, 0, 0, 1, 1, 0, 0, 0, 0]);
    expect(thickness[5]).toBeNaN();
    const empty = traceByAge(new Float64Array(11).fill(Number.NaN), AXIS, 4, 16);
    expect([...empty.hiatus].every(Number.isNaN)).toBe(true);
  });

  test('growth is told for bands in which both sides are known', () => {
    const side = (thick: number, from: number, to: number) => {
      const age = Array.from({ length: 40 }, (_, n) => from + ((to - from) * n) / 40);
      return { age, thickness: age.map((_, n) => thick + 0.01 * (n % 5)) };
    };
    const bands = growthOf(side(1, 0, 100), side(1.5, 0, 60), [0, 50, 100]);
    expect(bands[0].hanging / bands[0].foot).toBeCloseTo(1.49, 1);
    expect(bands[1].hanging).toBeNaN();
    expect(bands[1].foot).toBeCloseTo(1.02, 2);
  });
});

describe('how beds end', () => {
  const name = (n: number) => (n === 0 ? 'along' : LAPS[n - 1]);
  test.each([
    // beds are level, the surface rises: they lap onto it
    [[0, 0], [-2, 0], true, 'onlap'],
    // beds go down onto a level surface
    [[2, 0], [0, 0], true, 'downlap'],
    // the same along the other count and the other way
    [[0, -2], [0, 0], true, 'downlap'],
    // up their own dip onto a steeper surface
    [[-0.7, 0], [-2, 0], true, 'onlap'],
    [[2, 0], [0, 0], false, 'truncation'],
    [[0.6, 0], [0, 0], false, 'toplap'],
    [[0.1, 0], [0, 0], false, 'along'],
    [[1, 1], [1, 1.1], true, 'along'],
  ] as const)('beds of %j at a surface of %j, above it %s: %s', (bed, surface, above, expected) => {
    expect(name(lapOf([...bed], [...surface], above, 0.4, 1))).toBe(expected);
  });

  test('jumps are found, followed from trace to trace, and gathered into surfaces', () => {
    const [ni, nj, nk] = [6, 8, 40];
    // one surface dips through the whole, another is in two lines only
    const jumps = Array.from({ length: ni * nj }, (_, t) => {
      const [i, j] = [Math.floor(t / nj), t % nj];
      let age = 0;
      const ages = Float32Array.from({ length: nk }, (_, k) => {
        age += 1;
        if (k === 10 + j) age += 20;
        if (i < 2 && k === 34) age += 20;
        return age;
      });
      return jumpsOf(ages, 0, nk, 6);
    });
    expect(jumps[nj - 1]).toEqual([16.5, 33.5]);
    expect(nearestJump(jumps[nj - 1], 18, 3)).toBe(16.5);
    expect(nearestJump(jumps[nj - 1], 22, 3)).toBeNaN();
    const surfaces = gatherJumps(jumps, ni, nj, 2, 10);
    expect(surfaces.map((s) => s.bins)).toEqual([ni * nj, 2 * nj]);
    for (let t = 0; t < ni * nj; t++) expect(surfaces[0].at[t]).toBe(9.5 + (t % nj));
    expect(gatherJumps(jumps, ni, nj, 2, 2 * nj + 1)).toHaveLength(1);
  });
});

describe('the valid part of a trace', () => {
  const SPEC = { mostMisfit: 0.5, window: 10, mostBad: 0.5, step: 4, least: 0.02 };
  const rising = Float32Array.from({ length: 60 }, (_, k) => 4 * k);
  const end = (ages: Float32Array, misfit: (k: number) => number = () => 0.1) => {
    const { last, reason } = validDown(
      ages,
      Float32Array.from(ages, (_, k) => misfit(k)),
      0,
      ages.length,
      SPEC,
    );
    return [last, VALID_ENDS[reason]];
  };
  test('goes to the end where nothing is wrong, and past a few bad samples', () => {
    expect(end(rising)).toEqual([59, 'to the end of the ages']);
    expect(end(rising, (k) => (k > 20 && k < 25 ? 3 : 0.1))).toEqual([59, 'to the end of the ages']);
  });
  test('ends with its reason where the misfit is high, where ages were put in order, and where they come again', () => {
    expect(end(rising, (k) => (k >= 30 ? 3 : 0.1))).toEqual([29, 'low confidence']);
    const flat = rising.map((a, k) => (k < 30 ? a : 4 * 30 + 0.08 * (k - 30)));
    expect(end(flat)[1]).toBe('crossed ages');
    const repeated = rising.map((a, k) => (k < 30 ? a : a - 60));
    expect(end(repeated)).toEqual([29, 'several values']);
    expect(end(new Float32Array(20).fill(Number.NaN))).toEqual([-1, 'low confidence']);
    expect(end(rising, () => 3)).toEqual([-1, 'low confidence']);
    // above the first reflections nothing is good, and that does not end what lies below
    expect(end(rising, (k) => (k < 15 ? 3 : 0.1))).toEqual([59, 'to the end of the ages']);
  });
});
