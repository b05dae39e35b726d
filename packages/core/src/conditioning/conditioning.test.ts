import { describe, expect, test } from 'vitest';
import { hilbert } from '../numerics/fft.ts';
import { even } from '../testing/random.ts';
import { bandPassGain, filterTraces, meanSpectrum, whiten } from './filter.ts';
import { footprintFilter, footprintWaves, type Wavenumbers, wavenumbersOf } from './footprint.ts';
import { agc, balance, mute, timeGain } from './gain.ts';

const STEP = 4;
const tone = (hz: number, count: number, phaseDeg = 0, amplitude = 1) =>
  Float32Array.from(
    { length: count },
    (_, k) => amplitude * Math.cos((2 * Math.PI * hz * k * STEP) / 1000 + (phaseDeg * Math.PI) / 180),
  );
const rms = (data: ArrayLike<number>, a = 0, b = data.length) => {
  let sum = 0;
  for (let n = a; n < b; n++) sum += data[n] ** 2;
  return Math.sqrt(sum / (b - a));
};
/** Least-squares amplitude and phase (degrees) of a tone in the middle half of a trace. */
function measured(data: Float32Array, hz: number): [number, number] {
  let [c, s, n] = [0, 0, 0];
  for (let k = data.length / 4; k < (3 * data.length) / 4; k++) {
    const w = (2 * Math.PI * hz * k * STEP) / 1000;
    c += data[k] * Math.cos(w);
    s -= data[k] * Math.sin(w);
    n++;
  }
  return [(2 * Math.hypot(c, s)) / n, (Math.atan2(s, c) * 180) / Math.PI];
}

describe('band-pass', () => {
  const corners: [number, number, number, number] = [5, 10, 40, 50];
  test.each([
    [2, 0],
    [25, 1],
    [45, 0.5],
    [70, 0],
  ])('a tone of %d Hz comes through by %d, with its phase', (hz, gain) => {
    const data = tone(hz, 1000, 30);
    filterTraces(data, 1000, STEP, (f) => bandPassGain(corners, f));
    const [amplitude, phase] = measured(data, hz);
    expect(amplitude).toBeCloseTo(gain, 2);
    if (gain > 0.4) expect(phase).toBeCloseTo(30, 0);
  });
  test('nulls stay null and spread nothing', () => {
    const data = tone(25, 400);
    data.fill(Number.NaN, 100, 120);
    const whole = data.slice();
    filterTraces(data, 400, STEP, (f) => bandPassGain(corners, f));
    for (let k = 0; k < 400; k++) expect(Number.isNaN(data[k])).toBe(Number.isNaN(whole[k]));
  });
});

test('rotating phase: there and back is nothing, 90° is the Hilbert transform, 180° the sign', () => {
  const start = tone(20, 512).map((v, k) => v * Math.exp(-(((k - 256) / 60) ** 2)));
  const turned = start.slice();
  filterTraces(turned, 512, STEP, () => 1, -90);
  const h = hilbert(start);
  turned.forEach((v, k) => {
    expect(v).toBeCloseTo(h[k], 3);
  });
  filterTraces(turned, 512, STEP, () => 1, 90);
  turned.forEach((v, k) => {
    expect(v).toBeCloseTo(start[k], 4);
  });
  const flipped = start.slice();
  filterTraces(flipped, 512, STEP, () => 1, 180);
  flipped.forEach((v, k) => {
    expect(v).toBeCloseTo(-start[k], 4);
  });
});

test('whitening brings a weak band up to the strong one, no further than its bound', () => {
  const next = even(7);
  const data = Float32Array.from({ length: 8 * 512 }, next);
  // 40 dB less above 40 Hz
  filterTraces(data, 512, STEP, (hz) => (hz < 40 ? 1 : 0.01));
  const level = (d: Float32Array) => {
    const { hz, db } = meanSpectrum(d, 512, STEP);
    const mean = (a: number, b: number) => {
      const inside = db.filter((_, n) => hz[n] >= a && hz[n] <= b);
      return inside.reduce((s, v) => s + v, 0) / inside.length;
    };
    return mean(15, 30) - mean(55, 80);
  };
  expect(level(data)).toBeGreaterThan(30);
  const bounded = data.slice();
  whiten(bounded, 512, STEP, [5, 10, 90, 100], 6, 6);
  expect(level(bounded)).toBeGreaterThan(20);
  whiten(data, 512, STEP, [5, 10, 90, 100], 6, 40);
  expect(Math.abs(level(data))).toBeLessThan(3);
});

describe('gains', () => {
  test('automatic gain leaves an rms of 1 everywhere', () => {
    const data = tone(25, 800).map((v, k) => v * (1 + k / 50));
    agc(data, 800, 50);
    expect(rms(data, 100, 200)).toBeCloseTo(1, 1);
    expect(rms(data, 600, 700)).toBeCloseTo(1, 1);
  });
  test('gain with time is t to a power, 1 at the reference', () => {
    const data = new Float32Array(501).fill(1);
    timeGain(data, 501, 0, 4, 1000, 2, 0);
    expect(data[250]).toBeCloseTo(1, 6);
    expect(data[500]).toBeCloseTo(4, 5);
    const decibels = new Float32Array(501).fill(1);
    timeGain(decibels, 501, 0, 4, 1000, 0, 6);
    expect(20 * Math.log10(decibels[500])).toBeCloseTo(6, 4);
  });
  test('balanced traces have the target in the window, and an empty one stays empty', () => {
    const data = new Float32Array(300);
    data.set(tone(20, 100, 0, 5), 0);
    data.set(tone(20, 100, 0, 0.1), 100);
    data.fill(Number.NaN, 200);
    balance(data, 100, 20, 80, 2);
    expect(rms(data, 20, 80)).toBeCloseTo(2, 5);
    expect(rms(data, 120, 180)).toBeCloseTo(2, 5);
    expect(data[250]).toBeNaN();
  });
  test('a mute ends in a cosine on the side that is kept', () => {
    const above = new Float32Array(21).fill(1);
    mute(above, 0, 21, 5, 'above', 10);
    expect([above[0], above[4], above[5], above[10], above[15]].map((v) => Number(v.toFixed(6)))).toEqual([
      0, 0, 0, 0.5, 1,
    ]);
    const below = new Float32Array(21).fill(1);
    mute(below, 0, 21, 15, 'below', 0);
    expect([below[14], below[15], below[16]]).toEqual([1, 1, 0]);
  });
});

describe('acquisition footprint', () => {
  const [rows, columns] = [110, 140];
  /** Beds that dip and bend through slices and noise of short wavelength, and patterns that stay in place. */
  const slice = (k: number, pattern: (r: number, c: number) => number) => {
    const random = even(k + 1);
    const noise = Float32Array.from({ length: rows * columns }, () => 30 * random());
    return Float32Array.from({ length: rows * columns }, (_, n) => {
      const [r, c] = [Math.floor(n / columns), n % columns];
      const beds =
        60 * Math.sin(r / (9 + 0.7 * k) + k) * Math.cos((r + 2 * c) / (19 - k)) + 40 * Math.sin(c / (6 + k) + k);
      return beds + 0.25 * (noise[n] + noise[(n + 1) % noise.length]) + pattern(r, c);
    });
  };
  const none = () => 0;
  const wavesOf = (pattern: (r: number, c: number) => number) => {
    let mean: Wavenumbers | null = null;
    for (let k = 0; k < 10; k++) {
      const own = wavenumbersOf(slice(k, pattern), rows, columns);
      mean ??= { ...own, amplitude: new Float64Array(own.amplitude.length) };
      for (let n = 0; n < own.amplitude.length; n++) mean.amplitude[n] += own.amplitude[n];
    }
    return footprintWaves(mean as Wavenumbers, [rows, columns], { protect: 0.15, thresholdDb: 6 });
  };
  test.each([
    ['stripes of 6 bins', (r: number) => 12 * Math.cos((2 * Math.PI * r) / 6)],
    ['stripes of 8 bins', (_: number, c: number) => 12 * Math.cos((2 * Math.PI * c) / 8 + 1)],
    ['stripes of 12.5 bins', (r: number) => 12 * Math.sin((2 * Math.PI * r) / 12.5)],
    [
      'both ways, between two wavenumbers, stronger to one side',
      (r: number, c: number) => (8 + 0.08 * c) * Math.cos(2 * Math.PI * (r / 10.3 + c / 12.5)),
    ],
  ])('%s go', (_, pattern) => {
    const waves = wavesOf(pattern);
    expect(waves.length).toBeGreaterThan(0);
    const [with_, without] = [slice(4, pattern), slice(4, none)];
    const { clean, removed } = footprintFilter(rows, columns, waves)(with_);
    const before = rms(with_.map((v, n) => v - without[n]));
    // what is left of it anywhere, geology that went with it counted too
    expect(rms(clean.map((v, n) => v - without[n]))).toBeLessThan(0.2 * before);
    expect(Math.max(...clean.map((v, n) => Math.abs(v + removed[n] - with_[n])))).toBeLessThan(5e-4);
  });
  test('geology without a footprint stays as it is', () => {
    const waves = wavesOf(none);
    const truth = slice(4, none);
    expect(rms(footprintFilter(rows, columns, waves)(truth).removed)).toBeLessThan(0.02 * rms(truth));
  });
  test('what is missing stays missing, and spoils nothing beside it', () => {
    const pattern = (r: number) => 12 * Math.cos((2 * Math.PI * r) / 8);
    const waves = wavesOf(pattern);
    const holed = slice(2, pattern);
    const truth = slice(2, none);
    for (let n = 3000; n < 3400; n++) holed[n] = Number.NaN;
    const { clean, removed } = footprintFilter(rows, columns, waves)(holed);
    expect(clean[3100]).toBeNaN();
    expect(removed[3100]).toBeNaN();
    const rest = clean.map((v, n) => v - truth[n]).filter((v) => v === v);
    expect(rest).toHaveLength(rows * columns - 400);
    expect(rms(rest)).toBeLessThan(0.2 * 12 * Math.SQRT1_2);
  });
});
