import { mkdtempSync, readdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, expect, test } from 'vitest';
import { madeWell } from '../testing/storeContract.ts';
import { folderStore } from './folder.ts';
import { holdFolder } from './hold.ts';

let dir: string;
const dirs: string[] = [];
beforeEach(() => {
  dir = mkdtempSync(join(tmpdir(), 'lithagon-hold-'));
  dirs.push(dir);
});
afterAll(() => {
  for (const each of dirs) rmSync(each, { recursive: true, force: true });
});
const lock = () => join(dir, 'project.lock');
/** A lock as another process leaves it. */
const holder = (more: object) =>
  writeFileSync(
    lock(),
    JSON.stringify({
      pid: 1,
      host: hostname(),
      began: null,
      what: 'lithagon do',
      since: 'then',
      token: 'theirs',
      ...more,
    }),
  );
/** A number that no process has. */
const NOBODY = 2 ** 22 - 3;

test('a holder that lives keeps others out, by name', async () => {
  holder({ pid: 1 });
  await expect(holdFolder(dir, 'test', 100)).rejects.toMatchObject({
    code: 'held',
    message: expect.stringMatching(/being changed by lithagon do \(process 1 on .*, since then\)/),
  });
  expect(JSON.parse(readFileSync(lock(), 'utf8')).token).toBe('theirs');
});

test('a holder that is gone, or whose number another process has now, holds nobody up', async () => {
  for (const gone of [{ pid: NOBODY }, { pid: process.pid, began: '1' }]) {
    holder(gone);
    const hold = await holdFolder(dir, 'test', 100);
    expect(JSON.parse(readFileSync(lock(), 'utf8')).pid).toBe(process.pid);
    hold.release();
    expect(readdirSync(dir)).toEqual([]);
  }
});

test('a holder on another machine is gone after a long silence only', async () => {
  holder({ host: 'elsewhere', pid: NOBODY });
  await expect(holdFolder(dir, 'test', 100)).rejects.toMatchObject({ code: 'held' });
  const before = new Date(Date.now() - 10 * 60_000);
  utimesSync(lock(), before, before);
  (await holdFolder(dir, 'test', 100)).release();
});

test('stores of one process share what it holds, and see what each has kept', async () => {
  const one = await folderStore(dir, { name: 'A' });
  const two = await folderStore(dir);
  await Promise.all([
    one.commit({ put: [madeWell('w1', 'QN-1')] }),
    two.commit({ put: [madeWell('w2', 'QN-2')] }),
    one.commit({ put: [madeWell('w3', 'QN-3')] }),
  ]);
  const three = await folderStore(dir);
  expect((await three.list()).map((o) => o.name).sort()).toEqual(['QN-1', 'QN-2', 'QN-3']);
  await one.close?.();
  expect(readdirSync(dir)).toContain('project.lock');
  await two.close?.();
  expect(readdirSync(dir)).not.toContain('project.lock');
});

test('a change is refused once the lock was taken away, and the file stays what it is', async () => {
  const store = await folderStore(dir, { name: 'A' });
  const before = readFileSync(join(dir, 'project.json'), 'utf8');
  holder({ pid: 1 });
  await expect(store.commit({ put: [madeWell('w', 'QN-1')] })).rejects.toMatchObject({ code: 'held' });
  expect(readFileSync(join(dir, 'project.json'), 'utf8')).toBe(before);
});

test('who comes to hold a project clears away what killed runs have left, and nothing else', async () => {
  const store = await folderStore(dir, { name: 'A' });
  await store.commit({ put: [madeWell('w', 'QN-1')] });
  await store.close?.();
  writeFileSync(join(dir, 'project.json.99.new'), '{"half');
  writeFileSync(join(dir, 'notes.txt'), 'mine');
  const other = await folderStore(dir);
  await other.writeBytes('left-over/values/c/0', Uint8Array.of(1));
  await other.close?.();
  const reader = await folderStore(dir);
  expect(await reader.arrayOwners()).toEqual(['left-over']);
  const writer = await folderStore(dir, { hold: 'test' });
  expect(await writer.arrayOwners()).toEqual([]);
  expect(readdirSync(dir).sort()).toEqual(['arrays', 'notes.txt', 'project.json', 'project.lock']);
  await writer.close?.();
});

test('a key that leads out of the folder is none', async () => {
  const store = await folderStore(dir, { name: 'A' });
  for (const key of ['../up', 'a/../../up', '/etc/x', 'a//b', '', '..', 'a/./b', 'a\\..\\b', 'a/b\0', '.hidden/x']) {
    await expect(store.writeBytes(key, Uint8Array.of(1)), key).rejects.toThrow('is no key of an array');
    await expect(store.readBytes(key), key).rejects.toThrow('is no key of an array');
    await expect(store.removeArrays(key), key).rejects.toThrow('is no key of an array');
  }
  await store.close?.();
});
