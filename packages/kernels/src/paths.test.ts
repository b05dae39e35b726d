import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  halfBand,
  loadKernels,
  PATH_START,
  type PathCosts,
  type PathProblem,
  type PathStep,
  pairAt,
  pathCosts,
  pathCostsOnward,
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
function problem(n: number, m: number, more: Partial<PathProblem> = {}): PathProblem {
  const band = { n, m, offset: 0, mostShift: 1000, ...more };
  const next = noise(n * 100 + m);
  const cost = Float32Array.from({ length: n * (2 * halfBand(band) + 1) }, next);
  return { ...band, cost, steps: STEPS, endSample: 0.4, gapOpen: 3, gapSample: 0.2, ...more };
}

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
        const [a, b] = [pathCosts(kernels, p), pathCostsTwin(p)];
        expect(apart(a, b)).toBeLessThan(1e-5);
        const other = a.ways.filter((way, k) => Number.isFinite(a.match[k]) && way !== b.ways[k]).length;
        // random costs seldom tie
        expect(other).toBeLessThanOrEqual(Math.ceil(0.01 * n * m));
      },
    ),
    { numRuns: 200, seed: 6 },
  );
});

test('costs onward are those of the same logs upside down', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 30 }),
      fc.integer({ min: 1, max: 30 }),
      fc.integer({ min: -9, max: 9 }),
      fc.oneof(fc.integer({ min: 0, max: 9 }), fc.constant(1000)),
      (n, m, offset, mostShift) => {
        const p = problem(n, m, { offset, mostShift });
        const turned = problem(n, m, { offset: m - n - offset, mostShift });
        for (let i = 0; i < n; i++)
          for (let j = 0; j < m; j++) {
            const [to, from] = [pairAt(turned, n - 1 - i, m - 1 - j), pairAt(p, i, j)];
            expect(to < 0).toBe(from < 0);
            if (to >= 0) turned.cost[to] = p.cost[from];
          }
        const onward = pathCostsOnward(kernels, p);
        const expected = pathCostsTwin(turned).match;
        for (let i = 0; i < n; i++)
          for (let j = 0; j < m; j++) {
            const at = pairAt(p, i, j);
            if (at < 0) continue;
            const [a, b] = [onward[at], expected[pairAt(turned, n - 1 - i, m - 1 - j)]];
            if (a !== b) expect(Math.abs(a - b) / (1 + b)).toBeLessThan(1e-5);
          }
      },
    ),
    { numRuns: 60, seed: 7 },
  );
});

test('nothing is left from one problem to the next', () => {
  const small = problem(6, 9);
  const before = pathCosts(kernels, small);
  pathCosts(kernels, problem(80, 120, { mostShift: 20 }));
  expect(pathCosts(kernels, small)).toEqual(before);
});

test('two logs that are one cost nothing along their diagonal; what is left out costs a gap', () => {
  const n = 12;
  const p = problem(n, n);
  p.cost.fill(4);
  for (let k = 0; k < n; k++) p.cost[pairAt(p, k, k)] = 0;
  const { match, missing, ways } = pathCosts(kernels, p);
  for (let k = 0; k < n; k++) expect(match[pairAt(p, k, k)]).toBe(0);
  expect(ways[pairAt(p, 0, 0)]).toBe(PATH_START);
  expect(ways[pairAt(p, 1, 1)]).toBe(0);
  // three samples of the first are passed over after a match at the sixth
  expect(missing[pairAt(p, 8, 5)]).toBeCloseTo(3 + 3 * 0.2, 5);
});

test('beside the band there are no paths, and it takes no more room than it is wide', () => {
  const p = problem(20, 20, { mostShift: 2 });
  const { match } = pathCosts(kernels, p);
  for (let i = 0; i < 20; i++)
    for (let j = 0; j < 20; j++) {
      const at = pairAt(p, i, j);
      expect(at >= 0 && Number.isFinite(match[at])).toBe(Math.abs(i - j) <= 2);
    }
  expect(problem(20, 20, { mostShift: 2 }).cost.length).toBe(problem(20, 2000, { mostShift: 2 }).cost.length);
});
