import type { Cut } from './frame';

type Point = [trace: number, value: number];

/** Which side of the line through a and b a point lies on. */
const side = (a: Point, b: Point, p: Point) => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);

const crosses = (a: Point, b: Point, c: Point, d: Point) =>
  side(a, b, c) * side(a, b, d) <= 0 && side(c, d, a) * side(c, d, b) < 0;

/** Points beside a cut over which a line may climb from one side of a fault to the other, and how much steeper it then is. */
const [RAMP, STEEP] = [8, 5];

/**
 * A line of points with gaps where it would run across a fault. A surface that was closed over the fault's heave climbs from one
 * side to the other in a few traces: these are left out too, as far as they are steep.
 */
export function cutAt(points: Point[], cuts: Cut[]): Point[] {
  if (cuts.length === 0) return points;
  const out: Point[] = [];
  // faults by the traces that they pass
  const near = new Map<number, Cut[]>();
  for (const cut of cuts)
    for (let t = Math.floor(Math.min(cut[0], cut[2])); t <= Math.floor(Math.max(cut[0], cut[2])); t++)
      near.set(t, [...(near.get(t) ?? []), cut]);
  const slopes = points
    .slice(1)
    .map((p, n) => Math.abs(p[1] - points[n][1]))
    .filter((v) => v > 0)
    .sort((a, b) => a - b);
  const steep = STEEP * (slopes[slopes.length >> 1] ?? 0);
  const gone = new Set<number>();
  const climbs = (n: number, m: number) => Math.abs((points[m]?.[1] ?? Number.NaN) - points[n][1]) > steep;
  for (const [n, point] of points.entries()) {
    out.push(point);
    const next = points[n + 1];
    if (!next || Number.isNaN(point[1]) || Number.isNaN(next[1])) continue;
    const between: Cut[] = [];
    for (let t = Math.floor(point[0]); t <= Math.floor(next[0]); t++) between.push(...(near.get(t) ?? []));
    if (!between.some(([a, va, b, vb]) => crosses(point, next, [a, va], [b, vb]))) continue;
    out.push([(point[0] + next[0]) / 2, Number.NaN]);
    // the climb may end a little before the fault: what lies between is of neither side
    let [left, right] = [n + 1, n];
    for (let k = n; k > 0 && n - k < RAMP; k--) if (climbs(k, k - 1)) left = k;
    for (let k = n + 1; k < points.length && k - n <= RAMP; k++) if (climbs(k, k + 1)) right = k;
    for (let k = left; k <= n; k++) gone.add(points[k][0]);
    for (let k = n + 1; k <= right; k++) gone.add(points[k][0]);
  }
  return gone.size === 0 ? out : out.map((p): Point => (gone.has(p[0]) ? [p[0], Number.NaN] : p));
}
