import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { fileSource } from './fileSource.ts';
import { type ByteSource, blobSource, memorySource, readAhead, readText } from './source.ts';

const BYTES = Uint8Array.from({ length: 5000 }, (_, n) => (n * 7) % 251);
let dir: string;
beforeAll(() => {
  dir = mkdtempSync(join(tmpdir(), 'sources-'));
  writeFileSync(join(dir, 'a.bin'), BYTES);
});
afterAll(() => rmSync(dir, { recursive: true }));

/** The same bytes from each place that they may come from. */
const SOURCES: [string, () => Promise<ByteSource>][] = [
  ['memory', async () => memorySource('a.bin', BYTES)],
  ['a dropped file', async () => blobSource('a.bin', new Blob([BYTES]))],
  ['a file on disk', () => fileSource(join(dir, 'a.bin'))],
];

describe.each(SOURCES)('bytes of %s', (_, open) => {
  test('are those at their place, and fewer only at the end', async () => {
    const source = await open();
    expect(source.size).toBe(5000);
    expect([...(await source.read(10, 4))]).toEqual([...BYTES.subarray(10, 14)]);
    expect([...(await source.read(4990, 100))]).toEqual([...BYTES.subarray(4990)]);
    expect((await source.read(6000, 10)).length).toBe(0);
    // a place to put them may be longer than they are
    expect([...(await source.read(100, 3, new Uint8Array(64)))]).toEqual([...BYTES.subarray(100, 103)]);
    await source.close?.();
  });

  test('come in pieces in turn, each whole while it is looked at', async () => {
    const source = await open();
    const pieces = [0, 2000, 1000, 4000, 4999].map((offset, n) => ({
      source,
      offset,
      length: [900, 1, 500, 1000, 1][n],
    }));
    const seen: number[] = [];
    for await (const [bytes, piece] of readAhead(pieces)) {
      await new Promise((resolve) => setTimeout(resolve, 2));
      expect([...bytes]).toEqual([...BYTES.subarray(piece.offset, piece.offset + piece.length)]);
      seen.push(piece.offset);
    }
    expect(seen).toEqual([0, 2000, 1000, 4000, 4999]);
    for await (const piece of readAhead([])) expect(piece).toBeUndefined();
    await source.close?.();
  });
});

describe('reading ahead', () => {
  test('asks for the next two pieces before this one is done with, and for no more', async () => {
    const asked: number[] = [];
    const source: ByteSource = {
      name: 'a',
      size: 100,
      read: async (offset, length) => {
        asked.push(offset);
        return new Uint8Array(length);
      },
    };
    const pieces = [0, 10, 20, 30].map((offset) => ({ source, offset, length: 10 }));
    for await (const [, { offset }] of readAhead(pieces))
      expect(asked).toEqual([0, 10, 20, 30].slice(0, offset / 10 + 3));
  });

  test('says where a file ends too soon, and what failed, when its turn comes', async () => {
    const short = memorySource('cut.sgy', BYTES.subarray(0, 1500));
    const pieces = [0, 1000].map((offset) => ({ source: short, offset, length: 1000 }));
    const read: number[] = [];
    const all = async () => {
      for await (const [, piece] of readAhead(pieces)) read.push(piece.offset);
    };
    await expect(all()).rejects.toThrow('cut.sgy ends before its last trace does.');
    expect(read).toEqual([0]);
    const broken: ByteSource = { name: 'b', size: 9, read: () => Promise.reject(new Error('the cable came loose')) };
    const fails = async () => {
      for await (const _ of readAhead([{ source: broken, offset: 0, length: 5 }]));
    };
    await expect(fails()).rejects.toThrow('the cable came loose');
  });
});

describe('a file', () => {
  test('that is not there has its sentence', async () => {
    await expect(fileSource(join(dir, 'nowhere.sgy'))).rejects.toThrow('There is no file');
    await expect(fileSource(dir)).rejects.toThrow('There is no file');
  });
  test('that was dropped is told from another of its name by when it was changed, a mere blob by nothing', () => {
    const at = (lastModified: number) => new File([BYTES], 'a.sgy', { lastModified });
    expect(blobSource('a.sgy', at(5)).stamp).toBe(blobSource('a.sgy', at(5)).stamp);
    expect(blobSource('a.sgy', at(5)).stamp).not.toBe(blobSource('a.sgy', at(6)).stamp);
    expect(blobSource('a.sgy', new Blob([BYTES])).stamp).toBeUndefined();
  });
  test('of text is read whole or refused, never cut; what cannot be seen in it is made visible', async () => {
    const source = memorySource('a.csv', new TextEncoder().encode('well,täglich\nQN-1,3\n'));
    expect(await readText(source)).toBe('well,täglich\nQN-1,3\n');
    await expect(readText(source, { most: 4 })).rejects.toMatchObject({
      code: 'text',
      object: 'a.csv',
      message: expect.stringContaining('can be read at once'),
    });
    const large = { name: 'l.csv', size: 213e6, read: () => Promise.reject(new Error('was read')) };
    await expect(readText(large)).rejects.toThrow('l.csv has 213 MB of text, and 200 MB can be read at once.');
    const oneLine = memorySource('one.csv', new Uint8Array(5e6).fill(65));
    await expect(readText(oneLine)).rejects.toThrow('one.csv has a line (1) of more than 4 MB.');
    expect((await readText(oneLine, { lines: false })).length).toBe(5e6);
    const returns = memorySource(
      'r.csv',
      new Uint8Array(5e6).map((_, n) => (n % 1000 === 0 ? 13 : 65)),
    );
    expect((await readText(returns)).length).toBe(5e6);
    const hidden = memorySource('h.csv', new TextEncoder().encode('a\u202eb,\u0007\tc\r\n'));
    expect(await readText(hidden)).toBe('a\ufffdb,\u2407\tc\r\n');
  });
});
