import { liveRuns } from '../conditioning/filter.ts';
import { powerOfTwo, transformOf } from '../numerics/fft.ts';

/** What is worked out of a trace and its quadrature, or of a window of it. */
export const TRACE_ATTRIBUTES = [
  'envelope',
  'phase',
  'cosine of phase',
  'frequency',
  'sweetness',
  'quadrature',
  'relative impedance',
  'rms',
  'mean',
  'mean of absolutes',
  'greatest',
  'least',
] as const;
export type TraceAttribute = (typeof TRACE_ATTRIBUTES)[number];

/** Samples that a trace is led on by beyond its ends, mirrored, so that the transform sees no step there. */
const PAD = 200;

const rooms = new Map<number, { padded: number[]; spectrum: number[]; turned: number[] }>();

/** Room for a transform of a size, used again and again. */
function roomOf(size: number) {
  let room = rooms.get(size);
  if (!room) {
    const made = (n: number) => new Array<number>(n).fill(0);
    room = { padded: made(size), spectrum: made(2 * size), turned: made(2 * size) };
    rooms.set(size, room);
  }
  return room;
}

/** A run of samples with its quadrature. */
function analytic(data: Float32Array, from: number, to: number): { real: Float64Array; turned: Float64Array } {
  const length = to - from;
  const size = powerOfTwo(length + 2 * PAD);
  const { padded, spectrum, turned } = roomOf(size);
  const right = length + ((size - length) >> 1);
  const period = 2 * (length - 1);
  for (let k = 0; k < size; k++) {
    // led on from both ends until they meet
    const at = Math.abs(k < right ? k : k - size) % period;
    padded[k] = data[from + (at < length ? at : period - at)];
  }
  const fft = transformOf(size);
  fft.realTransform(spectrum, padded);
  // the analytic signal: positive frequencies twice, negative ones not at all
  for (let n = 2; n < size; n++) spectrum[n] *= 2;
  spectrum.fill(0, size + 2);
  fft.inverseTransform(turned, spectrum);
  const [real, imaginary] = [new Float64Array(length), new Float64Array(length)];
  for (let k = 0; k < length; k++) {
    real[k] = data[from + k];
    imaginary[k] = turned[2 * k + 1];
  }
  return { real, turned: imaginary };
}

/** Sums over a window that slides along a run, `half` samples to each side and no further than the run reaches. */
function sliding(values: ArrayLike<number>, half: number, take: (sum: number, count: number, k: number) => void): void {
  const n = values.length;
  let [sum, low, high] = [0, 0, -1];
  for (let k = 0; k < n; k++) {
    while (high < Math.min(n - 1, k + half)) sum += values[++high];
    while (low < k - half) sum -= values[low++];
    take(sum, high - low + 1, k);
  }
}

/** Extremes over a window that slides along a run (Lemire 2006, Nordic J. Computing 13, 328–339). */
function extremes(values: Float32Array, half: number, sign: 1 | -1, out: Float32Array): void {
  const line: number[] = [];
  let [head, next] = [0, 0];
  for (let k = 0; k < values.length; k++) {
    for (; next <= Math.min(values.length - 1, k + half); next++) {
      while (line.length > head && sign * values[line[line.length - 1]] <= sign * values[next]) line.pop();
      line.push(next);
    }
    while (line[head] < k - half) head++;
    out[k] = values[line[head]];
  }
}

/** Time between events and how fast phase turns: 2π·f = (x·ẏ − y·ẋ) / (x² + y²), both smoothed over the window by energy (Taner et al. 1979; Barnes 1992). */
function frequencyOf(real: Float64Array, turned: Float64Array, half: number, stepMs: number, out: Float32Array): void {
  const n = real.length;
  const [turn, energy] = [new Float64Array(n), new Float64Array(n)];
  for (let k = 0; k < n; k++) {
    const [a, b] = [Math.max(0, k - 1), Math.min(n - 1, k + 1)];
    // the angle from the sample before to that after, exact for a pure tone
    const dot = real[a] * real[b] + turned[a] * turned[b];
    const cross = real[a] * turned[b] - turned[a] * real[b];
    energy[k] = real[k] * real[k] + turned[k] * turned[k];
    turn[k] = b > a ? (Math.atan2(cross, dot) / (b - a)) * energy[k] : 0;
  }
  const weighed = new Float64Array(n);
  sliding(turn, half, (sum, _, k) => {
    weighed[k] = sum;
  });
  sliding(energy, half, (sum, _, k) => {
    out[k] = sum > 0 ? (1000 * weighed[k]) / (2 * Math.PI * stepMs * sum) : Number.NaN;
  });
}

/**
 * An attribute of every sample of traces. Runs of samples are each worked on by themselves: what is none stays none and spreads nothing.
 * Frequency in Hz (by ms) or cycles a kilometre (by m), phase in degrees; statistics and frequency over a window.
 * Source: Taner et al. (1979), Geophysics 44, 1041–1063; sweetness Hart (2008), The Leading Edge 27, 22–29.
 * @param data `[trace][sample]`; @param step sample interval, ms or m; @param half window to each side, samples
 */
export function traceAttribute(
  data: Float32Array,
  count: number,
  step: number,
  kind: TraceAttribute,
  half: number,
): Float32Array {
  const out = new Float32Array(data.length).fill(Number.NaN);
  for (let offset = 0; offset < data.length; offset += count)
    for (const [from, to] of liveRuns(data, offset, count))
      if (to - from >= 2) run(data.subarray(offset + from, offset + to), out.subarray(offset + from, offset + to));
  return out;

  function run(values: Float32Array, to: Float32Array): void {
    if (kind === 'greatest' || kind === 'least') extremes(values, half, kind === 'greatest' ? 1 : -1, to);
    else if (kind === 'relative impedance') lessItsMean(values, half, to);
    else if (kind === 'rms' || kind === 'mean' || kind === 'mean of absolutes') statistic(values, half, kind, to);
    else complex(values, to);
  }

  function complex(values: Float32Array, to: Float32Array): void {
    const { real, turned } = analytic(values, 0, values.length);
    if (kind === 'frequency' || kind === 'sweetness') frequencyOf(real, turned, half, step, to);
    for (let k = 0; k < values.length; k++) {
      if (kind === 'quadrature') to[k] = turned[k];
      else if (kind === 'envelope') to[k] = Math.hypot(real[k], turned[k]);
      else if (kind === 'phase') to[k] = (Math.atan2(turned[k], real[k]) * 180) / Math.PI;
      else if (kind === 'cosine of phase') to[k] = real[k] / (Math.hypot(real[k], turned[k]) || 1);
      else if (kind === 'sweetness') to[k] = Math.hypot(real[k], turned[k]) / Math.sqrt(Math.max(1, to[k] || 1));
    }
  }
}

/** A statistic of a window that slides along a run. */
function statistic(values: Float32Array, half: number, kind: 'rms' | 'mean' | 'mean of absolutes', to: Float32Array) {
  const of = kind === 'rms' ? values.map((v) => v * v) : kind === 'mean' ? values : values.map(Math.abs);
  sliding(of, half, (sum, n, k) => {
    to[k] = kind === 'rms' ? Math.sqrt(Math.max(0, sum) / n) : sum / n;
  });
}

/** The running sum of reflection coefficients, less its own mean over the window: impedance as it is in the band. */
function lessItsMean(values: Float32Array, half: number, to: Float32Array): void {
  const sums = new Float64Array(values.length);
  let sum = 0;
  for (let k = 0; k < values.length; k++) {
    sum += values[k];
    sums[k] = sum;
  }
  sliding(sums, half, (total, n, k) => {
    to[k] = sums[k] - total / n;
  });
}
