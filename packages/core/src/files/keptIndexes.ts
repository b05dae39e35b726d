import type { TraceIndex } from '../formats/segy/traces.ts';

/** Most bytes of indexes that are kept. */
const MOST_BYTES = 64 << 20;

const kept = new Map<string, TraceIndex>();

const bytesOf = (index: TraceIndex) => index.traceOfBin.byteLength + (index.late?.byteLength ?? 0);

/**
 * The index of a file's traces, from when it was last made under the same key: a file is looked at, often more than once,
 * and then loaded, and each index costs a reading of all of it.
 * @param key tells the file, and how it is read, from any other; null where nothing does
 */
export async function keptIndex(key: string | null, make: () => Promise<TraceIndex>): Promise<TraceIndex> {
  const before = key === null ? undefined : kept.get(key);
  const index = before ?? (await make());
  if (key === null || bytesOf(index) > MOST_BYTES) return index;
  // the one used last goes last
  kept.delete(key);
  kept.set(key, index);
  let held = 0;
  for (const each of kept.values()) held += bytesOf(each);
  for (const [oldest, each] of kept) {
    if (held <= MOST_BYTES) break;
    kept.delete(oldest);
    held -= bytesOf(each);
  }
  return index;
}
