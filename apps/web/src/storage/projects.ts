import type { EarthObject, ProjectFacts } from '@lithagon/core';
import { type DBSchema, openDB } from 'idb';
import { createProject, removeDatabase } from './idbStore';

/** A line of the list of projects kept in this browser. */
export interface ProjectEntry {
  id: string;
  name: string;
  created: string;
  opened: string;
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
  await (await registry()).put('projects', entry);
}

export async function touchProject(facts: ProjectFacts): Promise<void> {
  await register({ id: facts.id, name: facts.name, created: facts.created, opened: new Date().toISOString() });
}

/** A new project with nothing in it. */
export async function newProject(name: string): Promise<string> {
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
