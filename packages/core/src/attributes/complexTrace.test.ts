import { describe, expect, test } from 'vitest';
import { TRACE_ATTRIBUTES, type TraceAttribute, traceAttribute } from './complexTrace.ts';

const [COUNT, STEP] = [900, 4];
const tone = (hz: number, size = 1) =>
  Float32Array.from({ length: COUNT }, (_, k) => size * Math.cos((2 * Math.PI * hz * k * STEP) / 1000 + 0.4));
const of = (data: Float32Array, kind: TraceAttribute, half = 8) => traceAttribute(data, COUNT, STEP, kind, half);
/** Away from the ends, where there is no trace to turn. */
const inner = (v: Float32Array) => [...v.subarray(250, COUNT - 250)];

describe('of a pure tone', () => {
  test.each([12, 30, 61])('of %i Hz envelope and frequency are its own, to one in a hundred', (hz) => {
    for (const v of inner(of(tone(hz, 7), 'envelope'))) expect(Math.abs(v / 7 - 1)).toBeLessThan(0.01);
    for (const v of inner(of(tone(hz), 'frequency'))) expect(Math.abs(v / hz - 1)).toBeLessThan(0.01);
  });
  test('phase runs on evenly, its cosine is the tone at unit strength, and quadrature is the tone a quarter later', () => {
    const data = tone(25, 3);
    const [phase, cosine, turned] = (['phase', 'cosine of phase', 'quadrature'] as const).map((k) => of(data, k));
    for (let k = 250; k < COUNT - 250; k++) {
      const angle = (2 * Math.PI * 25 * k * STEP) / 1000 + 0.4;
      const wrapped = ((((angle * 180) / Math.PI + 180) % 360) + 360) % 360;
      const off = Math.abs(phase[k] + 180 - wrapped);
      expect(Math.min(off, 360 - off)).toBeLessThan(1);
      expect(cosine[k]).toBeCloseTo(Math.cos(angle), 1);
      expect(turned[k] / 3).toBeCloseTo(Math.sin(angle), 1);
    }
  });
  test('sweetness is strength over the root of frequency', () => {
    for (const v of inner(of(tone(16, 8), 'sweetness'))) expect(v).toBeCloseTo(2, 1);
  });
});

test('statistics of a window are those of its samples, shorter at the ends', () => {
  const data = Float32Array.from({ length: COUNT }, (_, k) => ((k * 37) % 101) - 50);
  const direct: Record<string, (w: number[]) => number> = {
    rms: (w) => Math.sqrt(w.reduce((s, v) => s + v * v, 0) / w.length),
    mean: (w) => w.reduce((s, v) => s + v, 0) / w.length,
    'mean of absolutes': (w) => w.reduce((s, v) => s + Math.abs(v), 0) / w.length,
    greatest: (w) => Math.max(...w),
    least: (w) => Math.min(...w),
  };
  for (const [kind, want] of Object.entries(direct)) {
    const out = of(data, kind as TraceAttribute, 5);
    for (const k of [0, 2, 77, COUNT - 1]) {
      const window = [...data.subarray(Math.max(0, k - 5), k + 6)];
      expect(out[k]).toBeCloseTo(want(window), 3);
    }
  }
});

test('relative impedance of a step of reflections is a block, less its mean over the window', () => {
  const data = new Float32Array(COUNT);
  data[150] = 1;
  data[170] = -1;
  const out = of(data, 'relative impedance', 60);
  expect(out[160] - out[130]).toBeCloseTo(1, 1);
  expect(Math.abs(out[300])).toBeLessThan(0.01);
});

test.each(TRACE_ATTRIBUTES)('%s: what is none stays none, and spreads nothing', (kind) => {
  const data = tone(30);
  const holed = data.slice();
  holed.fill(Number.NaN, 180, 200);
  const out = of(holed, kind);
  for (let k = 0; k < COUNT; k++) expect(Number.isNaN(out[k])).toBe(k >= 180 && k < 200);
});
