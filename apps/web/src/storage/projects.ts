import { type EarthObject, freeAmong, type ProjectFacts } from '@lithagon/core';
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

/** A project of its own with everything that another holds. */
export async function duplicateProject(entry: ProjectEntry): Promise<void> {
  const id = crypto.randomUUID();
  const name = `${entry.name} copy`;
  await copyDatabase(entry.id, { id, name });
  const now = new Date().toISOString();
  await register({ ...entry, id, name, created: now, opened: now });
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
  await createProject(facts, []);
  await touchProject(facts);
  return facts.id;
}

/** A project of this browser's own from one that a server shows: objects now, arrays as they are looked at. */
export async function openFromServer(origin: string): Promise<string> {
  const response = await fetch(`${origin}/project.json`);
  if (!response.ok) throw new Error(`There is no project at ${origin}.`);
  const project = (await response.json()) as { facts: ProjectFacts; objects: EarthObject[] };
  const facts = { ...project.facts, id: crypto.randomUUID(), origin };
  await createProject(facts, project.objects);
  await touchProject(facts);
  return facts.id;
}

export async function deleteProject(id: string): Promise<void> {
  await (await registry()).delete('projects', id);
  await removeDatabase(id);
}
