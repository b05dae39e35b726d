import type { CurveClass, EarthObject, Frame } from '../earth/objects.ts';
import { type Aside, rootsOf } from './projectFile.ts';

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
  /** Keys of what was set aside that is to be thrown away. */
  discard?: string[];
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
  /** What could not be read when the project was opened; it is kept as it is until it is thrown away. */
  aside(): Promise<Aside[]>;
  /** Raw little-endian bytes under a key, or null. */
  readBytes(key: string): Promise<Uint8Array | null>;
  writeBytes(key: string, bytes: Uint8Array): Promise<void>;
  /** Remove every array key that begins with `prefix`. */
  removeArrays(prefix: string): Promise<void>;
  /** First path segments (object ids) under which arrays are kept. */
  arrayOwners(): Promise<string[]>;
  /** By which another thread opens the same arrays for a run of this one; a store that has none is this thread's alone. */
  readonly door?: unknown;
  /** Whether it is done with the bytes that it is given once they are written, and takes those that other threads see. */
  readonly copies?: boolean;
  /** Let go of the project, where something is held. */
  close?(): Promise<void>;
}

/**
 * Remove arrays that no object owns: what a run that was interrupted had written. Only who holds the project for writing
 * may, and not while a run of its own is under way.
 * @param kept objects that are deleted but may come back by undo
 */
export async function sweep(store: Store, kept: EarthObject[] = []): Promise<number> {
  // asked for first: what comes to be meanwhile is not among them, and what is kept meanwhile is among the objects
  const owners = await store.arrayOwners();
  const [objects, aside] = await Promise.all([store.list(), store.aside()]);
  const known = new Set([...objects, ...kept, ...aside.map((each) => each.raw)].flatMap(rootsOf));
  let swept = 0;
  for (const owner of owners)
    if (!known.has(owner)) {
      await store.removeArrays(`${owner}/`);
      swept++;
    }
  return swept;
}
