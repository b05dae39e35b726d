import { cutSlices, threadKernels } from '@lithagon/kernels';
import { stopIf } from '../earth/errors.ts';
import { toIndex } from '../earth/lattice.ts';
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

/** Samples above which a volume also keeps every fourth (or eighth) trace: 256 million, 1 GB. */
const LARGE = 256e6;

/** How far apart the traces of a volume's coarse copy are; null where none is kept. */
export function coarseBy([ni, nj, nk]: Shape3, large = LARGE): number | null {
  const samples = ni * nj * nk;
  return samples <= large ? null : samples <= 8 * large ? 4 : 8;
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
  large = LARGE,
): Promise<VolumeWriter> {
  const layouts: Volume['layouts'] & Record<Plane, ArrayRef> = {
    inline: layoutFor(id, shape, 'inline', scaled),
    crossline: layoutFor(id, shape, 'crossline', scaled),
    slice: layoutFor(id, shape, 'slice', scaled),
  };
  for (const plane of PLANES) await createArray(store, layouts[plane], DIMENSIONS);
  const coarse = await coarseWriter(store, id, shape, scaled, coarseBy(shape, large));
  if (coarse) layouts.coarse = coarse.layouts;
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
      await coarse?.take(i0, data);
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
      await coarse?.finish();
    },
  };
}

/** Keeps every `by`-th trace of every `by`-th inline of a large volume as a small volume of its own. */
async function coarseWriter(
  store: Store,
  id: string,
  [ni, nj, nk]: Shape3,
  scaled: ArrayRef['scaled'] | undefined,
  by: number | null,
) {
  if (by === null) return null;
  const [ci, cj] = [Math.ceil(ni / by), Math.ceil(nj / by)];
  const writer = await volumeWriter(store, `${id}/coarse`, [ci, cj, nk], scaled, Number.POSITIVE_INFINITY);
  const { inline, crossline, slice } = writer.layouts as Record<Plane, ArrayRef>;
  let slab = new Float32Array(writer.slab * cj * nk).fill(Number.NaN);
  let kept = 0;
  const flush = async () => {
    await writer.write(Math.floor((kept - 1) / writer.slab) * writer.slab, slab);
    slab = new Float32Array(slab.length).fill(Number.NaN);
  };
  return {
    layouts: { by, inline, crossline, slice },
    /** Take what is wanted of whole inlines from `i0` on. */
    async take(i0: number, data: Float32Array) {
      const lines = Math.min(data.length / (nj * nk), ni - i0);
      for (let i = Math.ceil(i0 / by) * by; i < i0 + lines; i += by) {
        for (let j = 0; j < cj; j++) {
          const from = ((i - i0) * nj + j * by) * nk;
          slab.set(data.subarray(from, from + nk), ((kept % writer.slab) * cj + j) * nk);
        }
        kept++;
        if (kept % writer.slab === 0) await flush();
      }
    },
    async finish() {
      if (kept % writer.slab !== 0) await flush();
      await writer.finish();
    },
  };
}

/** Make the copies for crosslines and slices, and the coarse ones, from that for inlines. */
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
  const id = inline.key.replace(/\/inline$/, '');
  const coarse = await coarseWriter(store, id, [ni, nj, nk], inline.scaled, layouts.coarse?.by ?? null);
  const held = new Float32Array(group * nj * nk);
  for (let i0 = 0; i0 < ni; i0 += group) {
    held.fill(Number.NaN);
    for (let i = i0; i < Math.min(ni, i0 + group); i += inline.chunk[0]) {
      stopIf(signal);
      held.set(await readChunk(store, inline, [i / inline.chunk[0], 0, 0]), (i - i0) * nj * nk);
    }
    await cutter(i0, held);
    await coarse?.take(i0, held);
    onProgress?.(Math.min(1, (i0 + group) / ni));
  }
  await coarse?.finish();
}

/** Writes asked for in one go, so that a store's threads have something to do; two goes are under way at once. */
const WRITES = 12;

/** Write pieces that lie one after the other in a buffer, a few at a time; where one fails, none is still under way. */
async function writePieces(
  store: Store,
  ref: ArrayRef,
  pieces: Float32Array,
  count: number,
  at: (piece: number) => number[],
): Promise<void> {
  const length = chunkLength(ref);
  let before: Promise<PromiseSettledResult<void>[]> = Promise.resolve([]);
  for (let from = 0; from < count + WRITES; from += WRITES) {
    const now = Promise.allSettled(
      Array.from({ length: Math.max(0, Math.min(WRITES, count - from)) }, (_, n) =>
        writeChunk(store, ref, at(from + n), pieces.subarray((from + n) * length, (from + n + 1) * length)),
      ),
    );
    const failed = (await before).find((e) => e.status === 'rejected');
    if (failed) {
      await now;
      throw failed.reason;
    }
    before = now;
  }
}

/** Cuts a group of inlines for crosslines and slices and writes the pieces. */
function planeCutter(store: Store, layouts: Omit<Volume['layouts'], 'coarse'>) {
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
    const out = pieces(ref, count, lines === ref.chunk[0]);
    const length = chunkLength(ref);
    for (let i = 0; i < lines; i++) {
      const cut = cutSlices(threadKernels(), data.subarray(i * nj * nk, (i + 1) * nj * nk), nj, thick);
      for (let s = 0; s < count; s++)
        out.set(cut.pieces.subarray(s * cut.length, (s + 1) * cut.length), s * length + i * cut.length);
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
  const ref = volume.layouts[plane];
  if (!ref) throw new Error(`volume ${volume.name} has no copy for ${plane}s`);
  return planeOf(store, ref, plane, index);
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
