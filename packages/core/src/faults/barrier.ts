import { type BinGrid, toIndex } from '../earth/binGrid.ts';
import { heed } from '../numerics/stop.ts';
import type { Mesh } from './surface.ts';

/**
 * Which steps between neighbouring bins a set of fault surfaces forbids, level by level down the section.
 * Bit 1: from `(i, j)` to `(i + 1, j)`; bit 2: from `(i, j)` to `(i, j + 1)`.
 */
export interface Barrier {
  first: number;
  step: number;
  levels: Uint8Array[];
  columns: number;
}

/** Horizontal cuts of the surfaces every `step`, marked on the edges of the bin grid that they cross. */
export function makeBarrier(binGrid: BinGrid, meshes: Mesh[], first: number, last: number, step: number): Barrier {
  const rows = binGrid.inline.count;
  const columns = binGrid.crossline.count;
  const levels: Uint8Array[] = [];
  const indexed = meshes.map((mesh) => {
    const points = new Float64Array(mesh.points.length);
    for (let n = 0; n < points.length; n += 3) {
      const [i, j] = toIndex(binGrid, mesh.points[n], mesh.points[n + 1]);
      points.set([i, j, mesh.points[n + 2]], n);
    }
    return { points, triangles: mesh.triangles };
  });
  for (let level = first; level <= last; level += step) {
    heed();
    const edges = new Uint8Array(rows * columns);
    for (const { points: p, triangles: t } of indexed)
      for (let k = 0; k < t.length; k += 3) {
        const hits: number[] = [];
        for (let e = 0; e < 3; e++) {
          const [a, b] = [3 * t[k + e], 3 * t[k + ((e + 1) % 3)]];
          if (p[a + 2] < level === p[b + 2] < level) continue;
          const f = (level - p[a + 2]) / (p[b + 2] - p[a + 2]);
          hits.push(p[a] + f * (p[b] - p[a]), p[a + 1] + f * (p[b + 1] - p[a + 1]));
        }
        if (hits.length === 4) mark(edges, rows, columns, hits[0], hits[1], hits[2], hits[3]);
      }
    levels.push(edges);
  }
  return { first, step, levels, columns };
}

/** Mark every bin grid edge that a segment crosses. */
function mark(edges: Uint8Array, rows: number, columns: number, i0: number, j0: number, i1: number, j1: number): void {
  // lines of constant j are crossed by moving in j: they block steps in i's neighbour direction at that crossing
  const lowJ = Math.ceil(Math.min(j0, j1));
  const highJ = Math.floor(Math.max(j0, j1));
  for (let j = Math.max(0, lowJ); j <= Math.min(columns - 1, highJ); j++) {
    const f = j1 === j0 ? 0 : (j - j0) / (j1 - j0);
    const i = Math.floor(i0 + f * (i1 - i0));
    if (i >= 0 && i < rows - 1) edges[i * columns + j] |= 1;
  }
  const lowI = Math.ceil(Math.min(i0, i1));
  const highI = Math.floor(Math.max(i0, i1));
  for (let i = Math.max(0, lowI); i <= Math.min(rows - 1, highI); i++) {
    const f = i1 === i0 ? 0 : (i - i0) / (i1 - i0);
    const j = Math.floor(j0 + f * (j1 - j0));
    if (j >= 0 && j < columns - 1) edges[i * columns + j] |= 2;
  }
}

/** Whether a step from bin `(i, j)` by `(di, dj)` (one of them ±1, the other 0) at a time crosses a fault. */
export function blocked(barrier: Barrier, i: number, j: number, di: number, dj: number, time: number): boolean {
  const n = Math.round((time - barrier.first) / barrier.step);
  const edges = barrier.levels[Math.max(0, Math.min(barrier.levels.length - 1, n))];
  if (!edges) return false;
  const at = (i + Math.min(0, di)) * barrier.columns + j + Math.min(0, dj);
  return (edges[at] & (di !== 0 ? 1 : 2)) !== 0;
}
