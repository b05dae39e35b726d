import type { ArrayRef, EarthObject } from '../../earth/objects.ts';

/** Words by which an object is found: name, kind, stage, tags, well, quantity, domain, what made it, its file. */
export function wordsOf(object: EarthObject): string {
  const { madeBy } = object;
  return [
    object.name,
    object.kind,
    object.stage,
    ...(object.tags ?? []),
    'well' in object ? object.well : '',
    'line' in object ? object.line : '',
    'quantity' in object ? object.quantity : '',
    'domain' in object ? object.domain : '',
    madeBy.step,
    madeBy.file ?? '',
    object.note ?? '',
  ]
    .join('\n')
    .toLowerCase();
}

/** Finds objects by typing: every word must be found somewhere; words are kept, so that a filter is quick. */
export function finder(objects: EarthObject[]): (text: string) => EarthObject[] {
  const words = objects.map(wordsOf);
  return (text) => {
    const wanted = text.toLowerCase().split(/\s+/).filter(Boolean);
    if (wanted.length === 0) return objects;
    return objects.filter((_, n) => wanted.every((w) => words[n].includes(w)));
  };
}

/** Everything that was made from some objects, directly or by way of others, nearest first. */
export function dependents(objects: EarthObject[], ids: Iterable<string>): EarthObject[] {
  const reached = new Set(ids);
  const out: EarthObject[] = [];
  for (let grown = true; grown; ) {
    grown = false;
    for (const object of objects) {
      if (reached.has(object.id)) continue;
      const rests = Object.values(object.madeBy.inputs).some((refs) => refs.some((r) => reached.has(r.split('@')[0])));
      if (!rests) continue;
      reached.add(object.id);
      out.push(object);
      grown = true;
    }
  }
  return out;
}

/** Bytes that an object's arrays take up. */
export function bytesOf(object: EarthObject): number {
  let bytes = 0;
  const visit = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    if ('key' in value && 'shape' in value && 'chunk' in value) {
      const ref = value as ArrayRef;
      // chunks are whole at the far edges too
      bytes +=
        (ref.scaled ? 2 : 4) *
        ref.shape.reduce((n, s, axis) => n * Math.ceil(s / ref.chunk[axis]) * ref.chunk[axis], 1);
    } else for (const each of Object.values(value)) visit(each);
  };
  visit(object);
  return bytes;
}
