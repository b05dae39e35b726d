import { existsSync, writeFile as writeInOne } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { promisify } from 'node:util';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject } from '../earth/objects.ts';
import { type ProjectFile, projectSchema } from './projectFile.ts';
import type { LedgerEntry, ProjectFacts, Store, Transaction } from './store.ts';

/** The file system's promises cut what they write into halves of a megabyte, and make an object of every file. */
const writeWhole = promisify(writeInOne);

/**
 * A project as a folder: `project.json` holds facts, objects and ledger and is replaced whole; arrays lie in
 * `arrays/<object>/<name>/` as Zarr v3.
 */
export async function folderStore(dir: string, create?: { name: string }): Promise<Store> {
  const path = join(dir, 'project.json');
  let state: ProjectFile;
  if (existsSync(path)) {
    const parsed = projectSchema.safeParse(parseJson(await readFile(path, 'utf8')));
    if (!parsed.success)
      throw new LithagonError('project', `${path} is not a Lithagon project that this version can read.`, {
        object: dir,
        fix: 'It was left as it is. Choose another folder.',
      });
    state = parsed.data;
  } else {
    if (!create)
      throw new LithagonError('project', `There is no project in ${dir}.`, {
        object: dir,
        fix: 'Load a file into it first.',
      });
    await mkdir(dir, { recursive: true });
    const facts = { id: crypto.randomUUID(), name: create.name, created: new Date().toISOString(), frame: null };
    state = { lithagon: 1, facts, objects: [], ledger: [] };
    await save(state);
  }

  async function save(next: typeof state): Promise<void> {
    const temporary = `${path}.${process.pid}.new`;
    await writeFile(temporary, `${JSON.stringify(next, null, 1)}\n`);
    await rename(temporary, path);
  }

  const arrays = join(dir, 'arrays');
  const known = new Set<string>();
  return {
    facts: async (): Promise<ProjectFacts> => ({ ...state.facts }),
    list: async (): Promise<EarthObject[]> => structuredClone(state.objects),
    get: async (id) => structuredClone(state.objects.find((o) => o.id === id) ?? null),
    ledger: async (): Promise<LedgerEntry[]> => [...state.ledger],
    async commit(change: Transaction) {
      const gone = new Set([...(change.remove ?? []), ...(change.put ?? []).map((o) => o.id)]);
      const next = {
        ...state,
        facts: { ...state.facts, ...change.facts },
        objects: [...state.objects.filter((o) => !gone.has(o.id)), ...structuredClone(change.put ?? [])],
        ledger: [...state.ledger, ...(change.ledger ?? [])],
      };
      await save(next);
      state = next;
    },
    async readBytes(key) {
      const file = join(arrays, key);
      return existsSync(file) ? new Uint8Array(await readFile(file)) : null;
    },
    async writeBytes(key, bytes) {
      const file = join(arrays, key);
      const folder = dirname(file);
      if (!known.has(folder)) await mkdir(folder, { recursive: true });
      known.add(folder);
      await writeWhole(file, bytes);
    },
    async removeArrays(prefix) {
      known.clear();
      await rm(join(arrays, prefix), { recursive: true, force: true });
    },
    arrayOwners: async () => (existsSync(arrays) ? await readdir(arrays) : []),
  };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
