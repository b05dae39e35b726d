import { expect, test } from 'vitest';
import { marksAlong } from './Axes';

test('round values stand at the traces that have them, also where the line turns back', () => {
  const values = Array.from({ length: 101 }, (_, t) => 1000 + 2 * t);
  expect(marksAlong(values, 0, 100, 5).map(({ value, trace }) => [value, trace])).toEqual([
    [1000, 0],
    [1050, 25],
    [1100, 50],
    [1150, 75],
    [1200, 100],
  ]);
  const there = [0, 1, 2, 3, 2, 1, 0];
  expect(
    marksAlong(there, 0, 6, 3)
      .filter((m) => m.value === 2)
      .map((m) => m.trace),
  ).toEqual([2, 4]);
  expect(marksAlong(values, 10.5, 20, 5).every((m) => m.trace >= 10.5 && m.trace <= 20)).toBe(true);
});
