import { type BinGrid, toIndex } from '../earth/binGrid.ts';
import { leastSquares } from '../numerics/leastSquares.ts';

/**
 * The regular bin grid, rotated or not, that points lie on, or null where they are scattered.
 * The two shortest ways from a point to others that are not in one line span a bin; all points must then lie on whole
 * bins to a tenth.
 * @returns bin grid, and the bin `[inline][crossline]` of each point
 */
export function binGridOfPoints(x: Float64Array, y: Float64Array): { binGrid: BinGrid; bins: Int32Array } | null {
  const n = x.length;
  if (n < 4) return null;
  // ways from points in the thick of it to all others
  let best: { a: [number, number]; b: [number, number] } | null = null;
  for (const start of [n >> 1, n >> 2, (3 * n) >> 2]) {
    const near: { dx: number; dy: number; d: number }[] = [];
    for (let m = 0; m < n; m++) {
      const [dx, dy] = [x[m] - x[start], y[m] - y[start]];
      const d = Math.hypot(dx, dy);
      if (d > 1e-6) near.push({ dx, dy, d });
    }
    near.sort((p, q) => p.d - q.d);
    const a = near[0];
    const b = near.slice(1, 60).find((q) => Math.abs(a.dx * q.dy - a.dy * q.dx) > 0.3 * a.d * q.d);
    if (!a || !b) continue;
    if (!best || a.d * b.d < Math.hypot(...best.a) * Math.hypot(...best.b)) best = { a: [a.dx, a.dy], b: [b.dx, b.dy] };
  }
  if (!best) return null;
  // rows are the steeper of the two, so that a grid along the axes has its columns along x
  let { a, b } = best;
  if (Math.abs(a[0]) > Math.abs(a[1])) [a, b] = [b, a];
  if (a[1] < 0) a = [-a[0], -a[1]];
  if (b[0] < 0) b = [-b[0], -b[1]];
  const unit = (count: [number, number], origin: [number, number]): BinGrid => ({
    inline: { first: 1, step: 1, count: count[0] },
    crossline: { first: 1, step: 1, count: count[1] },
    origin,
    perInline: a,
    perCrossline: b,
  });
  const rough = unit([1, 1], [x[n >> 1], y[n >> 1]]);
  const place = (binGrid: BinGrid) => Array.from(x, (px, m) => toIndex(binGrid, px, y[m]).map(Math.round));
  const design = place(rough).map(([i, j]) => [1, i, j]);
  const cx = leastSquares(
    design,
    Array.from(x, (v) => v - x[0]),
  );
  const cy = leastSquares(
    design,
    Array.from(y, (v) => v - y[0]),
  );
  if (!cx || !cy) return null;
  a = [cx[1], cy[1]];
  b = [cx[2], cy[2]];
  const fitted = unit([1, 1], [x[0] + cx[0], y[0] + cy[0]]);
  let off = 0;
  let [i0, j0, i1, j1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let m = 0; m < n; m++) {
    const [i, j] = toIndex(fitted, x[m], y[m]);
    off = Math.max(off, Math.abs(i - Math.round(i)), Math.abs(j - Math.round(j)));
    i0 = Math.min(i0, Math.round(i));
    j0 = Math.min(j0, Math.round(j));
    i1 = Math.max(i1, Math.round(i));
    j1 = Math.max(j1, Math.round(j));
  }
  const count: [number, number] = [i1 - i0 + 1, j1 - j0 + 1];
  if (off > 0.1 || count[0] * count[1] > 50 * n + 1000 || count[0] < 2 || count[1] < 2) return null;
  const origin: [number, number] = [fitted.origin[0] + i0 * a[0] + j0 * b[0], fitted.origin[1] + i0 * a[1] + j0 * b[1]];
  const binGrid = unit(count, origin);
  const bins = Int32Array.from(place(binGrid), ([i, j]) => i * count[1] + j);
  return { binGrid, bins };
}
