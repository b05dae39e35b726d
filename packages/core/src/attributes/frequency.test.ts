import { describe, expect, test } from 'vitest';
import { blurOf, FREQUENCY_METHODS, type FrequencySpec, frequencyAttribute, smearOf } from './frequency.ts';

const [COUNT, STEP] = [512, 4];
const spec = (method: FrequencySpec['method']): FrequencySpec => ({ method, windowMs: 120, cycles: 6 });
const tone = (hz: number, size: number, phase = 0.7) =>
  Float32Array.from({ length: COUNT }, (_, k) => size * Math.cos((2 * Math.PI * hz * k * STEP) / 1000 + phase));
const at = (data: Float32Array, hz: number, s: FrequencySpec) =>
  frequencyAttribute(data, COUNT, STEP, [hz], s, 'magnitude');
const middle = (v: Float32Array) => [...v.subarray(120, COUNT - 120)];

describe.each(FREQUENCY_METHODS)('%s', (method) => {
  test.each([18, 33, 60])('tells the amplitude of a tone of %i Hz to one in a hundred, whatever its phase', (hz) => {
    for (const phase of [0, 0.9, 2.5])
      for (const v of middle(at(tone(hz, 5, phase), hz, spec(method)))) expect(Math.abs(v / 5 - 1)).toBeLessThan(0.01);
  });
  test('tells the phase of a tone as it runs', () => {
    const phase = frequencyAttribute(tone(30, 1, 0.4), COUNT, STEP, [30], spec(method), 'phase');
    for (let k = 150; k < 300; k++) {
      const want = (2 * Math.PI * 30 * k * STEP) / 1000 + 0.4;
      const off = Math.abs(((phase[k] * Math.PI) / 180 - want) % (2 * Math.PI));
      expect(Math.min(off, 2 * Math.PI - off)).toBeLessThan(0.03);
    }
  });
  test('sees nothing of a constant', () => {
    for (const v of middle(at(new Float32Array(COUNT).fill(100), 25, spec(method)))) expect(v).toBeLessThan(0.01);
  });
  test('smears a spike and blurs a tone as far as it says', () => {
    const spike = new Float32Array(COUNT);
    spike[256] = 1;
    const down = at(spike, 30, spec(method));
    const wide = down.filter((v) => v > down[256] / 2).length * STEP;
    expect(Math.abs(wide - smearOf(spec(method), 30))).toBeLessThan(2 * STEP + 0.06 * wide);
    const hz = Array.from({ length: 240 }, (_, n) => 2 + n * 0.4);
    const along = hz.map((f) => at(tone(40, 1), f, spec(method))[256]);
    const broad = along.filter((v) => v > 0.5).length * 0.4;
    // windows of the others widen with frequency: as wide below as narrow above
    expect(Math.abs(broad / blurOf(spec(method), 40) - 1)).toBeLessThan(0.12);
  });
  test('parts two thin beds of different thickness: each is strongest at its own tuning frequency', () => {
    // reflections of opposite sign, apart by the two-way time of a bed: strongest at half over that time
    const bed = (at: number, samples: number, data: Float32Array) => {
      for (let k = 0; k < COUNT; k++)
        for (const [when, sign] of [
          [at, 1],
          [at + samples, -1],
        ]) {
          const a = (Math.PI * 45 * (k - when) * STEP) / 1000;
          data[k] += sign * (1 - 2 * a * a) * Math.exp(-a * a);
        }
    };
    const data = new Float32Array(COUNT);
    bed(150, 2, data);
    bed(350, 5, data);
    // the band that the wavelet fills: above it wavelets part the two sides of a bed, and no longer tune
    const hz = Array.from({ length: 47 }, (_, n) => 8 + n);
    const peak = frequencyAttribute(data, COUNT, STEP, hz, { ...spec(method), windowMs: 100 }, 'peak frequency');
    const [thin, thick] = [peak[151], peak[352]];
    expect(thin).toBeGreaterThan(thick + 4);
    const [low, high] = [at(data, 22, spec(method)), at(data, 60, spec(method))];
    expect(high[151] / high[352]).toBeGreaterThan(1.3 * (low[151] / low[352]));
  });
  test('leaves what is none as it is, and its neighbours as if the trace ended there', () => {
    const holed = tone(30, 2);
    holed.fill(Number.NaN, 200, 230);
    const out = at(holed, 30, spec(method));
    for (let k = 0; k < COUNT; k++) expect(Number.isNaN(out[k])).toBe(k >= 200 && k < 230);
    const ended = frequencyAttribute(holed.slice(0, 200), 200, STEP, [30], spec(method), 'magnitude');
    for (let k = 0; k < 200; k++) expect(out[k]).toBeCloseTo(ended[k], 5);
  });
});

test('over all frequencies short windows keep the energy of the trace', () => {
  // noise that is nought at the ends
  let state = 3;
  const data = Float32Array.from({ length: COUNT }, (_, k) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return k < 100 || k > COUNT - 100 ? 0 : state / 2 ** 31 - 1;
  });
  const s = spec('short-window Fourier');
  const half = 15;
  const length = 2 * half + 1;
  // frequencies of the window's own transform, where its weights are those of a tone: from the second on
  let found = 0;
  let whole = 0;
  const window = Array.from({ length }, (_, n) => 0.5 + 0.5 * Math.cos((Math.PI * (n - half)) / (half + 1)));
  const sum = window.reduce((a, b) => a + b, 0);
  const squares = window.reduce((a, b) => a + b * b, 0);
  for (let n = 2; n <= half; n++) {
    const hz = (1000 * n) / (length * STEP);
    const omega = (2 * Math.PI * n) / length;
    for (const v of at(data, hz, s)) found += (v * sum) ** 2 / 2;
    for (let k = half; k < COUNT - half; k++) {
      let [a, b] = [0, 0];
      for (let m = 0; m < length; m++) {
        a += window[m] * data[k + m - half] * Math.cos(omega * (m - half));
        b -= window[m] * data[k + m - half] * Math.sin(omega * (m - half));
      }
      whole += 2 * (a * a + b * b);
    }
  }
  expect(found / whole).toBeGreaterThan(0.97);
  expect(found / whole).toBeLessThan(1.03);
  // and by Parseval that is the energy of the trace in these frequencies, once for each window that holds a sample
  const energy = data.reduce((a, v) => a + v * v, 0);
  expect(whole / (length * squares * energy)).toBeGreaterThan(0.8);
  expect(whole / (length * squares * energy)).toBeLessThanOrEqual(1.001);
});
