import { stopIf } from '../earth/errors.ts';
import type { ArrayRef, Volume } from '../earth/objects.ts';
import type { Shape3 } from '../numerics/block.ts';
import { createArray, readChunk, writeChunk } from './arrays.ts';
import { piecesOfGroup, putCrosslines, putSlices } from './groups.ts';
import { chunkLength } from './keys.ts';
import { storedOf } from './regions.ts';
import type { Store } from './store.ts';

/**
 * A volume is kept three times, each copy cut for one kind of plane: a few reads of about a megabyte show any inline,
 * crossline or slice. (From idb a read costs about 0.6 ms whatever its size, so that many small bricks are slower than
 * a few slabs; the price is three times the space.) The copies for crosslines and slices are cut from a group of inlines
 * while it is in memory, so that a volume of any size is written in one pass; a crossline or slice is then in as many
 * pieces as there are groups. A volume is whole with its copy by inlines: one that comes from a file has only that at
 * first, and is cut for the other planes while it is already being looked at.
 */
export type Plane = 'inline' | 'crossline' | 'slice';

/** The copies of a stored volume. */
export type Layouts = NonNullable<Volume['layouts']>;
export type StoredVolume = Volume & { layouts: Layouts };

export const PLANES: Plane[] = ['inline', 'crossline', 'slice'];
export const AXIS = { inline: 0, crossline: 1, slice: 2 } as const;
export const DIMENSIONS = ['inline', 'crossline', 'sample'];
const SLAB_BYTES = 1 << 20;
/** Most bytes read to show one crossline or slice of a volume that has many groups. */
const PLANE_BYTES = 24 << 20;
/** Most samples held at once while copies are cut: 16 million, 64 MB. */
const HELD = 16e6;

/** Inlines in a slab of the copy by inlines, and in a group from which the other copies are cut. */
export function groupsOf([ni, nj, nk]: Shape3, held = HELD): { slab: number; group: number } {
  const slab = Math.min(ni, Math.max(1, Math.round(SLAB_BYTES / (4 * nj * nk))));
  return { slab, group: Math.min(Math.ceil(ni / slab), Math.max(1, Math.floor(held / (nj * nk * slab)))) * slab };
}

/** How a copy for one kind of plane is cut; `scaled` where samples are kept in 16 bits. */
export function layoutFor(
  key: string,
  shape: Shape3,
  plane: Plane,
  scaled?: ArrayRef['scaled'],
  held?: number,
): ArrayRef {
  const { slab, group } = groupsOf(shape, held);
  const chunk = [...shape];
  if (plane === 'inline') chunk[0] = slab;
  else {
    const axis = AXIS[plane];
    chunk[0] = Math.min(shape[0], group);
    const other = shape[plane === 'crossline' ? 2 : 1];
    const most = Math.floor(PLANE_BYTES / (4 * shape[0] * other));
    chunk[axis] = Math.min(shape[axis], Math.max(1, Math.min(most, Math.round(SLAB_BYTES / (4 * chunk[0] * other)))));
  }
  return { key: `${key}/${plane}`, shape, chunk, flat: true, ...(scaled ? { scaled } : {}) };
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
  layouts: Layouts;
  /** Inlines in a slab of the inline copy. */
  slab: number;
  /** Inlines in a group: slabs written a whole group at a time are not copied. */
  group: number;
  /**
   * Write whole slabs beginning at inline `i0`, the one after those written last: `[inline][crossline][sample]`,
   * padded with NaN past the last inline. Where only inlines are kept, the next may be given before this one is written.
   */
  write(i0: number, data: Float32Array): Promise<void>;
  /** Write what is held of the last group. */
  finish(): Promise<void>;
}

export interface WriterOptions {
  scaled?: ArrayRef['scaled'];
  /** Samples above which a volume also keeps a coarse copy. */
  large?: number;
  /** Planes to write copies for now; `cutPlanes` makes the others. */
  planes?: Plane[];
}

export async function volumeWriter(
  store: Store,
  id: string,
  shape: Shape3,
  { scaled, large = LARGE, planes = PLANES }: WriterOptions = {},
): Promise<VolumeWriter> {
  const layouts: Layouts = { inline: layoutFor(id, shape, 'inline', scaled) };
  for (const plane of planes) {
    const layout = layoutFor(id, shape, plane, scaled);
    layouts[plane] = layout;
    await createArray(store, layout, DIMENSIONS);
  }
  const coarse = await coarseWriter(store, id, shape, scaled, coarseBy(shape, large));
  if (coarse) layouts.coarse = coarse.layouts;
  const { slab, group } = groupsOf(shape);
  const [ni, nj, nk] = shape;
  const cutter = planeCutter(store, layouts);
  let held: Float32Array | null = null;
  let from = 0;
  let inTurn: Promise<void> = Promise.resolve();
  return {
    layouts,
    slab,
    group,
    async write(i0, data) {
      const lines = data.length / (nj * nk);
      await writePieces(store, layouts.inline, data, lines / slab, (n) => [i0 / slab + n, 0, 0]);
      // the coarse copy takes lines one after the other
      inTurn = inTurn.then(() => coarse?.take(i0, data));
      await inTurn;
      if (!layouts.crossline && !layouts.slice) return;
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
export async function coarseWriter(
  store: Store,
  id: string,
  [ni, nj, nk]: Shape3,
  scaled: ArrayRef['scaled'] | undefined,
  by: number | null,
) {
  if (by === null) return null;
  const [ci, cj] = [Math.ceil(ni / by), Math.ceil(nj / by)];
  const writer = await volumeWriter(store, `${id}/coarse`, [ci, cj, nk], { scaled, large: Number.POSITIVE_INFINITY });
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

/** Make the copies for crosslines and slices that `layouts` names, and the coarse ones, from that for inlines. */
export async function remakePlanes(
  store: Store,
  layouts: Layouts,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<void> {
  const { inline } = layouts;
  const [ni, nj, nk] = inline.shape;
  const { group } = groupsOf([ni, nj, nk]);
  for (const plane of ['crossline', 'slice'] as const)
    if (layouts[plane]) await createArray(store, layouts[plane], DIMENSIONS);
  const cutter = planeCutter(store, layouts, signal);
  const id = inline.key.replace(/\/inline$/, '');
  const coarse = await coarseWriter(store, id, [ni, nj, nk], inline.scaled, layouts.coarse?.by ?? null);
  const held = new Float32Array(group * nj * nk);
  for (let i0 = 0; i0 < ni; i0 += group) {
    // past the last inline there is nothing
    if (i0 + group > ni) held.fill(Number.NaN);
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

/** The copies that a volume has not: planes that are read the slow way until it is cut for them; a live one needs none. */
export function uncutPlanes({ layouts }: Volume): Plane[] {
  return layouts ? PLANES.filter((plane) => !layouts[plane]) : [];
}

/**
 * Cut a stored volume for the planes that it has no copy for. Nothing is visible of it before the end; its samples, and so
 * its revision, stay what they are.
 * @returns the volume with its copies, or null where it has been removed meanwhile
 */
export async function cutPlanes(
  store: Store,
  volume: Volume,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<Volume | null> {
  const planes = uncutPlanes(volume);
  if (planes.length === 0) return volume;
  const { inline } = storedOf(volume);
  // in a place of its own: another that cuts the same volume, or did before it was stopped, touches none of it
  const place = `${inline.key.replace(/\/inline$/, '')}/cut`;
  await store.removeArrays(`${place}/`);
  const own = `${place}/${crypto.randomUUID().slice(0, 8)}`;
  const made = Object.fromEntries(
    planes.map((plane) => [plane, layoutFor(own, inline.shape as Shape3, plane, inline.scaled)]),
  );
  const drop = () => store.removeArrays(`${own}/`);
  try {
    await remakePlanes(store, { inline, ...made }, signal, onProgress);
  } catch (cause) {
    await drop();
    throw cause;
  }
  // it may have been renamed or recoloured meanwhile, or made again with other samples
  const now = await store.get(volume.id);
  if (now?.kind !== 'volume' || now.layouts?.inline.key !== inline.key) {
    await drop();
    return null;
  }
  const cut = { ...now, layouts: { ...now.layouts, ...made } };
  await store.commit({ put: [cut] });
  return cut;
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
  signal?: AbortSignal,
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
    if (signal?.aborted) await now;
    stopIf(signal);
    before = now;
  }
}

/** Cuts a group of inlines for crosslines and slices and writes the pieces. */
function planeCutter(store: Store, layouts: Omit<Layouts, 'coarse'>, signal?: AbortSignal) {
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
  const copy = async (
    ref: ArrayRef,
    put: typeof putSlices,
    whole: boolean,
    i0: number,
    data: Float32Array,
    lines: number,
  ) => {
    const count = piecesOfGroup(ref, i0, lines).length;
    const out = pieces(ref, count, whole && lines === ref.chunk[0]);
    for (let n = 0; n < lines; n++) {
      stopIf(signal);
      put(ref, out, n, data.subarray(n * nj * nk, (n + 1) * nj * nk));
    }
    const list = piecesOfGroup(ref, i0, lines);
    await writePieces(store, ref, out, count, (s) => list[s].at, signal);
  };
  return async (i0: number, data: Float32Array): Promise<void> => {
    const lines = Math.min(data.length / (nj * nk), ni - i0);
    const { crossline, slice } = layouts;
    if (crossline) await copy(crossline, putCrosslines, nj % crossline.chunk[1] === 0, i0, data, lines);
    // what a chunk for slices has past the last sample is filled by its cutting
    if (slice) await copy(slice, putSlices, true, i0, data, lines);
  };
}
