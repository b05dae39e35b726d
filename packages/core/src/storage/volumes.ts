import { stopIf } from '../earth/errors.ts';
import type { ArrayRef, Volume } from '../earth/objects.ts';
import { chunkLength, createArray, readChunk, writeChunk } from './arrays.ts';
import type { Store } from './store.ts';

/**
 * A volume is kept three times, each copy cut into slabs of whole planes of about a megabyte: one read shows any
 * inline, crossline or slice. (From idb a read costs about 0.6 ms whatever its size, so that many small bricks are
 * slower than a few slabs; the price is three times the space.)
 */
export type Plane = 'inline' | 'crossline' | 'slice';

export const PLANES: Plane[] = ['inline', 'crossline', 'slice'];
const AXIS = { inline: 0, crossline: 1, slice: 2 } as const;
const DIMENSIONS = ['inline', 'crossline', 'sample'];
const SLAB_BYTES = 1 << 20;
/** Most samples held at once while a copy is made: 32 million, 128 MB. */
const HELD = 32e6;

export type Shape3 = [inlines: number, crosslines: number, samples: number];

/** How a copy for one kind of plane is cut. */
export function layoutFor(key: string, shape: Shape3, plane: Plane): ArrayRef {
  const axis = AXIS[plane];
  const planeBytes = (4 * shape[0] * shape[1] * shape[2]) / shape[axis];
  const chunk = [...shape];
  chunk[axis] = Math.min(shape[axis], Math.max(1, Math.round(SLAB_BYTES / planeBytes)));
  return { key: `${key}/${plane}`, shape, chunk };
}

/** Receives the inlines of a new volume in order and keeps them. */
export interface VolumeWriter {
  layouts: Volume['layouts'];
  /** Inlines in a slab of the inline copy. */
  slab: number;
  /** Write the slab beginning at inline `i0`: `[slab][crossline][sample]`, padded with NaN past the last inline. */
  write(i0: number, data: Float32Array): Promise<void>;
  /** Make the copies for crosslines and slices. */
  finish(signal?: AbortSignal, onProgress?: (part: number) => void): Promise<void>;
}

export async function volumeWriter(store: Store, id: string, shape: Shape3): Promise<VolumeWriter> {
  const layouts = {
    inline: layoutFor(id, shape, 'inline'),
    crossline: layoutFor(id, shape, 'crossline'),
    slice: layoutFor(id, shape, 'slice'),
  };
  await createArray(store, layouts.inline, DIMENSIONS);
  const slab = layouts.inline.chunk[0];
  return {
    layouts,
    slab,
    write: (i0, data) => writeChunk(store, layouts.inline, [i0 / slab, 0, 0], data),
    finish: (signal, onProgress) => remakePlanes(store, layouts, signal, onProgress),
  };
}

/** Make the copies for crosslines and slices from that for inlines. */
export async function remakePlanes(
  store: Store,
  layouts: Volume['layouts'],
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<void> {
  const { inline, crossline, slice } = layouts;
  if (crossline) {
    await createArray(store, crossline, DIMENSIONS);
    await copyPlanes(store, inline, crossline, 1, signal, (p) => onProgress?.(p / 2));
  }
  if (slice) {
    await createArray(store, slice, DIMENSIONS);
    await copyPlanes(store, inline, slice, 2, signal, (p) => onProgress?.(0.5 + p / 2));
  }
}

/** Re-cut a volume along another axis: as many slabs at a time as memory allows, one pass over the inline copy each. */
async function copyPlanes(
  store: Store,
  from: ArrayRef,
  to: ArrayRef,
  axis: 1 | 2,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<void> {
  const [ni, nj, nk] = from.shape;
  const thick = to.chunk[axis];
  const slabs = Math.ceil(to.shape[axis] / thick);
  const group = Math.max(1, Math.floor(HELD / chunkLength(to)));
  const step = from.chunk[0];
  for (let s0 = 0; s0 < slabs; s0 += group) {
    const held = Array.from({ length: Math.min(group, slabs - s0) }, () =>
      new Float32Array(chunkLength(to)).fill(Number.NaN),
    );
    for (let i0 = 0; i0 < ni; i0 += step) {
      stopIf(signal);
      const data = await readChunk(store, from, [i0 / step, 0, 0]);
      const lines = Math.min(step, ni - i0);
      for (let i = 0; i < lines; i++)
        if (axis === 1)
          held.forEach((slab, s) => {
            const j0 = (s0 + s) * thick;
            const count = Math.min(thick, nj - j0) * nk;
            const at = (i * nj + j0) * nk;
            slab.set(data.subarray(at, at + count), (i0 + i) * thick * nk);
          });
        else
          for (let j = 0; j < nj; j++) {
            const trace = (i * nj + j) * nk;
            const at = ((i0 + i) * nj + j) * thick;
            for (let s = 0; s < held.length; s++) {
              const k0 = (s0 + s) * thick;
              const count = Math.min(thick, nk - k0);
              const slab = held[s];
              for (let k = 0; k < count; k++) slab[at + k] = data[trace + k0 + k];
            }
          }
      onProgress?.((s0 + held.length * ((i0 + lines) / ni)) / slabs);
    }
    for (let s = 0; s < held.length; s++) {
      stopIf(signal);
      await writeChunk(store, to, axis === 1 ? [0, s0 + s, 0] : [0, 0, s0 + s], held[s]);
    }
  }
}

export function shapeOf(volume: Volume): Shape3 {
  return [volume.lattice.inline.count, volume.lattice.crossline.count, volume.vertical.count];
}

/** One plane: inline `[crossline][sample]`, crossline `[inline][sample]`, slice `[inline][crossline]`. */
export async function readPlane(store: Store, volume: Volume, plane: Plane, index: number): Promise<Float32Array> {
  const [ni, nj, nk] = shapeOf(volume);
  const ref = volume.layouts[plane] ?? volume.layouts.inline;
  if (!volume.layouts[plane]) throw new Error(`volume ${volume.name} has no copy for ${plane}s`);
  const thick = ref.chunk[AXIS[plane]];
  const s = Math.floor(index / thick);
  const o = index - s * thick;
  if (plane === 'inline') {
    const data = await readChunk(store, ref, [s, 0, 0]);
    return data.slice(o * nj * nk, (o + 1) * nj * nk);
  }
  if (plane === 'crossline') {
    const data = await readChunk(store, ref, [0, s, 0]);
    const out = new Float32Array(ni * nk);
    for (let i = 0; i < ni; i++) out.set(data.subarray((i * thick + o) * nk, (i * thick + o + 1) * nk), i * nk);
    return out;
  }
  const data = await readChunk(store, ref, [0, 0, s]);
  const out = new Float32Array(ni * nj);
  for (let n = 0; n < out.length; n++) out[n] = data[n * thick + o];
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
