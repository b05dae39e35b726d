import { powerOfTwo, spectrum } from '../numerics/fft.ts';
import { heed } from '../numerics/stop.ts';
import type { Series } from './match.ts';
import { FINE_MS, resampledWavelet, type WaveletShape } from './wavelet.ts';

/** A well's reflectivity at the steps of its seismic trace, and the trace, over one window. */
export interface WellWindow {
  well: string;
  stepMs: number;
  reflectivity: Float64Array;
  trace: Float64Array;
}

/**
 * Reflectivity in fine time brought to the steps of a trace without aliasing: low-passed below the new Nyquist by a
 * windowed sinc before it is sampled.
 */
export function reflectivityAt(fine: Series, firstMs: number, stepMs: number, count: number): Float64Array {
  const ratio = stepMs / fine.stepMs;
  const half = Math.ceil(8 * ratio);
  return Float64Array.from({ length: count }, (_, n) => {
    const x = (firstMs + n * stepMs - fine.firstMs) / fine.stepMs;
    const near = Math.round(x);
    let sum = 0;
    for (let k = near - half; k <= near + half; k++) {
      const r = fine.values[k];
      if (!r) continue;
      const d = (x - k) / ratio;
      if (Math.abs(d) >= 8) continue;
      sum +=
        r *
        (Math.abs(d) < 1e-9 ? 1 : Math.sin(Math.PI * d) / (Math.PI * d)) *
        (0.5 + 0.5 * Math.cos((Math.PI * d) / 8));
    }
    return sum;
  });
}

export interface Estimate {
  /** At the fine step of synthetics. */
  wavelet: WaveletShape;
  /** At the trace's step, with the half width of each sample's 90 % interval. */
  coarse: WaveletShape;
  halfWidth: Float64Array;
  lengthMs: number;
  noise: number;
  /** Part of the traces' energy that it predicts. */
  predictability: number;
  /** Power signal-to-noise by frequency. */
  band: { hz: number; signalToNoise: number }[];
  tried: { lengthMs: number; noise: number; error: number }[];
}

/** Symmetric positive system by Cholesky: its inverse, `[row][column]`; null where it is none. */
function inverse(a: Float64Array, n: number): Float64Array | null {
  const l = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = a[i * n + j];
      for (let k = 0; k < j; k++) sum -= l[i * n + k] * l[j * n + k];
      if (i === j) {
        if (!(sum > 0)) return null;
        l[i * n + i] = Math.sqrt(sum);
      } else l[i * n + j] = sum / l[j * n + j];
    }
  const out = new Float64Array(n * n);
  const y = new Float64Array(n);
  for (let c = 0; c < n; c++) {
    for (let i = 0; i < n; i++) {
      let sum = i === c ? 1 : 0;
      for (let k = 0; k < i; k++) sum -= l[i * n + k] * y[k];
      y[i] = sum / l[i * n + i];
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = y[i];
      for (let k = i + 1; k < n; k++) sum -= l[k * n + i] * out[k * n + c];
      out[i * n + c] = sum / l[i * n + i];
    }
  }
  return out;
}

/** Normal equations of a wavelet of `2·half + 1` samples over parts of windows. */
function equations(windows: WellWindow[], half: number, use: (well: number, k: number) => boolean) {
  const n = 2 * half + 1;
  const matrix = new Float64Array(n * n);
  const right = new Float64Array(n);
  let samples = 0;
  windows.forEach(({ reflectivity: r, trace }, w) => {
    for (let k = 0; k < trace.length; k++) {
      if (k % 64 === 0) heed();
      if (!use(w, k) || Number.isNaN(trace[k])) continue;
      samples++;
      for (let a = 0; a < n; a++) {
        const ra = r[k - a + half] ?? 0;
        if (ra === 0) continue;
        right[a] += ra * trace[k];
        for (let b = 0; b <= a; b++) matrix[a * n + b] += ra * (r[k - b + half] ?? 0);
      }
    }
  });
  for (let a = 0; a < n; a++) for (let b = 0; b < a; b++) matrix[b * n + a] = matrix[a * n + b];
  return { matrix, right, samples, n };
}

function solved({ matrix, right, n }: ReturnType<typeof equations>, noise: number) {
  let trace = 0;
  for (let a = 0; a < n; a++) trace += matrix[a * n + a];
  const damped = matrix.slice();
  for (let a = 0; a < n; a++) damped[a * n + a] += (noise * trace) / n + 1e-12 * trace;
  const inv = inverse(damped, n);
  if (!inv) return null;
  const wavelet = Float64Array.from({ length: n }, (_, a) => {
    let sum = 0;
    for (let b = 0; b < n; b++) sum += inv[a * n + b] * right[b];
    return sum;
  });
  return { wavelet, inverse: inv };
}

function predicted({ reflectivity: r, trace }: WellWindow, wavelet: Float64Array): Float64Array {
  const half = (wavelet.length - 1) / 2;
  return Float64Array.from({ length: trace.length }, (_, k) => {
    let sum = 0;
    for (let a = 0; a < wavelet.length; a++) sum += wavelet[a] * (r[k - a + half] ?? 0);
    return sum;
  });
}

const BLOCKS = 5;

/**
 * Wavelet by least squares from one well or several at once (White & Simm 2003, First Break 21(10), 75–83): length and
 * white noise are those whose prediction of left-out parts of the windows is best; error bars from the residual's own
 * autocorrelation. Null where the windows are too short for the shortest length.
 * @param lengths whole lengths to try, ms
 */
export function estimateWavelet(
  windows: WellWindow[],
  lengths: number[],
  noises = [0.001, 0.003, 0.01, 0.03, 0.1],
): Estimate | null {
  const stepMs = windows[0]?.stepMs;
  if (!stepMs) return null;
  const total = windows.reduce((s, w) => s + w.trace.length, 0);
  const block = (w: number, k: number) => Math.min(BLOCKS - 1, Math.floor((BLOCKS * k) / windows[w].trace.length));
  const tried: Estimate['tried'] = [];
  let best: Estimate['tried'][number] | null = null;
  for (const lengthMs of lengths) {
    const half = Math.round(lengthMs / 2 / stepMs);
    if (total < 2.5 * (2 * half + 1)) continue;
    const parts = Array.from({ length: BLOCKS }, (_, q) => equations(windows, half, (w, k) => block(w, k) !== q));
    for (const noise of noises) {
      let [error, energy] = [0, 0];
      parts.forEach((part, q) => {
        heed();
        const found = solved(part, noise);
        windows.forEach((window, w) => {
          const made = found ? predicted(window, found.wavelet) : null;
          for (let k = 0; k < window.trace.length; k++) {
            if (block(w, k) !== q || Number.isNaN(window.trace[k])) continue;
            error += (window.trace[k] - (made ? made[k] : 0)) ** 2;
            energy += window.trace[k] ** 2;
          }
        });
      });
      const one = { lengthMs, noise, error: error / (energy || 1) };
      tried.push(one);
      // a shorter wavelet is kept where a longer one is no better
      if (!best || one.error < best.error * 0.995) best = one;
    }
  }
  if (!best) return null;
  const half = Math.round(best.lengthMs / 2 / stepMs);
  const whole = equations(windows, half, () => true);
  const found = solved(whole, best.noise);
  if (!found) return null;
  const residuals = windows.map((w) => {
    const made = predicted(w, found.wavelet);
    return { made, left: w.trace.map((v, k) => (Number.isNaN(v) ? 0 : v - made[k])) };
  });
  const energy = windows.reduce((s, w) => s + w.trace.reduce((a, v) => a + (Number.isNaN(v) ? 0 : v * v), 0), 0);
  const left = residuals.reduce((s, r) => s + r.left.reduce((a, v) => a + v * v, 0), 0);
  const coarse: WaveletShape = { stepMs, firstMs: -half * stepMs, samples: found.wavelet };
  return {
    wavelet: resampledWavelet(coarse, FINE_MS),
    coarse,
    halfWidth: halfWidths(
      windows,
      residuals.map((r) => r.left),
      found.inverse,
      whole,
      half,
    ),
    lengthMs: best.lengthMs,
    noise: best.noise,
    predictability: energy > 0 ? 1 - left / energy : 0,
    band: signalToNoise(residuals, stepMs),
    tried,
  };
}

/**
 * How well traces are predicted from a reflectivity by wavelets that were made without the part that they predict: the
 * correlation over all parts together. What was left out knows nothing of the wavelet, so noise comes to about nothing.
 * @param lengthMs whole length of the wavelet
 */
export function predictorOf(
  reflectivity: Float64Array,
  stepMs: number,
  lengthMs: number,
  noise = 0.03,
): (trace: Float64Array) => number {
  const n = reflectivity.length;
  const half = Math.max(1, Math.round(Math.min(lengthMs / 2 / stepMs, n / BLOCKS)));
  const taps = 2 * half + 1;
  const block = (k: number) => Math.min(BLOCKS - 1, Math.floor((BLOCKS * k) / n));
  // all that does not hang on the trace is done once
  const parts = Array.from({ length: BLOCKS }, (_, q) => {
    const empty = { well: '', stepMs, reflectivity, trace: new Float64Array(n) };
    return solved(
      equations([empty], half, (_w, k) => block(k) !== q),
      noise,
    )?.inverse;
  });
  return (trace) => {
    let [sp, pp, dd] = [0, 0, 0];
    parts.forEach((inv, q) => {
      if (!inv) return;
      const right = new Float64Array(taps);
      for (let k = 0; k < n; k++)
        if (block(k) !== q) for (let a = 0; a < taps; a++) right[a] += (reflectivity[k - a + half] ?? 0) * trace[k];
      const wavelet = Float64Array.from({ length: taps }, (_, a) => {
        let sum = 0;
        for (let b = 0; b < taps; b++) sum += inv[a * taps + b] * right[b];
        return sum;
      });
      for (let k = 0; k < n; k++) {
        if (block(k) !== q) continue;
        let made = 0;
        for (let a = 0; a < taps; a++) made += wavelet[a] * (reflectivity[k - a + half] ?? 0);
        sp += made * trace[k];
        pp += made * made;
        dd += trace[k] * trace[k];
      }
    });
    return pp > 0 && dd > 0 ? sp / Math.sqrt(pp * dd) : 0;
  };
}

/** 90 % half widths: the residual's autocorrelation carried through the estimate. */
function halfWidths(
  windows: WellWindow[],
  left: Float64Array[],
  inv: Float64Array,
  { n, samples }: { n: number; samples: number },
  half: number,
): Float64Array {
  const lags = Math.min(20, Math.floor(samples / 4));
  const cov = new Float64Array(lags);
  for (const r of left)
    for (let lag = 0; lag < lags; lag++) for (let k = 0; k + lag < r.length; k++) cov[lag] += r[k] * r[k + lag];
  // samples spent on the wavelet are missing from the residual
  const free = Math.max(1, samples - n);
  for (let lag = 0; lag < lags; lag++) cov[lag] = (cov[lag] / free) * (1 - lag / lags);
  const middle = new Float64Array(n * n);
  for (const { reflectivity: r, trace } of windows) {
    const filtered = Array.from({ length: n }, (_, a) =>
      Float64Array.from({ length: trace.length }, (_, k) => {
        if (k === 0) heed();
        let sum = 0;
        for (let lag = 1 - lags; lag < lags; lag++) {
          const q = k + lag;
          if (q >= 0 && q < trace.length) sum += cov[Math.abs(lag)] * (r[q - a + half] ?? 0);
        }
        return sum;
      }),
    );
    for (let a = 0; a < n; a++) {
      heed();
      for (let b = 0; b < n; b++)
        for (let k = 0; k < trace.length; k++) middle[a * n + b] += (r[k - a + half] ?? 0) * filtered[b][k];
    }
  }
  return Float64Array.from({ length: n }, (_, a) => {
    let variance = 0;
    for (let b = 0; b < n; b++)
      for (let c = 0; c < n; c++) variance += inv[a * n + b] * middle[b * n + c] * inv[c * n + a];
    return 1.645 * Math.sqrt(Math.max(0, variance));
  });
}

/** Power of what is predicted over that of what is not, smoothed over about 8 Hz. */
function signalToNoise(parts: { made: Float64Array; left: Float64Array }[], stepMs: number): Estimate['band'] {
  const longest = Math.max(...parts.map((p) => p.made.length));
  const size = powerOfTwo(2 * longest);
  const stepHz = 1000 / (size * stepMs);
  const power = (values: Float64Array) => {
    const n = values.length;
    const s = spectrum(
      values.map((v, k) => v * (0.5 - 0.5 * Math.cos((2 * Math.PI * (k + 0.5)) / n))),
      size,
    );
    return Float64Array.from({ length: size / 2 }, (_, f) => s[2 * f] ** 2 + s[2 * f + 1] ** 2);
  };
  const signal = new Float64Array(size / 2);
  const noise = new Float64Array(size / 2);
  for (const p of parts) {
    power(p.made).forEach((v, f) => {
      signal[f] += v;
    });
    power(p.left).forEach((v, f) => {
      noise[f] += v;
    });
  }
  const reach = Math.max(1, Math.round(4 / stepHz));
  const out: Estimate['band'] = [];
  for (let hz = 2; hz <= Math.min(120, 500 / stepMs); hz += 2) {
    const f = Math.round(hz / stepHz);
    let [s, n] = [0, 0];
    for (let q = Math.max(0, f - reach); q <= Math.min(size / 2 - 1, f + reach); q++) {
      s += signal[q];
      n += noise[q];
    }
    out.push({ hz, signalToNoise: n > 0 ? s / n : 0 });
  }
  return out;
}
