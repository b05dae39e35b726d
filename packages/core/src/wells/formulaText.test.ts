import { describe, expect, test } from 'vitest';
import { partsOfFormula, troublesOfFormula } from './formulaText.ts';

describe('a formula as it is typed', () => {
  test('is told apart into names, functions, numbers, texts and signs, each at its place', () => {
    const text = 'in(1 / sonic, "m/s")^.25 − 2.5e-3*GR';
    const parts = partsOfFormula(text);
    expect(parts.map((p) => p.text)).toEqual([
      'in',
      '(',
      '1',
      '/',
      'sonic',
      ',',
      '"m/s"',
      ')',
      '^',
      '.25',
      '−',
      '2.5e-3',
      '*',
      'GR',
    ]);
    expect(parts.filter((p) => p.is !== 'sign').map((p) => p.is)).toEqual([
      'function',
      'number',
      'name',
      'text',
      'number',
      'number',
      'name',
    ]);
    for (const p of parts) expect(text.slice(p.from, p.to)).toBe(p.text);
  });
  test('troubles are told where they stand', () => {
    const said = (text: string) => troublesOfFormula(text, ['GR', 'gamma_ray']).map((t) => [t.from, t.to, t.says]);
    expect(said('max(GR, 20) * pi + gamma_ray')).toEqual([]);
    expect(said('GR + NOPE')).toEqual([[5, 9, 'There is no curve “NOPE”.']]);
    expect(said('foo(GR)')[0]).toEqual([0, 3, expect.stringContaining('no function “foo”')]);
    expect(said('(GR + (2)')).toEqual([[0, 1, 'This is not closed.']]);
    expect(said('GR)')).toEqual([[2, 3, 'Nothing was opened that this closes.']]);
    expect(said('in(GR, "gAPI)').map(([from]) => from)).toEqual([2, 7]);
    expect(said('constructor')).toHaveLength(1);
  });
});
