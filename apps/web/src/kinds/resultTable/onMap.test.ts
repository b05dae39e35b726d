import type { ResultTable } from '@lithagon/core';
import { describe, expect, test } from 'vitest';
import { hasPlaces, marksOf } from './OnMap';

const table = (columns: string[], rows: ResultTable['rows']) =>
  ({ columns: columns.map((name) => ({ name, unit: 'm' })), rows }) as ResultTable;
const metres = (v: number) => `${v.toFixed(1)} m`;

describe('a table with places', () => {
  test('of residuals says each at its top, with what is found where its well is left out', () => {
    const residuals = table(
      ['Well', 'Top', 'Residual before', 'Residual after', 'Residual with the well left out', 'X', 'Y'],
      [
        ['A', 'Upper', -3.21, 0, 5, 100, 200],
        ['B', 'Upper', 2, 0, null, 300, 400],
      ],
    );
    expect(hasPlaces(residuals)).toBe(true);
    expect(marksOf(residuals, metres)).toMatchObject([
      { x: 100, y: 200, of: 'Upper', text: 'Upper −3.2 m, left out +5.0 m' },
      { x: 300, y: 400, text: 'Upper +2.0 m, left out –' },
    ]);
  });
  test('of closures says the highest place and the spill, with how far they may be off, and nothing else', () => {
    const closures = table(
      ['Surface', 'What', 'By the model', 'P90', 'P50', 'P10', 'Deviation', 'X', 'Y'],
      [
        ['Upper', 'highest place', 970, 965, 970, 975, 4, 1, 2],
        ['Upper', 'spill', 1060, null, null, null, null, 3, 4],
        ['Upper', 'height of the closure', 90, 80, 90, 100, 8, 3, 4],
      ],
    );
    expect(marksOf(closures, metres).map((m) => m.text)).toEqual(['highest place 970.0 m ± 4.0 m', 'spill 1060.0 m']);
  });
  test('any other has none', () => {
    const other = table(['Well', 'X', 'Y'], [['A', 1, 2]]);
    expect(marksOf(other, metres)).toEqual([]);
    expect(hasPlaces(table(['Well'], []))).toBe(false);
  });
});
