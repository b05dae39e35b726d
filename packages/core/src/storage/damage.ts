import { crosslineAt, inlineAt } from '../earth/binGrid.ts';
import { LithagonError, stopIf } from '../earth/errors.ts';
import { type ArrayRef, domainUnit, type EarthObject } from '../earth/objects.ts';
import { arraysOf, chunkBytes, chunkKey, chunksOf } from './keys.ts';
import type { Store } from './store.ts';

/** What is wrong with the bytes of a chunk, or null where there are as many as there must be. */
export function wrongLength(ref: ArrayRef, bytes: Uint8Array | null): string | null {
  if (!bytes) return 'is missing';
  const wanted = chunkBytes(ref);
  return bytes.byteLength === wanted ? null : `has ${bytes.byteLength} bytes instead of ${wanted}`;
}

/** Which part of an object a chunk is, in its own numbers. */
function partOf(object: EarthObject, ref: ArrayRef, at: number[]): string {
  const from = at.map((n, axis) => n * ref.chunk[axis]);
  const to = from.map((n, axis) => Math.min(ref.shape[axis], n + ref.chunk[axis]) - 1);
  if (ref.chunk.every((n, axis) => n === ref.shape[axis])) return '';
  const range = (a: number, b: number) => (a === b ? `${a}` : `${a} to ${b}`);
  if (object.kind === 'volume') {
    const { binGrid, vertical, layouts } = object;
    const coarse = ref.key.includes('/coarse/') ? (layouts?.coarse?.by ?? 1) : 1;
    const parts = [
      `inlines ${range(inlineAt(binGrid, from[0] * coarse), inlineAt(binGrid, Math.min(binGrid.inline.count - 1, to[0] * coarse)))}`,
      `crosslines ${range(crosslineAt(binGrid, from[1] * coarse), crosslineAt(binGrid, Math.min(binGrid.crossline.count - 1, to[1] * coarse)))}`,
      `${range(vertical.first + from[2] * vertical.step, vertical.first + to[2] * vertical.step)} ${domainUnit(object.domain)}`,
    ].filter((_, axis) => ref.chunk[axis] < ref.shape[axis]);
    return ` (${parts.join(', ')})`;
  }
  const what = object.kind === 'seismic line' ? 'traces' : 'rows';
  return ` (${what} ${range(from[0] + 1, to[0] + 1)})`;
}

/** An error that names the object and the part of it whose data are damaged. */
export async function damage(store: Store, ref: ArrayRef, at: number[], why: string): Promise<LithagonError> {
  const object = (await store.list()).find((o) => arraysOf(o, true).some((each) => each.key === ref.key));
  if (!object)
    return new LithagonError('storage', `A part of the project’s data ${why} (${chunkKey(ref, at)}).`, {
      fix: 'Load or compute the object again.',
    });
  const { file, step } = object.madeBy;
  return new LithagonError(
    'damaged',
    `The data of ${object.name} are damaged: a part${partOf(object, ref, at)} ${why}.`,
    {
      object: object.name,
      fix: `The rest of it can be used. ${file || step === 'data.load' ? `Load it again${file ? ` from ${file}` : ''}.` : 'Rebuild it to have it whole.'}`,
    },
  );
}

/** Every damaged part of an object's arrays, as sentences; copies that are made again from others are left out. */
export async function damagesOf(store: Store, object: EarthObject, signal?: AbortSignal): Promise<LithagonError[]> {
  const found: LithagonError[] = [];
  for (const ref of arraysOf(object))
    for (const at of chunksOf(ref)) {
      stopIf(signal);
      const why = wrongLength(ref, await store.readBytes(chunkKey(ref, at)));
      if (why) found.push(await damage(store, ref, at, why));
    }
  return found;
}
