import { describe, expect, test } from 'vitest';
import type { Block } from '../numerics/block.ts';
import { even } from '../testing/random.ts';
import { variance, varianceAlongDip } from './variance.ts';

/** A block of `n³` samples wanted, with a halo of one trace and `half` samples around them. */
function block(n: number, half: number, at: (i: number, j: number, k: number) => number): Block {
  const size: [number, number, number] = [n + 2, n + 2, n + 2 * half];
  const data = new Float32Array(size[0] * size[1] * size[2]);
  for (let i = 0, p = 0; i < size[0]; i++)
    for (let j = 0; j < size[1]; j++) for (let k = 0; k < size[2]; k++, p++) data[p] = at(i - 1, j - 1, k - half);
  const halo = { inline: 1, crossline: 1, sample: half };
  return { data, size, halo, stepMs: 4, from: [1, 1, half], shape: size };
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

describe('variance along dip', () => {
  const [half, most] = [4, 4];
  /** A block of `n` lines and traces and `nk` samples with the halo that following the dip needs. */
  const wide = (n: number, nk: number, at: (i: number, j: number, k: number) => number): Block => {
    const halo = { inline: 1, crossline: 1, sample: 3 * half + 3 * most + 2 };
    const size: [number, number, number] = [n + 2, n + 2, nk + 2 * halo.sample];
    const data = new Float32Array(size[0] * size[1] * size[2]);
    for (let i = 0, p = 0; i < size[0]; i++)
      for (let j = 0; j < size[1]; j++)
        for (let k = 0; k < size[2]; k++, p++) data[p] = at(i - 1, j - 1, k - halo.sample);
    return { data, size, halo, stepMs: 4, from: [1, 1, halo.sample], shape: size };
  };
  /** Beds of 18, 28 and 45 Hz at 4 ms, which no dip within the bound can confuse. */
  const beds = (k: number) => Math.sin(0.452 * k) + Math.sin(0.704 * k + 1) + 0.6 * Math.sin(1.131 * k + 2);
  const mean = (v: Float32Array) => v.reduce((a, b) => a + b, 0) / v.length;
  test.each([
    [2, 0],
    [0, -2],
    [1.5, 1.2],
    [-2.6, 0.4],
  ])('beds that drop by %f and %f samples a trace are alike along it, and not at one time', (p, q) => {
    const dipping = wide(5, 12, (i, j, k) => beds(k - p * i - q * j));
    expect(mean(variance(dipping, half))).toBeGreaterThan(0.25);
    expect(mean(varianceAlongDip(dipping, half, most))).toBeLessThan(0.02);
  });
  test('a fault through dipping beds is seen, and the beds beside it are not', () => {
    const faulted = wide(9, 8, (_, j, k) => beds(k - 2 * j - (j >= 5 ? 4.4 : 0)));
    const out = varianceAlongDip(faulted, half, most);
    const at = (j: number) => out[(4 * 9 + j) * 8 + 4];
    expect(Math.min(at(4), at(5))).toBeGreaterThan(0.15);
    expect(Math.max(at(1), at(2), at(7))).toBeLessThan(0.03);
  });
  test('nulls stay nulls and say nothing to their neighbours', () => {
    const holed = wide(5, 10, (i, j, k) => (i === 2 && j === 2 ? Number.NaN : beds(k - 2 * i)));
    const out = varianceAlongDip(holed, half, most);
    for (let i = 0; i < 5; i++)
      for (let j = 0; j < 5; j++)
        for (let k = 0; k < 10; k++) {
          const v = out[(i * 5 + j) * 10 + k];
          if (i === 2 && j === 2) expect(v).toBeNaN();
          else expect(v).toBeLessThan(0.02);
        }
  });
  test('noise is as unlike along a dip as at one time, but for the dip that flatters it', () => {
    const noise = wide(6, 20, even(9));
    expect(mean(varianceAlongDip(noise, half, most))).toBeGreaterThan(0.6);
  });
});
