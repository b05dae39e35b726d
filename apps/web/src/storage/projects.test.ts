import '../testing/browser';
import { madeWell } from '@lithagon/core/testing/storeContract';
import { afterEach, expect, test, vi } from 'vitest';
import { idbStore } from './idbStore';
import {
  deleteProject,
  duplicateProject,
  listProjects,
  newProject,
  noteProject,
  openFromServer,
  renameProject,
} from './projects';

afterEach(async () => {
  vi.unstubAllGlobals();
  for (const { id } of await listProjects()) await deleteProject(id);
});

test('projects are listed, the one opened last first, with what was noted of them', async () => {
  const first = await newProject('First');
  await new Promise((resolve) => setTimeout(resolve, 5));
  await newProject('Second');
  await noteProject(first, { objects: 3, bytes: 1000 });
  await noteProject('gone', { objects: 9 });
  const list = await listProjects();
  expect(list.map((p) => p.name)).toEqual(['Second', 'First']);
  expect(list[1]).toMatchObject({ objects: 3, bytes: 1000 });
});

test('a copy has a name and id of its own, and keeps everything', async () => {
  const id = await newProject('Field');
  await (await idbStore(id)).commit({ put: [madeWell('w', 'QN-1')] });
  const [entry] = await listProjects();
  await duplicateProject(entry);
  const copy = (await listProjects()).find((p) => p.id !== id);
  expect(copy?.name).toBe('Field copy');
  expect((await (await idbStore(copy?.id ?? '')).list()).map((o) => o.name)).toEqual(['QN-1']);
});

test('a new name is that of the list and of the project itself', async () => {
  const id = await newProject('Old');
  const [entry] = await listProjects();
  await renameProject(entry, 'New');
  expect((await listProjects())[0].name).toBe('New');
  expect((await (await idbStore(id)).facts()).name).toBe('New');
});

test('what a server shows becomes a project here that remembers where its arrays are', async () => {
  const served = {
    lithagon: 1,
    facts: { id: 'theirs', name: 'Quillon', created: '2026-01-01T00:00:00Z', frame: null },
    objects: [madeWell('w', 'QN-2')],
  };
  vi.stubGlobal('fetch', async (url: string) =>
    url === '/demo/project.json'
      ? new Response(JSON.stringify(served))
      : url === '/demo/arrays/w/values'
        ? new Response(Uint8Array.of(5))
        : new Response(null, { status: 404 }),
  );
  const id = await openFromServer('/demo');
  expect(id).not.toBe('theirs');
  const store = await idbStore(id);
  expect((await store.list()).map((o) => o.name)).toEqual(['QN-2']);
  expect([...((await store.readBytes('w/values')) ?? [])]).toEqual([5]);
  await expect(openFromServer('/elsewhere')).rejects.toThrow('There is no project at /elsewhere.');
});
