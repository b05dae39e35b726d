import { expect, test } from 'vitest';
import { differenceOf, percentileOf } from './difference';

const vertical = (first: number, step: number, count: number) => ({ first, step, count });

test('what one section has more than another is taken sample by sample', () => {
  const v = vertical(0, 4, 3);
  const a = Float32Array.of(1, 2, 3, 4, 5, 6);
  expect([...differenceOf(a, v, Float32Array.of(1, 1, 1, 2, Number.NaN, 2), v)]).toEqual([0, 1, 2, 2, Number.NaN, 4]);
});

test('of other samples it is read between them: a sine of 30 Hz to a thousandth of its size', () => {
  const sine = (v: { first: number; step: number; count: number }) =>
    Float32Array.from({ length: v.count }, (_, k) => Math.sin((2 * Math.PI * 30 * (v.first + k * v.step)) / 1000));
  const [coarse, fine] = [vertical(40, 4, 100), vertical(1, 2, 260)];
  const rest = differenceOf(sine(coarse), coarse, sine(fine), fine);
  expect(Math.max(...rest.map(Math.abs))).toBeLessThan(2e-3);
  // where the other does not reach there is no difference
  const short = vertical(100, 2, 50);
  const part = differenceOf(sine(coarse), coarse, sine(short), short);
  expect([part[0], part[99]]).toEqual([Number.NaN, Number.NaN]);
});

test('colours of a difference end where a part of its samples lie', () => {
  const data = Float32Array.from({ length: 101 }, (_, n) => (n % 2 ? n : -n));
  expect(percentileOf(data, 90)).toBe(90);
  expect(percentileOf(new Float32Array(5).fill(Number.NaN), 90)).toBe(1);
});
