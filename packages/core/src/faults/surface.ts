/** A triangulated surface: `points` x, y, vertical; `triangles` indexes into points. */
export interface Mesh {
  points: Float64Array;
  triangles: Uint32Array;
}

type Point = [number, number, number];

/** Points at even steps along a stick, from its top to its base. */
function resample(stick: Point[], count: number): Point[] {
  const along = [0];
  for (let n = 1; n < stick.length; n++) along.push(along[n - 1] + Math.abs(stick[n][2] - stick[n - 1][2]) + 1e-9);
  const total = along[along.length - 1];
  return Array.from({ length: count }, (_, k) => {
    const at = (total * k) / (count - 1);
    let n = 0;
    while (n < stick.length - 2 && along[n + 1] < at) n++;
    const f = (at - along[n]) / (along[n + 1] - along[n]);
    return [0, 1, 2].map((c) => stick[n][c] + f * (stick[n + 1][c] - stick[n][c])) as Point;
  });
}

/** Sticks in order along the surface: sorted along the direction in which their midpoints spread most. */
export function inOrder(sticks: Point[][]): Point[][] {
  const middles = sticks.map((s) => s[Math.floor(s.length / 2)]);
  const mean = [0, 1].map((c) => middles.reduce((a, m) => a + m[c], 0) / middles.length);
  let [xx, xy, yy] = [0, 0, 0];
  for (const m of middles) {
    const [dx, dy] = [m[0] - mean[0], m[1] - mean[1]];
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
  }
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  const key = (s: Point[]) =>
    s[Math.floor(s.length / 2)][0] * Math.cos(angle) + s[Math.floor(s.length / 2)][1] * Math.sin(angle);
  return [...sticks].sort((a, b) => key(a) - key(b));
}

/** Join neighbouring sticks of a fault to a ruled surface of `rows` points a stick. */
export function meshOfSticks(sticks: Point[][], rows = 12): Mesh {
  const usable = inOrder(sticks.filter((s) => s.length > 1));
  const points = new Float64Array(usable.length * rows * 3);
  usable.forEach((stick, s) => {
    resample(stick, rows).forEach((p, r) => {
      points.set(p, (s * rows + r) * 3);
    });
  });
  const triangles: number[] = [];
  for (let s = 0; s + 1 < usable.length; s++)
    for (let r = 0; r + 1 < rows; r++) {
      const a = s * rows + r;
      triangles.push(a, a + 1, a + rows, a + 1, a + rows + 1, a + rows);
    }
  return { points, triangles: Uint32Array.from(triangles) };
}

/**
 * Where a surface meets the vertical plane through a line on the map.
 * @returns segments of `[distance along the line from its first point, vertical]` at both ends
 */
export function cutByLine(
  mesh: Mesh,
  from: [number, number],
  to: [number, number],
): [number, number, number, number][] {
  const dx = to[0] - from[0];
  const dy = to[1] - from[1];
  const length = Math.hypot(dx, dy);
  const out: [number, number, number, number][] = [];
  const { points: p, triangles: t } = mesh;
  const side = (n: number) => ((p[3 * n] - from[0]) * dy - (p[3 * n + 1] - from[1]) * dx) / length;
  const along = (n: number) => ((p[3 * n] - from[0]) * dx + (p[3 * n + 1] - from[1]) * dy) / length;
  for (let k = 0; k < t.length; k += 3) {
    const hits: number[] = [];
    for (let e = 0; e < 3; e++) {
      const [a, b] = [t[k + e], t[k + ((e + 1) % 3)]];
      const [sa, sb] = [side(a), side(b)];
      if (sa < 0 === sb < 0) continue;
      const f = sa / (sa - sb);
      hits.push(along(a) + f * (along(b) - along(a)), p[3 * a + 2] + f * (p[3 * b + 2] - p[3 * a + 2]));
    }
    if (hits.length === 4) out.push(hits as [number, number, number, number]);
  }
  return out;
}
