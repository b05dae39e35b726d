import { LithagonError } from '../earth/errors.ts';
import { toIndex } from '../earth/lattice.ts';
import type { ArrayRef, Volume } from '../earth/objects.ts';
import { readChunk } from './arrays.ts';
import type { Store } from './store.ts';
import { AXIS, type Plane, type Shape3 } from './volumes.ts';

export function shapeOf(volume: Volume): Shape3 {
  return [volume.lattice.inline.count, volume.lattice.crossline.count, volume.vertical.count];
}

/**
 * One plane: inline `[crossline][sample]`, crossline `[inline][sample]`, slice `[inline][crossline]`. Where the volume is
 * not cut for its kind yet, all inlines are read for it.
 */
export async function readPlane(store: Store, volume: Volume, plane: Plane, index: number): Promise<Float32Array> {
  const ref = volume.layouts[plane];
  const { inline } = volume.layouts;
  if (!ref) return planeOfInlines(store, inline, plane, index);
  try {
    return await planeOf(store, ref, plane, index);
  } catch (cause) {
    // the copies for crosslines and slices hold nothing that the one by inlines has not
    if (plane !== 'inline' && cause instanceof LithagonError && cause.code === 'damaged')
      return planeOfInlines(store, inline, plane, index);
    throw cause;
  }
}

/** A crossline or slice put together from the copy by inlines, a slab at a time. */
async function planeOfInlines(store: Store, ref: ArrayRef, plane: Plane, index: number): Promise<Float32Array> {
  const [ni, nj, nk] = ref.shape;
  const thick = ref.chunk[0];
  const along = plane === 'crossline' ? nk : nj;
  const out = new Float32Array(ni * along);
  for (let i0 = 0; i0 < ni; i0 += thick) {
    const data = await readChunk(store, ref, [i0 / thick, 0, 0]);
    for (let i = i0; i < Math.min(ni, i0 + thick); i++) {
      const at = (i - i0) * nj * nk;
      if (plane === 'crossline') out.set(data.subarray(at + index * nk, at + (index + 1) * nk), i * nk);
      else for (let j = 0; j < nj; j++) out[i * nj + j] = data[at + j * nk + index];
    }
  }
  return out;
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
  const { coarse } = volume.layouts;
  if (!coarse) return null;
  const [ni, nj, nk] = shapeOf(volume);
  const { by } = coarse;
  const [ci, cj] = coarse.inline.shape;
  if (plane === 'slice') {
    const from = await planeOf(store, coarse.slice, 'slice', index);
    const wide = spread(from, ci, cj, nj, by, 1);
    return spread(wide, 1, ci, ni, by, nj);
  }
  const most = plane === 'inline' ? ci : cj;
  const from = await planeOf(store, coarse[plane], plane, Math.min(most - 1, Math.round(index / by)));
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

async function planeOf(store: Store, ref: ArrayRef, plane: Plane, index: number): Promise<Float32Array> {
  const [ni, nj, nk] = ref.shape;
  const thick = ref.chunk[AXIS[plane]];
  const s = Math.floor(index / thick);
  const o = index - s * thick;
  if (plane === 'inline') {
    const data = await readChunk(store, ref, [s, 0, 0]);
    return data.slice(o * nj * nk, (o + 1) * nj * nk);
  }
  const along = plane === 'crossline' ? nk : nj;
  const out = new Float32Array(ni * along);
  const lines = ref.chunk[0];
  await Promise.all(
    Array.from({ length: Math.ceil(ni / lines) }, async (_, g) => {
      const data = await readChunk(store, ref, plane === 'crossline' ? [g, s, 0] : [g, 0, s]);
      const count = Math.min(lines, ni - g * lines);
      const at = g * lines * along;
      if (plane === 'crossline')
        for (let i = 0; i < count; i++)
          out.set(data.subarray((i * thick + o) * nk, (i * thick + o + 1) * nk), at + i * nk);
      else for (let n = 0; n < count * nj; n++) out[at + n] = data[n * thick + o];
    }),
  );
  return out;
}

/**
 * Traces at places on the map `[place][sample]`, between bins by bilinear interpolation, NaN outside. Slabs of inlines
 * are read one after the other, so that memory is bounded by a slab whatever the line crosses.
 */
export async function readAlong(store: Store, volume: Volume, places: [number, number][]): Promise<Float32Array> {
  const [ni, nj, nk] = shapeOf(volume);
  const at = places.map(([x, y]) => toIndex(volume.lattice, x, y));
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
export async function readInlines(store: Store, volume: Volume, i0: number, i1: number): Promise<Float32Array> {
  const [ni, nj, nk] = shapeOf(volume);
  const ref = volume.layouts.inline;
  const thick = ref.chunk[0];
  const out = new Float32Array((i1 - i0) * nj * nk).fill(Number.NaN);
  const from = Math.max(0, i0);
  const to = Math.min(ni, i1);
  for (let s = Math.floor(from / thick); s * thick < to; s++) {
    const data = await readChunk(store, ref, [s, 0, 0]);
    const a = Math.max(from, s * thick);
    const b = Math.min(to, (s + 1) * thick);
    out.set(data.subarray((a - s * thick) * nj * nk, (b - s * thick) * nj * nk), (a - i0) * nj * nk);
  }
  return out;
}
