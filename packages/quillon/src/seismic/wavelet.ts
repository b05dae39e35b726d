import { randomFor } from '../model/random.ts';
import { SURVEY } from '../model/survey.ts';

export const ANGLES = [
  { name: 'near', sin: Math.sin((10 * Math.PI) / 180), fromDeg: 5, toDeg: 15 },
  { name: 'mid', sin: Math.sin((20 * Math.PI) / 180), fromDeg: 15, toDeg: 25 },
  { name: 'far', sin: Math.sin((30 * Math.PI) / 180), fromDeg: 25, toDeg: 35 },
] as const;

/** Half length of a wavelet in fine samples of `FINE_MS`. */
export const HALF = 72;
export const FINE_MS = 1;

/** What the wavelet of one angle stack is: peak frequency (Hz) at 0 and 1800 ms, phase (degrees), residual moveout (ms). */
export interface StackWavelet {
  topHz: number;
  baseHz: number;
  phaseDeg: number;
  moveoutMs: number;
  gain: number;
}

export function drawWavelets(seed: number): StackWavelet[] {
  const random = randomFor(seed, 'wavelets');
  const phase = random.between(11, 17);
  const moveout = random.between(1.1, 1.5);
  return [0, 1, 2].map((n) => ({
    topHz: 31 - 2.2 * n + random.between(-0.4, 0.4),
    baseHz: 25 - 2 * n + random.between(-0.4, 0.4),
    phaseDeg: phase + n * random.between(2.5, 4),
    moveoutMs: n * moveout,
    gain: 21000 * (1 - 0.05 * n),
  }));
}

/**
 * A wavelet with a log-normal amplitude spectrum and constant phase, sampled at `FINE_MS`; unit peak before `gain`.
 * Its spectrum is lopsided, as real ones are, and is no textbook wavelet.
 */
export function waveletAt(w: StackWavelet, twtMs: number, out: Float64Array): Float64Array {
  const peak = w.topHz + ((w.baseHz - w.topHz) * twtMs) / 1800;
  const phase = (w.phaseDeg * Math.PI) / 180;
  out.fill(0);
  let norm = 0;
  for (let f = 2; f < 110; f += 1) {
    const q = Math.log(f / peak) / 0.52;
    const amplitude = Math.exp(-0.5 * q * q) / (1 + (f / 92) ** 14);
    norm += amplitude;
    for (let i = -HALF; i <= HALF; i++)
      out[i + HALF] += amplitude * Math.cos((2 * Math.PI * f * (i * FINE_MS - w.moveoutMs)) / 1000 + phase);
  }
  for (let i = -HALF; i <= HALF; i++)
    out[i + HALF] *= (w.gain / norm) * 0.5 * (1 + Math.cos((Math.PI * i) / (HALF + 1)));
  return out;
}

/** Wavelets for every output sample, `[sample][lag]`: slowly varying with time. */
export function waveletTable(w: StackWavelet): Float32Array {
  const lags = 2 * HALF + 1;
  const table = new Float32Array(SURVEY.samples * lags);
  const one = new Float64Array(lags);
  const two = new Float64Array(lags);
  const every = 50;
  for (let k0 = 0; k0 < SURVEY.samples; k0 += every) {
    waveletAt(w, k0 * SURVEY.sampleMs, one);
    waveletAt(w, (k0 + every) * SURVEY.sampleMs, two);
    for (let k = k0; k < Math.min(SURVEY.samples, k0 + every); k++) {
      const f = (k - k0) / every;
      for (let i = 0; i < lags; i++) table[k * lags + i] = one[i] * (1 - f) + two[i] * f;
    }
  }
  return table;
}
