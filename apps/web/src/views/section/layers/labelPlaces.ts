/** Places for a label beside a line on the screen: above it and below it, every so often along it. */
export function placesAlong(points: [number, number][], left: number, right: number): [number, number][] {
  const out: [number, number][] = [];
  let last = Number.NEGATIVE_INFINITY;
  for (const [n, [x, y]] of points.entries()) {
    const next = points[n + 1];
    // a lone point carries no name
    if (!Number.isFinite(y) || !next || !Number.isFinite(next[1]) || x < left || x > right || x - last < 24) continue;
    out.push([x + 5, y - 5], [x + 5, y + 14]);
    last = x;
  }
  return out;
}
