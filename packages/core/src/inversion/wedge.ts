import { fromSpectrum, powerOfTwo } from '../numerics/fft.ts';
import type { WaveletShape } from '../tie/wavelet.ts';

/** A wedge: what is seen of a bed by its thickness in time. */
export interface Wedge {
  /** True thickness of each, ms. */
  thicknessMs: number[];
  /** Traces about the middle of the bed, at even steps. */
  firstMs: number;
  stepMs: number;
  traces: Float64Array[];
  /** Thickness that is seen (ms), greatest amplitude, and the mean over the thickness that is seen. */
  apparentMs: number[];
  greatest: number[];
  average: number[];
}

/** Step of wedges, ms: far below what is seen. */
const FINE_MS = 0.25;

/** A zero-phase response of a gain by frequency, at fine steps about nought: what a spike of impedance becomes. */
export function responseOfGain(gain: (hz: number) => number, mostHz: number, halfMs: number): WaveletShape {
  const half = Math.round(halfMs / FINE_MS);
  const size = powerOfTwo(8 * half);
  const s = new Float64Array(2 * size);
  for (let n = 0; n <= size / 2; n++) {
    const hz = (1000 * n) / (size * FINE_MS);
    if (hz > mostHz) break;
    const g = gain(hz) / FINE_MS;
    s[2 * n] = g;
    if (n > 0 && n < size / 2) s[2 * (size - n)] = g;
  }
  const all = fromSpectrum(s);
  return {
    stepMs: FINE_MS,
    firstMs: -half * FINE_MS,
    samples: Float64Array.from({ length: 2 * half + 1 }, (_, n) => all[(n - half + size) % size]),
  };
}

const at = ({ samples, firstMs, stepMs }: WaveletShape, ms: number): number => {
  const x = (ms - firstMs) / stepMs;
  const n = Math.floor(x);
  if (n < 0 || n >= samples.length - 1) return 0;
  const [a, b, c, d] = [samples[n - 1] ?? samples[n], samples[n], samples[n + 1], samples[n + 2] ?? samples[n + 1]];
  const f = x - n;
  return b + 0.5 * f * (c - a + f * (2 * a - 5 * b + 4 * c - d + f * (3 * (b - c) + d - a)));
};

/**
 * The wedge of a bed between two reflections: the wavelet at its top, weighed by the one, and at its base, by the other (Widess 1973,
 * Geophysics 38, 1176–1180). Its apparent thickness is the time from the strongest of the top's sign to the strongest of the base's.
 */
export function wedgeOfReflections(wavelet: WaveletShape, top: number, base: number, thicknessMs: number[]): Wedge {
  const reach = Math.max(-wavelet.firstMs, wavelet.firstMs + wavelet.stepMs * (wavelet.samples.length - 1));
  const half = Math.ceil((reach + Math.max(...thicknessMs) / 2) / FINE_MS);
  const firstMs = -half * FINE_MS;
  const made: Wedge = { thicknessMs, firstMs, stepMs: FINE_MS, traces: [], apparentMs: [], greatest: [], average: [] };
  for (const thick of thicknessMs) {
    const trace = Float64Array.from({ length: 2 * half + 1 }, (_, n) => {
      const t = firstMs + n * FINE_MS;
      return top * at(wavelet, t + thick / 2) + base * at(wavelet, t - thick / 2);
    });
    // the strongest lobes of the sign of either, within a period of where they are
    const strongest = (sign: number, near: number) => {
      let best = -1;
      for (let n = 0; n < trace.length; n++) {
        const t = firstMs + n * FINE_MS;
        if (Math.abs(t - near) > thick / 2 + 20) continue;
        if (best < 0 || sign * trace[n] > sign * trace[best]) best = n;
      }
      return best;
    };
    const upper = strongest(Math.sign(top), -thick / 2);
    const lower = strongest(Math.sign(base), thick / 2);
    const [a, b] = [Math.min(upper, lower), Math.max(upper, lower)];
    let sum = 0;
    for (let n = a; n <= b; n++) sum += trace[n];
    made.traces.push(trace);
    made.apparentMs.push((lower - upper) * FINE_MS);
    made.greatest.push(Math.max(Math.abs(trace[upper]), Math.abs(trace[lower])));
    made.average.push(sum / (b - a + 1));
  }
  return made;
}

/**
 * The wedge of a bed of impedance one in relative impedance: what the band leaves of a block. Its apparent thickness lies between the zero
 * crossings about it.
 */
export function wedgeOfImpedance(response: WaveletShape, thicknessMs: number[]): Wedge {
  const { samples, stepMs, firstMs } = response;
  // running sum of the response: a block is the difference of two of them
  const sums = new Float64Array(samples.length + 1);
  for (let n = 0; n < samples.length; n++) sums[n + 1] = sums[n] + samples[n] * stepMs;
  const upTo = (ms: number) => {
    const x = (ms - firstMs) / stepMs + 0.5;
    if (x <= 0) return 0;
    if (x >= samples.length) return sums[samples.length];
    const n = Math.floor(x);
    return sums[n] + (x - n) * (sums[n + 1] - sums[n]);
  };
  const half = Math.ceil((-firstMs + Math.max(...thicknessMs) / 2) / FINE_MS);
  const first = -half * FINE_MS;
  const made: Wedge = {
    thicknessMs,
    firstMs: first,
    stepMs: FINE_MS,
    traces: [],
    apparentMs: [],
    greatest: [],
    average: [],
  };
  for (const thick of thicknessMs) {
    const trace = Float64Array.from({ length: 2 * half + 1 }, (_, n) => {
      const t = first + n * FINE_MS;
      return upTo(t + thick / 2) - upTo(t - thick / 2);
    });
    // it is the same to both sides: from the strongest outward to where it passes nought
    let top = half;
    for (let n = half; n < trace.length; n++) if (trace[n] > trace[top]) top = n;
    let end = top;
    while (end + 1 < trace.length && trace[end + 1] > 0) end++;
    const beyond = end + 1 < trace.length ? trace[end] / (trace[end] - trace[end + 1] || 1) : 0;
    const zero = (end - half + beyond) * FINE_MS;
    let sum = 0.5 * trace[half];
    for (let n = half + 1; n <= end; n++) sum += trace[n];
    sum -= 0.5 * trace[end] - 0.5 * beyond * trace[end];
    made.traces.push(trace);
    made.apparentMs.push(2 * zero);
    made.greatest.push(trace[top]);
    made.average.push(zero > 0 ? (sum * FINE_MS) / zero : trace[half]);
  }
  return made;
}

/** Tuning as a function of apparent thickness. */
export interface Tuning {
  /** Mean relative impedance of a bed of nothing but pay that is seen so thick, and how thick it is, ms. */
  average(apparentMs: number): number;
  thickness(apparentMs: number): number;
  /** The least that anything is seen thick, ms. */
  least: number;
}

/** The wedge read by apparent thickness: below the least that is seen all beds look alike, and the thickest of them stands for them. */
export function tuningOf({ thicknessMs, apparentMs, average }: Wedge): Tuning {
  let low = 0;
  for (let n = 1; n < apparentMs.length; n++) if (apparentMs[n] <= apparentMs[low]) low = n;
  const rising: number[] = [low];
  for (let n = low + 1; n < apparentMs.length; n++)
    if (apparentMs[n] > apparentMs[rising[rising.length - 1]]) rising.push(n);
  // looked up many times: a table at even steps, between which there are straight lines
  const [first, last] = [apparentMs[rising[0]], apparentMs[rising[rising.length - 1]]];
  const count = Math.max(2, Math.ceil((last - first) / TABLE_MS) + 1);
  const step = (last - first) / (count - 1) || 1;
  const read = (values: number[]) => {
    let q = 1;
    const table = Float64Array.from({ length: count }, (_, n) => {
      const ms = first + n * step;
      while (q < rising.length - 1 && apparentMs[rising[q]] < ms) q++;
      if (rising.length < 2) return values[rising[0]];
      const [b, c] = [rising[q - 1], rising[q]];
      const part = Math.min(1, (ms - apparentMs[b]) / (apparentMs[c] - apparentMs[b]));
      return values[b] + part * (values[c] - values[b]);
    });
    return (ms: number) => {
      const x = (ms - first) / step;
      if (!(x > 0)) return table[0];
      if (x >= count - 1) return table[count - 1];
      const n = Math.floor(x);
      return table[n] + (x - n) * (table[n + 1] - table[n]);
    };
  };
  return { average: read(average), thickness: read(thicknessMs), least: first };
}

const TABLE_MS = 0.25;
