import { expect, test } from 'vitest';
import { crsTable } from '../earth/crsTable.ts';
import type { Volume } from '../earth/objects.ts';
import type { TraceIndex } from '../formats/segy/traces.ts';
import { type ByteSource, memorySource } from '../formats/source.ts';
import { memoryStore } from '../storage/memory.ts';
import { makeSegy, PLAIN_SEGY } from '../testing/segyWriter.ts';
import { inspectFile } from './inspect.ts';
import { keptIndex } from './keptIndexes.ts';
import { loadFile } from './load.ts';

const made = (megabytes: number) => ({ traceOfBin: new Int32Array(megabytes << 18), late: null }) as TraceIndex;

test('an index is made once for a key, always where there is none, and the oldest go when there is no room', async () => {
  let times = 0;
  const ask = (key: string | null, megabytes = 20) =>
    keptIndex(key, async () => {
      times++;
      return made(megabytes);
    });
  const first = await ask('a');
  expect(await ask('a')).toBe(first);
  expect(times).toBe(1);
  await ask(null);
  await ask(null);
  expect(times).toBe(3);
  await ask('b');
  await ask('c');
  // a was used longer ago than b and c, until now
  expect(await ask('a')).toBe(first);
  await ask('d');
  expect(times).toBe(6);
  await ask('a');
  expect(times).toBe(6);
  await ask('b');
  expect(times).toBe(7);
  // what is larger than all the room there is, is not kept, and drives nothing out
  await ask('huge', 70);
  await ask('huge', 70);
  expect(times).toBe(9);
  await ask('a');
  expect(times).toBe(9);
});

test('one that fails is not kept', async () => {
  await expect(keptIndex('bad', () => Promise.reject(new Error('cut short')))).rejects.toThrow('cut short');
  expect(await keptIndex('bad', async () => made(1))).toBeTruthy();
});

/** A file that counts the bytes read of it. */
function counted(bytes: Uint8Array, stamp?: string): { source: ByteSource; read: () => number } {
  let sum = 0;
  const inner = memorySource('a.sgy', bytes);
  return {
    source: {
      ...inner,
      stamp,
      read(offset, length) {
        sum += length;
        return inner.read(offset, length);
      },
    },
    read: () => sum,
  };
}

test('a file that was looked at is not read through again to be loaded, unless it or its reading has changed', async () => {
  const even = (n: number) => Array.from({ length: n }, (_, k) => k);
  const layout = { ...PLAIN_SEGY, inlines: even(40).map((n) => n + 1), crosslines: even(40).map((n) => n + 11) };
  const bytes = makeSegy({ ...layout, samples: 400 }, even);
  const looked = async (stamp: string | undefined, declare = {}) => {
    const { source, read } = counted(bytes, stamp);
    await inspectFile(source, declare);
    return read();
  };
  const whole = await looked('one');
  const again = await looked('one');
  // less by about the file
  expect(whole - again).toBeGreaterThan(0.95 * bytes.length);
  expect(await looked(undefined)).toBe(whole);
  expect(await looked('two')).toBe(whole);
  const bytesOfFirst = { 'byte.x': '181', 'byte.y': '185' };
  expect(await looked('one', bytesOfFirst)).toBeLessThanOrEqual(whole);

  // and what is loaded by it is the same
  const load = async (stamp?: string) => {
    const store = memoryStore();
    const says = { domain: 'twt', quantity: 'attribute' };
    const context = { store, crsTable: async () => [] };
    const [volume] = (await loadFile(counted(bytes, stamp).source, says, context)).objects as Volume[];
    const { id: _, madeBy: __, layouts: ___, ...facts } = volume;
    return facts;
  };
  expect(await load('one')).toEqual(await load());
});

test('a file in degrees that was looked at before the project had a system is placed anew when it gets one', async () => {
  const bytes = makeSegy(
    {
      ...PLAIN_SEGY,
      origin: [57 * 3600, -21.2 * 3600],
      perInline: [0, 3.6],
      perCrossline: [3.6, 0],
      scalar: -100,
    },
    (n) => Array.from({ length: n }, (_, k) => k),
  );
  const view = new DataView(bytes.buffer);
  for (let at = 3600; at < bytes.length; at += 240 + 4 * PLAIN_SEGY.samples) view.setInt16(at + 88, 2);
  const source = { ...memorySource('degrees.sgy', bytes), stamp: 'degrees' };
  const declare = { domain: 'twt', quantity: 'attribute' };
  const looked = await inspectFile(source, declare, { around: { objects: [], frame: null, crsTable } });
  expect(looked.questions.find((q) => q.key === 'project.crs')?.options[0].value).toBe('EPSG:32740');
  const { objects } = await loadFile(
    source,
    { ...declare, 'project.crs': 'EPSG:32740' },
    { store: memoryStore(), crsTable },
  );
  const [volume] = objects as Volume[];
  expect(volume.binGrid.origin[0]).toBeCloseTo(500_000, -1);
  expect(volume.binGrid.origin[1]).toBeGreaterThan(7_600_000);
});
