import type { EarthObject, MadeBy, Well } from '@lithagon/core';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cellsOf, type Group, rowsOf } from './rows';

const madeBy = (started: string): MadeBy => ({
  step: 'load.wells',
  version: 1,
  params: {},
  inputs: {},
  started,
  tookMs: 0,
  warnings: [],
  engine: '',
  file: 'heads.csv',
});
const well = (id: string, name: string, started = '2026-01-01T00:00:00Z', tags?: string[]): Well =>
  ({ id, kind: 'well', name, revision: id, stage: 'wells', x: 0, y: 0, madeBy: madeBy(started), tags }) as Well;
const area = (id: string, name: string): EarthObject =>
  ({
    id,
    kind: 'polygon',
    name,
    revision: id,
    stage: 'interpret',
    closed: true,
    rings: [],
    madeBy: { ...madeBy('2026-02-01T00:00:00Z'), step: 'drawn', file: undefined },
  }) as EarthObject;

describe('the cells of the catalogue', () => {
  test('says what made an object: its file, else its step, else a hand', () => {
    const both = [well('a', 'QN-10'), area('p', 'Crest')];
    const of = cellsOf(both);
    expect(of.get('a')?.from).toBe('heads.csv');
    expect(of.get('p')?.from).toBe('drawn by hand');
  });
});

describe('the rows of the catalogue', () => {
  const objects = [well('a', 'QN-1', undefined, ['key', 'old']), area('p', 'Crest'), well('b', 'QN-2')];
  test.each([
    ['stage', ['Wells', 'Interpret'], [2, 1]],
    ['tag', ['key', 'Without a tag'], [1, 2]],
    ['well', ['QN-1', 'Of no well', 'QN-2'], [1, 1, 1]],
  ] as [
    Group,
    string[],
    number[],
  ][])('grouped by %s stand under headings with their counts', (group, titles, counts) => {
    const heads = rowsOf(objects, group).filter((r) => !r.object);
    expect(heads.map((r) => r.title)).toEqual(titles);
    expect(heads.map((r) => r.count)).toEqual(counts);
  });
  test('hold every object once, after the heading it belongs to, however grouped', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.boolean(), fc.constantFrom('x', 'y', '')), { maxLength: 40 }),
        fc.constantFrom<Group>('none', 'stage', 'kind', 'well', 'tag'),
        (list, group) => {
          const all = list.map(([isWell, tag], n) =>
            isWell ? well(`${n}`, `W${n % 3}`, undefined, tag ? [tag] : []) : area(`${n}`, 'A'),
          );
          const rows = rowsOf(all, group);
          const listed = rows.flatMap((r) => (r.object ? [r.object.id] : []));
          expect([...listed].sort()).toEqual(all.map((o) => o.id).sort());
          expect(new Set(rows.map((r) => r.key)).size).toBe(rows.length);
          const heads = rows.filter((r) => !r.object);
          if (group === 'none') expect(heads).toEqual([]);
          else expect(heads.reduce((n, r) => n + r.count, 0)).toBe(all.length);
        },
      ),
      { seed: 3 },
    );
  });
});
