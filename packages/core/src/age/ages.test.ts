import { describe, expect, test } from 'vitest';
import type { Regional } from '../attributes/regional.ts';
import { type BinGrid, toMap } from '../earth/binGrid.ts';
import type { Mesh } from '../faults/surface.ts';
import { meshOfSticks } from '../faults/surface.ts';
import type { Shape3 } from '../numerics/block.ts';
import { TURNED } from '../testing/objects.ts';
import { agesOf } from './ages.ts';
import type { AgeGiven } from './problem.ts';

const SHAPE: Shape3 = [33, 41, 81];
const GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1, step: 1, count: SHAPE[0] },
  crossline: { first: 1, step: 1, count: SHAPE[1] },
};
const STEP = 4;

/** An earth given by the depth (samples) of beds: `up(i, j, k, hanging)` is how far the bed there was moved down. */
function earth(drop: (i: number, j: number, k: number) => number, fault?: (k: number) => number, thrown = 0) {
  const hanging = (j: number, k: number) => fault !== undefined && j > fault(k);
  /** The age of a place: its sample before folding and faulting. */
  const ageAt = (i: number, j: number, k: number) => {
    const s = hanging(j, k) ? thrown / 2 : fault ? -thrown / 2 : 0;
    return (k - drop(i, j, k) - s) * STEP;
  };
  const [ni, nj, nk] = SHAPE;
  const made = () => new Float32Array(ni * nj * nk);
  const regional: Regional = {
    cell: [1, 1, 1],
    size: SHAPE,
    p: made(),
    q: made(),
    plane: made().fill(1),
    energy: made(),
  };
  const truth = made();
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++)
      for (let k = 0; k < nk; k++) {
        const n = (i * nj + j) * nk + k;
        truth[n] = ageAt(i, j, k);
        // beds of one age: their slope is that of the drop over how it changes down
        const d = (a: number, b: number, c: number) => drop(a, b, c);
        const down = 1 - (d(i, j, k + 0.5) - d(i, j, k - 0.5));
        regional.p[n] = (d(i + 0.5, j, k) - d(i - 0.5, j, k)) / down;
        regional.q[n] = (d(i, j + 0.5, k) - d(i, j - 0.5, k)) / down;
      }
  const sticks = fault
    ? Array.from({ length: 5 }, (_, s) =>
        Array.from({ length: 9 }, (_, m): [number, number, number] => [
          ...toMap(GRID, -1 + (s * (ni + 1)) / 4, fault(m * 10)),
          m * 10 * STEP,
        ]),
      )
    : [];
  const faults: Mesh[] = fault ? [meshOfSticks(sticks, 17)] : [];
  /** A horizon of one age on the side asked for where the fault parts it. */
  const horizon = (age: number) => {
    const values = new Float32Array(ni * nj).fill(Number.NaN);
    for (let i = 0; i < ni; i++)
      for (let j = 0; j < nj; j++)
        for (let k = 0; k + 1 < nk; k++) {
          const [a, b] = [truth[(i * nj + j) * nk + k], truth[(i * nj + j) * nk + k + 1]];
          if (a <= age && b > age && b - a < 2 * STEP) {
            values[i * nj + j] = (k + (age - a) / (b - a)) * STEP;
            break;
          }
        }
    return { values, age };
  };
  const given: AgeGiven = {
    binGrid: GRID,
    shape: SHAPE,
    first: 0,
    step: STEP,
    regional,
    horizons: [],
    unconformities: [],
    faults,
  };
  return { given, truth, horizon };
}

const fold = (i: number, j: number) => 6 * Math.sin(i / 9) + 5 * Math.cos(j / 11) + 0.15 * j;

/** Root mean square of what is off, in samples, where `where` says. */
function off(ages: Float32Array, truth: Float32Array, where: (k: number) => boolean = () => true): number {
  let [sum, count] = [0, 0];
  for (let n = 0; n < ages.length; n++) {
    if (!where(n % SHAPE[2])) continue;
    sum += ((ages[n] - truth[n]) / STEP) ** 2;
    count++;
  }
  return Math.sqrt(sum / count);
}

describe('relative age', () => {
  test('of folded layers follows their dips within half a sample from one horizon', () => {
    const { given, truth, horizon } = earth(fold);
    const { ages, left } = agesOf({ ...given, horizons: [horizon(160)] }, [1, 1, 1]);
    expect(off(ages, truth, (k) => k > 15 && k < 65)).toBeLessThan(0.5);
    expect(left).toBeLessThan(1e-3);
  });

  test('of layers that thicken does so too', () => {
    const { given, truth, horizon } = earth((i, j, k) => fold(i, j) * 0.5 + 0.004 * j * k);
    const { ages } = agesOf({ ...given, horizons: [horizon(80), horizon(200)] }, [1, 1, 1]);
    expect(off(ages, truth, (k) => k > 15 && k < 65)).toBeLessThan(0.5);
  });

  test.each([
    ['a normal fault', 7],
    ['a reverse fault, which repeats beds', -7],
  ])('follows layers across %s with a horizon on both of its sides', (_, thrown) => {
    const { given, truth, horizon } = earth(fold, (k) => 14 + 0.12 * k, thrown);
    const { ages } = agesOf({ ...given, horizons: [horizon(90), horizon(170)] }, [1, 1, 1]);
    expect(off(ages, truth, (k) => k > 15 && k < 65)).toBeLessThan(0.5);
    // without the fault the two sides are smeared into each other
    const smeared = agesOf({ ...given, faults: [], horizons: [horizon(90), horizon(170)] }, [1, 1, 1]);
    expect(off(smeared.ages, truth, (k) => k > 15 && k < 65)).toBeGreaterThan(
      off(ages, truth, (k) => k > 15 && k < 65) * 1.5,
    );
  });

  test('each level is nearer than the one before', () => {
    const { given, truth, horizon } = earth(fold);
    const on = (thin: Shape3) => {
      const { ages, nodes } = agesOf({ ...given, horizons: [horizon(160)] }, thin);
      let [sum, count] = [0, 0];
      for (let i = 0; i < nodes[0]; i++)
        for (let j = 0; j < nodes[1]; j++)
          for (let k = 0; k < nodes[2]; k++) {
            const at = k * thin[2];
            if (at < 15 || at > 65) continue;
            const own = ages[(i * nodes[1] + j) * nodes[2] + k];
            sum += ((own - truth[(i * thin[0] * SHAPE[1] + j * thin[1]) * SHAPE[2] + at]) / STEP) ** 2;
            count++;
          }
      return Math.sqrt(sum / count);
    };
    const [low, medium, full] = [on([4, 4, 4]), on([2, 2, 2]), on([1, 1, 1])];
    expect(medium).toBeLessThan(low);
    expect(full).toBeLessThan(medium);
  });
});
