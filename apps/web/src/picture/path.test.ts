import { expect, test } from 'vitest';
import { pathText } from './path';

test('a path is broken where a point is missing, and closed only where there is one', () => {
  expect(
    pathText([
      [0, 0],
      [1.26, 2],
      [Number.NaN, 3],
      [4, 5],
      [6, 7],
    ]),
  ).toBe('M0,0L1.3,2M4,5L6,7');
  expect(
    pathText(
      [
        [0, 0],
        [10, 0],
        [10, 10],
      ],
      true,
    ),
  ).toBe('M0,0L10,0L10,10Z');
  expect(pathText([], true)).toBe('');
});
