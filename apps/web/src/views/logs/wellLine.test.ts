import type { Well } from '@lithagon/core';
import { madeWell } from '@lithagon/core/testing/wellTables';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { placeInLine, withWell } from './wellLine';

const at = (x: number, y = 0): Well => ({ ...madeWell(`${x},${y}`), x, y });
const length = (line: { x: number; y: number }[]) =>
  line.slice(1).reduce((sum, b, n) => sum + Math.hypot(b.x - line[n].x, b.y - line[n].y), 0);

describe('a well goes into a line', () => {
  test('between the two that it lies between, and before or after those that it lies beyond', () => {
    const line = [at(0), at(1000), at(2000), at(3000)];
    expect(placeInLine(line, at(1400, 100))).toBe(2);
    expect(placeInLine(line, at(-500))).toBe(0);
    expect(placeInLine(line, at(3500))).toBe(4);
    expect(placeInLine([], at(0))).toBe(0);
    expect(placeInLine([at(0)], at(10))).toBe(1);
  });
  test('where the line grows least, wherever its wells lie', () => {
    const place = fc.record({ x: fc.integer({ min: -5000, max: 5000 }), y: fc.integer({ min: -5000, max: 5000 }) });
    fc.assert(
      fc.property(fc.array(place, { minLength: 1, maxLength: 7 }), place, (line, well) => {
        const grown = (n: number) => length(line.toSpliced(n, 0, well));
        const best = Math.min(...Array.from({ length: line.length + 1 }, (_, n) => grown(n)));
        expect(grown(placeInLine(line, well))).toBeCloseTo(best, 6);
      }),
      { seed: 12, numRuns: 200 },
    );
  });
  test('once, and at the end where a well of the line is gone', () => {
    const wells = [at(0), at(1000), at(2000)];
    const ids = wells.map((w) => w.id);
    expect(withWell([ids[0], ids[2]], wells, ids[1])).toEqual(ids);
    expect(withWell(ids, wells, ids[1])).toEqual(ids);
    expect(withWell(['gone', ids[2]], wells, ids[0])).toEqual(['gone', ids[2], ids[0]]);
  });
});
