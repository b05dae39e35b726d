import { describe, expect, test } from 'vitest';
import type { Block } from '../steps/define.ts';
import { even } from '../testing/random.ts';
import { variance } from './variance.ts';

/** A block of `n³` samples wanted, with a halo of one trace and `half` samples around them. */
function block(n: number, half: number, at: (i: number, j: number, k: number) => number): Block {
  const size: [number, number, number] = [n + 2, n + 2, n + 2 * half];
  const data = new Float32Array(size[0] * size[1] * size[2]);
  for (let i = 0, p = 0; i < size[0]; i++)
    for (let j = 0; j < size[1]; j++) for (let k = 0; k < size[2]; k++, p++) data[p] = at(i - 1, j - 1, k - half);
  return { data, size, halo: { inline: 1, crossline: 1, sample: half } } as Block;
}

describe('variance', () => {
  test('is nothing where neighbours are alike, however the trace runs', () => {
    for (const v of variance(
      block(4, 3, (_, __, k) => Math.sin(k * 1.3) * 900),
      3,
    ))
      expect(v).toBeCloseTo(0, 5);
  });
  test('of traces of two kinds is one less the square of their mean over the mean of their squares', () => {
    // six of the nine traces are 1 and three are −1: mean 1/3, mean square 1, variance 1 − 1/9
    const out = variance(
      block(4, 2, (i) => (i === -1 ? -1 : 1)),
      2,
    );
    const [low, middle] = [out[0], out[(1 * 4 + 1) * 4 + 1]];
    expect(low).toBeCloseTo(1 - 1 / 9, 5);
    expect(middle).toBeCloseTo(0, 5);
  });
  test('of noise is near all of the energy, and grows no more with amplitude', () => {
    const quiet = block(6, 6, even(3));
    const loud = { ...quiet, data: quiet.data.map((v) => v * 4096) };
    const [a, b] = [variance(quiet, 6), variance(loud, 6)];
    const mean = a.reduce((s, v) => s + v, 0) / a.length;
    // independent traces leave 8/9 of their energy about the mean of nine
    expect(mean).toBeGreaterThan(8 / 9 - 0.03);
    expect(mean).toBeLessThan(8 / 9 + 0.03);
    for (let n = 0; n < a.length; n++) expect(b[n]).toBeCloseTo(a[n], 4);
  });
  test('is high on both sides of a fault and low a bin away from it', () => {
    const throwOf = (j: number) => (j >= 4 ? 5 : 0);
    const out = variance(
      block(8, 6, (_, j, k) => Math.sin((k + throwOf(j)) * 0.7)),
      6,
    );
    const at = (j: number) => out[(4 * 8 + j) * 8 + 4];
    expect(Math.min(at(3), at(4))).toBeGreaterThan(0.3);
    expect(Math.max(at(1), at(2), at(5), at(6))).toBeLessThan(0.01);
  });
  test('has none where a sample is null, above a mute for one', () => {
    const muted = (k: number) => k < 2;
    const out = variance(
      block(4, 3, (_, j, k) => (muted(k) ? Number.NaN : Math.cos(k + 0.1 * j))),
      3,
    );
    for (let n = 0; n < out.length; n++)
      if (muted(n % 4)) expect(out[n]).toBeNaN();
      else expect(Number.isFinite(out[n])).toBe(true);
  });
  test('has none where there is no trace, and leaves it out next to one', () => {
    const dead = (i: number, j: number) => i === 2 && j === 2;
    const out = variance(
      block(5, 2, (i, j, k) => (dead(i, j) ? Number.NaN : Math.cos(k))),
      2,
    );
    for (let i = 0; i < 5; i++)
      for (let j = 0; j < 5; j++)
        for (let k = 0; k < 5; k++) {
          const v = out[(i * 5 + j) * 5 + k];
          if (dead(i, j)) expect(v).toBeNaN();
          else expect(v).toBeCloseTo(0, 5);
        }
  });
});
