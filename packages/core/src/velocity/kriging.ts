import { solve } from '../numerics/leastSquares.ts';

export interface KrigedPoint {
  x: number;
  y: number;
  value: number;
}

/** Points nearer than this, m, are at one place. */
const ONE_PLACE_M = 1;

/** Points of which those at one place are one, with their mean. */
export function atOnePlace<P extends KrigedPoint>(points: P[]): P[][] {
  const groups: P[][] = [];
  for (const p of points) {
    const group = groups.find(([q]) => Math.hypot(p.x - q.x, p.y - q.y) < ONE_PLACE_M);
    if (group) group.push(p);
    else groups.push([p]);
  }
  return groups;
}

/**
 * Simple kriging (Chilès & Delfiner 2012) of residuals with zero mean and an exponential covariance: exact at the
 * points, fading to zero beyond the range. Points at one place count once, with their mean.
 * @param range distance (m) at which correlation has fallen to 5 %
 */
export function krige(points: KrigedPoint[], range: number): (x: number, y: number) => number {
  const places = atOnePlace(points).map((group) => ({
    x: group[0].x,
    y: group[0].y,
    value: group.reduce((sum, p) => sum + p.value, 0) / group.length,
  }));
  if (places.length === 0) return () => 0;
  const covariance = (h: number) => Math.exp((-3 * h) / range);
  const matrix = places.map((a) => places.map((b) => covariance(Math.hypot(a.x - b.x, a.y - b.y))));
  const weights = solve(
    matrix,
    places.map((p) => p.value),
  );
  if (!weights) throw new Error('the covariances of places that differ make a regular system');
  return (x, y) => places.reduce((sum, p, n) => sum + weights[n] * covariance(Math.hypot(x - p.x, y - p.y)), 0);
}
