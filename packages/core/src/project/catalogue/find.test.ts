import { describe, expect, test } from 'vitest';
import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject } from '../../earth/objects.ts';
import { findObject } from './find.ts';

const object = (id: string, kind: string, name: string) => ({ id, kind, name }) as unknown as EarthObject;
const objects = [
  object('1', 'horizon', 'Tolven Top'),
  object('2', 'picks', 'Tolven Top'),
  object('3', 'volume', 'Full stack'),
  object('4', 'map', 'a/b'),
];
const refusal = (text: string): LithagonError => {
  try {
    findObject(objects, text);
  } catch (cause) {
    if (cause instanceof LithagonError) return cause;
  }
  throw new Error(`${text} was found`);
};

describe('an object', () => {
  test('is found by its id, its name, or its kind and name', () => {
    expect(['3', 'Full stack', 'volume/Full stack'].map((t) => findObject(objects, t).id)).toEqual(['3', '3', '3']);
    expect(findObject(objects, 'picks/Tolven Top').id).toBe('2');
    // a name may hold a stroke itself
    expect(findObject(objects, 'a/b').id).toBe('4');
  });
  test('that is one of several is refused with what to write instead', () => {
    expect(refusal('Tolven Top')).toMatchObject({
      code: 'ambiguous',
      fix: 'Write “horizon/Tolven Top” or “picks/Tolven Top”.',
    });
  });
  test('that is not there is refused with those whose names are near, or where to look', () => {
    expect(refusal('full')).toMatchObject({ code: 'missing', fix: 'Perhaps “Full stack”?' });
    expect(refusal('volume/Tolven Top').code).toBe('missing');
    expect(refusal('Pell').fix).toBe('List the project to see what it holds.');
  });
});
