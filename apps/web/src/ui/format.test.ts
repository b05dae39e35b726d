import { expect, test } from 'vitest';
import { counted, figure, formatBytes, signed } from './format';

test('figures have a typographic minus, and zero has no sign', () => {
  expect([figure(-1.25, 2), figure(3, 0), figure(-0.04), figure(0.04)]).toEqual(['−1.25', '3', '0.0', '0.0']);
  expect([signed(2.25), signed(-7, 0), signed(0.01), signed(-0.01)]).toEqual(['+2.3', '−7', '0.0', '0.0']);
});

test('one of something is not several', () => {
  expect([0, 1, 2].map((n) => counted(n, 'row'))).toEqual(['0 rows', '1 row', '2 rows']);
  expect(counted(3, 'entry', 'entries')).toBe('3 entries');
});

test('bytes read in the unit that suits them', () => {
  expect([0, 999, 1000, 41_000, 9_960_000, 1.62e9, 3e12].map(formatBytes)).toEqual([
    '0 bytes',
    '999 bytes',
    '1.0 kB',
    '41 kB',
    '10.0 MB',
    '1.6 GB',
    '3.0 TB',
  ]);
});
