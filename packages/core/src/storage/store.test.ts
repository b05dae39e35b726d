import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from 'vitest';
import * as zarr from 'zarrita';
import type { EarthObject } from '../earth/objects.ts';
import { madeHorizon } from '../testing/objects.ts';
import { readChunk, writeWhole } from './arrays.ts';
import { folderStore } from './folder.ts';
import { memoryStore } from './memory.ts';
import { type Store, sweep } from './store.ts';
import { layoutFor, volumeWriter } from './volumes.ts';

const dirs: string[] = [];
const newDir = () => {
  const dir = mkdtempSync(join(tmpdir(), 'lithagon-'));
  dirs.push(dir);
  return dir;
};
afterAll(() => {
  for (const dir of dirs) rmSync(dir, { recursive: true, force: true });
});

const madeBy = {
  step: 'data.load',
  version: 1,
  params: {},
  inputs: {},
  started: '2026-01-01T00:00:00.000Z',
  tookMs: 1,
  warnings: [],
  engine: 'test',
};
const well = (id: string, name: string): EarthObject => ({
  id,
  kind: 'well',
  name,
  stage: 'wells',
  revision: 'r',
  x: 1,
  y: 2,
  kbM: 25,
  madeBy,
});

const STORES: [string, () => Promise<Store>][] = [
  ['memory', async () => memoryStore('A')],
  ['folder', () => folderStore(newDir(), { name: 'A' })],
];

describe.each(STORES)('a project in %s', (_, open) => {
  test('objects come and go by transactions', async () => {
    const store = await open();
    await store.commit({
      put: [well('w1', 'QN-1'), well('w2', 'QN-2')],
      ledger: [{ at: 'now', what: 'in', object: 'w1', name: 'QN-1', note: '' }],
    });
    expect((await store.list()).map((o) => o.name)).toEqual(['QN-1', 'QN-2']);
    await store.commit({ put: [well('w1', 'renamed')], remove: ['w2'], facts: { name: 'B' } });
    expect((await store.list()).map((o) => o.name)).toEqual(['renamed']);
    expect((await store.facts()).name).toBe('B');
    expect(await store.get('w2')).toBeNull();
    expect(await store.ledger()).toHaveLength(1);
  });
  test('what was given is not what is kept: changing it later changes nothing', async () => {
    const store = await open();
    const object = well('w1', 'QN-1');
    await store.commit({ put: [object] });
    object.name = 'changed outside';
    (await store.list())[0].name = 'changed outside';
    expect((await store.get('w1'))?.name).toBe('QN-1');
  });
  test('arrays are kept to the byte and removed by prefix', async () => {
    const store = await open();
    const data = Float32Array.of(1.5, Number.NaN, -3);
    const ref = await writeWhole(store, 'w1/values', [3], data, ['n']);
    expect([...(await readChunk(store, ref, [0]))]).toEqual([1.5, Number.NaN, -3]);
    await store.removeArrays('w1/');
    await expect(readChunk(store, ref, [0])).rejects.toMatchObject({ code: 'storage' });
  });
  test('arrays that no object refers to are swept', async () => {
    const store = await open();
    const { values } = await madeHorizon(store, 'H', 'twt', () => 900);
    await writeWhole(store, 'orphan/a', [1], new Float32Array(1), ['n']);
    expect(await sweep(store)).toBe(1);
    expect(await store.arrayOwners()).toEqual([values.key.split('/')[0]]);
  });
});

test('an independent reader of Zarr v3 opens a volume of a folder project', async () => {
  const dir = newDir();
  const store = await folderStore(dir, { name: 'A' });
  const writer = await volumeWriter(store, 'v', [3, 4, 5]);
  const data = Float32Array.from({ length: 60 }, (_, n) => n);
  await writer.write(0, data);
  await writer.finish();
  for (const plane of ['inline', 'crossline', 'slice']) {
    const files = {
      get: async (key: string) => {
        try {
          return new Uint8Array(readFileSync(join(dir, 'arrays/v', plane, key)));
        } catch {
          return undefined;
        }
      },
    };
    const array = await zarr.open.v3(files as never, { kind: 'array' });
    const all = await zarr.get(array);
    expect(all.shape).toEqual([3, 4, 5]);
    expect([...(all.data as Float32Array)]).toEqual([...data]);
  }
});

test('slabs are about a megabyte whichever way they are cut', () => {
  const shape: [number, number, number] = [160, 200, 451];
  for (const plane of ['inline', 'crossline', 'slice'] as const) {
    const bytes = 4 * layoutFor('v', shape, plane).chunk.reduce((a, b) => a * b, 1);
    expect(bytes).toBeGreaterThan(0.6e6);
    expect(bytes).toBeLessThan(1.7e6);
  }
});

test('a folder that is no project is refused and left as it is', async () => {
  const dir = newDir();
  await expect(folderStore(dir)).rejects.toMatchObject({ code: 'project' });
  writeFileSync(join(dir, 'project.json'), '{"lithagon": 1, "facts"');
  await expect(folderStore(dir, { name: 'A' })).rejects.toMatchObject({ code: 'project' });
  expect(readFileSync(join(dir, 'project.json'), 'utf8')).toBe('{"lithagon": 1, "facts"');
});
