import { expect, test } from 'vitest';
import { loadKernels, roomIn, type Slanted, slantedMeans, slantedMeansTwin, slantedRoom } from './index.ts';

const kernels = loadKernels();

function image(count: number, seed: number): Float32Array {
  let state = seed;
  return Float32Array.from({ length: count }, () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2147483648 - 1;
  });
}

function run(values: Float32Array, of: Slanted, slope: number, half: number): Float32Array {
  const room = roomIn(kernels);
  const [from, to] = [room.take(values.length), room.take(of.rows * of.width + 4)];
  const scratch = room.take(slantedRoom(of.rows, of.width, Math.abs(slope), half));
  room.floats(from, values.length).set(values);
  slantedMeans(kernels, from, of, slope, half, scratch, to, of.width);
  return room.floats(to, of.rows * of.width).slice();
}

const far = (a: Float32Array, b: Float32Array) => a.reduce((most, v, n) => Math.max(most, Math.abs(v - b[n])), 0);

test.each([
  [0, 3, 0],
  [0.37, 5, 12],
  [-0.81, 4, 7],
  [1.6, 2, -3],
  [-0.05, 20, 100],
])('means along lines of slope %f over %i rows each way from row %i are those of the twin', (slope, half, first) => {
  const [rows, width, stride] = [31, 45, 50];
  const values = image(rows * stride, 9);
  const of = { rows, width, stride, first, low: first, high: first + rows };
  expect(far(run(values, of, slope, half), slantedMeansTwin(values, of, slope, half))).toBeLessThan(2e-6);
});

test('they are the same to the bit wherever the image is cut', () => {
  const [rows, width] = [60, 40];
  const values = image(rows * width, 4);
  const whole = run(values, { rows, width, stride: width, first: 0, low: 0, high: rows }, 0.43, 6);
  const part = run(
    values.subarray(11 * width, 47 * width),
    { rows: 36, width, stride: width, first: 11, low: 0, high: rows },
    0.43,
    6,
  );
  // away from the cut by the window
  for (let r = 6; r < 30; r++)
    for (let b = 0; b < width; b++) expect(part[r * width + b]).toBe(whole[(r + 11) * width + b]);
});

test('a slanted line in an image stands out by its own slope, at its own place', () => {
  const [rows, width] = [41, 60];
  const values = new Float32Array(rows * width);
  for (let r = 0; r < rows; r++) values[r * width + Math.round(20 + 0.5 * r)] = 1;
  const of = { rows, width, stride: width, first: 0, low: 0, high: rows };
  const at = (slope: number) => run(values, of, slope, 10).subarray(20 * width, 21 * width);
  expect(at(0.5).indexOf(Math.max(...at(0.5)))).toBe(30);
  expect(Math.max(...at(0.5))).toBeGreaterThan(2 * Math.max(...at(0)));
});

test('the larger value and its number are kept', () => {
  const room = roomIn(kernels);
  const [a, b, w] = [room.take(8), room.take(8), room.take(8)];
  room.floats(a, 8).set([1, 5, 2, -1, 0, 9, 3, 3]);
  room.floats(b, 8).set([2, 4, 2, -2, 1, 8, 4, Number.NEGATIVE_INFINITY]);
  room.floats(w, 8).fill(7);
  kernels.keepBest(a, b, w, 3, 8);
  expect([...room.floats(b, 8)]).toEqual([2, 5, 2, -1, 1, 9, 4, 3]);
  expect([...room.floats(w, 8)]).toEqual([7, 3, 7, 3, 7, 3, 7, 3]);
});
