import { describe, expect, test } from 'vitest';
import { solve } from '../numerics/leastSquares.ts';
import { uniform } from '../testing/random.ts';
import { type Filling, fillGaps } from './fill.ts';

const surface = (i: number, j: number) => 900 + 40 * Math.sin(i / 7) + 30 * Math.cos(j / 9) + 0.8 * i - 0.3 * j;

/** A grid of which a part is known, here and there. */
function scattered(rows: number, columns: number, part: number, seed: number) {
  const next = uniform(seed);
  return Float32Array.from({ length: rows * columns }, (_, n) =>
    next() < part ? surface(Math.floor(n / columns), n % columns) : Number.NaN,
  );
}

/** The least of the energy by a direct solution, its differences written out anew. */
function direct(
  values: Float32Array,
  rows: number,
  columns: number,
  tension: number,
  cutAfter: number | null,
): Float64Array {
  const free = Array.from(values.keys()).filter((k) => Number.isNaN(values[k]));
  const number = new Map(free.map((k, m) => [k, m]));
  const matrix = free.map(() => new Array<number>(free.length).fill(0));
  const right = new Array<number>(free.length).fill(0);
  const across = (...js: number[]) => cutAfter !== null && Math.min(...js) <= cutAfter && Math.max(...js) > cutAfter;
  const add = (terms: [i: number, j: number, w: number][], factor: number) => {
    if (terms.some(([i, j]) => i >= rows || j >= columns) || across(...terms.map(([, j]) => j))) return;
    for (const [i, j, w] of terms) {
      const m = number.get(i * columns + j);
      if (m === undefined) continue;
      for (const [a, b, v] of terms) {
        const other = number.get(a * columns + b);
        if (other === undefined) right[m] -= factor * w * v * values[a * columns + b];
        else matrix[m][other] += factor * w * v;
      }
    }
  };
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++) {
      add(
        [
          [i, j, 1],
          [i + 1, j, -1],
        ],
        tension,
      );
      add(
        [
          [i, j, 1],
          [i, j + 1, -1],
        ],
        tension,
      );
      add(
        [
          [i, j, 1],
          [i + 1, j, -2],
          [i + 2, j, 1],
        ],
        1 - tension,
      );
      add(
        [
          [i, j, 1],
          [i, j + 1, -2],
          [i, j + 2, 1],
        ],
        1 - tension,
      );
      add(
        [
          [i, j, 1],
          [i + 1, j, -1],
          [i, j + 1, -1],
          [i + 1, j + 1, 1],
        ],
        2 * (1 - tension),
      );
    }
  const found = solve(matrix, right);
  if (!found) throw new Error('the system is singular');
  const out = Float64Array.from(values);
  free.forEach((k, m) => {
    out[k] = found[m];
  });
  return out;
}

describe('filling gaps', () => {
  test.each([0, 0.05, 0.25, 1])('at tension %d it is the direct solution, with a fault and without', (tension) => {
    for (const cutAfter of [null, 11]) {
      const [rows, columns] = [22, 25];
      const values = scattered(rows, columns, 0.06, 5);
      const cuts = new Uint8Array(rows * columns);
      if (cutAfter !== null) for (let i = 0; i < rows; i++) cuts[i * columns + cutAfter] |= 2;
      const found = fillGaps(values, rows, columns, tension, cuts);
      const wanted = direct(values, rows, columns, tension, cutAfter);
      let off = 0;
      for (let k = 0; k < found.length; k++) off = Math.max(off, Math.abs(found[k] - wanted[k]));
      expect(off).toBeLessThan(0.01);
    }
  });
  test('of a large grid with few points it is found to its stated residual in few rounds', () => {
    const n = 300;
    const values = scattered(n, n, 0.002, 9);
    let how: Filling | null = null;
    const found = fillGaps(values, n, n, 0, undefined, {
      say: (filling) => {
        how = filling;
      },
    });
    const { residual, iterations, empty } = how as unknown as Filling;
    expect(residual).toBeLessThan(1e-8);
    expect(iterations).toBeLessThan(150);
    expect(empty).toBe(0);
    expect(found.every(Number.isFinite)).toBe(true);
  });
  test('bins that are no squares fill as the ground has them, not as their numbers do', () => {
    // the same ground, known at the same places, on bins of 12.5 by 25 m and of 25 by 25 m
    const shape = (x: number, y: number) => 1000 + 30 * Math.sin(x / 300) + 20 * Math.cos(y / 250);
    const places = Array.from({ length: 30 }, (_, n) => [(n * 7) % 40, (n * 11) % 36]);
    const grid = (rows: number, dy: number) => {
      const values = new Float32Array(rows * 36).fill(Number.NaN);
      for (const [i, j] of places) values[((i * 25) / dy) * 36 + j] = shape(j * 25, i * 25);
      return values;
    };
    const square = fillGaps(grid(40, 25), 40, 36, 0.25, undefined, { aspect: 1 });
    const fine = fillGaps(grid(80, 12.5), 80, 36, 0.25, undefined, { aspect: 0.5 });
    const wrong = fillGaps(grid(80, 12.5), 80, 36, 0.25);
    const apart = (other: Float32Array) => {
      let sum = 0;
      for (let i = 0; i < 39; i++)
        for (let j = 0; j < 36; j++) sum += (square[i * 36 + j] - other[2 * i * 36 + j]) ** 2;
      return Math.sqrt(sum / (39 * 36));
    };
    expect(apart(fine)).toBeLessThan(0.6 * apart(wrong));
  });
  test('a plane stays one, wherever it is known', () => {
    const n = 60;
    const values = new Float32Array(n * n).fill(Number.NaN);
    for (const [i, j] of [
      [3, 4],
      [50, 8],
      [20, 55],
      [31, 30],
    ])
      values[i * n + j] = 1000 + 2 * i - 3 * j;
    const found = fillGaps(values, n, n, 0);
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) expect(Math.abs(found[i * n + j] - (1000 + 2 * i - 3 * j))).toBeLessThan(0.05);
  });
});
