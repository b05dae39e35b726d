import fc from 'fast-check';
import { expect, test } from 'vitest';
import { parseLas } from './parse.ts';

interface MadeLas {
  version: '1.2' | '2.0' | '3.0';
  wrapped: boolean;
  feet: boolean;
  falling: boolean;
  delimiter: 'SPACE' | 'COMMA' | 'TAB';
  curves: number;
  rows: number;
  first: number;
  step: number;
  nullValue: number;
  comments: boolean;
  crlf: boolean;
  twice: boolean;
}

/** A LAS file by the grammar of its version, from the documents of the CWLS and nothing of the reader's. */
function makeLas(m: MadeLas, value: (row: number, curve: number) => number | null): string {
  const unit = m.feet ? 'FT' : 'M';
  const three = m.version === '3.0';
  const depth = (row: number) => m.first + m.step * row;
  const rows = Array.from({ length: m.rows }, (_, n) => (m.falling ? m.rows - 1 - n : n));
  const comma = three && m.delimiter !== 'SPACE';
  const join = !three || m.delimiter === 'SPACE' ? ' ' : m.delimiter === 'COMMA' ? ',' : '\t';
  const out: string[] = [];
  out.push('~Version', ` VERS. ${m.version} : version`, ` WRAP. ${m.wrapped && !three ? 'YES' : 'NO'} : wrapped`);
  if (three) out.push(` DLM. ${m.delimiter} : delimiter`);
  if (m.comments) out.push('# a remark', '');
  out.push('~Well');
  out.push(` STRT.${unit} ${depth(rows[0])} : start`, ` STOP.${unit} ${depth(rows[m.rows - 1])} : stop`);
  out.push(` STEP.${unit} ${m.falling ? -m.step : m.step} : step`, ` NULL. ${m.nullValue} : null`);
  out.push(m.version === '1.2' ? ' WELL. WELL : QN-9' : ' WELL. QN-9 : well');
  out.push(three ? '~Log_Definition' : '~Curve', ` DEPT.${unit} : depth${three ? ' {F}' : ''}`);
  for (let c = 0; c < m.curves; c++)
    out.push(` ${m.twice && c === 1 ? 'C0' : `C${c}`}.GAPI : curve ${c}${three ? ' {F}' : ''}`);
  if (m.comments) out.push('# another: with a colon');
  out.push(three ? '~Log_Data | Log_Definition' : '~A');
  for (const row of rows) {
    const cells = [
      depth(row),
      ...Array.from({ length: m.curves }, (_, c) => value(row, c) ?? (comma ? '' : m.nullValue)),
    ].map(String);
    if (m.wrapped && !three) {
      out.push(cells[0]);
      for (let c = 1; c < cells.length; c += 3) out.push(` ${cells.slice(c, c + 3).join(' ')}`);
    } else out.push(cells.join(join));
  }
  return `${out.join(m.crlf ? '\r\n' : '\n')}\n`;
}

test('120 made variants are read to the last value', () => {
  const any = fc.record({
    version: fc.constantFrom('1.2', '2.0', '3.0') as fc.Arbitrary<MadeLas['version']>,
    wrapped: fc.boolean(),
    feet: fc.boolean(),
    falling: fc.boolean(),
    delimiter: fc.constantFrom('SPACE', 'COMMA', 'TAB') as fc.Arbitrary<MadeLas['delimiter']>,
    curves: fc.integer({ min: 1, max: 9 }),
    rows: fc.integer({ min: 3, max: 40 }),
    first: fc.constantFrom(0, 100, 1524.5),
    step: fc.constantFrom(0.125, 0.25, 0.5, 1),
    nullValue: fc.constantFrom(-999.25, -9999, 1e30),
    comments: fc.boolean(),
    crlf: fc.boolean(),
    twice: fc.boolean(),
    seed: fc.integer({ min: 1, max: 9999 }),
  });
  fc.assert(
    fc.property(any, (m) => {
      const value = (row: number, c: number) =>
        (row * 7 + c * 3 + m.seed) % 11 === 0 ? null : ((row * 31 + c * 17 + m.seed) % 1000) / 8;
      const [las] = parseLas('made.las', makeLas(m, value));
      expect(las.well).toBe('QN-9');
      expect(las.depthM).toHaveLength(m.rows);
      expect(las.curves).toHaveLength(m.curves);
      for (let row = 0; row < m.rows; row++) {
        expect(las.depthM[row]).toBeCloseTo((m.first + m.step * row) * (m.feet ? 0.3048 : 1), 9);
        las.curves.forEach((curve, c) => {
          const wanted = value(row, c);
          if (wanted === null) expect(curve.values[row]).toBeNaN();
          else expect(curve.values[row]).toBe(wanted);
        });
      }
      if (m.twice && m.curves > 1) expect(las.curves[1].mnemonic).toBe('C0:2');
      expect(las.warnings).toEqual([]);
    }),
    { numRuns: 120, seed: 4 },
  );
});

test('version 3 with several data sections gives a set of curves for each', () => {
  const text =
    '~Version\n VERS. 3.0 :\n WRAP. NO :\n DLM. COMMA :\n~Well\n WELL. QN-9 :\n NULL. -999.25 :\n~Log_Definition[1]\n DEPT.M : {F}\n GR.GAPI : {F}\n~Log_Data[1] | Log_Definition[1]\n100,50\n101,51\n~Log_Definition[2]\n DEPT.M : {F}\n DT.US/M : {F}\n NOTE. : remark {S}\n~Log_Data[2] | Log_Definition[2]\n200,300,sandy\n200.5,301,\n';
  const [a, b] = parseLas('two.las', text);
  expect([a.curves[0].mnemonic, [...a.curves[0].values]]).toEqual(['GR', [50, 51]]);
  expect([b.curves[0].mnemonic, [...b.depthM]]).toEqual(['DT', [200, 200.5]]);
  expect([...b.curves[1].values].every(Number.isNaN)).toBe(true);
});
