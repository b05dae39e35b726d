import { stopIf } from '../earth/errors.ts';
import type { ArrayRef, Volume } from '../earth/objects.ts';
import { chunkLength, createArray, readChunk, writeChunk } from './arrays.ts';
import type { Store } from './store.ts';

/**
 * A volume is kept three times, each copy cut for one kind of plane: a few reads of about a megabyte show any inline,
 * crossline or slice. (From idb a read costs about 0.6 ms whatever its size, so that many small bricks are slower than
 * a few slabs; the price is three times the space.) All three are cut from a group of inlines while it is in memory, so
 * that a volume of any size is written in one pass; a crossline or slice is then in as many pieces as there are groups.
 */
export type Plane = 'inline' | 'crossline' | 'slice';

export const PLANES: Plane[] = ['inline', 'crossline', 'slice'];
const AXIS = { inline: 0, crossline: 1, slice: 2 } as const;
const DIMENSIONS = ['inline', 'crossline', 'sample'];
const SLAB_BYTES = 1 << 20;
/** Most bytes read to show one crossline or slice of a volume that has many groups. */
const PLANE_BYTES = 24 << 20;
/** Most samples held at once while copies are cut: 16 million, 64 MB. */
const HELD = 16e6;

export type Shape3 = [inlines: number, crosslines: number, samples: number];

/** Inlines in a slab of the copy by inlines, and in a group from which the other copies are cut. */
export function groupsOf([ni, nj, nk]: Shape3): { slab: number; group: number } {
  const slab = Math.min(ni, Math.max(1, Math.round(SLAB_BYTES / (4 * nj * nk))));
  return { slab, group: Math.min(Math.ceil(ni / slab), Math.max(1, Math.floor(HELD / (nj * nk * slab)))) * slab };
}

/** How a copy for one kind of plane is cut; `scaled` where samples are kept in 16 bits. */
export function layoutFor(key: string, shape: Shape3, plane: Plane, scaled?: ArrayRef['scaled']): ArrayRef {
  const { slab, group } = groupsOf(shape);
  const chunk = [...shape];
  if (plane === 'inline') chunk[0] = slab;
  else {
    const axis = AXIS[plane];
    chunk[0] = Math.min(shape[0], group);
    const other = shape[plane === 'crossline' ? 2 : 1];
    const most = Math.floor(PLANE_BYTES / (4 * shape[0] * other));
    chunk[axis] = Math.min(shape[axis], Math.max(1, Math.min(most, Math.round(SLAB_BYTES / (4 * chunk[0] * other)))));
  }
  return { key: `${key}/${plane}`, shape, chunk, ...(scaled ? { scaled } : {}) };
}

/** Receives the inlines of a new volume in order and keeps them. */
export interface VolumeWriter {
  layouts: Volume['layouts'];
  /** Inlines in a slab of the inline copy. */
  slab: number;
  /** Inlines in a group: slabs written a whole group at a time are not copied. */
  group: number;
  /**
   * Write whole slabs beginning at inline `i0`, the one after those written last: `[inline][crossline][sample]`,
   * padded with NaN past the last inline.
   */
  write(i0: number, data: Float32Array): Promise<void>;
  /** Write what is held of the last group. */
  finish(): Promise<void>;
}

export async function volumeWriter(
  store: Store,
  id: string,
  shape: Shape3,
  scaled?: ArrayRef['scaled'],
): Promise<VolumeWriter> {
  const layouts = {
    inline: layoutFor(id, shape, 'inline', scaled),
    crossline: layoutFor(id, shape, 'crossline', scaled),
    slice: layoutFor(id, shape, 'slice', scaled),
  };
  for (const plane of PLANES) await createArray(store, layouts[plane], DIMENSIONS);
  const { slab, group } = groupsOf(shape);
  const [ni, nj, nk] = shape;
  const cutter = planeCutter(store, layouts);
  let held: Float32Array | null = null;
  let from = 0;
  return {
    layouts,
    slab,
    group,
    async write(i0, data) {
      const lines = data.length / (nj * nk);
      await writePieces(store, layouts.inline, data, lines / slab, (n) => [i0 / slab + n, 0, 0]);
      if (!held && (lines === group || i0 + lines >= ni)) {
        await cutter(i0, data);
        return;
      }
      if (!held) {
        held = new Float32Array(group * nj * nk).fill(Number.NaN);
        from = i0;
      }
      held.set(data, (i0 - from) * nj * nk);
      if (i0 + lines - from === group || i0 + lines >= ni) {
        await cutter(from, held);
        held = null;
      }
    },
    async finish() {
      if (held) await cutter(from, held);
      held = null;
    },
  };
}

/** Make the copies for crosslines and slices from that for inlines. */
export async function remakePlanes(
  store: Store,
  layouts: Volume['layouts'],
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<void> {
  const { inline } = layouts;
  const [ni, nj, nk] = inline.shape;
  const { group } = groupsOf([ni, nj, nk]);
  for (const plane of ['crossline', 'slice'] as const)
    if (layouts[plane]) await createArray(store, layouts[plane], DIMENSIONS);
  const cutter = planeCutter(store, layouts);
  const held = new Float32Array(group * nj * nk);
  for (let i0 = 0; i0 < ni; i0 += group) {
    held.fill(Number.NaN);
    for (let i = i0; i < Math.min(ni, i0 + group); i += inline.chunk[0]) {
      stopIf(signal);
      held.set(await readChunk(store, inline, [i / inline.chunk[0], 0, 0]), (i - i0) * nj * nk);
    }
    await cutter(i0, held);
    onProgress?.(Math.min(1, (i0 + group) / ni));
  }
}

/** Writes at work at once, so that a store's threads have something to do. */
const WRITES = 8;

/** Write pieces that lie one after the other in a buffer, a few at a time. */
async function writePieces(
  store: Store,
  ref: ArrayRef,
  pieces: Float32Array,
  count: number,
  at: (piece: number) => number[],
): Promise<void> {
  const length = chunkLength(ref);
  for (let from = 0; from < count; from += WRITES)
    await Promise.all(
      Array.from({ length: Math.min(WRITES, count - from) }, (_, n) =>
        writeChunk(store, ref, at(from + n), pieces.subarray((from + n) * length, (from + n + 1) * length)),
      ),
    );
}

/** Cuts a group of inlines for crosslines and slices and writes the pieces. */
function planeCutter(store: Store, layouts: Volume['layouts']) {
  const [ni, nj, nk] = layouts.inline.shape;
  let buffer = new Float32Array(0);
  /** A buffer for all pieces of a copy; empty where the pieces are not filled to their edges. */
  const pieces = (ref: ArrayRef, count: number, whole: boolean): Float32Array => {
    const length = count * chunkLength(ref);
    if (buffer.length < length) buffer = new Float32Array(length);
    const out = buffer.subarray(0, length);
    if (!whole) out.fill(Number.NaN);
    return out;
  };
  const crosslines = async (ref: ArrayRef, i0: number, data: Float32Array, lines: number) => {
    const thick = ref.chunk[1];
    const count = Math.ceil(nj / thick);
    const out = pieces(ref, count, lines === ref.chunk[0] && nj % thick === 0);
    const length = chunkLength(ref);
    for (let i = 0; i < lines; i++)
      for (let s = 0; s < count; s++) {
        const at = (i * nj + s * thick) * nk;
        out.set(data.subarray(at, at + Math.min(thick, nj - s * thick) * nk), s * length + i * thick * nk);
      }
    await writePieces(store, ref, out, count, (s) => [i0 / ref.chunk[0], s, 0]);
  };
  const slices = async (ref: ArrayRef, i0: number, data: Float32Array, lines: number) => {
    const thick = ref.chunk[2];
    const count = Math.ceil(nk / thick);
    const out = pieces(ref, count, lines === ref.chunk[0] && nk % thick === 0);
    const length = chunkLength(ref);
    const bins = lines * nj;
    // tiles that stay in the cache while samples become slices
    const TILE = 16;
    const BLOCK = Math.max(1, Math.floor(64 / thick)) * thick;
    for (let b0 = 0; b0 < bins; b0 += TILE)
      for (let k0 = 0; k0 < nk; k0 += BLOCK) {
        const b1 = Math.min(bins, b0 + TILE);
        const k1 = Math.min(nk, k0 + BLOCK);
        for (let k = k0; k < k1; k++) {
          const s = (k / thick) | 0;
          let to = s * length + b0 * thick + k - s * thick;
          for (let b = b0, from = b0 * nk + k; b < b1; b++, from += nk, to += thick) out[to] = data[from];
        }
      }
    await writePieces(store, ref, out, count, (s) => [i0 / ref.chunk[0], 0, s]);
  };
  return async (i0: number, data: Float32Array): Promise<void> => {
    const lines = Math.min(data.length / (nj * nk), ni - i0);
    if (layouts.crossline) await crosslines(layouts.crossline, i0, data, lines);
    if (layouts.slice) await slices(layouts.slice, i0, data, lines);
  };
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
