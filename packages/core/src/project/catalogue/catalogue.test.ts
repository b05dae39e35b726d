import { describe, expect, test } from 'vitest';
import type { EarthObject } from '../../earth/objects.ts';
import { bytesOf, dependents, finder } from './catalogue.ts';

const made = (id: string, inputs: string[] = [], extra: object = {}) =>
  ({
    id,
    name: id,
    kind: 'map',
    stage: 'depth',
    madeBy: { step: 'depth.horizon', inputs: { from: inputs.map((i) => `${i}@r`) } },
    ...extra,
  }) as unknown as EarthObject;

describe('finding by typing', () => {
  const objects = [
    made('Tolven Top', [], { kind: 'horizon', tags: ['prospect'] }),
    made('QN-1 logs', [], { kind: 'logs', well: 'QN-1', stage: 'wells' }),
    made('Full', [], {
      kind: 'volume',
      quantity: 'amplitude',
      madeBy: { step: 'data.load', file: 'a.sgy', inputs: {} },
    }),
  ];
  const find = finder(objects);
  test.each([
    ['tolven', ['Tolven Top']],
    ['PROSPECT', ['Tolven Top']],
    ['qn-1 logs', ['QN-1 logs']],
    ['amplitude a.sgy', ['Full']],
    ['', ['Tolven Top', 'QN-1 logs', 'Full']],
    ['tolven logs', []],
  ])('“%s”', (text, names) => expect(find(text).map((o) => o.name)).toEqual(names));
});

test('what rests on an object is found through everything between, and a ring does not hang', () => {
  const objects = [made('a'), made('b', ['a']), made('c', ['b']), made('d', ['x']), made('e', ['c', 'd'])];
  expect(dependents(objects, ['a']).map((o) => o.id)).toEqual(['b', 'c', 'e']);
  expect(dependents(objects, ['e'])).toEqual([]);
  expect(dependents([made('p', ['q']), made('q', ['p'])], ['p']).map((o) => o.id)).toEqual(['q']);
});

test('size counts whole chunks, and two bytes a sample where compact', () => {
  const ref = { key: 'k', shape: [3, 4], chunk: [2, 4] };
  expect(bytesOf(made('m', [], { values: ref }))).toBe(4 * 4 * 4);
  expect(bytesOf(made('m', [], { values: { ...ref, scaled: { factor: 1, offset: 0 } } }))).toBe(2 * 4 * 4);
});
