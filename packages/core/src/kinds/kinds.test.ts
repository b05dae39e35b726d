import { afterEach, beforeEach, expect, test } from 'vitest';
import { z } from 'zod';
import { arrayRefSchema, base } from '../earth/objects/common.ts';
import type { EarthObject } from '../earth/objects.ts';
import { exportFormats, exportObject } from '../files/out/export.ts';
import { asideOf, factsOf } from '../project/catalogue/facts.ts';
import { drawn } from '../project/given.ts';
import { reframed } from '../project/reframe.ts';
import { memoryStore } from '../storage/memory.ts';
import { readProject, writtenProject } from '../storage/projectFile.ts';
import { sweep } from '../storage/store.ts';
import { oneOfEachKind } from '../testing/kinds.ts';
import { FRAME, MADE } from '../testing/objects.ts';
import { defineKind } from './define.ts';
import { allKinds, forgetKind, kindOf, registerKind } from './index.ts';

const schema = z.object({
  ...base,
  kind: z.literal('buoy'),
  x: z.number(),
  y: z.number(),
  waves: arrayRefSchema,
});
type Buoy = z.infer<typeof schema>;

const buoy = defineKind<Buoy>({
  title: 'Buoy',
  plural: 'Buoys',
  facts: ({ x, y }) => [{ label: 'Anchored', value: `${x} E, ${y} N` }],
  aside: ({ waves }) => `${waves.shape[0]} waves`,
  moved(object, { point }) {
    const [x, y] = point(object.x, object.y);
    return { ...object, x, y };
  },
  places: ({ x, y }) => [[x, y]],
  formats: { txt: { title: 'Text', write: async ({ map }, { x, y }) => `${x * map.scale} ${y * map.scale}` } },
  drawn: ({ x, y }) => [x, y],
});

const made = {
  id: 'buoy-1',
  name: 'North buoy',
  kind: 'buoy',
  revision: 'b',
  stage: 'data',
  madeBy: MADE,
  x: 500,
  y: 700,
  waves: { key: 'buoy-1/waves', shape: [4], chunk: [4] },
} as unknown as EarthObject;

beforeEach(() => registerKind('buoy', buoy, schema));
afterEach(() => forgetKind('buoy'));

test('a kind made up on the spot is kept, described, moved, written and swept with no other file touched', async () => {
  const store = memoryStore();
  await store.commit({ put: [made] });
  expect(factsOf(made)).toEqual([
    { label: 'Kind', value: 'buoy' },
    { label: 'Anchored', value: '500 E, 700 N' },
  ]);
  expect(asideOf(made)).toBe('4 waves');
  expect(exportFormats(made)).toEqual({ txt: 'Text' });
  expect(new TextDecoder().decode(await exportObject(store, made, 'txt', FRAME))).toBe('500 700');
  const [moved] = reframed([made], (x, y) => [x + 1000, y], FRAME) as unknown as Buoy[];
  expect([moved.x, moved.y]).toEqual([1500, 700]);
  expect(moved.revision).not.toBe(made.revision);
  expect(drawn(made as never)).not.toEqual(made);
  // its arrays are its own, and stay where those of nobody go
  await store.writeBytes('buoy-1/waves/c/0', new Uint8Array(16));
  await store.writeBytes('nobody/waves/c/0', new Uint8Array(16));
  expect(await sweep(store)).toBe(1);
  const facts = await store.facts();
  const text = writtenProject({ facts, objects: [made], ledger: [], aside: [] });
  expect(readProject(JSON.parse(text))?.objects).toEqual([made]);
  await expect(store.commit({ put: [{ ...made, x: 'east' } as never] })).rejects.toThrow('North buoy cannot be kept');
  forgetKind('buoy');
  expect(readProject(JSON.parse(text))?.aside).toHaveLength(1);
  registerKind('buoy', buoy, schema);
});

test('every kind answers for one of it, and moves what has a place', async () => {
  for (const object of await oneOfEachKind()) {
    const kind = kindOf(object);
    expect(factsOf(object).every(({ label, value }) => label && value !== undefined)).toBe(true);
    expect(typeof asideOf(object)).toBe('string');
    const [moved] = reframed([object], (x, y) => [x + 5000, y - 300], FRAME);
    const places = kind.places(object);
    if (places.length > 0) {
      expect(moved, object.kind).toBeDefined();
      kindOf(moved)
        .places(moved)
        .forEach(([x, y], n) => {
          expect(x).toBeCloseTo(places[n][0] + 5000, 3);
          expect(y).toBeCloseTo(places[n][1] - 300, 3);
        });
    }
    if (!kind.moved) expect(moved, object.kind).toBeUndefined();
  }
  expect(allKinds()).toContain('volume');
});
