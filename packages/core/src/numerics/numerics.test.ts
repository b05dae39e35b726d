import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { canonicalJson, hasher } from './hash.ts';
import { MaxHeap } from './heap.ts';
import { leastSquares, solve } from './leastSquares.ts';
import { RunningStatistics } from './statistics.ts';

describe('statistics of samples that arrive in parts', () => {
  const values = Float32Array.from({ length: 20000 }, (_, n) => 100 * Math.sin(n * 1.7) + (n % 13));
  const sorted = Array.from(values).sort((a, b) => a - b);
  test('are those of all samples, whatever the parts', () => {
    for (const parts of [1, 7, 100]) {
      const running = new RunningStatistics();
      for (let p = 0; p < parts; p++)
        running.add(
          values.subarray(Math.floor((p * values.length) / parts), Math.floor(((p + 1) * values.length) / parts)),
        );
      const s = running.finish();
      expect(s.count).toBe(values.length);
      expect(s.min).toBe(sorted[0]);
      expect(s.max).toBe(sorted[sorted.length - 1]);
      expect(s.mean).toBeCloseTo(sorted.reduce((a, b) => a + b, 0) / sorted.length, 6);
      for (const p of [1, 25, 50, 75, 99])
        expect(Math.abs(s.percentiles[p] - sorted[Math.floor((p / 100) * sorted.length)])).toBeLessThan(1.2);
    }
  });
  test('nulls are counted and spread nowhere; a range that grows is followed', () => {
    const running = new RunningStatistics();
    running.add(Float32Array.of(1, Number.NaN, -1));
    running.add(Float32Array.of(5000, -4000));
    const s = running.finish();
    expect([s.count, s.nulls, s.min, s.max]).toEqual([4, 1, -4000, 5000]);
    expect(s.absolute['100']).toBeGreaterThanOrEqual(4900);
    expect(Number.isFinite(s.mean)).toBe(true);
  });
  test('nothing at all has statistics of zero', () => {
    const running = new RunningStatistics();
    running.add(new Float32Array(5).fill(Number.NaN));
    expect(running.finish()).toMatchObject({ count: 0, nulls: 5, min: 0, max: 0, rms: 0 });
  });
});

test('least squares: exact where it can be, null where nothing is determined', () => {
  fc.assert(
    fc.property(
      fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 })),
      ([a, b, c]) => {
        const design = Array.from({ length: 12 }, (_, n) => [1, n % 4, Math.floor(n / 4)]);
        const found = leastSquares(
          design,
          design.map((r) => a * r[0] + b * r[1] + c * r[2]),
        );
        [a, b, c].forEach((v, k) => {
          expect(found?.[k]).toBeCloseTo(v, 8);
        });
      },
    ),
  );
  expect(
    leastSquares(
      [
        [1, 2],
        [2, 4],
      ],
      [1, 2],
    ),
  ).toBeNull();
  expect(
    solve(
      [
        [2, 1],
        [1, 3],
      ],
      [5, 10],
    ),
  ).toEqual([1, 3]);
});

test('the heap gives the largest key first, always', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -1000, max: 1000 }), { maxLength: 200 }), (keys) => {
      const heap = new MaxHeap();
      keys.forEach((key, n) => {
        heap.push(key, n);
      });
      const out: number[] = [];
      while (heap.size > 0) out.push(keys[heap.pop()]);
      expect(out).toEqual([...keys].sort((a, b) => b - a));
      expect(heap.pop()).toBe(-1);
    }),
  );
});

describe('revisions', () => {
  test('a hash changes with one sample, one letter, or an order', () => {
    const of = (...words: number[]) => hasher().words(Uint32Array.from(words)).digest();
    const all = [
      of(1, 2, 3, 4, 5),
      of(1, 2, 3, 4, 6),
      of(2, 1, 3, 4, 5),
      of(1, 2, 3, 4),
      of(1, 2, 3, 4, 5, 0),
      of(5, 4, 3, 2, 1),
    ];
    expect(new Set(all).size).toBe(all.length);
    expect(of(1, 2, 3)).toBe(of(1, 2, 3));
    expect(hasher().text('ab').text('c').digest()).not.toBe(hasher().text('a').text('bc').digest());
  });
  test('equal values have equal JSON, whatever order their keys came in', () => {
    expect(canonicalJson({ b: 1, a: [{ d: undefined, c: 2 }] })).toBe(canonicalJson({ a: [{ c: 2 }], b: 1 }));
  });
});
