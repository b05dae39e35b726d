import type { CurveClass, EarthObject, Frame } from '../earth/objects.ts';

/** Facts about a project as a whole. */
export interface ProjectFacts {
  id: string;
  name: string;
  created: string;
  frame: Frame | null;
  /** Classes that people gave to mnemonics, over what their names and units say. */
  curveClasses?: Record<string, CurveClass>;
  /** Arrangements of views that were saved by name; what they hold is the interface's own. */
  desks?: { name: string; state: Record<string, unknown> }[];
}

/** One line of the ledger: what came in, went out, was made or was removed. */
export interface LedgerEntry {
  at: string;
  what: 'in' | 'out' | 'made' | 'removed' | 'changed';
  object: string;
  name: string;
  note: string;
}

/** A change that happens whole or not at all. */
export interface Transaction {
  put?: EarthObject[];
  remove?: string[];
  facts?: Partial<ProjectFacts>;
  ledger?: LedgerEntry[];
}

/**
 * Where a project lives. Objects and facts change by transactions; arrays are written chunk by chunk under keys that
 * begin with the id of an object that does not exist yet, so that an unfinished run leaves nothing visible.
 */
export interface Store {
  facts(): Promise<ProjectFacts>;
  list(): Promise<EarthObject[]>;
  get(id: string): Promise<EarthObject | null>;
  commit(change: Transaction): Promise<void>;
  ledger(): Promise<LedgerEntry[]>;
  /** Raw little-endian bytes under a key, or null. */
  readBytes(key: string): Promise<Uint8Array | null>;
  writeBytes(key: string, bytes: Uint8Array): Promise<void>;
  /** Remove every array key that begins with `prefix`. */
  removeArrays(prefix: string): Promise<void>;
  /** First path segments (object ids) under which arrays are kept. */
  arrayOwners(): Promise<string[]>;
}

/**
 * Remove arrays that no object owns: what a run that was interrupted had written.
 * @param kept objects that are deleted but may come back by undo
 */
export async function sweep(store: Store, kept: EarthObject[] = []): Promise<number> {
  const known = new Set<string>();
  // an object that was made again keeps its id, and its arrays stand under another
  for (const [, owner] of JSON.stringify([await store.list(), kept]).matchAll(/"key":"([^"/]+)\//g)) known.add(owner);
  let swept = 0;
  for (const owner of await store.arrayOwners())
    if (!known.has(owner)) {
      await store.removeArrays(`${owner}/`);
      swept++;
    }
  return swept;
}
