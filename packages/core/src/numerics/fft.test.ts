import { describe, expect, test } from 'vitest';
import { fromSpectrum, hilbert, powerOfTwo, spectrum } from './fft.ts';
import { sincAt } from './sinc.ts';

/** A series in the band below 60 Hz at 4 ms: sines that a seismic trace might be made of. */
const banded = (ms: number) =>
  Math.sin(2 * Math.PI * 0.012 * ms + 1) +
  0.6 * Math.sin(2 * Math.PI * 0.031 * ms) +
  0.3 * Math.cos(2 * Math.PI * 0.058 * ms);

describe('spectra', () => {
  test('there and back is the same series, padded', () => {
    const x = Float64Array.from({ length: 50 }, (_, n) => Math.sin(n) + n / 50);
    const back = fromSpectrum(spectrum(x, powerOfTwo(50)));
    expect(back.length).toBe(64);
    for (let n = 0; n < 64; n++) expect(back[n]).toBeCloseTo(n < 50 ? x[n] : 0, 10);
  });
  test('a cosine has its power at its own frequency', () => {
    const s = spectrum(
      Float64Array.from({ length: 64 }, (_, n) => Math.cos((2 * Math.PI * 5 * n) / 64)),
      64,
    );
    const power = Array.from({ length: 33 }, (_, f) => Math.hypot(s[2 * f], s[2 * f + 1]));
    expect(power[5]).toBeCloseTo(32, 9);
    power.forEach((p, f) => {
      if (f !== 5) expect(p).toBeLessThan(1e-9);
    });
  });
  test('the Hilbert transform of a cosine is a sine, away from the ends', () => {
    const n = 512;
    const h = hilbert(Float64Array.from({ length: n }, (_, k) => Math.cos((2 * Math.PI * k) / 32)));
    for (let k = 150; k < 362; k++) expect(h[k]).toBeCloseTo(Math.sin((2 * Math.PI * k) / 32), 1);
  });
});

describe('windowed sinc', () => {
  const samples = Float32Array.from({ length: 200 }, (_, k) => banded(4 * k));
  test('is the series at its samples, and 60 dB true between them inside the band', () => {
    let [error, power] = [0, 0];
    for (let at = 12; at < 187; at += 0.137) {
      error += (sincAt(samples, 0, 200, at) - banded(4 * at)) ** 2;
      power += banded(4 * at) ** 2;
    }
    expect(10 * Math.log10(power / error)).toBeGreaterThan(60);
    for (const k of [0, 1, 50, 199]) expect(sincAt(samples, 0, 200, k)).toBeCloseTo(samples[k], 6);
  });
  test('a constant stays one to the very ends; outside and beside a null there is nothing', () => {
    const flat = new Float32Array(40).fill(3);
    for (const at of [0, 0.5, 1.3, 38.7, 39]) expect(sincAt(flat, 0, 40, at)).toBeCloseTo(3, 6);
    expect(sincAt(flat, 0, 40, -0.1)).toBeNaN();
    expect(sincAt(flat, 0, 40, 39.1)).toBeNaN();
    flat[20] = Number.NaN;
    expect(sincAt(flat, 0, 40, 20.4)).toBeNaN();
    expect(sincAt(flat, 0, 40, 22.5)).toBeCloseTo(3, 6);
  });
});
