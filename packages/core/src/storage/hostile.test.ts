import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { LithagonError } from '../earth/errors.ts';
import { outOfDate } from '../project/catalogue/staleness.ts';
import { HOSTILE } from '../testing/hostileParcels.ts';
import { rebuildOrder } from '../trail/rebuild.ts';
import { folderStore } from './folder.ts';
import { readParcel } from './parcel.ts';
import type { Store } from './store.ts';

const root = mkdtempSync(join(tmpdir(), 'lithagon-hostile-'));
beforeAll(() => mkdirSync(join(root, 'a/b/c'), { recursive: true }));
afterAll(() => rmSync(root, { recursive: true, force: true }));

/** Every file below a folder, by its path from there. */
const filesBelow = (dir: string): string[] =>
  readdirSync(dir, { withFileTypes: true, recursive: true })
    .filter((e) => e.isFile())
    .map((e) => join((e as unknown as { path: string }).path, e.name));

describe.each(HOSTILE.map((parcel) => [parcel.name, parcel] as const))('a parcel with %s', (_name, parcel) => {
  test('writes nothing outside its project, and opens whole or not at all', async () => {
    const dir = join(root, 'a/b/c', crypto.randomUUID());
    const blob = await parcel.make();
    // for processes that are to open it on their own
    const shared = process.env.HOSTILE_DIR;
    if (shared) {
      const at = HOSTILE.indexOf(parcel);
      writeFileSync(join(shared, `${at}.parcel`), new Uint8Array(await blob.arrayBuffer()));
      writeFileSync(
        join(shared, `${at}.json`),
        JSON.stringify({ name: parcel.name, mayOpen: parcel.mayOpen ?? false }),
      );
    }
    let store: Store | null = null;
    let refused: unknown = null;
    try {
      await readParcel('hostile.parcel', blob, async ({ name }) => {
        store = await folderStore(dir, { name });
        return store;
      });
    } catch (cause) {
      refused = cause;
    }
    if (refused) {
      expect(refused).toBeInstanceOf(LithagonError);
      expect((refused as LithagonError).message).toMatch(/^hostile\.parcel cannot be opened as a parcel: .{5,}\.$/);
      expect((refused as LithagonError).message.length).toBeLessThan(700);
    } else expect(parcel.mayOpen).toBe(true);
    for (const file of filesBelow(root)) expect(file.startsWith(dir)).toBe(true);
    expect(existsSync('/tmp/out')).toBe(false);
    if (store) {
      const objects = await (store as Store).list();
      if (refused) expect(objects).toEqual([]);
      // what follows a trail comes to an end
      outOfDate(objects);
      rebuildOrder(objects);
      for (const { name } of objects) expect(name).not.toMatch(/\p{Cc}|[\u202a-\u202e]/u);
      await (store as Store).close?.();
    }
    rmSync(dir, { recursive: true, force: true });
  });
});

test('opening stops when it is asked to, before anything is unpacked', async () => {
  const blob = await HOSTILE[HOSTILE.length - 10].make();
  const stop = new AbortController();
  stop.abort();
  const opened = readParcel('p', blob, () => Promise.reject(new Error('was opened')), { signal: stop.signal });
  await expect(opened).rejects.not.toThrow('was opened');
});
