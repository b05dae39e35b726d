import { expect, test } from 'vitest';
import { paintFacies } from './painting.ts';
import { newTable } from './tops.ts';

test('painted facies give way to what is painted over them, and beds that touch are one', () => {
  let table = paintFacies(newTable('facies', 'A'), 100, 120, 'Sand');
  table = paintFacies(table, 110, 105, 'Shale');
  expect(table.rows).toEqual([
    [100, 105, 'Sand'],
    [105, 110, 'Shale'],
    [110, 120, 'Sand'],
  ]);
  table = paintFacies(table, 105, 110, 'Sand');
  expect(table.rows).toEqual([[100, 120, 'Sand']]);
  expect(paintFacies(table, 90, 110, null).rows).toEqual([[110, 120, 'Sand']]);
});
