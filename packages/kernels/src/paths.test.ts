import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  loadKernels,
  PATH_START,
  type PathCosts,
  type PathProblem,
  type PathStep,
  pathCosts,
  pathCostsTwin,
} from './index.ts';

const kernels = loadKernels();
const STEPS: PathStep[] = [
  { a: 1, b: 1, bend: 0, parts: [{ di: 0, dj: 0, weight: 1 }] },
  {
    a: 1,
    b: 2,
    bend: 0.2,
    parts: [
      { di: 0, dj: 0, weight: 0.75 },
      { di: 1, dj: 1, weight: 0.75 },
    ],
  },
  {
    a: 5,
    b: 3,
    bend: 0.4,
    parts: [
      { di: 0, dj: 0, weight: 2 },
      { di: 2, dj: 1, weight: 1 },
      { di: 5, dj: 3, weight: 1 },
    ],
  },
];

function noise(seed: number) {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
}
const problem = (n: number, m: number, more: Partial<PathProblem> = {}): PathProblem => ({
  cost: Float32Array.from({ length: n * m }, noise(n * 100 + m)),
  n,
  m,
  offset: 0,
  mostShift: 1000,
  steps: STEPS,
  endSample: 0.4,
  gapOpen: 3,
  gapSample: 0.2,
  ...more,
});

/** How far the kernel’s costs are from those of the twin, as a part of them; infinite where only one has a path. */
function apart(a: PathCosts, b: PathCosts): number {
  let worst = 0;
  for (const state of ['match', 'missing', 'extra'] as const)
    for (let k = 0; k < a[state].length; k++) {
      const [x, y] = [a[state][k], b[state][k]];
      if (x !== y) worst = Math.max(worst, Math.abs(x - y) / (1 + Math.abs(y)));
    }
  return worst;
}

test('the kernel gives what its plain twin gives, for logs of any length, band and offset', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: -12, max: 12 }),
      fc.oneof(fc.integer({ min: 0, max: 9 }), fc.constant(1000)),
      (n, m, offset, mostShift) => {
        const p = problem(n, m, { offset, mostShift });
        const [a, b] = [pathCosts(kernels, p, true), pathCostsTwin(p, true)];
        expect(apart(a, b)).toBeLessThan(1e-5);
        const other = a.ways?.filter((way, k) => Number.isFinite(a.match[k]) && way !== b.ways?.[k]).length ?? 0;
        // random costs seldom tie
        expect(other).toBeLessThanOrEqual(Math.ceil(0.01 * n * m));
      },
    ),
    { numRuns: 200, seed: 6 },
  );
});

test('nothing is left from one problem to the next', () => {
  const small = problem(6, 9);
  const before = pathCosts(kernels, small, true);
  pathCosts(kernels, problem(80, 120, { mostShift: 20 }), true);
  expect(pathCosts(kernels, small, true)).toEqual(before);
});

test('two logs that are one cost nothing along their diagonal; what is left out costs a gap', () => {
  const n = 12;
  const cost = Float32Array.from({ length: n * n }, (_, k) => (Math.floor(k / n) === k % n ? 0 : 4));
  const { match, missing, ways } = pathCosts(kernels, problem(n, n, { cost }), true);
  for (let k = 0; k < n; k++) expect(match[k * n + k]).toBe(0);
  expect(ways?.[0]).toBe(PATH_START);
  expect(ways?.[n + 1]).toBe(0);
  // three samples of the first are passed over after a match at the sixth
  expect(missing[8 * n + 5]).toBeCloseTo(3 + 3 * 0.2, 5);
});

test('beside the band there are no paths, and the steps taken are not kept where nobody asks', () => {
  const { match, ways } = pathCosts(kernels, problem(20, 20, { mostShift: 2 }), false);
  expect(ways).toBeNull();
  for (let i = 0; i < 20; i++)
    for (let j = 0; j < 20; j++) expect(Number.isFinite(match[i * 20 + j])).toBe(Math.abs(i - j) <= 2);
});
