import type { ArrayRef, EarthObject } from '../earth/objects.ts';

/**
 * Every array of an object; of a volume only the copy by inlines, from which the others are made again.
 * @param copies with those others
 */
export function arraysOf(object: EarthObject, copies = false): ArrayRef[] {
  const found: ArrayRef[] = [];
  const visit = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    if ('key' in value && 'chunk' in value && 'shape' in value) found.push(value as ArrayRef);
    else for (const each of Object.values(value)) visit(each);
  };
  visit(object.kind === 'volume' ? (copies ? object.layouts : object.layouts?.inline) : object);
  return found;
}

export function chunkLength(ref: ArrayRef): number {
  return ref.chunk.reduce((a, b) => a * b, 1);
}

export function chunkBytes(ref: ArrayRef): number {
  return chunkLength(ref) * (ref.scaled ? 2 : 4);
}

/** Where a chunk is kept. */
export function chunkKey(ref: ArrayRef, at: number[]): string {
  return `${ref.key}/${['c', ...at].join(ref.flat ? '.' : '/')}`;
}

/** Bytes of the arrays of objects, copies included, as far as they are among the keys that a store holds. */
export function heldBytes(objects: EarthObject[], held: Set<string>): number {
  let bytes = 0;
  for (const ref of objects.flatMap((object) => arraysOf(object, true)))
    for (const at of chunksOf(ref)) if (held.has(chunkKey(ref, at))) bytes += chunkBytes(ref);
  return bytes;
}

/** How many chunks an array has. */
export function chunkCount(ref: ArrayRef): number {
  return ref.shape.reduce((a, n, axis) => a * Math.ceil(n / ref.chunk[axis]), 1);
}

/** Indexes of every chunk of an array. */
export function* chunksOf(ref: ArrayRef): Generator<number[]> {
  const counts = ref.shape.map((n, axis) => Math.ceil(n / ref.chunk[axis]));
  const at = counts.map(() => 0);
  for (;;) {
    yield [...at];
    let axis = at.length - 1;
    while (axis >= 0 && ++at[axis] === counts[axis]) at[axis--] = 0;
    if (axis < 0) return;
  }
}
