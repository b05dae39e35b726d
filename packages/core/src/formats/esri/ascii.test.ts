import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { parseAsciiGrid } from './ascii.ts';

const grid = fc
  .record({ rows: fc.integer({ min: 2, max: 7 }), columns: fc.integer({ min: 2, max: 9 }) })
  .chain(({ rows, columns }) =>
    fc.record({
      rows: fc.constant(rows),
      columns: fc.constant(columns),
      cells: fc.array(fc.option(fc.integer({ min: -90_000, max: 90_000 }), { nil: null }), {
        minLength: rows * columns,
        maxLength: rows * columns,
      }),
      size: fc.constantFrom(0.5, 12.5, 25, 100),
      left: fc.integer({ min: -1e6, max: 1e6 }),
      bottom: fc.integer({ min: 0, max: 9e6 }),
      middle: fc.boolean(),
      upper: fc.boolean(),
      newline: fc.constantFrom('\n', '\r\n'),
      // cells need not stand in rows of the grid
      wrap: fc.integer({ min: 1, max: 12 }),
      nothing: fc.constantFrom('-9999', '1e+38', '-3.4028235e+38'),
    }),
  );

describe('ESRI ASCII grids', () => {
  test('of any layout hold the cells that were written, from north to south', () => {
    fc.assert(
      fc.property(grid, (g) => {
        const key = (k: string) => (g.upper ? k.toUpperCase() : k).padEnd(14);
        const corner = g.middle ? 'center' : 'corner';
        const shift = g.middle ? 0 : g.size / 2;
        const words = g.cells.map((c) => (c === null ? g.nothing : String(c / 10)));
        const lines: string[] = [];
        for (let n = 0; n < words.length; n += g.wrap) lines.push(words.slice(n, n + g.wrap).join(' '));
        const text = [
          `${key('ncols')}${g.columns}`,
          `${key('nrows')}${g.rows}`,
          `${key(`xll${corner}`)}${g.left}`,
          `${key(`yll${corner}`)}${g.bottom}`,
          `${key('cellsize')}${g.size}`,
          `${key('NODATA_value')}${g.nothing}`,
          ...lines,
          '',
        ].join(g.newline);
        const read = parseAsciiGrid('a.asc', text);
        expect([read.rows, read.columns]).toEqual([g.rows, g.columns]);
        g.cells.forEach((c, n) => {
          if (c === null) expect(read.values[n]).toBeNaN();
          else expect(read.values[n]).toBe(Math.fround(c / 10));
        });
        // the last row's first cell is the lower left one
        expect(read.origin[0] - (g.left + shift)).toBeCloseTo(0, 6);
        expect(read.origin[1] + (g.rows - 1) * read.perRow[1] - (g.bottom + shift)).toBeCloseTo(0, 6);
        expect([read.perColumn, read.perRow]).toEqual([
          [g.size, 0],
          [0, -g.size],
        ]);
      }),
      { seed: 21, numRuns: 200 },
    );
  });
  test('take the largest of floats for nothing, though head and cells write it differently', () => {
    const text = 'ncols 2\nnrows 2\nxllcorner 0\nyllcorner 0\ncellsize 1\nNODATA_value -3.4028234663852886e+38\n';
    expect([...parseAsciiGrid('a.asc', `${text}1 -3.402823e+38\n-3.40282e+38 4\n`).values]).toEqual([
      1,
      Number.NaN,
      Number.NaN,
      4,
    ]);
  });
  const head = { ncols: 2, nrows: 2, xllcorner: 0, yllcorner: 0, cellsize: 1 };
  const made = (more: Record<string, unknown>, cells = '1 2\n3 4\n') =>
    `${Object.entries({ ...head, ...more })
      .filter(([, v]) => v !== null)
      .map(([k, v]) => `${k} ${v}`)
      .join('\n')}\n${cells}`;
  test.each([
    ['without its size', made({ cellsize: null }), 'lacks ncols, nrows or cellsize'],
    ['of a size of nothing', made({ cellsize: 0 }), 'lacks ncols, nrows or cellsize'],
    ['of parts of columns', made({ ncols: 2.5 }), 'lacks ncols, nrows or cellsize'],
    ['that lies nowhere', made({ xllcorner: null }), 'does not say where its lower left corner is'],
    ['cut short', made({ nrows: 3 }), 'it has 4 of its 6 values'],
    ['that says it is huge', made({ ncols: 1e6, nrows: 1e6 }), 'which is too many'],
  ])('%s is refused by name', (_, text, why) => {
    expect(() => parseAsciiGrid('bad.asc', text)).toThrow(`bad.asc cannot be read as an ASCII grid`);
    expect(() => parseAsciiGrid('bad.asc', text)).toThrow(why);
  });
});
