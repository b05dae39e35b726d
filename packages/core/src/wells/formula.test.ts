import { describe, expect, test } from 'vitest';
import { evaluateFormula, type Variable } from './formula.ts';

const curves = new Map<string, Variable>([
  ['GR', { values: Float32Array.from([20, 75, 130, Number.NaN]), unit: 'gAPI' }],
  ['DT', { values: Float32Array.from([300, 400, 500, 300]), unit: 'us/m' }],
  ['RHOB', { values: Float32Array.from([2400, 2300, 2200, 2400]), unit: 'kg/m3' }],
  ['PHI', { values: Float32Array.from([0.1, 0.2, 0.3, 0.1]), unit: '1' }],
]);
const run = async (text: string, unit = '') => [...(await evaluateFormula(text, curves, 4, unit)).values];

describe('a formula over curves', () => {
  test('ordinary notation, nulls stay null', async () => {
    expect(await run('(GR − 20) / 110')).toEqual([0, 0.5, 1, Number.NaN]);
    expect((await run('-PHI^2 + 2*PHI'))[2]).toBeCloseTo(-0.09 + 0.6, 6);
    expect(await run('PHI > 0.15 ? 1 : 0')).toEqual([0, 1, 1, 0]);
    expect(await run('GR > 50 ? 1 : 0')).toEqual([0, 1, 1, Number.NaN]);
    expect((await run('max(PHI, 0.2)'))[0]).toBeCloseTo(0.2, 6);
  });
  test('units go through: slowness turned round is velocity, times density impedance', async () => {
    expect((await run('1 / DT', 'm/s'))[0]).toBeCloseTo(1e6 / 300, 1);
    expect((await run('RHOB / DT', 'kg/m²s'))[0] / ((2400 * 1e6) / 300)).toBeCloseTo(1, 6);
    expect((await run('DT', 'us/ft'))[0]).toBeCloseTo(300 * 0.3048, 3);
  });
  test('without a unit the result has its own', async () => {
    const unitOf = async (text: string) => (await evaluateFormula(text, curves, 4, '')).unit;
    expect(await unitOf('GR / 2')).toBe('');
    expect(await unitOf('1 / DT')).toBe('m/s');
    expect(await unitOf('RHOB / DT')).toBe('kg/m²s');
    expect(await unitOf('RHOB / DT^2')).toBe('Pa');
    expect(await unitOf('DT^2')).toBe('s²·m⁻²');
    expect(await unitOf('sqrt(DT)')).toBe('s^0.5·m^-0.5');
  });
  test('a plain value is asked for with its unit', async () => {
    expect((await run('310 * in(1 / DT, "m/s")^0.25', 'kg/m3'))[0]).toBeCloseTo(310 * (1e6 / 300) ** 0.25, 2);
  });
  test.each([
    ['DT + RHOB', '', 'DT (slowness) and RHOB (density) cannot be added'],
    ['DT * RHOB > DT', '', 'DT * RHOB (in s·m⁻⁴·kg) and DT (slowness) cannot be compared'],
    ['log(DT)', '', 'log takes a plain number, not DT (slowness)'],
    ['1 / DT', 'kg/m3', 'The formula gives velocity in m/s, and “kg/m3” measures density'],
    ['in(DT, "m")', '', '“m” does not measure DT (slowness)'],
    ['NOPE + 1', '', 'no curve “NOPE”'],
    ['GR +* 2', '', 'cannot be read'],
    ['foo(GR)', '', 'no function “foo”'],
    ['PHI^DT', '', 'A power is a plain number, not DT (slowness)'],
    ['max(DT, RHOB)', '', 'DT (slowness) and RHOB (density) have no common max'],
    ['PHI > 0 ? DT : RHOB', '', 'DT (slowness) and RHOB (density) cannot be the two branches'],
  ])('%s is refused in a sentence', async (text, unit, sentence) => {
    await expect(run(text, unit)).rejects.toThrow(sentence);
  });
  test.each([
    'import("fs")',
    'constructor.constructor("return 1")()',
    'a = 5',
    'f(x) = x',
    '[1,2]',
    'GR.values',
    '__proto__',
    'evaluate("1")',
    '{a: 1}',
  ])('%s is no formula', async (text) => {
    await expect(run(text)).rejects.toThrow();
  });
});
