import { toIndex } from '../earth/binGrid.ts';
import type { Volume } from '../earth/objects.ts';
import type { Region, Shape3 } from '../numerics/block.ts';
import { readFrom, readRegion } from './regions.ts';
import type { Store } from './store.ts';
import { groupsOf, type Plane } from './volumes.ts';

export function shapeOf(volume: Volume): Shape3 {
  return [volume.binGrid.inline.count, volume.binGrid.crossline.count, volume.vertical.count];
}

/** The region that is one plane of a volume. */
export function planeRegion([ni, nj, nk]: Shape3, plane: Plane, index: number): Region {
  const only: [number, number] = [index, index + 1];
  return {
    i: plane === 'inline' ? only : [0, ni],
    j: plane === 'crossline' ? only : [0, nj],
    k: plane === 'slice' ? only : [0, nk],
  };
}

/**
 * One plane: inline `[crossline][sample]`, crossline `[inline][sample]`, slice `[inline][crossline]`. Where the volume is
 * not cut for its kind yet, all inlines are read for it; of a live volume it is worked out.
 */
export function readPlane(store: Store, volume: Volume, plane: Plane, index: number): Promise<Float32Array> {
  return readRegion(store, volume, planeRegion(shapeOf(volume), plane, index));
}

/**
 * A first look at a plane of a large volume from its coarse copy, at the size of the whole plane: the nearest kept line,
 * traces between those kept by interpolation. Null where the volume has no coarse copy.
 */
export async function readCoarsePlane(
  store: Store,
  volume: Volume,
  plane: Plane,
  index: number,
): Promise<Float32Array | null> {
  const coarse = volume.layouts?.coarse;
  if (!coarse) return null;
  const [ni, nj, nk] = shapeOf(volume);
  const { by } = coarse;
  const [ci, cj] = coarse.inline.shape;
  const planeOf = (of: Plane, n: number) =>
    readFrom(store, coarse[of], planeRegion(coarse.inline.shape as Shape3, of, n));
  if (plane === 'slice') {
    const from = await planeOf('slice', index);
    const wide = spread(from, ci, cj, nj, by, 1);
    return spread(wide, 1, ci, ni, by, nj);
  }
  const most = plane === 'inline' ? ci : cj;
  const from = await planeOf(plane, Math.min(most - 1, Math.round(index / by)));
  return plane === 'inline' ? spread(from, 1, cj, nj, by, nk) : spread(from, 1, ci, ni, by, nk);
}

/** `rows` of `count` items `unit` samples long, spread to `wanted` items by linear interpolation; held at the end. */
function spread(from: Float32Array, rows: number, count: number, wanted: number, by: number, unit: number) {
  const out = new Float32Array(rows * wanted * unit);
  for (let row = 0, to = 0; row < rows; row++)
    for (let n = 0; n < wanted; n++) {
      const a = Math.min(count - 1, Math.floor(n / by));
      const b = Math.min(count - 1, a + 1);
      const f = Math.min(1, n / by - a);
      let [p, q] = [(row * count + a) * unit, (row * count + b) * unit];
      // a kept item is itself, whatever is missing beside it
      if (f === 0) for (let k = 0; k < unit; k++) out[to++] = from[p++];
      else for (let k = 0; k < unit; k++) out[to++] = from[p++] * (1 - f) + from[q++] * f;
    }
  return out;
}

/**
 * Traces at places on the map `[place][sample]`, between bins by bilinear interpolation, NaN outside. Slabs of inlines
 * are read one after the other, so that memory is bounded by a slab whatever the line crosses.
 */
export async function readAlong(store: Store, volume: Volume, places: [number, number][]): Promise<Float32Array> {
  const [ni, nj, nk] = shapeOf(volume);
  const at = places.map(([x, y]) => toIndex(volume.binGrid, x, y));
  const out = new Float32Array(places.length * nk).fill(Number.NaN);
  const inside = at.map(([i, j]) => i >= 0 && j >= 0 && i <= ni - 1 && j <= nj - 1);
  const corners = at.map(([i, j]) => [
    Math.min(Math.floor(i), Math.max(0, ni - 2)),
    Math.min(Math.floor(j), Math.max(0, nj - 2)),
  ]);
  const lines = [...new Set(corners.filter((_, n) => inside[n]).map(([i]) => i))].sort((a, b) => a - b);
  for (const line of lines) {
    const pair = await readInlines(store, volume, line, Math.min(ni, line + 2));
    const second = ni > 1 ? nj * nk : 0;
    for (let n = 0; n < places.length; n++) {
      if (!inside[n] || corners[n][0] !== line) continue;
      const j = corners[n][1];
      const [f, g] = [at[n][0] - line, at[n][1] - j];
      const right = nj > 1 ? nk : 0;
      for (let k = 0; k < nk; k++) {
        const p = j * nk + k;
        out[n * nk + k] =
          (1 - f) * ((1 - g) * pair[p] + g * pair[p + right]) +
          f * ((1 - g) * pair[second + p] + g * pair[second + p + right]);
      }
    }
  }
  return out;
}

/** Inlines `[i0, i1)` of a volume, whole: `[inline][crossline][sample]`. Parts outside it are NaN. */
export function readInlines(store: Store, volume: Volume, i0: number, i1: number): Promise<Float32Array> {
  const [, nj, nk] = shapeOf(volume);
  return readRegion(store, volume, { i: [i0, i1], j: [0, nj], k: [0, nk] });
}

/** Inlines that are best read together: those of a slab of the copy by inlines. */
export function slabOf(volume: Volume): number {
  return volume.layouts?.inline.chunk[0] ?? groupsOf(shapeOf(volume)).slab;
}
