import { describe, expect, test } from 'vitest';
import { type EarthObject, objectSchema } from '../earth/objects.ts';
import { allKinds } from '../kinds/index.ts';
import { oneOfEachKind } from '../testing/kinds.ts';
import { memoryStore } from './memory.ts';
import { readProject, sortOut, writtenProject } from './projectFile.ts';

const kinds = await oneOfEachKind();

/** Every field of a value by its path, arrays by their first item. */
function pathsOf(value: unknown, path: string[] = []): string[][] {
  if (typeof value !== 'object' || value === null) return [path];
  const entries = Array.isArray(value) ? Object.entries(value).slice(0, 1) : Object.entries(value);
  return [...(path.length > 0 ? [path] : []), ...entries.flatMap(([key, each]) => pathsOf(each, [...path, key]))];
}

/** A copy with another value in one field. */
function changed(object: EarthObject, path: string[], value: unknown): EarthObject {
  const copy = structuredClone(object) as EarthObject;
  let at = copy as unknown as Record<string, unknown>;
  for (const key of path.slice(0, -1)) at = at[key] as Record<string, unknown>;
  at[path.at(-1) as string] = value;
  return copy;
}

const WRONG = [null, Number.NaN, Number.POSITIVE_INFINITY, -1, 0, 'text', '../../up', {}, [], [[]]];

describe.each(
  kinds.map((object) => [object.kind, object] as const),
)('a %s made wrong in any field', (_kind, object) => {
  test('is refused where it fails its schema, and what is kept opens again', async () => {
    let refused = 0;
    for (const path of pathsOf(object))
      for (const value of WRONG) {
        const wrong = changed(object, path, value);
        const store = memoryStore();
        try {
          await store.commit({ put: [wrong] });
        } catch (cause) {
          refused++;
          expect(cause, path.join('.')).toMatchObject({ code: 'schema' });
          expect((cause as Error).message, path.join('.')).not.toMatch(/undefined cannot|\[object/);
          expect(await store.list()).toEqual([]);
          continue;
        }
        const [kept] = await store.list();
        const text = writtenProject({ facts: await store.facts(), objects: [kept], ledger: [], aside: [] });
        expect(readProject(JSON.parse(text))?.aside, path.join('.')).toEqual([]);
      }
    expect(refused).toBeGreaterThan(30);
  });
  test('is set aside when a project is opened, and the rest opens', () => {
    const well = kinds.find((o) => o.kind === 'well') as EarthObject;
    const others = kinds.filter((o) => o !== object);
    for (const path of pathsOf(object)) {
      const wrong = changed(object, path, { not: 'this' });
      if (objectSchema.safeParse(wrong).success) continue;
      const raw = {
        lithagon: 1,
        facts: { id: 'p', name: 'P', created: '', frame: null },
        objects: [...others, wrong],
        ledger: [],
      };
      const opened = readProject(JSON.parse(JSON.stringify(raw)));
      expect(
        opened?.objects.map((o) => o.id),
        path.join('.'),
      ).toEqual(others.map((o) => o.id));
      expect(opened?.aside, path.join('.')).toHaveLength(1);
      expect(opened?.aside[0].raw).toEqual(JSON.parse(JSON.stringify(wrong)));
      // written again, it is still there as it was
      if (opened) expect(readProject(JSON.parse(writtenProject(opened)))?.aside).toEqual(opened.aside);
    }
    expect(well.kind).toBe('well');
  });
});

test('there is one of every kind that a project may hold', () => {
  expect(new Set<string>(kinds.map((o) => o.kind))).toEqual(new Set(allKinds()));
});

test('two objects of one id, or with their data in one place, do not both open', () => {
  const [volume, well] = ['volume', 'well'].map((kind) => kinds.find((o) => o.kind === kind) as EarthObject);
  const twice = sortOut([well, { ...well, name: 'Again' }]);
  expect(twice.objects).toEqual([well]);
  expect(twice.aside.map((a) => a.name)).toEqual(['Again']);
  const shared = sortOut([volume, { ...volume, id: 'other', name: 'Parasite' }]);
  expect(shared.aside.map((a) => a.name)).toEqual(['Parasite']);
});

test('a frame, desks or ledger lines that cannot be read do not keep a project from opening', () => {
  const facts = {
    id: 'p',
    name: 'P',
    created: '',
    frame: { crs: 7 },
    desks: 'none',
    curveClasses: { GR: 'gamma ray' },
  };
  const opened = readProject({ lithagon: 1, facts, objects: [], ledger: [{ at: 1 }, null] });
  expect(opened?.facts).toMatchObject({ id: 'p', frame: null, curveClasses: { GR: 'gamma ray' } });
  expect(opened?.aside.map((a) => a.name).sort()).toEqual(['the project’s frame', 'the saved desks']);
  expect(opened?.ledger).toEqual([]);
});

test('objects of the version before, with their bin grid under its former word, open as they are', () => {
  const withGrid = kinds.filter((o) => 'binGrid' in o);
  expect(withGrid.map((o) => o.kind)).toEqual(expect.arrayContaining(['volume', 'horizon', 'map', 'velocity model']));
  const before = withGrid.map((o) => {
    const { binGrid, ...rest } = o as unknown as Record<string, unknown>;
    return { ...rest, lattice: binGrid };
  });
  const facts = { id: 'p', name: 'P', created: '', frame: null };
  const opened = readProject(JSON.parse(JSON.stringify({ lithagon: 2, facts, objects: before, ledger: [] })));
  expect(opened?.aside).toEqual([]);
  expect(opened?.objects.map((o) => ('binGrid' in o ? o.binGrid : null))).toEqual(
    withGrid.map((o) => ('binGrid' in o ? o.binGrid : null)),
  );
});
