import { describe, expect, test } from 'vitest';
import { powerOfTwo, spectrum } from '../numerics/fft.ts';
import { normalApart as noise } from '../testing/random.ts';
import { estimateWavelet, reflectivityAt, type WellWindow } from './estimate.ts';
import {
  averageWavelet,
  butterworth,
  extended,
  klauder,
  ormsby,
  resampledWavelet,
  ricker,
  rotate,
  type WaveletShape,
  waveletSpectrum,
} from './wavelet.ts';

const STEP = 4;
/** The truth at the trace's step: a wavelet of mixed phase. */
const TRUE = resampledWavelet(extended(rotate(ricker(27, 120), 35), 140), STEP);

/** A window of a well: white reflectivity, the trace that the true wavelet makes of it, and noise of the same band. */
function pieceOf(seed: number, samples: number, signalToNoise: number, well = 'T-1'): WellWindow {
  const normal = noise(seed);
  const reflectivity = Float64Array.from({ length: samples }, () => 0.05 * normal() * (normal() > 0.3 ? 2 : 0.4));
  const through = (r: Float64Array, w: WaveletShape) => {
    const half = (w.samples.length - 1) / 2;
    return r.map((_, k) => {
      let sum = 0;
      for (let a = 0; a < w.samples.length; a++) sum += w.samples[a] * (r[k - a + half] ?? 0);
      return sum;
    });
  };
  const clean = through(reflectivity, TRUE);
  const power = (v: Float64Array) => v.reduce((s, x) => s + x * x, 0) / v.length;
  const raw = through(
    Float64Array.from({ length: samples }, () => normal()),
    TRUE,
  );
  const scale = signalToNoise === Number.POSITIVE_INFINITY ? 0 : Math.sqrt(power(clean) / signalToNoise / power(raw));
  return { well, stepMs: STEP, reflectivity, trace: clean.map((v, k) => v + scale * raw[k]) };
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1];

/** Constant phase and time shift of one wavelet against another in its band, and the band's amplitude ratio in dB. */
function against(found: WaveletShape, truth: WaveletShape) {
  const size = powerOfTwo(512);
  const of = (w: WaveletShape) => {
    const s = spectrum(w.samples, size);
    const stepHz = 1000 / (size * w.stepMs);
    return Array.from({ length: size / 2 }, (_, f) => {
      const turn = (2 * Math.PI * f * stepHz * -w.firstMs) / 1000;
      const [re, im] = [s[2 * f], s[2 * f + 1]];
      return {
        hz: f * stepHz,
        re: re * Math.cos(turn) - im * Math.sin(turn),
        im: re * Math.sin(turn) + im * Math.cos(turn),
      };
    });
  };
  const [a, b] = [of(found), of(truth)];
  const most = Math.max(...b.map((v) => Math.hypot(v.re, v.im)));
  // phase difference = φ − 2πf·τ, weighted least squares over the band
  let [w0, w1, w2, y0, y1, ea, eb] = [0, 0, 0, 0, 0, 0, 0];
  b.forEach((t, n) => {
    const size = Math.hypot(t.re, t.im);
    if (size < 0.4 * most) return;
    const phase = Math.atan2(a[n].im * t.re - a[n].re * t.im, a[n].re * t.re + a[n].im * t.im);
    const w = size * size;
    w0 += w;
    w1 += w * t.hz;
    w2 += w * t.hz * t.hz;
    y0 += w * phase;
    y1 += w * t.hz * phase;
    ea += a[n].re ** 2 + a[n].im ** 2;
    eb += size * size;
  });
  const slope = (w0 * y1 - w1 * y0) / (w0 * w2 - w1 * w1);
  const phase = (y0 - slope * w1) / w0;
  return { phaseDeg: (phase * 180) / Math.PI, timeMs: (-slope * 1000) / (2 * Math.PI), db: 10 * Math.log10(ea / eb) };
}

describe('the wavelet from a well', () => {
  test('without noise it is recovered to less than 5 % NRMS', () => {
    const found = estimateWavelet([pieceOf(1, 160, Number.POSITIVE_INFINITY)], [100, 140], [1e-6, 1e-3]);
    const half = TRUE.firstMs;
    let [left, all] = [0, 0];
    TRUE.samples.forEach((v, n) => {
      const k = Math.round((half + n * STEP - (found?.coarse.firstMs ?? 0)) / STEP);
      left += (v - (found?.coarse.samples[k] ?? 0)) ** 2;
      all += v * v;
    });
    expect(Math.sqrt(left / all)).toBeLessThan(0.05);
    expect(found?.predictability).toBeGreaterThan(0.99);
  });

  test('at a signal-to-noise of 4: phase within 5°, time within 1 ms, amplitude within 1 dB; error bars cover 84 to 96 times in 100', () => {
    const [phase, time, db]: number[][] = [[], [], []];
    let [covered, told] = [0, 0];
    for (let draw = 1; draw <= 100; draw++) {
      // three wells of a second each
      const wells = ['A', 'B', 'C'].map((name, n) => pieceOf(draw + 500 * n, 250, 4, name));
      const found = estimateWavelet(wells, [100, 140], [0.001, 0.01]);
      if (!found) throw new Error('no estimate');
      const off = against(found.coarse, TRUE);
      phase.push(Math.abs(off.phaseDeg));
      time.push(Math.abs(off.timeMs));
      db.push(Math.abs(off.db));
      found.coarse.samples.forEach((v, n) => {
        const ms = found.coarse.firstMs + n * STEP;
        const k = Math.round((ms - TRUE.firstMs) / STEP);
        // where the wavelet is something
        if (Math.abs(ms) > 40) return;
        told++;
        if (Math.abs(v - (TRUE.samples[k] ?? 0)) <= found.halfWidth[n]) covered++;
      });
    }
    expect(median(phase)).toBeLessThan(5);
    expect(median(time)).toBeLessThan(1);
    expect(median(db)).toBeLessThan(1);
    expect(covered / told).toBeGreaterThan(0.84);
    expect(covered / told).toBeLessThan(0.96);
  });

  test('signal-to-noise by frequency is high in the band and the length is not longer than it need be', () => {
    const found = estimateWavelet([pieceOf(3, 220, 8)], [60, 100, 140, 240]);
    const at = (hz: number) => found?.band.find((b) => b.hz === hz)?.signalToNoise ?? 0;
    expect(at(28)).toBeGreaterThan(3);
    expect(found?.lengthMs).toBeLessThan(240);
    expect(found?.tried.length).toBe(20);
  });

  test('a window too short for a wavelet gives none', () => {
    expect(estimateWavelet([pieceOf(1, 30, 8)], [100, 140])).toBeNull();
  });
});

test('reflectivity is brought to the trace’s step without aliasing: what is beyond its band is gone, what is inside stays', () => {
  const fine = (hz: number) => ({
    firstMs: 0,
    stepMs: 1,
    values: Float64Array.from({ length: 1000 }, (_, n) => Math.sin((2 * Math.PI * hz * n) / 1000)),
  });
  const rms = (hz: number) => {
    const out = reflectivityAt(fine(hz), 200, 4, 100);
    return Math.sqrt(out.reduce((s, v) => s + v * v, 0) / out.length);
  };
  // sums over a step: four samples of unit rms 0.71
  expect(rms(30) / (4 * Math.SQRT1_2)).toBeGreaterThan(0.97);
  expect(rms(30) / (4 * Math.SQRT1_2)).toBeLessThan(1.03);
  expect(rms(210)).toBeLessThan(0.03 * rms(30));
});

describe('analytic wavelets', () => {
  const half = (w: WaveletShape, level: number) => {
    const { hz, amplitude } = waveletSpectrum(w, 120);
    const inside = hz.filter((_, n) => amplitude[n] > level);
    return [inside[0], inside[inside.length - 1]];
  };
  test('Ormsby has its corners, Butterworth its half powers, Klauder its sweep', () => {
    const [a, b] = half(ormsby([5, 10, 50, 70], 400), 0.5);
    expect(Math.abs(a - 7.5)).toBeLessThan(1.5);
    expect(Math.abs(b - 60)).toBeLessThan(2.5);
    const [c, d] = half(butterworth(8, 18, 60, 24, 500), Math.SQRT1_2 * 0.98);
    expect(Math.abs(c - 8)).toBeLessThan(2);
    expect(Math.abs(d - 60)).toBeLessThan(3);
    const [e, f] = half(klauder(10, 60, 8, 600), 0.5);
    expect(Math.abs(e - 10)).toBeLessThan(2);
    expect(Math.abs(f - 60)).toBeLessThan(2);
  });
  test('zeros added change nothing, an average of one wavelet is that wavelet at unit energy, a finer step keeps its shape', () => {
    const w = rotate(ricker(30, 100), 40);
    const long = extended(w, 200);
    expect(long.samples[100 + 7]).toBe(w.samples[50 + 7]);
    const mean = averageWavelet([w, { ...w, samples: w.samples.map((v) => 3 * v) }]);
    expect(mean.samples.reduce((s, v) => s + v * v, 0)).toBeCloseTo(1, 9);
    const back = resampledWavelet(resampledWavelet(extended(ricker(30, 120), 160), 4), 1);
    const truth = extended(ricker(30, 120), 160);
    for (let n = 20; n < 140; n += 3) expect(Math.abs(back.samples[n] - truth.samples[n])).toBeLessThan(0.01);
  });
});
