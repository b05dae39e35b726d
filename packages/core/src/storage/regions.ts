import { LithagonError } from '../earth/errors.ts';
import type { ArrayRef, Volume } from '../earth/objects.ts';
import { copyShared, type Region, regionOf, type Shape3, samplesIn, shared, sizeOf } from '../numerics/block.ts';
import { readChunk } from './arrays.ts';
import type { Store } from './store.ts';

type Layouts = NonNullable<Volume['layouts']>;

/** Reads samples of any region of a volume: `[inline][crossline][sample]`, NaN outside it. */
export type ReadRegion = (store: Store, volume: Volume, region: Region) => Promise<Float32Array>;

let whereLive: ReadRegion | null = null;

/** Say how samples of volumes that are not stored come to be. */
export function workOutLiveBy(read: ReadRegion): void {
  whereLive = read;
}

/** The stored copies of a volume; one that is live has none. */
export function storedOf(volume: Volume): Layouts {
  if (volume.layouts) return volume.layouts;
  throw new LithagonError('live', `${volume.name} is live: its samples are worked out when they are looked at.`, {
    object: volume.name,
    fix: 'Store it first.',
  });
}

/** Chunks of a copy that have something of a region. */
export function chunksIn(ref: ArrayRef, region: Region): { at: [number, number, number]; holds: Region }[] {
  const inside = shared(regionOf(ref.shape as Shape3), region);
  if (!inside) return [];
  const [ci, cj, ck] = ref.chunk;
  const out: ReturnType<typeof chunksIn> = [];
  for (let a = Math.floor(inside.i[0] / ci); a * ci < inside.i[1]; a++)
    for (let b = Math.floor(inside.j[0] / cj); b * cj < inside.j[1]; b++)
      for (let c = Math.floor(inside.k[0] / ck); c * ck < inside.k[1]; c++)
        out.push({
          at: [a, b, c],
          holds: { i: [a * ci, (a + 1) * ci], j: [b * cj, (b + 1) * cj], k: [c * ck, (c + 1) * ck] },
        });
  return out;
}

/** Samples that have to be read from a copy for a region. */
function costOf(ref: ArrayRef, region: Region): number {
  const inside = shared(regionOf(ref.shape as Shape3), region);
  if (!inside) return 0;
  const spans = [inside.i, inside.j, inside.k].map(
    ([from, to], axis) => (Math.ceil(to / ref.chunk[axis]) - Math.floor(from / ref.chunk[axis])) * ref.chunk[axis],
  );
  return spans[0] * spans[1] * spans[2];
}

/** Chunks asked for in one go. */
const READS = 12;

/** Samples of a region from one copy: `[inline][crossline][sample]`, NaN outside it. */
export async function readFrom(store: Store, ref: ArrayRef, region: Region): Promise<Float32Array> {
  const out = new Float32Array(samplesIn(region)).fill(Number.NaN);
  const chunks = chunksIn(ref, region);
  // some at a time, so that a large region does not hold all of its chunks beside itself
  for (let n = 0; n < chunks.length; n += READS)
    await Promise.all(
      chunks
        .slice(n, n + READS)
        .map(async ({ at, holds }) => copyShared(await readChunk(store, ref, at), holds, out, region)),
    );
  return out;
}

/** Samples of a region of a volume, from the copy that has to be read the least for it; a live volume is worked out there. */
export async function readRegion(store: Store, volume: Volume, region: Region): Promise<Float32Array> {
  if (!volume.layouts) {
    if (!whereLive) storedOf(volume);
    return (whereLive as ReadRegion)(store, volume, region);
  }
  if (sizeOf(region).some((n) => n <= 0)) return new Float32Array(0);
  const { inline, crossline, slice } = volume.layouts;
  let best = inline;
  for (const ref of [crossline, slice]) if (ref && costOf(ref, region) < costOf(best, region)) best = ref;
  try {
    return await readFrom(store, best, region);
  } catch (cause) {
    // the copies for crosslines and slices hold nothing that the one by inlines has not
    if (best !== inline && cause instanceof LithagonError && cause.code === 'damaged')
      return readFrom(store, inline, region);
    throw cause;
  }
}
