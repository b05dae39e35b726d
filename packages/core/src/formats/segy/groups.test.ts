import { beforeAll, describe, expect, test } from 'vitest';
import type { Volume } from '../../earth/objects.ts';
import { loadFile } from '../../files/load.ts';
import { memoryStore } from '../../storage/memory.ts';
import { readPlane } from '../../storage/planes.ts';
import type { Store } from '../../storage/store.ts';
import { groupsOf } from '../../storage/volumes.ts';
import { exactValue, makeSegy, PLAIN_SEGY } from '../../testing/segyWriter.ts';
import { memorySource } from '../source.ts';

const even = (n: number) => Array.from({ length: n }, (_, k) => k);
const [NI, NJ, NK] = [40, 100, 4500];
const SAYS = { domain: 'twt', quantity: 'attribute' };

/** A file too large for one group of inlines, so that a second is read while the first is written. */
let bytes: Uint8Array;
beforeAll(() => {
  bytes = makeSegy(
    {
      ...PLAIN_SEGY,
      format: 5,
      inlines: even(NI).map((n) => n + 1),
      crosslines: even(NJ).map((n) => n + 11),
      samples: NK,
      intervalUs: 1000,
      missing: new Set([36 * NJ + 7]),
    },
    even,
  );
});

const load = (store: Store, more: { signal?: AbortSignal; onProgress?: (part: number) => void } = {}) =>
  loadFile(memorySource('tall.sgy', bytes), SAYS, { store, crsTable: async () => [], ...more });

/** A store that counts what is written of samples, and may fail at one of them. */
function watched(failAt = Number.POSITIVE_INFINITY) {
  const store = memoryStore();
  const seen = { writes: 0, last: 0 };
  const writeBytes: Store['writeBytes'] = async (key, data) => {
    // as slow as a disk: later writes come after earlier ones were begun
    await new Promise((resolve) => setTimeout(resolve, 1));
    if (/\/c[.]/.test(key)) seen.writes++;
    seen.last = performance.now();
    if (seen.writes >= failAt) throw new Error('the disk is full');
    return store.writeBytes(key, data);
  };
  return { store: { ...store, writeBytes }, seen, kept: store };
}

describe('a file of more than one group of inlines', () => {
  test('is one whose group ends before its last inline', () => {
    expect(groupsOf([NI, NJ, NK]).group).toBe(35);
  });

  test('is whole on every plane, at the seam of two groups too', async () => {
    const { store } = watched();
    const { objects, warnings } = await load(store);
    const volume = objects[0] as Volume;
    expect(warnings).toEqual(['1 of 4000 bins have no trace; they are shown as empty.']);
    expect(volume.traces).toEqual({ live: NI * NJ - 1, missing: 1, duplicate: 0 });
    for (const i of [0, 34, 35, 39]) {
      const line = await readPlane(store, volume, 'inline', i);
      for (const [j, k] of [
        [0, 0],
        [57, 4499],
        [99, 1234],
      ])
        expect(line[j * NK + k]).toBe(exactValue(5, i, j, k));
    }
    const crossline = await readPlane(store, volume, 'crossline', 7);
    for (const i of [33, 34, 35, 37, 39]) expect(crossline[i * NK + 3001]).toBe(exactValue(5, i, 7, 3001));
    expect(crossline[36 * NK + 3001]).toBeNaN();
    const slice = await readPlane(store, volume, 'slice', 4499);
    for (const i of [0, 34, 35, 39]) expect(slice[i * NJ + 99]).toBe(exactValue(5, i, 99, 4499));
  });

  test('whose store fails midway is refused with the reason, leaves nothing, and writes no more', async () => {
    const { store, seen, kept } = watched(20);
    await expect(load(store)).rejects.toThrow('the disk is full');
    const ended = performance.now();
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect(seen.last).toBeLessThanOrEqual(ended);
    expect(await kept.list()).toEqual([]);
    expect(await kept.arrayOwners()).toEqual([]);
  });

  test('that is cancelled while a group is written leaves nothing, and writes no more', async () => {
    const { store, seen, kept } = watched();
    const cancel = new AbortController();
    const loading = load(store, {
      signal: cancel.signal,
      onProgress: (part) => {
        // the second group is being read by then
        if (part > 0.9) cancel.abort();
      },
    });
    await expect(loading).rejects.toMatchObject({ name: 'AbortError' });
    expect(seen.writes).toBeGreaterThan(0);
    const ended = performance.now();
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect(seen.last).toBeLessThanOrEqual(ended);
    expect(await kept.list()).toEqual([]);
    expect(await kept.arrayOwners()).toEqual([]);
  });
});
