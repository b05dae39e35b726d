import { solve } from '../numerics/leastSquares.ts';

/**
 * Simple kriging (Chilès & Delfiner 2012) of residuals with zero mean and an exponential covariance: exact at the
 * points, fading to zero beyond the range.
 * @param range distance (m) at which correlation has fallen to 5 %
 */
export function krige(
  points: { x: number; y: number; value: number }[],
  range: number,
): (x: number, y: number) => number {
  if (points.length === 0) return () => 0;
  const covariance = (h: number) => Math.exp((-3 * h) / range);
  const matrix = points.map((a) => points.map((b) => covariance(Math.hypot(a.x - b.x, a.y - b.y))));
  const weights = solve(
    matrix,
    points.map((p) => p.value),
  );
  if (!weights) return () => points.reduce((s, p) => s + p.value, 0) / points.length;
  return (x, y) => points.reduce((sum, p, n) => sum + weights[n] * covariance(Math.hypot(x - p.x, y - p.y)), 0);
}
