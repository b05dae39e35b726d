import type { Kernels } from './load.ts';

/** An image whose rows lie `stride` values apart, with where its rows stand in the volume that it is of. */
export interface Slanted {
  rows: number;
  width: number;
  stride: number;
  /** Number of the first row, and the rows of the volume by number, end excluded. */
  first: number;
  low: number;
  high: number;
}

const wideOf = (width: number, steepest: number, half: number) =>
  (width + 2 * (Math.ceil(steepest * half) + 6) + 2 * (Math.ceil(steepest) + 8) + 16 + 3) & ~3;

/** Values of room that means along lines no further aslant than `steepest` values a row need. */
export const slantedRoom = (rows: number, width: number, steepest: number, half: number): number =>
  (3 * rows + 2) * wideOf(width, steepest, half) + 16;

/** Means along slanted lines of an image in the kernels' memory: `out[r][b]` is the mean of `image[r + d][b + slope · d]`, |d| ≤ half. */
export function slantedMeans(
  kernels: Kernels,
  image: number,
  { rows, width, stride, first, low, high }: Slanted,
  slope: number,
  half: number,
  scratch: number,
  out: number,
  outStride: number,
): void {
  const wide = wideOf(width, Math.abs(slope), half);
  kernels.slantedMeans(image, stride, rows, width, slope, first, half, low, high, wide, scratch + 32, out, outStride);
}

/** Weights of a cubic between samples (Keys 1981, IEEE Trans. ASSP 29, 1153–1160). */
function cubicAt(row: (n: number) => number, at: number): number {
  const n = Math.floor(at);
  const t = at - n;
  return (
    (-0.5 * t ** 3 + t ** 2 - 0.5 * t) * row(n - 1) +
    (1.5 * t ** 3 - 2.5 * t ** 2 + 1) * row(n) +
    (-1.5 * t ** 3 + 2 * t ** 2 + 0.5 * t) * row(n + 1) +
    (0.5 * t ** 3 - 0.5 * t ** 2) * row(n + 2)
  );
}

/** The same in plain TypeScript, line by line: what the kernel is held to. */
export function slantedMeansTwin(image: Float32Array, of: Slanted, slope: number, half: number): Float32Array {
  const { rows, width, stride, first, low, high } = of;
  const out = new Float32Array(rows * width);
  const value = (r: number, n: number) => (n < 0 || n >= width ? 0 : image[r * stride + n]);
  for (let r = 0; r < rows; r++) {
    const [a, b] = [Math.max(0, r - half), Math.min(rows - 1, r + half)];
    /** The sum along the line that passes row nought at `c`. */
    const sheared = (c: number) => {
      let sum = 0;
      for (let n = a; n <= b; n++) sum += cubicAt((m) => value(n, m), c + slope * (first + n));
      return sum;
    };
    const live = Math.min(high, first + r + half + 1) - Math.max(low, first + r - half);
    for (let n = 0; n < width; n++)
      out[r * width + n] = live > 0 ? cubicAt(sheared, n - slope * (first + r)) / live : 0;
  }
  return out;
}
