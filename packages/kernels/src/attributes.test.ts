import { expect, test } from 'vitest';
import {
  calmestTwin,
  firstPartTwin,
  loadKernels,
  medianTwin,
  movedTwin,
  normalsTwin,
  roomIn,
  weighTwin,
} from './index.ts';

const kernels = loadKernels();

/** Numbers between −1 and 1 that are the same every time, every so often none. */
function values(count: number, seed: number, none = 0): Float32Array {
  let state = seed;
  const next = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
  return Float32Array.from({ length: count }, () => (next() < none ? Number.NaN : 2 * next() - 1));
}

function alike(a: Float32Array, b: Float32Array, within: number): void {
  expect(a.length).toBe(b.length);
  for (let n = 0; n < a.length; n++) {
    expect(Number.isNaN(a[n])).toBe(Number.isNaN(b[n]));
    if (!Number.isNaN(b[n])) expect(Math.abs(a[n] - b[n])).toBeLessThan(within);
  }
}

/** Arrays in the memory of the kernels, in their order, with room for so many values after them. */
function held(arrays: Float32Array[], ...more: number[]) {
  const room = roomIn(kernels);
  const at = [...arrays.map((a) => room.take(a.length)), ...more.map((n) => room.take(n))];
  for (const [n, a] of arrays.entries()) room.floats(at[n], a.length).set(a);
  return { at, out: (n: number, count: number) => room.floats(at[n], count).slice() };
}

test.each([
  [1, 7, 50],
  [13, 5, 131],
  [40, 1, 16],
])('weighted sums at a stride of %i over %i values are those of the twin', (stride, count, length) => {
  const from = values(length + stride * (count - 1), 3);
  const weights = values(count, 5);
  const { at, out } = held([from, weights], length);
  kernels.weigh(at[0], at[2], length, stride, at[1], count);
  const twin = new Float32Array(length);
  weighTwin(from, twin, stride, weights);
  alike(out(2, length), twin, 1e-5);
});

test('slopes and disorder of tensors are those of the twin, and known ones are as they were made', () => {
  const length = 64;
  // tensors of three gradients each, most of them along one normal
  const tensors = new Float32Array(6 * length);
  const slopes: [number, number][] = [];
  for (let n = 0; n < length; n++) {
    const [a, b, c] = values(3, n + 11);
    slopes.push([2 * a, 2 * b]);
    const gradients = [
      [-2 * a, -2 * b, 1],
      [0.02 * c, 0.01, 0.02 * c * 2 * a],
    ];
    for (const [x, y, z] of gradients)
      for (const [r, v] of [x * x, x * y, x * z, y * y, y * z, z * z].entries()) tensors[r * length + n] += v;
  }
  for (let r = 0; r < 6; r++) tensors[r * length + 5] = 0;
  const { at, out } = held([tensors], length, length, length);
  kernels.normals(at[0], at[1], at[2], at[3], length, length);
  const [p, q, chaos] = [0, 1, 2].map(() => new Float32Array(length));
  normalsTwin(tensors, p, q, chaos);
  alike(out(1, length), p, 1e-3);
  alike(out(2, length), q, 1e-3);
  alike(out(3, length), chaos, 1e-3);
  for (const [n, [a, b]] of slopes.entries()) {
    if (n === 5) continue;
    expect(Math.abs(p[n] - a)).toBeLessThan(0.02);
    expect(Math.abs(q[n] - b)).toBeLessThan(0.02);
  }
});

test('products of gradients are laid out in rows, nought where there is none', () => {
  const [x, y, z] = [values(8, 1, 0.3), values(8, 2), values(8, 3)];
  const { at, out } = held([x, y, z], 48);
  kernels.products(at[0], at[1], at[2], at[3], 8);
  const clean = x.map((v) => (Number.isNaN(v) ? 0 : v));
  const rows = [clean, clean, clean, y, y, z].map((a, r) => a.map((v, n) => v * [clean, y, z, y, z, z][r][n]));
  alike(out(3, 48), Float32Array.from(rows.flatMap((row) => [...row])), 1e-7);
});

test.each([0, 0.08])('a trace moved by slopes is that of the twin, with %f of its samples gone', (gone) => {
  const count = 91;
  const [from, p, q] = [values(count, 7, gone), values(count, 8), values(count, 9)];
  for (let k = 0; k < 20; k++) p[k] = q[k] = 0;
  for (const [di, dj] of [
    [0, 0],
    [1, -2],
    [3, 40],
  ]) {
    const { at, out } = held([from, p, q], count);
    kernels.moved(at[0], at[1], at[2], di, dj, at[3], count);
    const twin = new Float32Array(count);
    movedTwin(from, p, q, di, dj, twin);
    alike(out(3, count), twin, 2e-5);
  }
});

test('sums over rows leave out what is none', () => {
  const rows = values(5 * 12, 21, 0.3);
  const { at, out } = held([rows], 12, 12, 12);
  kernels.foldRows(at[0], 5, 12, at[1], at[2], at[3]);
  for (let k = 0; k < 12; k++) {
    const there = [0, 1, 2, 3, 4].map((j) => rows[j * 12 + k]).filter((v) => !Number.isNaN(v));
    expect(out(1, 12)[k]).toBeCloseTo(
      there.reduce((s, v) => s + v, 0),
      5,
    );
    expect(out(2, 12)[k]).toBeCloseTo(
      there.reduce((s, v) => s + v * v, 0),
      5,
    );
    expect(out(3, 12)[k]).toBe(there.length);
  }
});

test('the part of the first component is that of the twin wherever it stands out', () => {
  const [count, samples, half] = [9, 32, 3];
  // a common waveform with noise on it, and rows of noise alone
  const common = values(samples, 4);
  const rows = values(count * samples, 6, 0.02).map((v, n) => common[n % samples] + 0.4 * v);
  const pairs = (count * (count + 1)) / 2;
  const ones = new Float32Array(2 * half + 1).fill(1);
  // windows at the ends are shorter: rows are led on by noughts, to a multiple of four
  const wide = (samples + 2 * half + 3) & ~3;
  const led = new Float32Array(count * wide);
  for (let j = 0; j < count; j++) led.set(rows.subarray(j * samples, (j + 1) * samples), j * wide + half);
  const { at, out } = held([led, ones], pairs * wide, pairs * wide, 8 * count, samples);
  kernels.pairProducts(at[0], count, wide, at[2]);
  kernels.weigh(at[2], at[3], pairs * wide - 2 * half, 1, at[1], 2 * half + 1);
  kernels.firstPart(at[3], count, wide, 0, samples, at[4], at[5]);
  const twin = new Float32Array(samples);
  firstPartTwin(rows, count, half, twin);
  alike(out(5, samples), twin, 0.01);
});

test('medians are those of the twin', () => {
  for (const count of [5, 9, 25]) {
    const rows = values(count * 24, count, 0.1);
    const { at, out } = held([rows], 24);
    kernels.medianRows(at[0], count, 24, at[1]);
    const twin = new Float32Array(24);
    medianTwin(rows, count, twin);
    alike(out(1, 24), twin, 1e-7);
  }
});

test('the mean of the calmest set is that of the twin', () => {
  const rows = values(9 * 16, 31, 0.1);
  const sets = [
    [0, 1, 3, 4],
    [1, 2, 4, 5],
    [3, 4, 6, 7],
    [4, 5, 7, 8],
  ];
  const room = roomIn(kernels);
  const [at, list, to] = [room.take(rows.length), room.take(16), room.take(16)];
  room.floats(at, rows.length).set(rows);
  room.ints(list, 16).set(sets.flat());
  kernels.calmest(at, 16, list, 4, 4, to);
  const twin = new Float32Array(16);
  calmestTwin(rows, sets, twin);
  alike(room.floats(to, 16).slice(), twin, 1e-5);
});

test('diffusion draws each value to its neighbours by how much they are trusted', () => {
  const [u, rows] = [values(8, 41), values(3 * 8, 42, 0.2)];
  const trust = values(8, 43).map(Math.abs);
  const { at, out } = held([u, rows, trust], 8);
  kernels.diffuse(at[0], at[1], 3, 8, at[2], 0.2, at[3]);
  const twin = u.map((v, k) => {
    const steps = [0, 1, 2].map((j) => rows[j * 8 + k] - v).filter((d) => !Number.isNaN(d));
    return v + 0.2 * trust[k] * steps.reduce((s, d) => s + d, 0);
  });
  alike(out(3, 8), twin, 1e-6);
});
