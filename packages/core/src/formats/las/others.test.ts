import { describe, expect, test } from 'vitest';
import type { Logs } from '../../earth/objects.ts';
import { inspectFile } from '../../files/inspect.ts';
import { loadFile } from '../../files/load.ts';
import { exportObject } from '../../files/out/export.ts';
import { readWhole } from '../../storage/arrays.ts';
import { memoryStore } from '../../storage/memory.ts';
import { fileContext } from '../../testing/field.ts';
import { memorySource } from '../source.ts';
import { parseLas } from './parse.ts';

const HEAD = (step: string, unit = 'M') =>
  `~Version\n VERS.  2.0 : CWLS\n WRAP.  NO :\n~Well\n STRT.${unit} 1000 :\n STOP.${unit} 1010 :\n STEP.${unit} ${step} :\n NULL. -999.25 :\n COMP. Osmund Explorers : COMPANY\n WELL. QN-1 : WELL\n FLD. Quillon : FIELD\n UWI. 100-1.2:A : UNIQUE WELL ID\n SRVC. Slickline Ltd : SERVICE COMPANY\n`;
const CURVES = ' DEPT.M : depth\n GR.GAPI : gamma ray\n RT.OHMM : deep resistivity\n DT.US/F : sonic\n';

async function loaded(text: string) {
  const store = memoryStore();
  const source = memorySource('others.las', new TextEncoder().encode(text));
  const report = await inspectFile(source);
  const result = await loadFile(source, {}, fileContext(store));
  const logs = result.objects[0] as Logs;
  const curve = async (n: number) => [...(await readWhole(store, logs.curves[n].data))];
  const out = new TextDecoder().decode(await exportObject(store, logs, 'las', null));
  return { store, report, logs, curve, out, says: result.warnings.join(' ') };
}
const file = (rows: string, { step = '0.5', curves = CURVES } = {}) => {
  const last = rows.trim().split('\n').pop()?.split(' ')[0];
  return `${HEAD(step).replace('STOP.M 1010', `STOP.M ${last}`)}~Curve\n${curves}~Ascii\n${rows}`;
};

describe('logs that others wrote', () => {
  test('exponents as Fortran writes them are numbers', async () => {
    const { logs, curve, says } = await loaded(
      file('1.0000D+03 1.317793D+02 2.5d1 9.0E+01\n1.0005D+03 1.5+02 -1.0-3 9D1\n1001.0 7.5D+01 1 91\n'),
    );
    expect(logs.depth).toEqual({ firstM: 1000, stepM: 0.5, count: 3 });
    expect((await curve(0)).map((v) => Number(v.toFixed(3)))).toEqual([131.779, 150, 75]);
    expect((await curve(1)).map((v) => Number(v.toFixed(4)))).toEqual([25, -0.001, 1]);
    expect(says).toBe('');
  });
  test('what is no number is empty, and named with its curve and row', async () => {
    const { curve, says, report } = await loaded(
      file('1000 75 low 90\n1000.5 n/a 25 90\n1001 80 high 91\n1001.5 **** 26 NaN\n'),
    );
    expect((await curve(1)).map(Number.isNaN)).toEqual([true, false, true, false]);
    expect(says).toContain(
      'RT has 2 cells that are no numbers (first “low” in row 1 of the data): they are taken as empty.',
    );
    expect(says).not.toMatch(/GR has|DT has/);
    expect(report.problems.join(' ')).toContain('“low” in row 1');
  });
  test('a gap stays empty, and the step is the header’s', async () => {
    const rows = (from: number, to: number) =>
      Array.from({ length: (to - from) * 2 + 1 }, (_, n) => `${from + n / 2} ${from + n} 20 90`).join('\n');
    const { logs, curve, says } = await loaded(file(`${rows(1000, 1010)}\n${rows(1060, 1070)}\n`));
    expect(logs.depth).toEqual({ firstM: 1000, stepM: 0.5, count: 141 });
    const values = await curve(0);
    expect(values.slice(0, 21).every((v) => !Number.isNaN(v))).toBe(true);
    expect(values.slice(21, 120).every(Number.isNaN)).toBe(true);
    expect(values[120]).toBe(1060);
    expect(says).toContain('There is a gap in the depths (the longest of 50.0 m), in which the curves are empty.');
  });
  test('uneven depths leave as they came, values too', async () => {
    const depths = [1000, 1000.31, 1000.94, 1001.2, 1001.83, 1002.5, 1003.01, 1003.4];
    const { logs, says, out } = await loaded(
      file(depths.map((d, n) => `${d} ${70 + n} ${20 + n / 8} ${90 + n}`).join('\n'), { step: '0' }),
    );
    expect(says).toContain('leave with the depths that they came with');
    expect(logs.depth.count).toBeGreaterThan(4);
    const [again] = parseLas('again.las', out);
    for (const [n, d] of again.depthM.entries()) expect(Math.abs(d - depths[n])).toBeLessThan(1e-4);
    expect([...again.curves[0].values]).toEqual(depths.map((_, n) => 70 + n));
    expect([...again.curves[2].values]).toEqual(depths.map((_, n) => 90 + n));
    expect(out).toMatch(/STEP\s+\.M\s+0\.0+ /);
  });
  test('units and facts of the well go out as they came in', async () => {
    const { out, curve } = await loaded(file('1000 75 20 90\n1000.5 76 21 91\n1001 77 22 92\n'));
    for (const part of [
      'GR    .GAPI',
      'RT    .OHMM',
      'DT    .US/F',
      'Osmund Explorers',
      '100-1.2',
      'Slickline Ltd',
      'Quillon',
    ])
      expect(out).toContain(part);
    expect(out).not.toContain('ohm_m');
    // inside they are SI
    expect((await curve(2))[0]).toBeCloseTo(90 / 0.3048, 3);
    const [again] = parseLas('again.las', out);
    expect([...again.curves[2].values]).toEqual([90, 91, 92]);
    expect(again.header.find((f) => f.mnemonic === 'UWI')?.value).toBe('100-1.2 A');
  });
  test('a depth that stands twice is kept once, which is said', async () => {
    const { logs, curve, says } = await loaded(
      file('1000 75 20 90\n1000.5 76 21 91\n1000.5 99 99 99\n1001 77 22 92\n'),
    );
    expect(logs.depth.count).toBe(3);
    expect(await curve(0)).toEqual([75, 76, 77]);
    expect(says).toContain('1 depth stands twice (1000.5 m); the first of each was kept.');
  });
  test('a curve line without its full stop is a curve without a unit, and no column moves', async () => {
    const { logs, curve } = await loaded(
      file('1000 75 20 90\n1000.5 76 21 91\n1001 77 22 92\n', {
        curves: ' DEPT.M : depth\n GR : gamma ray\n RT.OHMM : deep\n DT.US/F : sonic\n',
      }),
    );
    expect(logs.curves.map((c) => c.mnemonic)).toEqual(['GR', 'RT', 'DT']);
    expect(await curve(1)).toEqual([20, 21, 22]);
  });
  test.each(['0.1IN', '.1IN', '1IN'])('depths in tenths of an inch (%s) are read as such', async (unit) => {
    const tenths = 1000 / 0.00254;
    const rows = Array.from({ length: 5 }, (_, n) => `${(tenths + 60 * n).toFixed(2)} ${75 + n} 20 90`).join('\n');
    const curves = CURVES.replace('DEPT.M', `DEPT.${unit}`);
    const { logs } = await loaded(`${HEAD('60', unit)}~Curve\n${curves}~Ascii\n${rows}\n`);
    expect(logs.depth.firstM).toBeCloseTo(1000, 3);
    expect(logs.depth.stepM).toBeCloseTo(0.1524, 4);
  });
  test('a few depths close together make no endless axis', async () => {
    const depths = [1000, 1000.000001, 1000.000002, 1000.000003, 9000];
    const { logs, out } = await loaded(file(depths.map((d) => `${d} 1 2 3`).join('\n'), { step: '0' }));
    expect(logs.depth.count).toBeLessThan(200_002);
    expect(parseLas('again.las', out)[0].depthM.length).toBeGreaterThan(1);
  });
  test('a header step that would drift off the depths is not used, however near', async () => {
    const rows = Array.from({ length: 4000 }, (_, n) => `${(1000 + 0.1524 * n).toFixed(4)} ${n % 90} 20 90`).join('\n');
    const { logs, says, curve } = await loaded(file(rows, { step: '0.1525' }));
    expect(logs.depth.stepM).toBeCloseTo(0.1524, 6);
    expect(logs.depth.count).toBe(4000);
    expect(logs.uneven).toBeUndefined();
    expect((await curve(0))[3999]).toBe(3999 % 90);
    expect(says).toBe('');
  });
  test('rows with more values than curves, and rows without a depth, are said', async () => {
    const { says } = await loaded(file('1000 75 20 90 5\n1000.5 76 21 91\nbad 1 2 3\n1001 77 22 92\n'));
    expect(says).toContain('1 lines have more values than there are curves');
    expect(says).toContain('1 rows have no depth');
  });
});
