import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { bodiesOf, type Connectivity, factsOfBodies, runsCollector } from './bodies.ts';

const found = (shape: [number, number, number], at: (i: number, j: number, k: number) => boolean, by: Connectivity) => {
  const [ni, nj, nk] = shape;
  const collect = runsCollector(ni, nj);
  for (let i = 0; i < ni; i++) for (let j = 0; j < nj; j++) collect.add(0, nk, (k) => at(i, j, k));
  const runs = collect.finish();
  const { body, count } = bodiesOf(runs, ni, nj, by);
  return { runs, body, count, facts: factsOfBodies(runs, ni, nj, body, count) };
};

/** The same by filling from every sample that is not yet taken. */
function flooded(shape: [number, number, number], at: (i: number, j: number, k: number) => boolean, by: Connectivity) {
  const [ni, nj, nk] = shape;
  const seen = new Int32Array(ni * nj * nk).fill(-1);
  const sizes: number[] = [];
  const id = (i: number, j: number, k: number) => (i * nj + j) * nk + k;
  for (let s = 0; s < seen.length; s++) {
    const [i, j, k] = [Math.floor(s / (nj * nk)), Math.floor(s / nk) % nj, s % nk];
    if (!at(i, j, k) || seen[s] >= 0) continue;
    const left = [[i, j, k]];
    seen[s] = sizes.length;
    let size = 0;
    for (let p = left.pop(); p; p = left.pop()) {
      size++;
      for (let di = -1; di <= 1; di++)
        for (let dj = -1; dj <= 1; dj++)
          for (let dk = -1; dk <= 1; dk++) {
            if (by === 6 && Math.abs(di) + Math.abs(dj) + Math.abs(dk) !== 1) continue;
            const [a, b, c] = [p[0] + di, p[1] + dj, p[2] + dk];
            if (a < 0 || b < 0 || c < 0 || a >= ni || b >= nj || c >= nk || !at(a, b, c) || seen[id(a, b, c)] >= 0)
              continue;
            seen[id(a, b, c)] = sizes.length;
            left.push([a, b, c]);
          }
    }
    sizes.push(size);
  }
  return sizes.sort((a, b) => b - a);
}

describe('bodies', () => {
  test('are those of flooding, of any shape, through faces and through corners', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 9 })),
        fc.array(fc.boolean(), { minLength: 324, maxLength: 324 }),
        fc.constantFrom<Connectivity>(6, 26),
        (shape, bits, by) => {
          const at = (i: number, j: number, k: number) => bits[(i * 6 + j) * 9 + k];
          expect(found(shape, at, by).facts.map((f) => f.samples)).toEqual(flooded(shape, at, by));
        },
      ),
      { numRuns: 300, seed: 2 },
    );
  });
  test('of a known shape are counted exactly, the largest first', () => {
    // a ball of radius 5, a plate, and a single sample
    const at = (i: number, j: number, k: number) =>
      (i - 8) ** 2 + (j - 8) ** 2 + (k - 8) ** 2 <= 25 ||
      (i === 18 && j < 6 && k < 7) ||
      (i === 0 && j === 19 && k === 19);
    const { facts } = found([20, 20, 20], at, 6);
    let ball = 0;
    for (let i = 0; i < 20; i++)
      for (let j = 0; j < 20; j++)
        for (let k = 0; k < 20; k++) if ((i - 8) ** 2 + (j - 8) ** 2 + (k - 8) ** 2 <= 25) ball++;
    expect(facts.map((f) => f.samples)).toEqual([ball, 42, 1]);
    expect(facts[0].middle.every((v) => Math.abs(v - 8) < 1e-9)).toBe(true);
    expect([facts[0].top, facts[0].base, facts[0].bins]).toEqual([3, 13, 81]);
    expect([facts[1].bins, facts[1].top, facts[1].base]).toEqual([6, 0, 6]);
  });
  test('that touch by a corner alone are one by 26 and two by 6', () => {
    const at = (i: number, j: number, k: number) => (i === 0 && j === 0 && k < 3) || (i === 1 && j === 1 && k === 3);
    expect(found([2, 2, 5], at, 6).count).toBe(2);
    expect(found([2, 2, 5], at, 26).count).toBe(1);
  });
});
