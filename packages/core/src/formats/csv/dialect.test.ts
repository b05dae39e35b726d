import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cellsOf, degreesOf, hasDecimalComma, numberOf } from './dialect.ts';

const HEADER = ['well', 'top', 'md'];
const UNITS = ['', '', 'm'];
/** Words that need no quotes in any dialect. */
const word = fc.stringMatching(/^[A-Z][A-Za-z0-9]{0,8}$/);
const rows = fc.array(
  fc.tuple(
    word,
    word,
    fc.integer({ min: -99_999, max: 999_999 }).map((n) => n / 100),
  ),
  {
    minLength: 2,
    maxLength: 12,
  },
);
const dialect = fc.record({
  separator: fc.constantFrom(',', ';', '\t', '|', ' '),
  comma: fc.boolean(),
  newline: fc.constantFrom('\n', '\r\n', '\r'),
  bom: fc.boolean(),
  units: fc.boolean(),
  quoted: fc.boolean(),
  remark: fc.boolean(),
  blankEnd: fc.boolean(),
});

describe('tables of any dialect', () => {
  test('hold the same cells, whatever sets columns, lines and decimals apart', () => {
    fc.assert(
      fc.property(rows, dialect, (body, d) => {
        // a comma cannot set apart both columns and decimals, and blanks need words without quotes
        const comma = d.comma && d.separator !== ',';
        const quoted = d.quoted && d.separator !== ' ';
        const units = d.units && d.separator !== ' ';
        const number = (v: number) => (comma ? v.toFixed(2).replace('.', ',') : v.toFixed(2));
        const cell = (text: string) => (quoted ? `"${text}"` : text);
        const lines = [
          ...(d.remark ? ['# made up'] : []),
          HEADER.map(cell).join(d.separator),
          ...(units ? [UNITS.join(d.separator)] : []),
          ...body.map(([w, t, md]) => [cell(w), cell(t), number(md)].join(d.separator)),
          ...(d.blankEnd ? ['', ''] : []),
        ];
        const table = cellsOf('t.csv', `${d.bom ? '\uFEFF' : ''}${lines.join(d.newline)}`);
        expect(table.header).toEqual(HEADER);
        expect(table.units).toEqual(units ? UNITS : ['', '', '']);
        expect(table.body.map((r) => r.slice(0, 2))).toEqual(body.map((r) => r.slice(0, 2)));
        const isComma = hasDecimalComma(table.body);
        expect(isComma).toBe(comma);
        table.body.forEach((r, n) => {
          expect(numberOf(r[2], isComma)).toBeCloseTo(body[n][2], 6);
        });
      }),
      { seed: 11, numRuns: 300 },
    );
  });
  test('keep a separator, a quote and a line within quotes', () => {
    const { body } = cellsOf('t.csv', 'well,note\nQN-1,"cored, ""twice"""\nQN-2,"two\nlines"\n');
    expect(body).toEqual([
      ['QN-1', 'cored, "twice"'],
      ['QN-2', 'two\nlines'],
    ]);
  });
  test('begin where the columns do: lines above are remarks', () => {
    const table = cellsOf('t.csv', 'Quillon field\nmade up by hand\nwell,md,tvd\nQN-1,1,2\nQN-1,3,4\n');
    expect(table.header).toEqual(['well', 'md', 'tvd']);
    expect(table.body).toHaveLength(2);
    expect(table.firstLine).toBe(4);
  });
  test('without names have numbered columns', () => {
    const table = cellsOf('t.csv', '1 2.5 3\n4 5.5 6\n7 8.5 9\n');
    expect(table.header).toEqual(['Column 1', 'Column 2', 'Column 3']);
    expect(table.body).toHaveLength(3);
  });
  test('know a row of units, in brackets too, from a row of words', () => {
    expect(cellsOf('t.csv', 'md,gr,dt\n(m),(gapi),(us/ft)\n1,2,3\n').units).toEqual(['m', 'gapi', 'us/ft']);
    const words = cellsOf('t.csv', 'well,top,how\nQN-1,Tolven Top,picked\nQN-2,Tolven Top,carried\n');
    expect(words.units).toEqual(['', '', '']);
    expect(words.body).toHaveLength(2);
  });
  test.each(['', '\n\n', 'word', 'a\nb\nc\n'])('%j is no table, and is refused by name', (text) => {
    expect(() => cellsOf('odd.csv', text)).toThrow('odd.csv cannot be read as a table');
  });
});

describe('numbers in tables', () => {
  test('of nothing are none, however nothing is written', () => {
    for (const nothing of ['', ' ', '-', 'NA', 'n/a', 'NaN', 'null', '-999.25', '-999', '-9999', '1E+30', '1e30'])
      expect(numberOf(nothing, false)).toBeNaN();
    expect([numberOf('-99.25', false), numberOf('999.25', false), numberOf('0', false)]).toEqual([-99.25, 999.25, 0]);
  });
  test('that are words are none', () => {
    for (const text of ['12 m', '1,5', 'abc', '1.2.3', '--5']) expect(numberOf(text, false)).toBeNaN();
  });
  test('with a decimal comma may have points between thousands', () => {
    expect(numberOf('1.234,5', true)).toBe(1234.5);
    expect(numberOf('-0,25', true)).toBe(-0.25);
  });
  test('have a decimal comma only where some number has one and none has a point', () => {
    expect(hasDecimalComma([['a', '1,5']])).toBe(true);
    expect(hasDecimalComma([['1,5'], ['2.5']])).toBe(false);
    expect(hasDecimalComma([['1'], ['a,b']])).toBe(false);
  });
});

describe('angles in degrees, minutes and seconds', () => {
  const marks = fc.constantFrom<[string, string, string]>(
    ['°', "'", '"'],
    [':', ':', ''],
    ['d', 'm', 's'],
    [' ', ' ', ''],
    ['° ', '′ ', '″'],
  );
  test('are what they say, with a sign or a side before or after', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 179 }),
        fc.integer({ min: 0, max: 59 }),
        fc.integer({ min: 0, max: 59999 }),
        marks,
        fc.constantFrom('', '-', '+', 'S', 'N', 'w', 'E'),
        fc.boolean(),
        (d, m, ms, [a, b, c], side, before) => {
          const text = `${d}${a}${m}${b}${ms / 1000}${c}`;
          const signed = side === '-' || side === '+' || before ? `${side}${text}` : `${text}${side}`;
          const turned = side === '-' || side === 'S' || side === 'w';
          expect(degreesOf(signed)).toBeCloseTo((turned ? -1 : 1) * (d + m / 60 + ms / 3.6e6), 9);
        },
      ),
      { seed: 5, numRuns: 300 },
    );
  });
  test.each(['500123.5', '500 123', '12', '12°61\'00"', '200:00:00', 'S', ''])('%s is none', (text) => {
    expect(degreesOf(text)).toBeNaN();
  });
  test('without seconds, or with minutes in parts', () => {
    expect(degreesOf("12°30'S")).toBeCloseTo(-12.5, 9);
    expect(degreesOf('12 30.5 N')).toBeCloseTo(12 + 30.5 / 60, 9);
  });
});
