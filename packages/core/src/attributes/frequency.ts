import { roomIn, threadKernels } from '@lithagon/kernels';
import { liveRuns } from '../conditioning/filter.ts';

export const FREQUENCY_METHODS = ['short-window Fourier', 'Morlet wavelet', 'S-transform'] as const;
export type FrequencyMethod = (typeof FREQUENCY_METHODS)[number];

export interface FrequencySpec {
  method: FrequencyMethod;
  /** Whole length of the window of the short-window transform, ms (or m). */
  windowMs: number;
  /** Periods of a Morlet wavelet within two standard deviations to each side, divided by 2/π: its ω₀. */
  cycles: number;
}

/** Standard deviation of the Gaussian that a frequency is looked for under, ms; that which a Hann window is like where it is one. */
export function spreadOf({ method, windowMs, cycles }: FrequencySpec, hz: number): number {
  // a Hann window of length L falls to a half at L/4, a Gaussian at 1.177 σ
  if (method === 'short-window Fourier') return windowMs / 4 / 1.177;
  return method === 'Morlet wavelet' ? (1000 * cycles) / (2 * Math.PI * hz) : 1000 / hz;
}

/** How far a thin event is smeared down the trace: width at half of the amplitude, ms. */
export const smearOf = (spec: FrequencySpec, hz: number): number => 2.355 * spreadOf(spec, hz);

/** How far a pure tone is smeared along frequency: width at half of the amplitude, Hz. */
export const blurOf = (spec: FrequencySpec, hz: number): number => 2.355 / (2 * Math.PI * (spreadOf(spec, hz) / 1000));

/** Samples to each side that a frequency is looked for in. */
export function frequencyReach(spec: FrequencySpec, hz: number, step: number): number {
  if (spec.method === 'short-window Fourier') return Math.max(1, Math.round(spec.windowMs / 2 / step));
  return Math.max(1, Math.ceil((3.2 * spreadOf(spec, hz)) / step));
}

/** Real and imaginary weights by which a trace is weighed, of amplitude one for a tone of that frequency. */
export function frequencyWeights(spec: FrequencySpec, hz: number, step: number): [Float32Array, Float32Array] {
  const half = frequencyReach(spec, hz, step);
  const sigma = spreadOf(spec, hz) / step;
  const window = Float64Array.from({ length: 2 * half + 1 }, (_, n) =>
    spec.method === 'short-window Fourier'
      ? 0.5 + 0.5 * Math.cos((Math.PI * (n - half)) / (half + 1))
      : Math.exp(-((n - half) ** 2) / (2 * sigma * sigma)),
  );
  const omega = (2 * Math.PI * hz * step) / 1000;
  // freed of what a constant would leave, and scaled by what a tone of that frequency gives
  let [sum, real] = [0, 0];
  for (const [n, w] of window.entries()) {
    sum += w;
    real += w * Math.cos(omega * (n - half));
  }
  const level = real / sum;
  let gain = 0;
  for (const [n, w] of window.entries()) {
    const c = Math.cos(omega * (n - half));
    gain += w * (c - level) * c;
  }
  let other = 0;
  for (const [n, w] of window.entries()) other += w * Math.sin(omega * (n - half)) ** 2;
  return [
    Float32Array.from(window, (w, n) => (w * (Math.cos(omega * (n - half)) - level)) / gain),
    Float32Array.from(window, (w, n) => (-w * Math.sin(omega * (n - half))) / other),
  ];
}

/**
 * Real and imaginary part of the amplitude at frequencies, of every sample of traces. Runs of samples are each worked on by
 * themselves, led on by their mirrored ends: what is none stays none.
 * Sources: short windows Partyka, Gridley & Lopez (1999), The Leading Edge 18, 353–360; Morlet wavelets Sinha et al. (2005), Geophysics 70,
 * P19–P25; S-transform Stockwell, Mansinha & Lowe (1996), IEEE Trans. Signal Processing 44, 998–1001.
 * @param data `[trace][sample]`; @param each told the parts of a run, its place in `data`, and which frequency it is
 */
export function eachFrequency(
  data: Float32Array,
  count: number,
  step: number,
  hz: number[],
  spec: FrequencySpec,
  each: (real: Float32Array, imaginary: Float32Array, at: number, f: number) => void,
): void {
  const kernels = threadKernels();
  const room = roomIn(kernels);
  const lists = hz.map((f) => frequencyWeights(spec, f, step));
  const most = Math.max(...lists.map(([w]) => w.length)) >> 1;
  const line = room.take(count + 2 * most);
  const weights = lists.map(([w]) => [room.take(w.length), room.take(w.length)]);
  const [re, im] = [room.take(count), room.take(count)];
  for (const [n, pair] of lists.entries())
    for (const [part, w] of pair.entries()) room.floats(weights[n][part], w.length).set(w);
  const held = room.floats(line, count + 2 * most);
  for (let offset = 0; offset < data.length; offset += count)
    for (const [from, to] of liveRuns(data, offset, count)) {
      const length = to - from;
      const values = data.subarray(offset + from, offset + to);
      held.set(values, most);
      for (let n = 1; n <= most; n++) {
        // mirrored as often as it takes: a run may be shorter than the window
        held[most - n] = values[mirrored(n, length)];
        held[most + length - 1 + n] = values[mirrored(length - 1 + n, length)];
      }
      for (let f = 0; f < hz.length; f++) {
        const half = lists[f][0].length >> 1;
        const start = line + 4 * (most - half);
        kernels.weigh(start, re, length, 1, weights[f][0], 2 * half + 1);
        kernels.weigh(start, im, length, 1, weights[f][1], 2 * half + 1);
        each(room.floats(re, length), room.floats(im, length), offset + from, f);
      }
    }
}

/** The sample that a place beyond the ends is mirrored to. */
function mirrored(n: number, length: number): number {
  if (length === 1) return 0;
  const period = 2 * (length - 1);
  const m = n % period;
  return m < length ? m : period - m;
}

export const FREQUENCY_GIVES = ['magnitude', 'phase', 'peak frequency', 'peak magnitude'] as const;
export type FrequencyGives = (typeof FREQUENCY_GIVES)[number];

/** Magnitude or phase (degrees) at one frequency, or that frequency of several at which magnitude is greatest, refined by a parabola. */
export function frequencyAttribute(
  data: Float32Array,
  count: number,
  step: number,
  hz: number[],
  spec: FrequencySpec,
  gives: FrequencyGives,
): Float32Array {
  const out = new Float32Array(data.length).fill(Number.NaN);
  if (gives === 'magnitude' || gives === 'phase') {
    eachFrequency(data, count, step, hz.slice(0, 1), spec, (re, im, at) => {
      for (let k = 0; k < re.length; k++)
        out[at + k] = gives === 'phase' ? (Math.atan2(im[k], re[k]) * 180) / Math.PI : Math.hypot(re[k], im[k]);
    });
    return out;
  }
  const magnitudes = new Float32Array(hz.length * count);
  eachFrequency(data, count, step, hz, spec, (re, im, at, f) => {
    const length = re.length;
    for (let k = 0; k < length; k++) magnitudes[f * length + k] = Math.hypot(re[k], im[k]);
    if (f < hz.length - 1) return;
    for (let k = 0; k < length; k++) {
      let top = 0;
      for (let n = 1; n < hz.length; n++) if (magnitudes[n * length + k] > magnitudes[top * length + k]) top = n;
      let [where, size] = [hz[top], magnitudes[top * length + k]];
      if (top > 0 && top < hz.length - 1) {
        const [a, b, c] = [top - 1, top, top + 1].map((n) => magnitudes[n * length + k]);
        const bend = a - 2 * b + c;
        if (bend < 0) {
          const by = (0.5 * (a - c)) / bend;
          where = hz[top] + by * (hz[top + 1] - hz[top]);
          size = b - 0.25 * (a - c) * by;
        }
      }
      out[at + k] = gives === 'peak frequency' ? where : size;
    }
  });
  return out;
}
