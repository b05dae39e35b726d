import { describe, expect, test } from 'vitest';
import { normalApart as noise } from '../testing/random.ts';
import { evidenceOf, standsOver } from './evidence.ts';
import type { Series } from './match.ts';
import { alignTimes, greatestChange, shiftThrough } from './warp.ts';
import { ricker } from './wavelet.ts';

/** A trace of random reflectors under a Ricker wavelet. */
function traceOf(seed: number, length = 700): Float64Array {
  const normal = noise(seed);
  const r = Float64Array.from({ length }, () => (normal() > 1.2 ? normal() : 0));
  const w = ricker(28, 100).samples;
  return r.map((_, k) => {
    let sum = 0;
    for (let a = 0; a < w.length; a++) sum += w[a] * (r[k - a + 50] ?? 0);
    return sum;
  });
}

const at = (v: Float64Array, x: number) => {
  const n = Math.floor(x);
  return (v[n] ?? 0) + (x - n) * ((v[n + 1] ?? 0) - (v[n] ?? 0));
};
const fine = (values: Float64Array): Series => ({ firstMs: 400, stepMs: 1, values });
/** What is seen of a synthetic moved by a shift that grows with time, with noise. */
function seen(values: Float64Array, shift: (t: number) => number, part: number, seed: number): Series {
  const normal = noise(seed);
  const rms = Math.sqrt(values.reduce((s, v) => s + v * v, 0) / values.length);
  return {
    firstMs: 400,
    stepMs: 4,
    values: Float64Array.from(
      { length: 175 },
      (_, k) => at(values, 4 * k - shift(400 + 4 * k)) + part * rms * normal(),
    ),
  };
}

describe('shifts through pins', () => {
  test('pass the pins, overshoot none, and are constant beyond them', () => {
    const shift = shiftThrough([
      { twt: 900, shiftMs: 6 },
      { twt: 600, shiftMs: 0 },
      { twt: 1000, shiftMs: 6 },
    ]);
    expect([500, 600, 900, 1000, 2000].map(shift)).toEqual([0, 0, 6, 6, 6]);
    for (let t = 600; t < 1000; t += 5) {
      expect(shift(t)).toBeGreaterThanOrEqual(0);
      expect(shift(t)).toBeLessThanOrEqual(6 + 1e-9);
    }
    expect(shiftThrough([])(700)).toBe(0);
    expect(shiftThrough([{ twt: 1, shiftMs: 3 }])(700)).toBe(3);
  });
  test('velocity changes as the shift’s slope says: 6 ms in 300 slow it by two per cent and half as much again at its steepest', () => {
    const { part, twt } = greatestChange(
      shiftThrough([
        { twt: 600, shiftMs: 0 },
        { twt: 900, shiftMs: 6 },
      ]),
      500,
      1000,
    );
    expect(part).toBeLessThan(-0.02);
    expect(part).toBeGreaterThan(-0.04);
    expect(twt).toBeGreaterThan(600);
  });
});

describe('automatic alignment', () => {
  const options = { fromMs: 480, toMs: 1020, knotMs: 90, mostShiftMs: 16, mostChange: 0.05 };
  test('follows a known stretch to 1.5 ms rms in noise, within its bound', () => {
    for (let seed = 1; seed <= 5; seed++) {
      const made = traceOf(seed);
      const truth = (t: number) => 4 + 6 * Math.sin((t - 480) / 260);
      const pins = alignTimes(seen(made, truth, 0.4, seed + 30), fine(made), options);
      const found = shiftThrough(pins);
      let [sum, n] = [0, 0];
      for (let t = 520; t < 980; t += 5) {
        sum += (found(t - truth(t)) - truth(t)) ** 2;
        n++;
      }
      expect(Math.sqrt(sum / n)).toBeLessThan(1.5);
    }
  });
  test('asked for no change of velocity it finds the bulk shift alone', () => {
    const made = traceOf(4);
    const pins = alignTimes(
      seen(made, () => 6, 0.3, 9),
      fine(made),
      { ...options, mostChange: 0 },
    );
    expect(new Set(pins.map((p) => p.shiftMs)).size).toBe(1);
    expect(Math.abs(pins[0].shiftMs - 6)).toBeLessThan(1.1);
  });
});

describe('evidence', () => {
  const options = {
    fromMs: 600,
    toMs: 900,
    mostShiftMs: 16,
    mostPhaseDeg: 40,
    phaseDeg: 0,
    seed: 1,
    draws: 99,
    prior: null,
    shiftMs: null,
    leftOut: null,
  };
  test('a true match is beyond chance, and its polarity is told', () => {
    for (let seed = 1; seed <= 4; seed++) {
      const made = traceOf(seed);
      const found = evidenceOf(
        seen(made, () => 5, 0.5, seed),
        fine(made),
        options,
      );
      expect(found.chance).toBeLessThan(0.05);
      expect(found.asDeclared).toBeGreaterThan(found.turnedOver);
      expect(found.uncertaintyMs).toBeGreaterThan(0.2);
      expect(found.uncertaintyMs).toBeLessThan(4);
    }
  });
  test('of matches with what has nothing to do with it, about as many are beyond a level of chance as it says', () => {
    let low = 0;
    for (let seed = 1; seed <= 60; seed++)
      if (
        evidenceOf(
          seen(traceOf(seed + 100), () => 0, 0.2, seed),
          fine(traceOf(seed + 300)),
          { ...options, draws: 39 },
        ).chance <= 0.2
      )
        low++;
    // a fifth of 60 is 12; a binomial stays within these nineteen times in twenty
    expect(low).toBeGreaterThan(4);
    expect(low).toBeLessThan(21);
  });
  test('a wider search makes the same match less surprising', () => {
    const made = traceOf(7);
    const other = seen(traceOf(77), () => 0, 0.2, 3);
    const narrow = evidenceOf(other, fine(made), { ...options, mostShiftMs: 1, mostPhaseDeg: 0 });
    const wide = evidenceOf(other, fine(made), { ...options, mostShiftMs: 60, mostPhaseDeg: 180 });
    expect(wide.asDeclared).toBeGreaterThan(narrow.asDeclared);
  });
  test('correlations of 0.9 and 0.6 are far apart on fifty independent samples, not on five', () => {
    expect(standsOver(0.9, 0.6, 50)).toBeGreaterThan(3);
    expect(standsOver(0.9, 0.6, 5)).toBeLessThan(1);
  });
});
