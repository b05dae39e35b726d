import { fitLine, unitsOf } from '@lithagon/core';
import { describe, expect, test } from 'vitest';
import { fitText } from './fit';

const x = Float32Array.from({ length: 50 }, (_, n) => 300 + 4 * n);
const metric = unitsOf(null);
const field = unitsOf({ display: 'field' } as never);
const sonic = { name: 'sonic', unit: 'us/m', log: false };
const density = { name: 'density', unit: 'kg/m3', log: false };
const lineOf = (y: Float32Array) => {
  const fit = fitLine({ x, y });
  if (!fit) throw new Error('there is a line');
  return fit;
};
/** The numbers of a formula: what stands alone, and what stands before the times. */
function read(text: string): [number, number] {
  const [, a, sign, b] = /= (−?[\d.]+) ([+−]) ([\d.]+) ×/.exec(text) ?? [];
  return [Number(a.replace('−', '-')), (sign === '−' ? -1 : 1) * Number(b)];
}

describe('a regression', () => {
  const fit = lineOf(x.map((v) => 3000 - 2 * v));
  test('is told as a formula, with its correlation and spread', () => {
    expect(fitText(fit, sonic, density, metric)).toBe('density = 3000 − 2 × sonic · r −1 · ± 0 kg/m³ rms');
  });
  test('gives in the units that are shown what it gives in its own', () => {
    const [a, b] = read(fitText(fit, sonic, density, field));
    for (const v of [320, 480]) {
      const there = a + b * field.to(v, 'us/m');
      expect(field.from(there, 'kg/m3')).toBeCloseTo(3000 - 2 * v, -1);
    }
  });
  test('of logarithms says that it is', () => {
    const log = lineOf(x.map((v) => 2 + 0.5 * v));
    const text = fitText(log, { ...sonic, log: true }, { ...density, log: true }, metric);
    expect(text).toMatch(/^log density = 2 \+ 0\.5 × log sonic · r 1 · ± \S+ of its logarithm rms$/);
    // a factor between units moves a logarithm, and leaves its slope
    const [a, b] = read(fitText(log, { ...sonic, log: true }, { ...density, log: true }, field));
    expect(b).toBeCloseTo(0.5, 6);
    const shift = Math.log10(field.to(1, 'kg/m3')) - 0.5 * Math.log10(field.to(1, 'us/m'));
    expect(a).toBeCloseTo(2 + shift, 3);
  });
});
