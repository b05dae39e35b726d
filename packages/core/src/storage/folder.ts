import { existsSync, statSync, writeFile as writeInOne } from 'node:fs';
import { mkdir, open, readdir, readFile, rename, rm } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { promisify } from 'node:util';
import { LithagonError } from '../earth/errors.ts';
import { idSchema } from '../earth/objects/common.ts';
import type { EarthObject } from '../earth/objects.ts';
import { labelled, matched, wellIdOf, withName } from './belonging.ts';
import { checkedChange } from './commit.ts';
import { type Hold, holdFolder } from './hold.ts';
import { placeOf } from './place.ts';
import { type OpenedProject, readProject, writtenProject } from './projectFile.ts';
import { type LedgerEntry, type ProjectFacts, type Store, sweep, type Transaction } from './store.ts';

/** The file system's promises cut what they write into halves of a megabyte, and make an object of every file. */
const writeWhole = promisify(writeInOne);

export interface FolderOptions {
  /** Name of the project to begin where there is none; without it, a folder without a project is refused. */
  name?: string;
  /**
   * Hold the project for writing from the start, under what others are told of it. Otherwise it is held from the first
   * write on. Leftovers of runs that were killed are cleared away by whoever comes to hold it.
   */
  hold?: string;
}

/** Changes to one folder by the stores of this process, one after the other. */
const turns = new Map<string, Promise<unknown>>();

/**
 * A project as a folder: `project.json` holds facts, objects and ledger and is replaced whole; arrays lie in
 * `arrays/<object>/<name>/` as Zarr v3. One process at a time may change it; any number may read.
 */
export async function folderStore(dir: string, { name, hold: holder }: FolderOptions = {}): Promise<Store> {
  const folder = resolve(dir);
  const path = join(folder, 'project.json');
  const arrays = join(folder, 'arrays');
  const folders = new Set<string>();
  let hold: Hold | null = null;
  let seen = '';
  let state: OpenedProject;

  /** What tells one writing of the project file from another. */
  const stamp = () => {
    const { ino, mtimeMs, size } = statSync(path);
    return `${ino} ${mtimeMs} ${size}`;
  };
  async function read(): Promise<OpenedProject> {
    seen = stamp();
    const project = readProject(parseJson(await readFile(path, 'utf8')));
    if (!project)
      throw new LithagonError('project', `${path} is not a Lithagon project that this version can read.`, {
        object: dir,
        fix: 'It was left as it is. Choose another folder.',
      });
    return project;
  }
  async function save(next: OpenedProject): Promise<void> {
    hold?.check();
    const temporary = `${path}.${process.pid}.new`;
    try {
      const file = await open(temporary, 'w');
      try {
        await file.writeFile(writtenProject(next));
        // on the disk before it takes the place of the other
        await file.sync();
      } finally {
        await file.close();
      }
      await rename(temporary, path);
    } catch (cause) {
      await rm(temporary, { force: true }).catch(() => undefined);
      throw cause;
    }
    seen = stamp();
  }
  /** Come to hold the project, and see what others have made of it meanwhile. */
  async function take(): Promise<void> {
    if (hold) return;
    hold = await holdFolder(folder, holder ?? 'another program');
    if (!hold.fresh) return;
    if (existsSync(path) && stamp() !== seen) state = await read();
    await clearAway();
  }
  /** Remove what killed runs have left: files half written, and arrays of objects that never came to be. */
  async function clearAway(): Promise<void> {
    for (const file of await readdir(folder)) if (/^project\.json\..*\.new$/.test(file)) await rm(join(folder, file));
    if (state) await sweep(store);
  }
  function inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = (turns.get(folder) ?? Promise.resolve()).then(work);
    turns.set(
      folder,
      next.catch(() => undefined),
    );
    return next;
  }

  const store: Store = {
    door: folder,
    facts: async (): Promise<ProjectFacts> => ({ ...state.facts }),
    list: async (): Promise<EarthObject[]> => labelled(structuredClone(state.objects)),
    async get(id) {
      const object = state.objects.find((o) => o.id === id);
      const well = state.objects.find((o) => o.id === wellIdOf(object));
      return object ? withName(structuredClone(object), well?.name) : null;
    },
    ledger: async (): Promise<LedgerEntry[]> => [...state.ledger],
    aside: async () => structuredClone(state.aside),
    commit: (given: Transaction) =>
      inTurn(async () => {
        const checked = checkedChange(given);
        await take();
        if (stamp() !== seen) state = await read();
        const change = matched(checked, state.objects);
        const gone = new Set([...(change.remove ?? []), ...(change.put ?? []).map((o) => o.id)]);
        const next = {
          facts: { ...state.facts, ...change.facts },
          objects: [...state.objects.filter((o) => !gone.has(o.id)), ...structuredClone(change.put ?? [])],
          ledger: [...state.ledger, ...(change.ledger ?? [])],
          aside: state.aside.filter(({ key }) => !change.discard?.includes(key)),
        };
        await save(next);
        state = next;
      }),
    async readBytes(key) {
      const file = placeOf(arrays, key);
      return existsSync(file) ? new Uint8Array(await readFile(file)) : null;
    },
    async writeBytes(key, bytes) {
      const file = placeOf(arrays, key);
      if (!hold) await inTurn(take);
      const parent = dirname(file);
      if (!folders.has(parent)) await mkdir(parent, { recursive: true });
      folders.add(parent);
      await writeWhole(file, bytes);
    },
    async removeArrays(prefix) {
      folders.clear();
      await rm(placeOf(arrays, prefix), { recursive: true, force: true });
    },
    // what else lies there is nobody's of ours
    arrayOwners: async () =>
      existsSync(arrays) ? (await readdir(arrays)).filter((each) => idSchema.safeParse(each).success) : [],
    async close() {
      hold?.release();
      hold = null;
    },
  };

  if (!existsSync(path)) {
    if (name === undefined)
      throw new LithagonError('project', `There is no project in ${dir}.`, {
        object: dir,
        fix: 'Load a file into it first.',
      });
    await makeFolder(folder);
    hold = await holdFolder(folder, holder ?? 'another program');
    try {
      // another may have begun it while this one waited
      if (!existsSync(path)) {
        const facts = { id: crypto.randomUUID(), name, created: new Date().toISOString(), frame: null };
        state = { facts, objects: [], ledger: [], aside: [] };
        await save(state);
      } else state = await read();
      if (hold.fresh) await clearAway();
    } catch (cause) {
      hold.release();
      throw cause;
    }
  } else {
    state = await read();
    if (holder !== undefined) await take();
  }
  return store;
}

/**
 * The same project for another thread of a process that holds it: arrays are read and written for a run of the holder's,
 * and nothing else is changed.
 */
export async function laneStore(dir: string): Promise<Store> {
  const store = await folderStore(dir);
  const arrays = join(resolve(dir), 'arrays');
  const folders = new Set<string>();
  return {
    ...store,
    copies: true,
    async writeBytes(key, bytes) {
      const file = placeOf(arrays, key);
      const parent = dirname(file);
      if (!folders.has(parent)) await mkdir(parent, { recursive: true });
      folders.add(parent);
      await writeWhole(file, bytes);
    },
  };
}

async function makeFolder(folder: string): Promise<void> {
  try {
    await mkdir(folder, { recursive: true });
  } catch (cause) {
    // on a disk that can only be read, making parents as well says that there is no such folder
    if ((cause as NodeJS.ErrnoException).code === 'ENOENT') await mkdir(folder);
    throw cause;
  }
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
