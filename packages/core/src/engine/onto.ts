import { toIndex, toMap } from '../earth/binGrid.ts';
import type { Volume } from '../earth/objects.ts';
import { type Region, sizeOf } from '../numerics/block.ts';
import type { Reader } from './evaluate.ts';
import type { VolumeGrid } from './local.ts';

/**
 * Samples of a volume at those of another grid: between bins and samples by trilinear interpolation, NaN outside it and
 * beside what it has not. Bins that lie on each other are taken as they are.
 * @param between whether there is something between its bins, or between its samples only
 */
export async function readOnto(
  volume: Volume,
  grid: VolumeGrid,
  region: Region,
  read: Reader,
  between: 'all' | 'samples' = 'all',
): Promise<Float32Array> {
  const [ni, nj, nk] = sizeOf(region);
  const at = (i: number, j: number) => toIndex(volume.binGrid, ...toMap(grid.binGrid, i, j));
  const { i, j, k } = region;
  const corners = [at(i[0], j[0]), at(i[0], j[1] - 1), at(i[1] - 1, j[0]), at(i[1] - 1, j[1] - 1)];
  const { vertical } = volume;
  const down = (n: number) => (grid.vertical.first + n * grid.vertical.step - vertical.first) / vertical.step;
  const span = (values: number[], most: number): [number, number] => {
    const low = Math.max(0, Math.floor(Math.min(...values) - 1e-6));
    return [low, Math.max(low, Math.min(most, Math.ceil(Math.max(...values) + 1e-6) + 1))];
  };
  const from: Region = {
    i: span(
      corners.map((c) => c[0]),
      volume.binGrid.inline.count,
    ),
    j: span(
      corners.map((c) => c[1]),
      volume.binGrid.crossline.count,
    ),
    k: span([down(k[0]), down(k[1] - 1)], vertical.count),
  };
  const out = new Float32Array(ni * nj * nk).fill(Number.NaN);
  const size = sizeOf(from);
  if (size.some((n) => n <= 0)) return out;
  const data = await read(volume, from);
  for (let a = 0; a < ni; a++)
    for (let b = 0; b < nj; b++) {
      const [x, y] = at(i[0] + a, j[0] + b);
      if (between === 'samples' && !(onOne(x) && onOne(y))) continue;
      for (let c = 0; c < nk; c++)
        out[(a * nj + b) * nk + c] = mixed(data, size, x - from.i[0], y - from.j[0], down(k[0] + c) - from.k[0]);
    }
  return out;
}

/** Parts of the two samples on either side of a place along an axis; a place on a sample has no other. */
function sides(x: number, count: number): [number, number, number] | null {
  const near = Math.round(x);
  if (Math.abs(x - near) < 1e-4) return near >= 0 && near < count ? [near, near, 0] : null;
  const low = Math.floor(x);
  return low >= 0 && low + 1 < count ? [low, low + 1, x - low] : null;
}

/** Whether a place is that of a line. */
const onOne = (x: number) => Math.abs(x - Math.round(x)) < 1e-3;

function mixed(data: Float32Array, [ni, nj, nk]: [number, number, number], x: number, y: number, z: number): number {
  const [a, b, c] = [sides(x, ni), sides(y, nj), sides(z, nk)];
  if (!a || !b || !c) return Number.NaN;
  let sum = 0;
  for (const i of [0, 1])
    for (const j of [0, 1])
      for (const k of [0, 1]) {
        const part = (i ? a[2] : 1 - a[2]) * (j ? b[2] : 1 - b[2]) * (k ? c[2] : 1 - c[2]);
        if (part > 0) sum += part * data[(a[i] * nj + b[j]) * nk + c[k]];
      }
  return sum;
}
