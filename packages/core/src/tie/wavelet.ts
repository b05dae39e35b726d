import { fromSpectrum, powerOfTwo, spectrum } from '../numerics/fft.ts';

/** Step (ms) at which wavelets and synthetics are made: far above the band of any seismic. */
export const FINE_MS = 1;

/** A wavelet about time zero. */
export interface WaveletShape {
  stepMs: number;
  firstMs: number;
  samples: Float64Array;
}

function centred(halfMs: number, at: (ms: number) => number): WaveletShape {
  const half = Math.round(halfMs / FINE_MS);
  return {
    stepMs: FINE_MS,
    firstMs: -half * FINE_MS,
    samples: Float64Array.from({ length: 2 * half + 1 }, (_, n) => at((n - half) * FINE_MS)),
  };
}

/**
 * Ricker wavelet (Ricker 1953, Geophysics 18, 10–40) of unit peak.
 * @param peakHz frequency of its largest amplitude
 * @param lengthMs whole length
 */
export function ricker(peakHz: number, lengthMs: number): WaveletShape {
  return centred(lengthMs / 2, (ms) => {
    const a = (Math.PI * peakHz * ms * 0.001) ** 2;
    return (1 - 2 * a) * Math.exp(-a);
  });
}

/**
 * Zero-phase wavelet whose amplitude spectrum is that of the traces: the mean autocorrelation, tapered to the wavelet's
 * length so that its spectrum is smooth (Blackman & Tukey 1958), under a reflectivity taken as white. Unit peak.
 * @param traces samples of each at `stepMs`; NaN counts as zero
 * @param lengthMs whole length of the wavelet
 */
export function statisticalWavelet(traces: Float32Array[], stepMs: number, lengthMs: number): WaveletShape {
  const longest = traces.reduce((n, t) => Math.max(n, t.length), 0);
  const size = powerOfTwo(2 * longest);
  const power = new Float64Array(size);
  for (const trace of traces) {
    const n = trace.length;
    const tapered = Float64Array.from(trace, (v, k) =>
      Number.isNaN(v) ? 0 : v * (0.5 - 0.5 * Math.cos((2 * Math.PI * (k + 0.5)) / n)),
    );
    const s = spectrum(tapered, size);
    for (let f = 0; f < size; f++) power[f] += s[2 * f] ** 2 + s[2 * f + 1] ** 2;
  }
  const complex = new Float64Array(2 * size);
  for (let f = 0; f < size; f++) complex[2 * f] = power[f];
  const lags = fromSpectrum(complex);
  const most = Math.min(size / 2 - 1, Math.round(lengthMs / stepMs));
  // a Parzen lag window has no negative side lobes, so the power stays positive
  const window = (lag: number) => {
    const x = lag / most;
    return x <= 0.5 ? 1 - 6 * x * x * (1 - x) : x < 1 ? 2 * (1 - x) ** 3 : 0;
  };
  const smooth = Float64Array.from(lags, (v, n) => v * window(Math.min(n, size - n)));
  const s = spectrum(smooth, size);
  const amplitude = Float64Array.from({ length: size / 2 + 1 }, (_, f) => Math.sqrt(Math.max(0, s[2 * f])));
  const shape = centred(lengthMs / 2, (ms) => {
    let sum = 0.5 * amplitude[0];
    for (let f = 1; f < amplitude.length; f++) sum += amplitude[f] * Math.cos((2 * Math.PI * f * ms) / (size * stepMs));
    return sum * Math.cos((Math.PI * ms) / (lengthMs + 2 * FINE_MS)) ** 2;
  });
  const peak = shape.samples[(shape.samples.length - 1) / 2] || 1;
  return { ...shape, samples: shape.samples.map((v) => v / peak) };
}

/** The wavelet with every frequency turned by a constant phase; positive phase makes it earlier to trough. */
export function rotate(wavelet: WaveletShape, degrees: number): WaveletShape {
  const n = wavelet.samples.length;
  const size = powerOfTwo(4 * n);
  const s = spectrum(wavelet.samples, size);
  const [c, d] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  for (let f = 1; f < size; f++) {
    const sign = f < size / 2 ? 1 : f === size / 2 ? 0 : -1;
    const [re, im] = [s[2 * f], s[2 * f + 1]];
    s[2 * f] = re * c - sign * im * d;
    s[2 * f + 1] = im * c + sign * re * d;
  }
  return { ...wavelet, samples: fromSpectrum(s).slice(0, n) };
}

/** Amplitude (relative to its largest) and phase (degrees) of a wavelet by frequency, from 0 to `mostHz`. */
export function waveletSpectrum(
  wavelet: WaveletShape,
  mostHz = 100,
): { hz: number[]; amplitude: number[]; phaseDeg: number[] } {
  const size = powerOfTwo(Math.max(1024, 2 * wavelet.samples.length));
  const s = spectrum(wavelet.samples, size);
  const stepHz = 1000 / (size * wavelet.stepMs);
  const count = Math.min(size / 2, Math.ceil(mostHz / stepHz)) + 1;
  const hz = Array.from({ length: count }, (_, f) => f * stepHz);
  const amplitude = hz.map((_, f) => Math.hypot(s[2 * f], s[2 * f + 1]));
  const phaseDeg = hz.map((f, n) => {
    // measured about time zero, not about the first sample
    const turn = 2 * Math.PI * f * wavelet.firstMs * 0.001;
    const phase = Math.atan2(s[2 * n + 1], s[2 * n]) - turn;
    return (Math.atan2(Math.sin(phase), Math.cos(phase)) * 180) / Math.PI;
  });
  const most = Math.max(...amplitude) || 1;
  return { hz, amplitude: amplitude.map((a) => a / most), phaseDeg };
}

/** A zero-phase wavelet of an amplitude spectrum (0 to 1 by Hz), unit peak, tapered to its length. */
function ofSpectrum(lengthMs: number, amplitude: (hz: number) => number): WaveletShape {
  const stepHz = 0.25;
  const most = 500;
  const shape = centred(lengthMs / 2, (ms) => {
    let sum = 0.5 * amplitude(0);
    for (let hz = stepHz; hz <= most; hz += stepHz) {
      const a = amplitude(hz);
      if (a > 1e-6) sum += a * Math.cos(2 * Math.PI * hz * ms * 0.001);
    }
    return sum * Math.cos((Math.PI * ms) / (lengthMs + 2 * FINE_MS)) ** 2;
  });
  const peak = shape.samples[(shape.samples.length - 1) / 2] || 1;
  return { ...shape, samples: shape.samples.map((v) => v / peak) };
}

/** Ormsby wavelet: a trapezoid of four corner frequencies (Hz, rising), as in Ryan (1994), CSEG Recorder 19(7), 8–9. */
export function ormsby([a, b, c, d]: [number, number, number, number], lengthMs: number): WaveletShape {
  return ofSpectrum(lengthMs, (hz) =>
    hz <= a || hz >= d ? 0 : hz < b ? (hz - a) / (b - a) : hz <= c ? 1 : (d - hz) / (d - c),
  );
}

/** Zero-phase wavelet of a Butterworth band-pass (Butterworth 1930) run both ways; slopes in dB per octave. */
export function butterworth(
  lowHz: number,
  lowDb: number,
  highHz: number,
  highDb: number,
  lengthMs: number,
): WaveletShape {
  const [n, m] = [lowDb / 6.0206, highDb / 6.0206];
  return ofSpectrum(lengthMs, (hz) =>
    hz <= 0 ? 0 : 1 / Math.sqrt((1 + (lowHz / hz) ** (2 * n)) * (1 + (hz / highHz) ** (2 * m))),
  );
}

/** Klauder wavelet: the autocorrelation of a linear sweep (Klauder et al. 1960, Bell System Technical Journal 39, 745–808). */
export function klauder(fromHz: number, toHz: number, sweepS: number, lengthMs: number): WaveletShape {
  const rate = (toHz - fromHz) / sweepS;
  const middle = 0.5 * (fromHz + toHz);
  return centred(lengthMs / 2, (ms) => {
    const t = ms / 1000;
    if (Math.abs(t) < 1e-9) return 1;
    const value =
      (Math.sin(Math.PI * rate * t * (sweepS - Math.abs(t))) / (Math.PI * rate * t * sweepS)) *
      Math.cos(2 * Math.PI * middle * t);
    return value * Math.cos((Math.PI * ms) / (lengthMs + 2 * FINE_MS)) ** 2;
  });
}

/** A wavelet with zeros added (or cut) at both ends, to a whole length. */
export function extended(wavelet: WaveletShape, lengthMs: number): WaveletShape {
  const half = Math.round(lengthMs / 2 / wavelet.stepMs);
  const from = Math.round(wavelet.firstMs / wavelet.stepMs);
  return {
    stepMs: wavelet.stepMs,
    firstMs: -half * wavelet.stepMs,
    samples: Float64Array.from({ length: 2 * half + 1 }, (_, n) => wavelet.samples[n - half - from] ?? 0),
  };
}

/** Mean of wavelets of one step, each at unit energy, laid over each other by time. */
export function averageWavelet(wavelets: WaveletShape[]): WaveletShape {
  const longest = Math.max(
    ...wavelets.map((w) => 2 * Math.max(-w.firstMs, w.firstMs + w.stepMs * (w.samples.length - 1))),
  );
  const energy = (w: WaveletShape) => Math.sqrt(w.samples.reduce((s, v) => s + v * v, 0)) || 1;
  const whole = wavelets.map((w) => extended({ ...w, samples: w.samples.map((v) => v / energy(w)) }, longest));
  const mean = whole[0].samples.map((_, n) => whole.reduce((s, w) => s + w.samples[n], 0) / whole.length);
  return { ...whole[0], samples: mean };
}

/** A wavelet at another step by windowed sinc. */
export function resampledWavelet(wavelet: WaveletShape, stepMs: number): WaveletShape {
  const { samples, firstMs } = wavelet;
  const last = firstMs + wavelet.stepMs * (samples.length - 1);
  const half = Math.round(Math.max(-firstMs, last) / stepMs);
  return {
    stepMs,
    firstMs: -half * stepMs,
    samples: Float64Array.from({ length: 2 * half + 1 }, (_, n) =>
      sincAt(samples, ((n - half) * stepMs - firstMs) / wavelet.stepMs),
    ),
  };
}

/** Value between samples of a series by a sinc under a Hann window of eight samples each way; zero outside. */
function sincAt(samples: Float64Array, x: number): number {
  const near = Math.floor(x);
  let sum = 0;
  for (let n = near - 7; n <= near + 8; n++) {
    if (n < 0 || n >= samples.length) continue;
    const d = x - n;
    const sinc = Math.abs(d) < 1e-9 ? 1 : Math.sin(Math.PI * d) / (Math.PI * d);
    sum += samples[n] * sinc * (0.5 + 0.5 * Math.cos((Math.PI * d) / 8.5));
  }
  return sum;
}
