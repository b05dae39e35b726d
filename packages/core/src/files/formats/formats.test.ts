import { afterEach, describe, expect, test } from 'vitest';
import { memorySource } from '../../formats/source.ts';
import { loadedRevision, madeByLoading, newId } from '../../project/make.ts';
import { memoryStore } from '../../storage/memory.ts';
import { inspectFile } from '../inspect.ts';
import { blank } from '../inspecting.ts';
import { loadFile } from '../load.ts';
import { recognise } from '../recognise.ts';
import { defineFormat } from './define.ts';
import { allFormats, forgetFormat, registerFormat } from './index.ts';

/** Rings of a made-up kind: a mark, then pairs of numbers. */
const rings = defineFormat({
  name: 'Rings',
  sniff: ({ text }) => (text?.startsWith('RINGS 1') ? 8 : 0),
  async inspect(source) {
    return { ...blank(source, 'Rings', 'One ring'), facts: [{ label: 'Corners', value: '3' }] };
  },
  async load({ source, declare, started }) {
    const text = new TextDecoder().decode(await source.read(0, source.size));
    const ring = text
      .split('\n')
      .slice(1)
      .filter(Boolean)
      .map((line): [number, number] => line.split(' ').map(Number) as [number, number]);
    return {
      warnings: [],
      objects: [
        {
          id: newId('polygon'),
          kind: 'polygon',
          name: declare.name || 'Ring',
          stage: 'data',
          revision: loadedRevision(text, {}),
          closed: true,
          rings: [ring],
          madeBy: madeByLoading(source.name, declare, started, []),
        },
      ],
    };
  },
});
const file = memorySource('area.csv', new TextEncoder().encode('RINGS 1\n0 0\n10 0\n0 10\n'));
const context = () => ({ store: memoryStore(), crsTable: async () => [] });

afterEach(() => forgetFormat('Rings'));

describe('a format made up on the spot', () => {
  test('is told by its mark, looked into and loaded with no other file touched; forgotten, it is what it was before', async () => {
    expect(await recognise(file)).toBe('CSV');
    registerFormat(rings);
    expect(await recognise(file)).toBe('Rings');
    expect(await inspectFile(file)).toMatchObject({ format: 'Rings', takenFor: 'One ring', facts: [{ value: '3' }] });
    const { objects } = await loadFile(file, { name: 'North' }, context());
    expect(objects).toMatchObject([
      {
        kind: 'polygon',
        name: 'North',
        rings: [
          [
            [0, 0],
            [10, 0],
            [0, 10],
          ],
        ],
      },
    ]);
    expect(() => registerFormat(rings)).toThrow('two formats are called Rings');
    forgetFormat('Rings');
    expect(await recognise(file)).toBe('CSV');
  });
  test('that fails leaves nothing, and says what it is', async () => {
    registerFormat({
      ...rings,
      inspect: async () => {
        throw new Error('a ring is broken');
      },
      load: async ({ store, ids }) => {
        ids.push('half');
        await store.writeBytes('half/a/c/0', new Uint8Array(4));
        throw new Error('a ring is broken');
      },
    });
    expect((await inspectFile(file)).refused?.message).toContain('a ring is broken');
    const { store, crsTable } = context();
    await expect(loadFile(file, {}, { store, crsTable })).rejects.toThrow('a ring is broken');
    expect(await store.arrayOwners()).toEqual([]);
  });
});

test('formats have names of their own', () => {
  const names = allFormats().map((f) => f.name);
  expect(new Set(names).size).toBe(names.length);
});
