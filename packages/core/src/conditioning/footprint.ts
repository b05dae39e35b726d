import type FFT from 'fft.js';
import { powerOfTwo, transformOf } from '../numerics/fft.ts';
import { solve } from '../numerics/leastSquares.ts';

/** Amplitudes by wavenumber of a tapered slice, padded to `rows × columns`, both powers of two. */
export interface Wavenumbers {
  rows: number;
  columns: number;
  amplitude: Float64Array;
}

/** A pattern that runs across a slice: cycles a bin along rows and columns. */
export interface Wave {
  alongRows: number;
  alongColumns: number;
  /** Part of what is found of it that is pattern and not geology, 0 to 1 (Wiener 1949). */
  part: number;
}

const hann = (n: number, count: number) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (n + 0.5)) / count);

/** Two-dimensional transform in place, rows then columns. */
function transform2(rows: number, columns: number, values: Float64Array): void {
  const run = (fft: FFT, line: number[]) => {
    const out = fft.createComplexArray();
    fft.transform(out, line);
    return out;
  };
  for (let r = 0; r < rows; r++) {
    const out = run(transformOf(columns), Array.from(values.subarray(2 * r * columns, 2 * (r + 1) * columns)));
    for (let n = 0; n < out.length; n++) values[2 * r * columns + n] = out[n];
  }
  const line = new Array<number>(2 * rows);
  for (let c = 0; c < columns; c++) {
    for (let r = 0; r < rows; r++) {
      line[2 * r] = values[2 * (r * columns + c)];
      line[2 * r + 1] = values[2 * (r * columns + c) + 1];
    }
    const out = run(transformOf(rows), line);
    for (let r = 0; r < rows; r++) {
      values[2 * (r * columns + c)] = out[2 * r];
      values[2 * (r * columns + c) + 1] = out[2 * r + 1];
    }
  }
}

/** Padded twice, so that a pattern between two wavenumbers is not missed. */
const padded = (n: number) => powerOfTwo(2 * n);

/**
 * Amplitudes of a slice by wavenumber: about its mean, and tapered, so that neither its edges nor what is smooth in it
 * spread over the wavenumbers of a pattern; nulls count as the mean.
 */
export function wavenumbersOf(slice: Float32Array, rows: number, columns: number): Wavenumbers {
  const [pr, pc] = [padded(rows), padded(columns)];
  const values = new Float64Array(2 * pr * pc);
  let [sum, live] = [0, 0];
  for (const v of slice)
    if (v === v) {
      sum += v;
      live++;
    }
  const mean = live > 0 ? sum / live : 0;
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const v = slice[r * columns + c];
      if (v === v) values[2 * (r * pc + c)] = (v - mean) * hann(r, rows) * hann(c, columns);
    }
  transform2(pr, pc, values);
  return {
    rows: pr,
    columns: pc,
    amplitude: Float64Array.from({ length: pr * pc }, (_, n) => Math.hypot(values[2 * n], values[2 * n + 1])),
  };
}

export interface FootprintOptions {
  /** Wavenumbers nearer to zero than this part of Nyquist are geology and are left. */
  protect: number;
  /** How far above its surroundings, dB, a wavenumber must stand to be footprint. */
  thresholdDb: number;
}

/** Wavenumbers beyond its own lobe that a pattern is held against. */
const AROUND = 5;
/** Patterns that are taken out at most, the strongest first. */
const MOST = 24;

/**
 * Patterns that stand above their surroundings slice after slice, as those of an acquisition do whatever the geology
 * (Marfurt et al. 1998, Geophysics 63, 1024–1035): local peaks, placed between wavenumbers by a parabola.
 * @param mean amplitudes averaged over slices
 * @param size rows and columns of the slices themselves
 */
export function footprintWaves(
  { rows, columns, amplitude }: Wavenumbers,
  size: [number, number],
  { protect, thresholdDb }: FootprintOptions,
): Wave[] {
  const threshold = 10 ** (thresholdDb / 20);
  // a tapered wave is two wavenumbers of the unpadded slice wide to each side
  const lobe = [Math.ceil((2 * rows) / size[0]), Math.ceil((2 * columns) / size[1])];
  const at = (r: number, c: number) => amplitude[((r + rows) % rows) * columns + ((c + columns) % columns)];
  const found: (Wave & { over: number })[] = [];
  const around: number[] = [];
  for (let r = 0; r <= rows / 2; r++)
    for (let c = 0; c < columns; c++) {
      // a slice is real: one half of its wavenumbers says all
      if ((r === 0 || r === rows / 2) && c > columns / 2) continue;
      const [kr, kc] = [r / rows, (c > columns / 2 ? c - columns : c) / columns];
      if (Math.hypot(2 * kr, 2 * kc) < protect) continue;
      const own = at(r, c);
      let peak = own > 0;
      for (let a = -1; a <= 1 && peak; a++) for (let b = -1; b <= 1; b++) if (at(r + a, c + b) > own) peak = false;
      if (!peak) continue;
      around.length = 0;
      for (let a = -lobe[0] - AROUND; a <= lobe[0] + AROUND; a++)
        for (let b = -lobe[1] - AROUND; b <= lobe[1] + AROUND; b++)
          if (Math.abs(a) > lobe[0] || Math.abs(b) > lobe[1]) around.push(at(r + a, c + b));
      around.sort((p, q) => p - q);
      const level = around[around.length >> 1];
      if (own < threshold * level) continue;
      const between = (before: number, after: number) => {
        const [x, y, z] = [before, own, after].map((v) => Math.log(Math.max(v, 1e-9 * own)));
        const bend = x - 2 * y + z;
        return bend < 0 ? (0.5 * (x - z)) / bend : 0;
      };
      found.push({
        alongRows: kr + between(at(r - 1, c), at(r + 1, c)) / rows,
        alongColumns: kc + between(at(r, c - 1), at(r, c + 1)) / columns,
        part: 1 - (level / own) ** 2,
        over: own / level,
      });
    }
  return found
    .sort((p, q) => q.over - p.over)
    .slice(0, MOST)
    .map(({ over: _, ...wave }) => wave);
}

/** Bins of the windows in which patterns are fitted: wide enough to tell them from geology, and so they may change across a survey. */
const WINDOW = 96;

/** Starts of windows that overlap by a half and together cover a length. */
function startsOf(length: number): number[] {
  if (length <= WINDOW) return [0];
  const pieces = Math.ceil(length / (WINDOW / 2)) - 1;
  return Array.from({ length: pieces }, (_, n) => Math.round((n * (length - WINDOW)) / (pieces - 1)));
}

/** Cosines and sines of waves along one axis, from 0 to `length`. */
function turns(waves: Wave[], key: 'alongRows' | 'alongColumns', length: number) {
  return waves.map((wave) => {
    const angle = (n: number) => 2 * Math.PI * wave[key] * n;
    return {
      cos: Float64Array.from({ length }, (_, n) => Math.cos(angle(n))),
      sin: Float64Array.from({ length }, (_, n) => Math.sin(angle(n))),
    };
  });
}

/** Inverse of a small symmetric positive matrix, or null where it has none. */
function inverseOf(matrix: number[][]): number[][] | null {
  const rows = matrix.map((_, n) =>
    solve(
      matrix,
      matrix.map((__, m) => (m === n ? 1 : 0)),
    ),
  );
  return rows.every((r) => r !== null) ? (rows as number[][]) : null;
}

/**
 * A filter that takes patterns out of slices of a size: gives a slice without them, and what was taken out of it; nulls stay
 * null. Each pattern is fitted by least squares in overlapping windows beside a plane that stands for what is smooth, so that
 * its strength may change across the survey. What hangs on where slices have nulls is kept until that changes.
 */
export function footprintFilter(
  rows: number,
  columns: number,
  waves: Wave[],
): (slice: Float32Array) => { clean: Float32Array; removed: Float32Array } {
  const [down, across] = [turns(waves, 'alongRows', rows), turns(waves, 'alongColumns', columns)];
  const size = 3 + 2 * waves.length;
  const [nr, nc] = [Math.min(WINDOW, rows), Math.min(WINDOW, columns)];
  const windows = (waves.length > 0 ? startsOf(rows) : []).flatMap((r0) => startsOf(columns).map((c0) => [r0, c0]));
  const basis = new Float64Array(size);
  const fill = (r: number, c: number, r0: number, c0: number) => {
    basis[0] = 1;
    basis[1] = (2 * (r - r0)) / nr - 1;
    basis[2] = (2 * (c - c0)) / nc - 1;
    for (let w = 0; w < waves.length; w++) {
      const [a, b, p, q] = [down[w].cos[r], down[w].sin[r], across[w].cos[c], across[w].sin[c]];
      basis[3 + 2 * w] = a * p - b * q;
      basis[4 + 2 * w] = b * p + a * q;
    }
  };
  const solvers = (live: Uint8Array) =>
    windows.map(([r0, c0]) => {
      const matrix = Array.from({ length: size }, () => new Array<number>(size).fill(0));
      for (let r = r0; r < r0 + nr; r++)
        for (let c = c0; c < c0 + nc; c++) {
          if (!live[r * columns + c]) continue;
          fill(r, c, r0, c0);
          const taper = hann(r - r0, nr) * hann(c - c0, nc);
          for (let a = 0; a < size; a++) for (let b = 0; b <= a; b++) matrix[a][b] += taper * basis[a] * basis[b];
        }
      for (let a = 0; a < size; a++) {
        for (let b = 0; b < a; b++) matrix[b][a] = matrix[a][b];
        matrix[a][a] = matrix[a][a] * (1 + 1e-6) + 1e-9;
      }
      return inverseOf(matrix);
    });
  let kept: { live: Uint8Array; inverses: ReturnType<typeof solvers> } | null = null;
  return (slice) => {
    const live = Uint8Array.from(slice, (v) => (v === v ? 1 : 0));
    if (!kept?.live.every((v, n) => v === live[n])) kept = { live, inverses: solvers(live) };
    const removed = new Float32Array(slice.length);
    const weight = new Float32Array(slice.length);
    windows.forEach(([r0, c0], n) => {
      const inverse = kept?.inverses[n];
      if (!inverse) return;
      const right = new Float64Array(size);
      for (let r = r0; r < r0 + nr; r++)
        for (let c = c0; c < c0 + nc; c++) {
          const v = slice[r * columns + c];
          if (v !== v) continue;
          fill(r, c, r0, c0);
          const weighed = v * hann(r - r0, nr) * hann(c - c0, nc);
          for (let a = 0; a < size; a++) right[a] += basis[a] * weighed;
        }
      const found = inverse.map((row) => row.reduce((sum, x, k) => sum + x * right[k], 0));
      const taken = found.map((x, k) => (k < 3 ? 0 : x * waves[(k - 3) >> 1].part));
      for (let r = r0; r < r0 + nr; r++)
        for (let c = c0; c < c0 + nc; c++) {
          fill(r, c, r0, c0);
          const taper = hann(r - r0, nr) * hann(c - c0, nc) + 1e-6;
          let sum = 0;
          for (let k = 3; k < size; k++) sum += taken[k] * basis[k];
          removed[r * columns + c] += taper * sum;
          weight[r * columns + c] += taper;
        }
    });
    const clean = new Float32Array(slice.length);
    for (let n = 0; n < slice.length; n++) {
      removed[n] = weight[n] > 0 ? removed[n] / weight[n] : 0;
      clean[n] = slice[n] - removed[n];
      if (!live[n]) removed[n] = Number.NaN;
    }
    return { clean, removed };
  };
}
