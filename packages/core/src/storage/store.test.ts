import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import * as zarr from 'zarrita';
import { storeContract } from '../testing/storeContract.ts';
import { folderStore } from './folder.ts';
import { memoryStore } from './memory.ts';
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

storeContract('memory', async () => memoryStore('A'));
storeContract('a folder', () => folderStore(newDir(), { name: 'A' }));

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
