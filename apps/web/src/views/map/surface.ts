import { type BinGrid, type Domain, gridAt, type Mesh, toIndex } from '@lithagon/core';
import { verticalOf } from '../common/domains';

/** A surface that a map shows, in its view's domain. */
export interface Surface {
  binGrid: BinGrid;
  values: Float32Array;
}

/** A slice as a surface: the same time or depth all over. */
export const levelAt = (binGrid: BinGrid, value: number): Surface => ({
  binGrid,
  values: new Float32Array(binGrid.inline.count * binGrid.crossline.count).fill(value),
});

/** How far round a place a surface is looked for where it has a gap, bins: tracks stop short of faults. */
const AROUND = 12;

/** Time or depth of a surface at a place; beside a gap that of the nearest bin that has one; NaN farther off. */
export function surfaceAt({ binGrid, values }: Surface, x: number, y: number): number {
  const here = gridAt(values, binGrid, x, y);
  if (!Number.isNaN(here)) return here;
  const [i, j] = toIndex(binGrid, x, y).map(Math.round);
  let [best, far] = [Number.NaN, Number.POSITIVE_INFINITY];
  for (let a = Math.max(0, i - AROUND); a <= Math.min(binGrid.inline.count - 1, i + AROUND); a++)
    for (let b = Math.max(0, j - AROUND); b <= Math.min(binGrid.crossline.count - 1, j + AROUND); b++) {
      const value = values[a * binGrid.crossline.count + b];
      const off = (a - i) ** 2 + (b - j) ** 2;
      if (!Number.isNaN(value) && off < far) [best, far] = [value, off];
    }
  return best;
}

/** Where a fault meets a surface, as pieces of line on the map. */
export function faultTrace(mesh: Mesh, surface: Surface): [[number, number], [number, number]][] {
  const count = mesh.points.length / 3;
  const over = Array.from({ length: count }, (_, n) => {
    const [x, y, v] = mesh.points.subarray(3 * n, 3 * n + 3);
    return v - surfaceAt(surface, x, y);
  });
  const out: [[number, number], [number, number]][] = [];
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const corners = [mesh.triangles[t], mesh.triangles[t + 1], mesh.triangles[t + 2]];
    const cuts: [number, number][] = [];
    for (let c = 0; c < 3; c++) {
      const [a, b] = [corners[c], corners[(c + 1) % 3]];
      if (!(over[a] < 0 !== over[b] < 0) || Number.isNaN(over[a]) || Number.isNaN(over[b])) continue;
      const f = over[a] / (over[a] - over[b]);
      cuts.push([
        mesh.points[3 * a] + f * (mesh.points[3 * b] - mesh.points[3 * a]),
        mesh.points[3 * a + 1] + f * (mesh.points[3 * b + 1] - mesh.points[3 * a + 1]),
      ]);
    }
    if (cuts.length === 2) out.push([cuts[0], cuts[1]]);
  }
  return out;
}

/** Where a well's path first goes through a surface, on the map; null where it does not. */
export function pathThrough(
  points: [number, number, number, number][],
  surface: Surface,
  domain: Domain,
): [number, number] | null {
  let before: [number, number, number] | null = null;
  for (const [x, y, tvdss, twt] of points) {
    const off = verticalOf(domain, twt, tvdss) - surfaceAt(surface, x, y);
    if (Number.isNaN(off)) continue;
    if (before && before[2] < 0 && off >= 0) {
      const f = before[2] / (before[2] - off);
      return [before[0] + f * (x - before[0]), before[1] + f * (y - before[1])];
    }
    before = [x, y, off];
  }
  return null;
}
