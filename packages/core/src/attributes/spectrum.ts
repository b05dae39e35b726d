import { powerOfTwo, spectrum } from '../numerics/fft.ts';

/** Amplitude of data and of noise over frequency. */
export interface Spectra {
  /** Hz where the step is in ms (1/km where it is in m), from nought to half of the sampling. */
  hz: number[];
  /** Root of the mean power of a sample at each frequency. */
  data: number[];
  /** That of what neighbours do not share; all NaN where no trace had a neighbour. */
  noise: number[];
  /** Windows that it is of. */
  traces: number;
}

/** Longest part of a window that a spectrum is of, ms: longer ones are cut into parts that overlap by half, whose powers are averaged. */
const PART_MS = 400;

/**
 * Spectra of windows of traces that come one after another (long ones in parts, Welch 1967, IEEE Trans. Audio Electroacoustics 15, 70–73). What neighbours share is signal, the rest noise: noise that they share
 * too counts as signal. Source: Dash & Obaidullah (1970), Geophysics 35, 24–32.
 * @param stepMs between samples; @param longest samples of the longest window
 */
export function spectraCollector(stepMs: number, longest: number) {
  const part = Math.min(longest, Math.max(16, Math.round(PART_MS / stepMs)));
  // four times as many frequencies as the window holds draw a smooth line
  const size = powerOfTwo(4 * Math.max(16, part));
  const half = size / 2;
  const power = new Float64Array(half + 1);
  const [shared, turned] = [new Float64Array(half + 1), new Float64Array(half + 1)];
  let [traces, parts, pairs] = [0, 0, 0];
  let before: Float64Array[] = [];
  const addPart = (samples: Float32Array, beside: Float64Array | undefined): Float64Array => {
    const count = samples.length;
    const mean = samples.reduce((sum, v) => sum + v, 0) / count;
    // a Hann taper, made to keep the power of what is the same all along
    const tapered = Float64Array.from(
      samples,
      (v, n) => (v - mean) * (1 - Math.cos((2 * Math.PI * (n + 0.5)) / count)) * Math.sqrt(2 / 3),
    );
    const now = spectrum(tapered, size);
    const scale = 1 / count;
    for (let f = 0; f <= half; f++) {
      const [re, im] = [now[2 * f], now[2 * f + 1]];
      power[f] += (re * re + im * im) * scale;
      if (!beside) continue;
      const [a, b] = [beside[2 * f], beside[2 * f + 1]];
      shared[f] += (re * a + im * b) * scale;
      turned[f] += (im * a - re * b) * scale;
    }
    parts++;
    if (beside) pairs++;
    return now;
  };
  return {
    /** @param next whether it lies beside the one that came before; one with nulls is left out */
    add(samples: Float32Array, next: boolean): void {
      const count = samples.length;
      if (count < 4 || samples.some(Number.isNaN)) {
        before = [];
        return;
      }
      const pieces = count <= part ? 1 : 1 + Math.ceil((count - part) / (part / 2));
      before = Array.from({ length: pieces }, (_, n) => {
        const from = pieces === 1 ? 0 : Math.round((n * (count - part)) / (pieces - 1));
        return addPart(samples.subarray(from, Math.min(count, from + part)), next ? before[n] : undefined);
      });
      traces++;
    },
    finish(): Spectra {
      const hz = Array.from({ length: half + 1 }, (_, f) => (1000 * f) / (size * stepMs));
      return {
        hz,
        data: hz.map((_, f) => Math.sqrt(power[f] / Math.max(1, parts))),
        noise: hz.map((_, f) => {
          if (pairs === 0) return Number.NaN;
          const signal = Math.hypot(shared[f], turned[f]) / pairs;
          return Math.sqrt(Math.max(0, power[f] / parts - signal));
        }),
        traces,
      };
    },
  };
}

/** A frequency at which a spectrum peaks, and its amplitude. */
export interface SpectralPeak {
  hz: number;
  amplitude: number;
}

/** A peak must stand this far above the lowest that parts it from a higher one, as a part of its own height. */
const STANDS_OUT = 0.04;

/** Peaks of a spectrum above a part of its greatest amplitude, the highest first; ripples on them are none. */
export function peaksOf({ hz, data }: Pick<Spectra, 'hz' | 'data'>, least = 0.15): SpectralPeak[] {
  const most = Math.max(...data);
  const peaks: SpectralPeak[] = [];
  for (let f = 1; f < data.length - 1; f++) {
    const v = data[f];
    if (v < least * most || v <= data[f - 1] || v < data[f + 1]) continue;
    // down to both sides as far as where something is higher
    const saddle = [-1, 1].map((way) => {
      let lowest = v;
      for (let n = f + way; n >= 0 && n < data.length; n += way) {
        if (data[n] > v) return lowest;
        lowest = Math.min(lowest, data[n]);
      }
      return 0;
    });
    if (v - Math.max(...saddle) < STANDS_OUT * v) continue;
    const bend = data[f - 1] - 2 * v + data[f + 1];
    const by = bend < 0 ? (0.5 * (data[f - 1] - data[f + 1])) / bend : 0;
    peaks.push({ hz: hz[f] + by * (hz[1] - hz[0]), amplitude: v });
  }
  return peaks.sort((a, b) => b.amplitude - a.amplitude);
}

/** Frequencies in the middle of equal parts of a spectrum's power: those to begin with where it has fewer peaks than are wanted. */
export function equalParts({ hz, data, noise }: Pick<Spectra, 'hz' | 'data' | 'noise'>, parts: number): number[] {
  const power = data.map((v, f) => Math.max(0, v * v - (noise[f] || 0) ** 2));
  const total = power.reduce((a, b) => a + b, 0);
  return Array.from({ length: parts }, (_, n) => {
    const wanted = (total * (n + 0.5)) / parts;
    let sum = 0;
    const at = power.findIndex((v) => {
      sum += v;
      return sum >= wanted;
    });
    return hz[Math.max(0, at)];
  });
}

/** Frequencies that are to show different beds differ by a quarter at least. */
const APART = 1.25;

/**
 * Three frequencies to tell beds apart by, the lowest first: the highest peaks where there are three that are not too near to each
 * other, else the middles of equal parts of the power.
 */
export function threeFrequencies(spectra: Spectra): { hz: [number, number, number]; from: 'peaks' | 'equal parts' } {
  const peaks: SpectralPeak[] = [];
  for (const peak of peaksOf(spectra))
    if (peaks.length < 3 && peaks.every((p) => Math.max(p.hz / peak.hz, peak.hz / p.hz) >= APART)) peaks.push(peak);
  const low = spectra.hz[1] * 2;
  const hz = (peaks.length === 3 ? peaks.map((p) => p.hz) : equalParts(spectra, 3))
    .map((f) => Math.max(low, Math.round(2 * f) / 2))
    .sort((a, b) => a - b) as [number, number, number];
  return { hz, from: peaks.length === 3 ? 'peaks' : 'equal parts' };
}

/** Thickness at which a bed is tuned to a frequency: a quarter of its wave, m. Source: Widess (1973), Geophysics 38, 1176–1180. */
export const tuningThickness = (hz: number, velocity: number): number => velocity / (4 * hz);
