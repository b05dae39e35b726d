import { bandPassGain, type Corners, filterTraces } from '../conditioning/filter.ts';
import { fromSpectrum, powerOfTwo } from '../numerics/fft.ts';
import { leastSquares } from '../numerics/leastSquares.ts';

/** Amplitude by frequency: root of the mean power of a sample, as `spectraCollector` has it. */
export interface Amplitudes {
  hz: number[];
  amplitude: number[];
}

/** Amplitudes averaged as power over a width (Hz). */
export function smoothed({ hz, amplitude }: Amplitudes, widthHz: number): Amplitudes {
  const half = Math.max(0, Math.round(widthHz / 2 / (hz[1] - hz[0])));
  return {
    hz,
    amplitude: amplitude.map((_, n) => {
      let [sum, count] = [0, 0];
      for (let q = Math.max(0, n - half); q <= Math.min(hz.length - 1, n + half); q++) {
        sum += amplitude[q] ** 2;
        count++;
      }
      return Math.sqrt(sum / count);
    }),
  };
}

/** A power law `factor · f^exponent` through amplitudes between two frequencies, by least squares of their logarithms. */
export interface PowerLaw {
  exponent: number;
  factor: number;
  /** rms misfit, dB. */
  misfitDb: number;
}

export function powerLawOf(spectra: Amplitudes[], fromHz: number, toHz: number): PowerLaw | null {
  const [design, right] = [[] as number[][], [] as number[]];
  for (const { hz, amplitude } of spectra)
    for (const [n, f] of hz.entries())
      if (f >= fromHz && f <= toHz && amplitude[n] > 0) {
        design.push([1, Math.log(f)]);
        right.push(Math.log(amplitude[n]));
      }
  const found = design.length > 3 ? leastSquares(design, right) : null;
  if (!found) return null;
  const [factor, exponent] = [Math.exp(found[0]), found[1]];
  const squares = design.reduce((sum, [, x], n) => sum + (right[n] - found[0] - exponent * x) ** 2, 0);
  return { exponent, factor, misfitDb: (20 / Math.LN10) * Math.sqrt(squares / design.length) };
}

export interface OperatorSpec {
  law: Pick<PowerLaw, 'exponent' | 'factor'>;
  band: Corners;
  /** Of the strongest amplitude of the seismic in the band: what is weaker is not raised further. */
  least: number;
}

/**
 * Gain by frequency of an operator that gives seismic the spectrum of impedance logs within a band (“Fast-track
 * coloured inversion”, 70th SEG Annual Meeting, 2000, 1572–1575). Its phase is −90°, which turns reflections into layers.
 */
export function operatorGain(seismic: Amplitudes, { law, band, least }: OperatorSpec): number[] {
  const { hz, amplitude } = seismic;
  let most = 0;
  for (const [n, f] of hz.entries()) if (f >= band[1] && f <= band[2]) most = Math.max(most, amplitude[n]);
  return hz.map((f, n) =>
    f > 0 ? (bandPassGain(band, f) * law.factor * f ** law.exponent) / Math.max(amplitude[n], least * most) : 0,
  );
}

/** A function of frequency between points that are evenly apart; nothing beyond them. */
export function gainAt(hz: ArrayLike<number>, gain: ArrayLike<number>, f: number): number {
  const x = f / (hz[1] - hz[0]);
  const n = Math.floor(x);
  if (n >= hz.length - 1) return n === hz.length - 1 ? gain[n] : 0;
  return gain[n] + (x - n) * (gain[n + 1] - gain[n]);
}

/** An operator as it is kept: gain by frequency and the phase of all of them. */
export interface Operator {
  hz: number[];
  gain: number[];
  phaseDeg: number;
}

/** Apply an operator to traces, changed in place. */
export function applyOperator(
  data: Float32Array,
  count: number,
  stepMs: number,
  { hz, gain, phaseDeg }: Operator,
): void {
  filterTraces(data, count, stepMs, (f) => gainAt(hz, gain, f), phaseDeg);
}

/** An operator in time, about zero. */
export function operatorInTime({ hz, gain, phaseDeg }: Operator, stepMs: number, halfMs: number): number[] {
  const half = Math.round(halfMs / stepMs);
  const size = powerOfTwo(Math.max(8 * half, 512));
  const s = new Float64Array(2 * size);
  const [c, d] = [Math.cos((phaseDeg * Math.PI) / 180), Math.sin((phaseDeg * Math.PI) / 180)];
  for (let n = 1; n < size / 2; n++) {
    const g = gainAt(hz, gain, (1000 * n) / (size * stepMs));
    s.set([g * c, g * d], 2 * n);
    s.set([g * c, -g * d], 2 * (size - n));
  }
  const all = fromSpectrum(s);
  return Array.from({ length: 2 * half + 1 }, (_, n) => all[(n - half + size) % size]);
}
