import { describe, expect, test } from 'vitest';
import { normal } from '../testing/random.ts';
import { edgeOf, rimDepths } from './bodyEdge.ts';
import { bodyMesh } from './bodySurface.ts';

/** Runs of what passes a test in a block. */
function runsWhere(size: number, test: (i: number, j: number, k: number) => boolean) {
  const out = { i: [] as number[], j: [] as number[], from: [] as number[], to: [] as number[] };
  for (let i = 0; i < size; i++)
    for (let j = 0; j < size; j++)
      for (let k = 0; k < size; k++) {
        if (!test(i, j, k)) continue;
        const first = k;
        while (k < size && test(i, j, k)) k++;
        out.i.push(i);
        out.j.push(j);
        out.from.push(first);
        out.to.push(k);
      }
  return out;
}

/** What a closed surface encloses, by the divergence theorem; positive where its sides face outward. */
function volumeOf({ positions: p, triangles: t }: ReturnType<typeof bodyMesh>): number {
  let sum = 0;
  for (let n = 0; n < t.length; n += 3) {
    const [a, b, c] = [t[n], t[n + 1], t[n + 2]].map((v) => [p[3 * v], p[3 * v + 1], p[3 * v + 2]]);
    sum += a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
  }
  return sum / 6;
}

/** Every edge of a closed surface is shared by two sides that run along it in opposite ways. */
function isClosed({ triangles: t }: ReturnType<typeof bodyMesh>): boolean {
  const edges = new Map<string, number>();
  for (let n = 0; n < t.length; n += 3)
    for (const [a, b] of [
      [t[n], t[n + 1]],
      [t[n + 1], t[n + 2]],
      [t[n + 2], t[n]],
    ]) {
      const key = a < b ? `${a} ${b}` : `${b} ${a}`;
      edges.set(key, (edges.get(key) ?? 0) + (a < b ? 1 : -1));
    }
  return [...edges.values()].every((v) => v === 0);
}

describe('the surface of a body', () => {
  test('is closed, faces outward and encloses it', () => {
    const ball = runsWhere(24, (i, j, k) => (i - 11) ** 2 + (j - 12) ** 2 + (k - 10) ** 2 < 81);
    const samples = ball.from.reduce((sum, from, n) => sum + ball.to[n] - from, 0);
    const mesh = bodyMesh(ball);
    expect(isClosed(mesh)).toBe(true);
    // corners in the middle of crossings cut the steps of a ball by a little
    expect(volumeOf(mesh) / samples).toBeGreaterThan(0.9);
    expect(volumeOf(mesh) / samples).toBeLessThan(1.02);
    const mean = [0, 1, 2].map((c) => {
      const values = mesh.positions.filter((_, n) => n % 3 === c);
      return values.reduce((a, v) => a + v, 0) / values.length;
    });
    for (const [n, want] of [11, 12, 10].entries()) expect(Math.abs(mean[n] - want)).toBeLessThan(0.05);
  });
  test('of a single sample and of what has a hole is closed as well', () => {
    expect(isClosed(bodyMesh({ i: [3], j: [4], from: [5], to: [6] }))).toBe(true);
    const shell = runsWhere(16, (i, j, k) => {
      const r = (i - 7) ** 2 + (j - 7) ** 2 + (k - 7) ** 2;
      return r < 40 && r > 12;
    });
    const mesh = bodyMesh(shell);
    expect(isClosed(mesh)).toBe(true);
    expect(bodyMesh({ i: [], j: [], from: [], to: [] }).triangles.length).toBe(0);
  });
});

describe('the edge of a body', () => {
  const [lines, traces] = [60, 70];
  const dome = Float32Array.from({ length: lines * traces }, (_, n) => {
    const [i, j] = [Math.floor(n / traces), n % traces];
    return 1000 + 0.05 * ((i - 28) ** 2 + 1.4 * (j - 33) ** 2) + 4 * Math.sin(i / 7) * Math.cos(j / 9);
  });
  const where = (test: (n: number) => boolean) => Uint8Array.from(dome, (_, n) => (test(n) ? 1 : 0));

  test('that follows a contour lies at its depth, and is flatter than chance would make it', () => {
    const edge = edgeOf(
      where((n) => dome[n] < 1020),
      dome,
      lines,
      traces,
    );
    expect(Math.abs((edge?.middle ?? 0) - 1020)).toBeLessThan(0.8);
    expect(edge?.spread).toBeLessThan(1.2);
    expect(edge?.chance).toBeLessThan(0.02);
  });
  test('that lies across contours is no flatter than chance', () => {
    const random = normal(4);
    const noisy = dome.map((v) => v + 0.5 * random());
    const edge = edgeOf(
      where((n) => (Math.floor(n / traces) - 20) ** 2 + ((n % traces) - 50) ** 2 < 120),
      noisy,
      lines,
      traces,
    );
    expect(edge?.chance).toBeGreaterThan(0.1);
  });
  test('is that down dip alone, and is none where there is no surface', () => {
    const plane = Float32Array.from({ length: lines * traces }, (_, n) => Math.floor(n / traces));
    const block = where(
      (n) => Math.floor(n / traces) >= 10 && Math.floor(n / traces) < 20 && n % traces > 5 && n % traces < 30,
    );
    expect(new Set(rimDepths(block, plane, lines, traces))).toEqual(new Set([19.5]));
    expect(
      edgeOf(
        block,
        plane.map(() => Number.NaN),
        lines,
        traces,
      ),
    ).toBeNull();
  });
});
