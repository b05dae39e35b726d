import {
  type Aside,
  checkedChange,
  type EarthObject,
  factsSchema,
  type LedgerEntry,
  LithagonError,
  labelled,
  matched,
  mayMatch,
  migrated,
  type ProjectFacts,
  type Store,
  sortOut,
  type Transaction,
  VERSION,
  wellIdOf,
  withName,
} from '@lithagon/core/kept';
import { type DBSchema, deleteDB, type IDBPDatabase, openDB } from 'idb';

/** The facts with where the project came from, and the version that its objects are kept in. */
type KeptFacts = ProjectFacts & { origin?: string; version?: number };

interface ProjectSchema extends DBSchema {
  /** The facts, and the token of the tab that may change the project. */
  facts: { key: 'facts' | 'writer'; value: KeptFacts | string };
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

/** A transaction that the browser gave up without a reason was not cancelled by anyone. */
function givenUp(cause: unknown): unknown {
  if ((cause as Error | null)?.name !== 'AbortError') return cause;
  return new LithagonError('storage', 'The browser gave up keeping the data.', {
    fix: 'It may have no space left. Free some, and try again.',
  });
}

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
      for (const { fail } of these) fail(givenUp(cause));
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
 * Objects as they can be read, and what of them cannot. What cannot is looked for once, when the project is opened: what
 * is put later has passed its schema. It is looked at again each time, since another tab may have mended it.
 */
function reader(db: IDBPDatabase<ProjectSchema>) {
  let unread: Promise<Set<string>> | null = null;
  const idOf = (raw: unknown) => (raw as { id: string }).id;
  const look = async () => {
    const all = await db.getAll('objects');
    const { aside } = sortOut(all);
    return new Set(aside.map(({ raw }) => idOf(raw)));
  };
  return {
    async all(): Promise<{ objects: EarthObject[]; aside: Aside[] }> {
      unread ??= look();
      const [ids, all] = [await unread, await db.getAll('objects')];
      if (ids.size === 0) return { objects: labelled(all), aside: [] };
      const { objects, aside } = sortOut([...all.filter((o) => !ids.has(o.id)), ...all.filter((o) => ids.has(o.id))]);
      return { objects: labelled(objects), aside };
    },
    /** Whether an object is not one of those that cannot be read. */
    async mayList(object: EarthObject): Promise<boolean> {
      unread ??= look();
      return !(await unread).has(object.id) || sortOut([object]).aside.length === 0;
    },
  };
}

const factsIn = async (db: IDBPDatabase<ProjectSchema>) => (await db.get('facts', 'facts')) as KeptFacts | undefined;

const takenOver = () =>
  new LithagonError('reader', 'The project is being changed in another tab, which has taken it over.', {
    fix: 'Nothing of this change was kept. Choose “Work here instead” to change it in this tab.',
  });

/** Have a project changed by whoever shows `token` from now on, and by no one else. */
export async function claimProject(projectId: string, token: string): Promise<void> {
  const db = await open(projectId);
  await db.put('facts', token, 'writer');
  db.close();
}

/** Facts as they can be read: a frame or desks that cannot are as if they were not there. */
function readableFacts(facts: ProjectFacts): ProjectFacts {
  const out: Record<string, unknown> = { ...facts };
  for (const [key, schema] of Object.entries(factsSchema.shape))
    if (out[key] !== undefined && !schema.safeParse(out[key]).success) out[key] = key === 'frame' ? null : undefined;
  return { ...(out as unknown as ProjectFacts), id: facts.id };
}

/**
 * A project in the browser's own database. Where the project came from a server (`origin`), arrays that are not here
 * yet are fetched from it when first read, and kept.
 * @param writer what shows that its user may change the project: a change made after another tab has taken the project
 * over is refused, whichever thread makes it. Without it, changes are not held against anyone.
 */
export async function idbStore(projectId: string, writer?: () => string | null): Promise<Store> {
  const db = await open(projectId);
  const facts = await factsIn(db);
  if (!facts) {
    // looking for a project that is not there must not leave one that is empty
    db.close();
    await deleteDB(databaseName(projectId));
    throw new LithagonError('project', 'This project is not in this browser.', {
      fix: 'It may have been deleted, or opened elsewhere.',
    });
  }
  if (facts.version !== VERSION) await migrateDatabase(db);
  const channel = new BroadcastChannel(changesOf(projectId));
  const { origin } = facts;
  const write = arrayWriter(db);
  const read = reader(db);
  return {
    door: { project: projectId, token: writer?.() ?? null },
    facts: async () => readableFacts((await factsIn(db)) as ProjectFacts),
    list: async () => (await read.all()).objects,
    get: async (id) => {
      const object = await db.get('objects', id);
      if (!object || !(await read.mayList(object))) return null;
      const wellId = wellIdOf(object);
      return wellId ? withName(object, (await db.get('objects', wellId))?.name) : object;
    },
    ledger: () => db.getAll('ledger'),
    aside: async () => (await read.all()).aside,
    async commit(given: Transaction) {
      const checked = checkedChange(given);
      const change = mayMatch(checked) ? matched(checked, (await read.all()).objects) : checked;
      const discarded = change.discard
        ? (await read.all()).aside
            .filter(({ key }) => change.discard?.includes(key))
            .map(({ raw }) => raw as EarthObject)
        : [];
      const tx = db.transaction(['facts', 'objects', 'ledger'], 'readwrite');
      const holder = writer && (await tx.objectStore('facts').get('writer'));
      if (writer && (holder ?? null) !== writer()) {
        tx.abort();
        await tx.done.catch(() => undefined);
        throw takenOver();
      }
      // what goes wrong with one of them is heard of from the transaction
      const heard = (request: Promise<unknown>) => void request.catch(() => undefined);
      for (const { id } of discarded) heard(tx.objectStore('objects').delete(id));
      for (const object of change.put ?? []) heard(tx.objectStore('objects').put(object));
      for (const id of change.remove ?? []) heard(tx.objectStore('objects').delete(id));
      if (change.facts) {
        const before = (await tx.objectStore('facts').get('facts')) as ProjectFacts;
        heard(tx.objectStore('facts').put({ ...before, ...change.facts }, 'facts'));
      }
      for (const entry of change.ledger ?? []) heard(tx.objectStore('ledger').add(entry));
      await tx.done.catch((cause) => {
        throw givenUp(cause);
      });
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
    async close() {
      channel.close();
      db.close();
    },
  };
}

/** Keys of the arrays of a project that are in this browser: of one that came from a server, those looked at so far. */
export async function keysHere(projectId: string): Promise<Set<string>> {
  const db = await open(projectId);
  const keys = await db.getAllKeys('arrays');
  db.close();
  return new Set(keys);
}

/** Delete the database of a project, where there is one. */
export const removeDatabase = (projectId: string): Promise<void> => deleteDB(databaseName(projectId));

/** Make the database of a new project. */
export async function createProject(given: ProjectFacts & { origin?: string }, objects: EarthObject[]): Promise<void> {
  const facts: KeptFacts = { ...given, version: VERSION };
  const db = await open(facts.id);
  const tx = db.transaction(['facts', 'objects'], 'readwrite');
  void tx.objectStore('facts').put(facts, 'facts');
  for (const object of objects) void tx.objectStore('objects').put(object);
  await tx.done;
  db.close();
}

/** Bring the objects of a project that an earlier version kept to how they are kept now. */
async function migrateDatabase(db: IDBPDatabase<ProjectSchema>): Promise<void> {
  const { objects } = sortOut(await db.getAll('objects'));
  const tx = db.transaction(['facts', 'objects'], 'readwrite');
  const facts = (await tx.objectStore('facts').get('facts')) as KeptFacts;
  // another thread may have done it meanwhile
  if (facts.version !== VERSION) {
    for (const object of migrated(objects)) void tx.objectStore('objects').put(object);
    void tx.objectStore('facts').put({ ...facts, version: VERSION }, 'facts');
  }
  await tx.done;
}

/** Copy the database of a project to another id and name, a few megabytes at a time. */
export async function copyDatabase(from: string, to: Pick<ProjectFacts, 'id' | 'name'>): Promise<void> {
  const [source, target] = [await open(from), await open(to.id)];
  const facts = await factsIn(source);
  if (!facts) throw new LithagonError('project', `There is no project ${from}.`);
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
