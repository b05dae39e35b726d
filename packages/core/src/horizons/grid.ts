import { type Lattice, toIndex } from '../earth/lattice.ts';

/** Value of a grid at a map position, bilinear between bins; NaN outside or where a corner is missing. */
export function gridAt(values: Float32Array, lattice: Lattice, x: number, y: number): number {
  const [rows, columns] = [lattice.inline.count, lattice.crossline.count];
  const [i, j] = toIndex(lattice, x, y);
  // a grid may be asked for just beyond its last bin, as where a coarser grid ends
  if (i < -1.01 || j < -1.01 || i > rows + 0.01 || j > columns + 0.01) return Number.NaN;
  const i0 = Math.max(0, Math.min(rows - 2, Math.floor(i)));
  const j0 = Math.max(0, Math.min(columns - 2, Math.floor(j)));
  const [fi, fj] = [Math.max(0, Math.min(1, i - i0)), Math.max(0, Math.min(1, j - j0))];
  const n = i0 * columns + j0;
  if (fi === 0 && fj === 0) return values[n];
  return (
    (values[n] * (1 - fj) + values[n + 1] * fj) * (1 - fi) +
    (values[n + columns] * (1 - fj) + values[n + columns + 1] * fj) * fi
  );
}
