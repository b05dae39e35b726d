import type { Cut } from './frame';

type Point = [trace: number, value: number];

/** Which side of the line through a and b a point lies on. */
const side = (a: Point, b: Point, p: Point) => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);

const crosses = (a: Point, b: Point, c: Point, d: Point) =>
  side(a, b, c) * side(a, b, d) <= 0 && side(c, d, a) * side(c, d, b) < 0;

/** A line of points with gaps where it would run across a fault. */
export function cutAt(points: Point[], cuts: Cut[]): Point[] {
  if (cuts.length === 0) return points;
  const out: Point[] = [];
  // faults by the traces that they pass
  const near = new Map<number, Cut[]>();
  for (const cut of cuts)
    for (let t = Math.floor(Math.min(cut[0], cut[2])); t <= Math.floor(Math.max(cut[0], cut[2])); t++)
      near.set(t, [...(near.get(t) ?? []), cut]);
  for (const [n, point] of points.entries()) {
    out.push(point);
    const next = points[n + 1];
    if (!next || Number.isNaN(point[1]) || Number.isNaN(next[1])) continue;
    const between: Cut[] = [];
    for (let t = Math.floor(point[0]); t <= Math.floor(next[0]); t++) between.push(...(near.get(t) ?? []));
    if (between.some(([a, va, b, vb]) => crosses(point, next, [a, va], [b, vb])))
      out.push([(point[0] + next[0]) / 2, Number.NaN]);
  }
  return out;
}
