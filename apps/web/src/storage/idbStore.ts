import type { EarthObject, LedgerEntry, ProjectFacts, Store, Transaction } from '@lithagon/core';
import { type DBSchema, deleteDB, type IDBPDatabase, openDB } from 'idb';

interface ProjectSchema extends DBSchema {
  facts: { key: 'facts'; value: ProjectFacts & { origin?: string } };
  objects: { key: string; value: EarthObject };
  arrays: { key: string; value: Uint8Array };
  ledger: { key: number; value: LedgerEntry };
}

const databaseName = (projectId: string) => `lithagon-${projectId}`;

async function open(projectId: string): Promise<IDBPDatabase<ProjectSchema>> {
  return openDB<ProjectSchema>(databaseName(projectId), 1, {
    upgrade(db) {
      db.createObjectStore('facts');
      db.createObjectStore('objects', { keyPath: 'id' });
      db.createObjectStore('arrays');
      db.createObjectStore('ledger', { autoIncrement: true });
    },
    blocking: (_now, _wanted, event) => (event.target as IDBDatabase).close(),
  });
}

/** Keys under which a store says that it changed, to the other threads and tabs that have the project open. */
export const changesOf = (projectId: string) => `lithagon-changes-${projectId}`;

/** Transactions under way at once: one is put together while the database works on the other. */
const UNDER_WAY = 2;

/**
 * Writes asked for in one go, or while others are under way, as one transaction: the database takes transactions that
 * write one after the other, so that each write on its own would wait for the one before it.
 */
function arrayWriter(db: IDBPDatabase<ProjectSchema>): Store['writeBytes'] {
  let waiting: { key: string; bytes: Uint8Array; done(): void; fail(cause: unknown): void }[] = [];
  let under = 0;
  const flush = async () => {
    if (under >= UNDER_WAY || waiting.length === 0) return;
    const these = waiting;
    waiting = [];
    under++;
    try {
      const tx = db.transaction('arrays', 'readwrite', { durability: 'relaxed' });
      // what goes wrong with one of them is heard of from the transaction
      for (const { key, bytes } of these) tx.store.put(bytes, key).catch(() => undefined);
      await tx.done;
      for (const { done } of these) done();
    } catch (cause) {
      for (const { fail } of these) fail(cause);
    }
    under--;
    void flush();
  };
  return (key, bytes) =>
    new Promise((done, fail) => {
      // a view would store its whole buffer
      const own = bytes.byteLength === bytes.buffer.byteLength ? bytes : bytes.slice();
      if (waiting.push({ key, bytes: own, done, fail }) === 1) queueMicrotask(flush);
    });
}

/**
 * A project in the browser's own database. Where the project came from a server (`origin`), arrays that are not here
 * yet are fetched from it when first read, and kept.
 */
export async function idbStore(projectId: string): Promise<Store> {
  const db = await open(projectId);
  const facts = await db.get('facts', 'facts');
  if (!facts) throw new Error(`there is no project ${projectId}`);
  const channel = new BroadcastChannel(changesOf(projectId));
  const { origin } = facts;
  const write = arrayWriter(db);
  return {
    facts: async () => (await db.get('facts', 'facts')) as ProjectFacts,
    list: () => db.getAll('objects'),
    get: async (id) => (await db.get('objects', id)) ?? null,
    ledger: () => db.getAll('ledger'),
    async commit(change: Transaction) {
      const tx = db.transaction(['facts', 'objects', 'ledger'], 'readwrite');
      for (const object of change.put ?? []) void tx.objectStore('objects').put(object);
      for (const id of change.remove ?? []) void tx.objectStore('objects').delete(id);
      if (change.facts) {
        const before = await tx.objectStore('facts').get('facts');
        void tx.objectStore('facts').put({ ...(before as ProjectFacts), ...change.facts }, 'facts');
      }
      for (const entry of change.ledger ?? []) void tx.objectStore('ledger').add(entry);
      await tx.done;
      channel.postMessage('changed');
    },
    async readBytes(key) {
      const here = await db.get('arrays', key);
      if (here || !origin) return here ?? null;
      const response = await fetch(`${origin}/arrays/${key}`);
      if (!response.ok) return null;
      const bytes = new Uint8Array(await response.arrayBuffer());
      await write(key, bytes);
      return bytes;
    },
    writeBytes: write,
    async removeArrays(prefix) {
      await db.delete('arrays', IDBKeyRange.bound(prefix, `${prefix}\uffff`));
    },
    async arrayOwners() {
      const owners = new Set<string>();
      let cursor = await db.transaction('arrays').store.openKeyCursor();
      while (cursor) {
        const owner = cursor.key.split('/')[0];
        owners.add(owner);
        cursor = await cursor.continue(`${owner}/\uffff`);
      }
      return [...owners];
    },
  };
}

/** Delete the database of a project, where there is one. */
export const removeDatabase = (projectId: string): Promise<void> => deleteDB(databaseName(projectId));

/** Make the database of a new project. */
export async function createProject(facts: ProjectFacts & { origin?: string }, objects: EarthObject[]): Promise<void> {
  const db = await open(facts.id);
  const tx = db.transaction(['facts', 'objects'], 'readwrite');
  void tx.objectStore('facts').put(facts, 'facts');
  for (const object of objects) void tx.objectStore('objects').put(object);
  await tx.done;
  db.close();
}

/** Copy the database of a project to another id and name, a few megabytes at a time. */
export async function copyDatabase(from: string, to: Pick<ProjectFacts, 'id' | 'name'>): Promise<void> {
  const [source, target] = [await open(from), await open(to.id)];
  const facts = await source.get('facts', 'facts');
  if (!facts) throw new Error(`there is no project ${from}`);
  const keys = await source.getAllKeys('arrays');
  for (const key of keys) {
    const bytes = await source.get('arrays', key);
    if (bytes) await target.put('arrays', bytes, key);
  }
  const objects = await source.getAll('objects');
  const ledger = await source.getAll('ledger');
  const tx = target.transaction(['facts', 'objects', 'ledger'], 'readwrite');
  for (const object of objects) void tx.objectStore('objects').put(object);
  for (const entry of ledger) void tx.objectStore('ledger').add(entry);
  void tx.objectStore('facts').put({ ...facts, ...to }, 'facts');
  await tx.done;
  source.close();
  target.close();
}
