import '../testing/browser';
import type { ProjectFacts } from '@lithagon/core';
import { madeWell, storeContract } from '@lithagon/core/testing/storeContract';
import { openDB } from 'idb';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { changesOf, claimProject, copyDatabase, createProject, idbStore, removeDatabase } from './idbStore';

const facts = (id: string, name = 'A'): ProjectFacts => ({ id, name, created: '2026-01-01T00:00:00Z', frame: null });
let count = 0;
async function fresh(more: { origin?: string } = {}) {
  const id = `p${count++}`;
  await createProject({ ...facts(id), ...more }, []);
  return { id, store: await idbStore(id) };
}

storeContract("the browser's database", async () => (await fresh()).store);

describe('a project in the browser', () => {
  afterEach(() => vi.unstubAllGlobals());

  test('says to other threads and tabs that it changed, after the change is there', async () => {
    const { id, store } = await fresh();
    const heard = new Promise<number>((resolve) => {
      const channel = new BroadcastChannel(changesOf(id));
      channel.onmessage = async () => {
        channel.close();
        resolve((await store.list()).length);
      };
    });
    await store.commit({ put: [madeWell('w', 'QN-1')] });
    expect(await heard).toBe(1);
  });

  test('that came from a server fetches an array once, keeps it, and takes a missing one as missing', async () => {
    const asked: string[] = [];
    vi.stubGlobal('fetch', async (url: string) => {
      asked.push(url);
      return url.endsWith('/there') ? new Response(Uint8Array.of(7, 8)) : new Response(null, { status: 404 });
    });
    const { id, store } = await fresh({ origin: '/demo' });
    expect([...((await store.readBytes('v/there')) ?? [])]).toEqual([7, 8]);
    expect([...((await store.readBytes('v/there')) ?? [])]).toEqual([7, 8]);
    expect(await store.readBytes('v/gone')).toBeNull();
    expect(asked).toEqual(['/demo/arrays/v/there', '/demo/arrays/v/gone']);
    // another thread finds it too
    expect([...((await (await idbStore(id)).readBytes('v/there')) ?? [])]).toEqual([7, 8]);
    expect(asked).toHaveLength(2);
  });

  test('is copied whole under another id and name; changes to one are not seen in the other', async () => {
    const { id, store } = await fresh();
    await store.commit({
      put: [madeWell('w', 'QN-1')],
      ledger: [{ at: 'now', what: 'in', object: 'w', name: 'QN-1', note: '' }],
    });
    await store.writeBytes('w/values', Uint8Array.of(1, 2, 3));
    await copyDatabase(id, { id: 'twin', name: 'A copy' });
    const twin = await idbStore('twin');
    expect((await twin.facts()).name).toBe('A copy');
    expect((await twin.list()).map((o) => o.name)).toEqual(['QN-1']);
    expect([...((await twin.readBytes('w/values')) ?? [])]).toEqual([1, 2, 3]);
    expect(await twin.ledger()).toHaveLength(1);
    await twin.commit({ remove: ['w'] });
    expect(await store.list()).toHaveLength(1);
  });

  test('keeps writes asked for in one go, and refuses them all where the database takes none', async () => {
    const { id, store } = await fresh();
    const keys = Array.from({ length: 20 }, (_, n) => `v/c/${n}`);
    await Promise.all(keys.map((key, n) => store.writeBytes(key, Uint8Array.of(n))));
    for (const [n, key] of keys.entries()) expect([...((await store.readBytes(key)) ?? [])]).toEqual([n]);
    // later ones win over earlier ones of the same key
    await Promise.all([1, 2, 3].map((n) => store.writeBytes('v/same', Uint8Array.of(n))));
    expect([...((await store.readBytes('v/same')) ?? [])]).toEqual([3]);
    await removeDatabase(id);
    const refused = await Promise.allSettled(keys.map((key) => store.writeBytes(key, Uint8Array.of(1))));
    expect(refused.map((r) => r.status)).toEqual(keys.map(() => 'rejected'));
  });

  test('takes together what is asked for while other writes are under way', async () => {
    const { store } = await fresh();
    const begun = vi.spyOn(IDBDatabase.prototype, 'transaction');
    const writes: Promise<void>[] = [];
    for (let n = 0; n < 60; n++) {
      writes.push(store.writeBytes(`v/c.${n}`, Uint8Array.of(n)));
      // each in a turn of its own, as slabs come from a file
      await Promise.resolve();
      await Promise.resolve();
    }
    await Promise.all(writes);
    const transactions = begun.mock.calls.filter(([, mode]) => mode === 'readwrite').length;
    begun.mockRestore();
    expect(transactions).toBeGreaterThan(1);
    expect(transactions).toBeLessThan(12);
    for (let n = 0; n < 60; n++) expect([...((await store.readBytes(`v/c.${n}`)) ?? [])]).toEqual([n]);
  });

  test('is changed by its holder alone: what a tab began before another took over is refused, and kept whole', async () => {
    const { id } = await fresh();
    let token = 'first';
    await claimProject(id, token);
    const [tab, job, other] = [
      await idbStore(id, () => token),
      await idbStore(id, () => 'first'),
      await idbStore(id, () => 'second'),
    ];
    await tab.commit({ put: [madeWell('a', 'A')] });
    await expect(other.commit({ put: [madeWell('b', 'B')] })).rejects.toMatchObject({ code: 'reader' });
    await claimProject(id, 'second');
    for (const late of [tab, job]) {
      const change = { put: [madeWell('c', 'C')], remove: ['a'], facts: { name: 'Late' } };
      await expect(late.commit(change)).rejects.toMatchObject({
        code: 'reader',
        message: expect.stringContaining('taken it over'),
      });
    }
    await other.commit({ put: [madeWell('b', 'B')] });
    token = 'second';
    await tab.commit({ put: [madeWell('d', 'D')] });
    expect((await tab.list()).map((o) => o.name)).toEqual(['A', 'B', 'D']);
    expect((await tab.facts()).name).toBe('A');
  });

  test('sets aside what cannot be read, opens the rest, and throws away only what it is told to', async () => {
    const { id, store } = await fresh();
    await store.commit({ put: [madeWell('a', 'A')] });
    // as another version or a fault may leave it
    const db = await openDB(`lithagon-${id}`);
    const bad = { ...madeWell('b', 'Bad'), kbM: 'high' };
    await db.put('objects', bad);
    await db.put('facts', { ...facts(id), frame: { crs: 7 }, desks: 'none' }, 'facts');
    const again = await idbStore(id);
    expect((await again.list()).map((o) => o.name)).toEqual(['A']);
    expect(await again.get('b')).toBeNull();
    expect(await again.facts()).toMatchObject({ name: 'A', frame: null });
    const [aside] = await again.aside();
    expect(aside).toMatchObject({ name: 'Bad', raw: bad });
    expect(aside.why).toContain('kbM');
    await again.commit({ put: [madeWell('c', 'C')] });
    expect(await db.get('objects', 'b')).toEqual(bad);
    await again.commit({ discard: ['another key'] });
    expect(await again.aside()).toHaveLength(1);
    await again.commit({ discard: [aside.key] });
    expect(await again.aside()).toEqual([]);
    expect(await db.get('objects', 'b')).toBeUndefined();
    expect((await again.list()).map((o) => o.name)).toEqual(['A', 'C']);
    db.close();
  });

  test('that is not there is no project, and one that was deleted is not there', async () => {
    await expect(idbStore('nowhere')).rejects.toThrow('This project is not in this browser.');
    // and looking for it has made none
    expect((await indexedDB.databases()).map((d) => d.name)).not.toContain('lithagon-nowhere');
    const { id } = await fresh();
    await removeDatabase(id);
    await expect(idbStore(id)).rejects.toThrow();
  });
});
