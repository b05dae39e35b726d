import { describe, expect, test } from 'vitest';
import {
  bridged,
  despiked,
  filledBy,
  regression,
  resampled,
  sampleAt,
  spliced,
  spliceOrder,
  washouts,
} from './edit.ts';

const curve = (values: number[], firstM = 100, stepM = 1) => ({ firstM, stepM, values: Float32Array.from(values) });
const N = Number.NaN;

describe('values at depths', () => {
  test('between samples by straight lines; nothing outside or beside a null', () => {
    const c = curve([1, 3, N, 7]);
    expect(sampleAt(c, 100.5)).toBe(2);
    expect(sampleAt(c, 101.5)).toBeNaN();
    expect(sampleAt(c, 103)).toBe(7);
    expect(sampleAt(c, 99.9)).toBeNaN();
    expect(sampleAt(c, 103.1)).toBeNaN();
  });
  test('coarser steps are means, so that a thin bed is not skipped', () => {
    const c = curve([0, 0, 9, 0, 0, 0, 0, 0, 9], 0, 1);
    expect([...resampled(c, 1, 3, 2)]).toEqual([3, 0]);
    expect([...resampled(c, 0, 0.5, 3)]).toEqual([0, 0, 0]);
  });
  test('a coarse step of which less than half is known is null', () => {
    expect(resampled(curve([1, N, N, N, 2, 2, 2, 2], 0, 1), 1.5, 4, 2)[0]).toBeNaN();
  });
});

describe('spikes', () => {
  test('are found against the running median; a step of the rock is none', () => {
    const values = Float32Array.from({ length: 60 }, (_, k) => (k < 30 ? 10 : 20) + 0.1 * Math.sin(7 * k));
    values[12] = 60;
    const { values: out, spikes } = despiked(values, 8, 6);
    expect(spikes).toBe(1);
    expect(out[12]).toBeNaN();
    expect(out[30]).toBe(values[30]);
  });
  test('short gaps are bridged, long ones and the ends are not', () => {
    const { values, filled } = bridged(Float32Array.from([N, 1, N, 3, N, N, N, 7, N]), 2);
    expect([...values]).toEqual([N, 1, 2, 3, N, N, N, 7, N]);
    expect(filled).toBe(1);
  });
});

describe('filling from other curves', () => {
  const a = Float32Array.from({ length: 200 }, (_, k) => 2000 + Math.sin(k) * 300);
  const b = Float32Array.from({ length: 200 }, (_, k) => Math.cos(1.7 * k));
  test('an exact relation is found and fills the gap exactly', () => {
    const y = a.map((v, k) => (k > 50 && k < 80 ? N : 5 + 0.01 * v - 3 * b[k]));
    const fit = regression(y, [a, b]);
    if (!fit) throw new Error('no fit');
    expect(fit.coefficients[0]).toBeCloseTo(5, 3);
    expect(fit.coefficients[1]).toBeCloseTo(0.01, 6);
    expect(fit.coefficients[2]).toBeCloseTo(-3, 4);
    expect(fit.spread).toBeLessThan(1e-4);
    const { values, filled } = filledBy(y, [a, b], fit);
    expect(filled).toBe(29);
    expect(values[60]).toBeCloseTo(5 + 0.01 * a[60] - 3 * b[60], 3);
  });
  test('the spread is that of the noise, and too few samples give no fit', () => {
    const noise = (k: number) => ((k * 7919) % 101) / 50 - 1;
    const y = a.map((v, k) => v + 40 * noise(k));
    expect(regression(y, [a])?.spread).toBeGreaterThan(15);
    expect(regression(y, [a])?.spread).toBeLessThan(30);
    expect(regression(y.slice(0, 15), [a.slice(0, 15)])).toBeNull();
  });
});

describe('splicing', () => {
  const runs = [curve([1, 1, 1, N], 100), curve([2, 2, 2, 2, 2], 102), curve([3], 106)];
  test('rules say who goes before', () => {
    expect(spliceOrder(runs, 'first chosen')).toEqual([0, 1, 2]);
    expect(spliceOrder(runs, 'longest run')).toEqual([1, 0, 2]);
    expect(spliceOrder(runs, 'deepest run')).toEqual([1, 2, 0]);
  });
  test('each depth takes the first run that knows it, and it is said which', () => {
    const { values, from } = spliced(runs, [0, 1, 2], { firstM: 100, stepM: 1, count: 7 });
    expect([...values]).toEqual([1, 1, 1, 2, 2, 2, 2]);
    expect([...from]).toEqual([0, 0, 0, 1, 1, 1, 1]);
  });
});

test('washouts by caliper or by the density’s own correction', () => {
  const flags = washouts(Float32Array.from([0.22, 0.27, N, N]), Float32Array.from([0, 0, 150, N]), 0.216, 0.025, 100);
  expect([...flags]).toEqual([0, 1, 1, N]);
});
