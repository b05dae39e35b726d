import { type BinGrid, toIndex } from '../earth/binGrid.ts';

/** Value of a grid at a map position, bilinear between bins; NaN outside or where a corner is missing. */
export function gridAt(values: Float32Array, binGrid: BinGrid, x: number, y: number): number {
  const [rows, columns] = [binGrid.inline.count, binGrid.crossline.count];
  const [i, j] = toIndex(binGrid, x, y);
  // a grid may be asked for just beyond its last bin, as where a coarser grid ends
  if (i < -1.01 || j < -1.01 || i > rows + 0.01 || j > columns + 0.01) return Number.NaN;
  const i0 = Math.max(0, Math.min(rows - 2, Math.floor(i)));
  const j0 = Math.max(0, Math.min(columns - 2, Math.floor(j)));
  const n = i0 * columns + j0;
  const [fi, fj] = [snapped(i - i0), snapped(j - j0)];
  return mix(mix(values[n], values[n + 1], fj), mix(values[n + columns], values[n + columns + 1], fj), fi);
}

/** A part of a bin; positions that went over the map and back are a rounding off their bin. */
const snapped = (f: number) => (f < 1e-6 ? 0 : f > 1 - 1e-6 ? 1 : f);

/** Between two values; at one of them the other may be missing. */
const mix = (a: number, b: number, f: number) => (f === 0 ? a : f === 1 ? b : a * (1 - f) + b * f);
