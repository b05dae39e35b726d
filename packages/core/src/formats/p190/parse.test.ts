import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { looksLikeP190, parseP190 } from './parse.ts';

/** One record of a position, its columns as the format has them. */
const record = (kind: string, line: string, point: number, x: number, y: number) =>
  `${kind}${line.padEnd(12)}      ${String(point).padStart(6)}024000.00N0560000.00E${x.toFixed(1).padStart(9)}${y.toFixed(1).padStart(9)}  85.0123120000`;

describe('P1/90 positions', () => {
  const point = fc.tuple(
    fc.integer({ min: 1, max: 99_999 }),
    fc.integer({ min: 0, max: 9_999_999 }).map((n) => n / 10),
    fc.integer({ min: 0, max: 99_999_999 }).map((n) => n / 10),
  );
  test('are read line by line, in their order, whatever else stands between them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('QL-07', 'QL-12 A', 'X'), point), { minLength: 1, maxLength: 30 }),
        fc.constantFrom('\n', '\r\n'),
        (records, newline) => {
          const text = [
            'H0100SURVEY AREA                OSMUND SHELF, MADE UP',
            'H0800COORDINATE LOCATION        CENTRE OF SOURCE',
            ...records.flatMap(([line, [n, x, y]]) => [record('S', line, n, x, y), 'R   1 2 3']),
            'EOF',
          ].join(newline);
          expect(looksLikeP190(text)).toBe(true);
          const { lines, kind, skipped } = parseP190('a.p190', text);
          expect([kind, skipped]).toEqual(['S', 0]);
          for (const { line, points } of lines)
            expect(points).toEqual(records.filter(([name]) => name === line).map(([, p]) => p));
          expect(lines.reduce((n, l) => n + l.points.length, 0)).toBe(records.length);
        },
      ),
      { seed: 22, numRuns: 100 },
    );
  });
  test('of common midpoints are taken before those of sources, and those before the vessel’s', () => {
    const of = (...kinds: string[]) =>
      parseP190('a.p190', kinds.map((k, n) => record(k, 'L', n + 1, 1000 + n, 2000)).join('\n'));
    expect(of('V', 'S', 'C').kind).toBe('C');
    expect(of('V', 'S').kind).toBe('S');
    expect(of('V').lines[0].points).toEqual([[1, 1000, 2000]]);
  });
  test('that lack a number are left out, and counted', () => {
    const good = record('S', 'L', 7, 1000, 2000);
    const { lines, skipped } = parseP190(
      'a.p190',
      [good, good.slice(0, 40), good.replace('1000.0', 'abcd.0')].join('\n'),
    );
    expect(lines).toEqual([{ line: 'L', points: [[7, 1000, 2000]] }]);
    expect(skipped).toBe(2);
  });
  test('are refused by name where there is none', () => {
    expect(() => parseP190('empty.p190', 'H0100 made up\n')).toThrow('empty.p190 holds no positions');
    expect(looksLikeP190('well,top,md\nQN-1,A,1\n')).toBe(false);
  });
});
