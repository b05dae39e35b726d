import type FFT from 'fft.js';
import { powerOfTwo, transformOf } from '../numerics/fft.ts';

/** A plane of a wavenumber domain: interleaved complex values, `rows × columns`, both powers of two. */
export interface Wavenumbers {
  rows: number;
  columns: number;
  values: Float64Array;
}

/** Two-dimensional transform in place, rows then columns. */
function transform2({ rows, columns, values }: Wavenumbers, inverse: boolean): void {
  const across = transformOf(columns);
  const down = transformOf(rows);
  const run = (fft: FFT, line: number[]) => {
    const out = fft.createComplexArray();
    if (inverse) fft.inverseTransform(out, line);
    else fft.transform(out, line);
    return out;
  };
  for (let r = 0; r < rows; r++) {
    const out = run(across, Array.from(values.subarray(2 * r * columns, 2 * (r + 1) * columns)));
    for (let n = 0; n < out.length; n++) values[2 * r * columns + n] = out[n];
  }
  const line = new Array<number>(2 * rows);
  for (let c = 0; c < columns; c++) {
    for (let r = 0; r < rows; r++) {
      line[2 * r] = values[2 * (r * columns + c)];
      line[2 * r + 1] = values[2 * (r * columns + c) + 1];
    }
    const out = run(down, line);
    for (let r = 0; r < rows; r++) {
      values[2 * (r * columns + c)] = out[2 * r];
      values[2 * (r * columns + c) + 1] = out[2 * r + 1];
    }
  }
}

/** Smooth a slice by a Gaussian along rows and columns; nulls count for nothing. */
function smoothed(slice: Float32Array, rows: number, columns: number, sigma: number): Float64Array {
  const reach = Math.ceil(3 * sigma);
  const weights = Float64Array.from({ length: reach + 1 }, (_, d) => Math.exp(-0.5 * (d / sigma) ** 2));
  const pass = (
    values: Float64Array,
    live: Float64Array,
    step: number,
    length: number,
    lines: number,
    next: number,
  ) => {
    const [out, sum] = [new Float64Array(values.length), new Float64Array(values.length)];
    for (let l = 0; l < lines; l++)
      for (let n = 0; n < length; n++) {
        let [v, w] = [0, 0];
        for (let m = Math.max(0, n - reach); m <= Math.min(length - 1, n + reach); m++) {
          const at = l * next + m * step;
          const weight = weights[Math.abs(m - n)];
          v += weight * values[at];
          w += weight * live[at];
        }
        out[l * next + n * step] = v;
        sum[l * next + n * step] = w;
      }
    return [out, sum];
  };
  const live = Float64Array.from(slice, (v) => (v === v ? 1 : 0));
  const values = Float64Array.from(slice, (v) => (v === v ? v : 0));
  const [across, weight] = pass(values, live, 1, columns, rows, columns);
  const [both, total] = pass(across, weight, columns, rows, columns, 1);
  return both.map((v, n) => (total[n] > 0 ? v / total[n] : 0));
}

/** Bins over which what is smooth is set aside before a slice is transformed. */
const SMOOTH = 2.5;

/** The rough part of a slice in the wavenumber domain; what is smooth is geology and makes edges that would spread. */
export function wavenumbersOf(slice: Float32Array, rows: number, columns: number): Wavenumbers {
  const domain: Wavenumbers = { rows: powerOfTwo(rows), columns: powerOfTwo(columns), values: new Float64Array(0) };
  domain.values = new Float64Array(2 * domain.rows * domain.columns);
  const smooth = smoothed(slice, rows, columns, SMOOTH);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const v = slice[r * columns + c] - smooth[r * columns + c];
      if (v === v) domain.values[2 * (r * domain.columns + c)] = v;
    }
  transform2(domain, false);
  return domain;
}

/** The slice of a wavenumber domain, its first `rows × columns`. */
export function sliceOf(domain: Wavenumbers, rows: number, columns: number): Float32Array {
  const copy = { ...domain, values: domain.values.slice() };
  transform2(copy, true);
  const out = new Float32Array(rows * columns);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) out[r * columns + c] = copy.values[2 * (r * domain.columns + c)];
  return out;
}

export interface FootprintOptions {
  /** Wavenumbers nearer to zero than this part of Nyquist are geology and are left. */
  protect: number;
  /** How far above its surroundings, dB, a wavenumber must stand to be footprint. */
  thresholdDb: number;
}

/**
 * What each wavenumber is multiplied by: 1 for geology, less where a wavenumber stands above its surroundings slice after
 * slice, as the pattern of an acquisition does whatever the geology. Such wavenumbers are brought down to the level around
 * them. (Suppression of the footprint in the wavenumber domain of time slices: Marfurt et al. 1998, Geophysics 63,
 * 1024–1035.)
 * @param amplitude mean amplitude over slices, `rows × columns`
 */
export function footprintGain(
  amplitude: Float64Array,
  rows: number,
  columns: number,
  { protect, thresholdDb }: FootprintOptions,
): Float32Array {
  const gain = new Float32Array(rows * columns).fill(1);
  const threshold = 10 ** (thresholdDb / 20);
  const REACH = 4;
  const around: number[] = [];
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const kr = Math.min(r, rows - r) / (rows / 2);
      const kc = Math.min(c, columns - c) / (columns / 2);
      if (Math.hypot(kr, kc) < protect) continue;
      around.length = 0;
      for (let a = -REACH; a <= REACH; a++)
        for (let b = -REACH; b <= REACH; b++) {
          if (Math.max(Math.abs(a), Math.abs(b)) < 2) continue;
          around.push(amplitude[((r + a + rows) % rows) * columns + ((c + b + columns) % columns)]);
        }
      around.sort((p, q) => p - q);
      const level = around[around.length >> 1];
      const own = amplitude[r * columns + c];
      if (own > threshold * level && own > 0) gain[r * columns + c] = level / own;
    }
  return gain;
}

/** A slice without its footprint, and what was taken out of it; nulls stay null. */
export function withoutFootprint(
  slice: Float32Array,
  rows: number,
  columns: number,
  gain: Float32Array,
): { clean: Float32Array; removed: Float32Array } {
  const domain = wavenumbersOf(slice, rows, columns);
  for (let n = 0; n < gain.length; n++) {
    domain.values[2 * n] *= 1 - gain[n];
    domain.values[2 * n + 1] *= 1 - gain[n];
  }
  const removed = sliceOf(domain, rows, columns);
  const clean = new Float32Array(slice.length);
  for (let n = 0; n < slice.length; n++) {
    clean[n] = slice[n] - removed[n];
    if (Number.isNaN(slice[n])) removed[n] = Number.NaN;
  }
  return { clean, removed };
}
