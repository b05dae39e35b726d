import { freeAmong, type ProjectFacts, readProject } from '@lithagon/core/kept';
import { type DBSchema, openDB } from 'idb';
import { copyDatabase, createProject, idbStore, removeDatabase } from './idbStore';

/** A line of the list of projects kept in this browser. */
export interface ProjectEntry {
  id: string;
  name: string;
  created: string;
  opened: string;
  /** Objects and bytes when it was last open, and a small picture of its section. */
  objects?: number;
  bytes?: number;
  picture?: string;
}

interface RegistrySchema extends DBSchema {
  projects: { key: string; value: ProjectEntry };
}

const registry = () =>
  openDB<RegistrySchema>('lithagon', 1, {
    upgrade(db) {
      db.createObjectStore('projects', { keyPath: 'id' });
    },
  });

export async function listProjects(): Promise<ProjectEntry[]> {
  const all = await (await registry()).getAll('projects');
  return all.sort((a, b) => (a.opened < b.opened ? 1 : -1));
}

async function register(entry: ProjectEntry): Promise<void> {
  const db = await registry();
  const before = await db.get('projects', entry.id);
  await db.put('projects', { ...before, ...entry });
}

/** Note what a project looks like and holds, for the list of projects. */
export async function noteProject(
  id: string,
  seen: Pick<ProjectEntry, 'objects' | 'bytes' | 'picture'>,
): Promise<void> {
  const db = await registry();
  const before = await db.get('projects', id);
  if (before) await db.put('projects', { ...before, ...seen });
}

/** Databases of projects that are being made just now are locked under this name and their id. */
const MAKING = 'lithagon-making-';

/** Make a project's database and list it; one that was left half made is cleared away by whoever looks for such next. */
export async function making<T>(id: string, work: () => Promise<T>): Promise<T> {
  const whole = async () => {
    try {
      return await work();
    } catch (cause) {
      await removeDatabase(id);
      throw cause;
    }
  };
  return navigator.locks ? navigator.locks.request(MAKING + id, whole) : whole();
}

/** Delete databases that no project of the list owns and nobody is making: what a closed tab has left half made. */
export async function clearAwayHalfMade(): Promise<number> {
  if (!navigator.locks || !indexedDB.databases) return 0;
  const databases = await indexedDB.databases();
  const { held = [] } = await navigator.locks.query();
  // asked for last: what was being made when the locks were asked for is listed by now
  const known = new Set((await listProjects()).map((p) => p.id));
  let cleared = 0;
  for (const { name = '' } of databases) {
    const id = /^lithagon-(.+)$/.exec(name)?.[1];
    if (!id || known.has(id) || held.some((lock) => lock.name === MAKING + id)) continue;
    await removeDatabase(id);
    cleared++;
  }
  return cleared;
}

/** A project of its own with everything that another holds. */
export async function duplicateProject(entry: ProjectEntry): Promise<void> {
  const id = crypto.randomUUID();
  const name = `${entry.name} copy`;
  await making(id, async () => {
    await copyDatabase(entry.id, { id, name });
    const now = new Date().toISOString();
    await register({ ...entry, id, name, created: now, opened: now });
  });
}

export async function renameProject(entry: ProjectEntry, name: string): Promise<void> {
  const store = await idbStore(entry.id);
  await store.commit({ facts: { name } });
  await register({ ...entry, name });
}

export async function touchProject(facts: ProjectFacts): Promise<void> {
  await register({ id: facts.id, name: facts.name, created: facts.created, opened: new Date().toISOString() });
}

/** A new project with nothing in it, under a name that no other has. */
export async function newProject(wanted: string): Promise<string> {
  const name = freeAmong(new Set((await listProjects()).map((p) => p.name)), wanted);
  const now = new Date().toISOString();
  const facts: ProjectFacts = { id: crypto.randomUUID(), name, created: now, frame: null };
  await making(facts.id, async () => {
    await createProject(facts, []);
    await touchProject(facts);
  });
  return facts.id;
}

/** A project of this browser's own from one that a server shows: objects now, arrays as they are looked at. */
export async function openFromServer(origin: string): Promise<string> {
  const response = await fetch(`${origin}/project.json`);
  if (!response.ok) throw new Error(`There is no project at ${origin}.`);
  const project = readProject(await response.json().catch(() => null));
  if (!project) throw new Error(`What is at ${origin} is no project that can be read.`);
  const facts = { ...project.facts, id: crypto.randomUUID(), origin };
  await making(facts.id, async () => {
    await createProject(facts, project.objects);
    await touchProject(facts);
  });
  return facts.id;
}

export async function deleteProject(id: string): Promise<void> {
  await (await registry()).delete('projects', id);
  await removeDatabase(id);
}
