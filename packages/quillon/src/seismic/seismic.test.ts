import { beforeAll, describe, expect, test } from 'vitest';
import { type Field, makeField } from '../model/field.ts';
import { SURVEY } from '../model/survey.ts';
import { truthRows } from '../truth/events.ts';
import { addFootprint, bandNoise, blurLaterally, meanOf, rmsAround } from './image.ts';
import { type Imaged, imageSurvey, meeting, traceOffset } from './survey.ts';
import { modelTraces, timeColumn, twtAt } from './traces.ts';
import { velocitiesOf, velocityError } from './velocities.ts';
import { drawWavelets, FINE_MS, HALF, type StackWavelet, waveletAt, waveletTable } from './wavelet.ts';

const NS = SURVEY.samples;

/** Amplitude and phase (degrees) of a wavelet at a frequency, its middle taken for time nought. */
function component(wavelet: ArrayLike<number>, hz: number): [amplitude: number, phaseDeg: number] {
  let [re, im] = [0, 0];
  for (let i = -HALF; i <= HALF; i++) {
    const angle = (2 * Math.PI * hz * i * FINE_MS) / 1000;
    re += wavelet[i + HALF] * Math.cos(angle);
    im -= wavelet[i + HALF] * Math.sin(angle);
  }
  return [Math.hypot(re, im), (Math.atan2(im, re) * 180) / Math.PI];
}
const spectrumPeak = (w: ArrayLike<number>) =>
  Array.from({ length: 80 }, (_, n) => 5 + n).reduce((a, b) => (component(w, b)[0] > component(w, a)[0] ? b : a));

describe('wavelets', () => {
  const plain: StackWavelet = { topHz: 30, baseHz: 24, phaseDeg: 0, moveoutMs: 0, gain: 1000 };
  const made = (w: StackWavelet, ms: number) => waveletAt(w, ms, new Float64Array(2 * HALF + 1));
  test('without phase are symmetrical, highest in the middle, and of the gain asked for', () => {
    const w = made(plain, 0);
    for (let i = 1; i <= HALF; i++) {
      expect(w[HALF + i]).toBeCloseTo(w[HALF - i], 6);
      expect(w[HALF + i]).toBeLessThan(w[HALF]);
    }
    expect(w[HALF]).toBeCloseTo(1000, 6);
  });
  test('have their peak where it was put, and lose high frequencies with time', () => {
    expect(Math.abs(spectrumPeak(made(plain, 0)) - 30)).toBeLessThanOrEqual(2);
    expect(Math.abs(spectrumPeak(made(plain, 1800)) - 24)).toBeLessThanOrEqual(2);
  });
  test('carry the phase and the delay that they are given, across the band', () => {
    const turned = made({ ...plain, phaseDeg: 30 }, 0);
    const late = made({ ...plain, moveoutMs: 2 }, 0);
    for (const hz of [20, 30, 40]) {
      expect(Math.abs(component(turned, hz)[1] - 30)).toBeLessThan(3);
      expect(Math.abs(component(late, hz)[1] + 0.36 * hz * 2)).toBeLessThan(3);
    }
  });
  test('of a field: the far stack is lower in frequency, later and weaker than the near one', () => {
    for (const seed of [1, 2, 3]) {
      const [near, mid, far] = drawWavelets(seed);
      expect([near.topHz > mid.topHz, mid.topHz > far.topHz]).toEqual([true, true]);
      expect([near.moveoutMs, far.moveoutMs > mid.moveoutMs]).toEqual([0, true]);
      expect(far.gain).toBeLessThan(near.gain);
      expect(near.phaseDeg).toBeGreaterThanOrEqual(11);
    }
  });
  test('by sample are those of its time, and in between half way', () => {
    const table = waveletTable(plain);
    const lags = 2 * HALF + 1;
    const [a, b] = [made(plain, 0), made(plain, 50 * SURVEY.sampleMs)];
    for (const i of [0, 40, HALF, 100]) {
      expect(table[i]).toBeCloseTo(a[i], 2);
      expect(table[50 * lags + i]).toBeCloseTo(b[i], 2);
      expect(table[25 * lags + i]).toBeCloseTo((a[i] + b[i]) / 2, 2);
    }
  });
});

describe('the image', () => {
  const shape = { lines: 9, traces: 11 };
  const middle = (4 * 11 + 5) * NS;
  test('a point is blurred to both sides alike, more with time, and its sum stays', () => {
    const point = new Float32Array(9 * 11 * NS);
    for (let k = 0; k < NS; k++) point[middle + k] = 1;
    const out = blurLaterally(point, shape);
    const at = (i: number, j: number, k: number) => out[(i * 11 + j) * NS + k];
    for (const k of [10, 250, 440]) {
      expect(at(4, 4, k)).toBeCloseTo(at(4, 6, k), 6);
      expect(at(3, 5, k)).toBeCloseTo(at(5, 5, k), 6);
      let sum = 0;
      for (let i = 0; i < 9; i++) for (let j = 0; j < 11; j++) sum += at(i, j, k);
      expect(sum).toBeCloseTo(1, 4);
    }
    expect(at(4, 5, 440)).toBeLessThan(at(4, 5, 10));
    // half the width at Tolven is 20 m, and a bin 25
    const width = 14 + 26;
    const expected = Math.exp(-0.5 * (25 / (width / 2.355)) ** 2);
    expect(at(4, 6, 255) / at(4, 5, 255)).toBeCloseTo(expected, 2);
  });
  test('what is the same everywhere stays the same', () => {
    const flat = new Float32Array(9 * 11 * NS).fill(7);
    for (const v of blurLaterally(flat, shape)) expect(v).toBeCloseTo(7, 4);
  });
  test('noise has unit variance, the band of the signal, and a neighbour that is like it', () => {
    const noise = bandNoise(3, 'test', { lines: 12, traces: 12 });
    let [square, beside, next] = [0, 0, 0];
    for (let n = 0; n < 12 * 11; n++)
      for (let k = 0; k < NS - 1; k++) {
        const a = noise[n * NS + k];
        square += a * a;
        beside += a * noise[(n + 1) * NS + k];
        next += a * noise[n * NS + k + 1];
      }
    expect(square / (12 * 11 * (NS - 1))).toBeCloseTo(1, 1);
    expect(beside / square).toBeGreaterThan(0.3);
    expect(beside / square).toBeLessThan(0.9);
    // at 4 ms a sample of 28 Hz turns by 40 degrees
    expect(next / square).toBeGreaterThan(0.5);
    expect(bandNoise(3, 'test', shape)).toEqual(bandNoise(3, 'test', shape));
    expect(bandNoise(3, 'other', shape)[99]).not.toBe(bandNoise(3, 'test', shape)[99]);
  });
  test('the footprint is of inlines eight apart, and fades with time', () => {
    const stack = new Float32Array(16 * 2 * NS).fill(1);
    addFootprint([stack], { lines: 16, traces: 2 }, 1000, 2000);
    const gain = (i: number, k: number) => stack[i * 2 * NS + k];
    for (let i = 0; i < 8; i++) expect(gain(i, 0)).toBeCloseTo(gain(i + 8, 0), 6);
    expect(Math.abs(gain(0, 0) - gain(4, 0))).toBeCloseTo(0.14, 2);
    expect(Math.abs(gain(0, 125) - gain(4, 125))).toBeCloseTo(0.14 / Math.E, 2);
  });
  test('a mean of stacks and an rms about a time are what they say', () => {
    expect([...meanOf([Float32Array.of(1, 4), Float32Array.of(3, 8)])]).toEqual([2, 6]);
    const trace = Float32Array.from({ length: 2 * NS }, (_, k) => (k < NS ? 3 : 100));
    // a trace without a time counts for nothing
    expect(rmsAround(trace, Float32Array.of(800, Number.NaN), 100)).toBe(3);
  });
});

test.each([1, 2, 3, 4, 5, 6])('the record of seed %i has no hole, however fast its rock', (seed) => {
  const made = makeField(seed);
  const places = new Float64Array(2 * 63);
  for (let n = 0; n < 63; n++) places.set([(n % 9) * 610, Math.floor(n / 9) * 655], 2 * n);
  for (const stack of modelTraces(made, places).stacks) expect(stack.every((v) => Number.isFinite(v))).toBe(true);
});

describe('a survey of few lines', () => {
  let field: Field;
  let imaged: Imaged;
  const extent = { inline0: 1060, inlines: 6, crossline0: 2080, crosslines: 8 };
  beforeAll(async () => {
    field = makeField(2);
    imaged = await imageSurvey(field, extent);
  });
  test('knows where each trace meets each surface, in depth and in the time of that depth', () => {
    for (const n of [0, 17, 47]) {
      const u = (extent.crossline0 + (n % 8) - 2000) * 25;
      const v = (extent.inline0 + Math.floor(n / 8) - 1000) * 25;
      const column = timeColumn(field, u, v);
      let above = 0;
      for (const surface of [0, 1, 2, 3, 5, 6, 7]) {
        const [depth, twt] = meeting(imaged, n, surface, 0);
        expect(depth).toBeGreaterThan(above);
        expect(Math.abs(twtAt(column, depth) - twt)).toBeLessThan(0.1);
        above = depth;
      }
    }
    expect(traceOffset(extent, 1061, 2083)).toBe((8 + 3) * NS);
  });
  test('the events of Tolven are extrema of the clean stack near the interface, all of one sign', () => {
    const rows = truthRows(imaged, 5).filter((r) => !Number.isNaN(r.event));
    expect(rows.length).toBeGreaterThan(0.8 * 48);
    const signs = rows.map((r) => {
      const k = Math.round(r.event / SURVEY.sampleMs);
      const at = traceOffset(extent, r.inline, r.crossline) + k;
      const [a, b, c] = [imaged.clean[at - 1], imaged.clean[at], imaged.clean[at + 1]];
      const sign = Math.sign(b);
      expect(sign * b).toBeGreaterThanOrEqual(sign * a);
      expect(sign * b).toBeGreaterThanOrEqual(sign * c);
      expect(Math.abs(r.event - r.twt)).toBeLessThan(30);
      return sign;
    });
    expect(new Set(signs).size).toBe(1);
  });
  test('velocities give depth back: intervals without their errors add up to it, and stacking ones lie between sea water and rock', () => {
    const grid = velocitiesOf(field, extent);
    expect([grid.inlines, grid.crosslines]).toEqual([[1060], [2080]]);
    const [u, v] = [80 * 25, 60 * 25];
    const column = timeColumn(field, u, v);
    const error = velocityError(field.seed);
    const right = grid.interval.map((velocity, k) => velocity / (1 + error(u, v, (k + 0.5) * grid.sampleMs)));
    let depth = 0;
    for (let k = 0; k < 60; k++) {
      depth += (right[k] * grid.sampleMs) / 2000;
      expect(Math.abs(twtAt(column, depth) - (k + 1) * grid.sampleMs)).toBeLessThan(0.2);
    }
    let squares = 0;
    for (let k = 0; k < grid.samples; k++) {
      squares += right[k] ** 2;
      const rms = Math.sqrt(squares / (k + 1));
      expect(Math.abs(grid.stacking[k] / rms - 1)).toBeLessThan(0.06);
    }
  });
});
