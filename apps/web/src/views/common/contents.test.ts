import type { Domain, EarthObject } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { twinOf } from '@lithagon/core/testing/objects';
import { beforeAll, describe, expect, test } from 'vitest';
import type { Contents } from '../../state/views';
import { layersOf, movedRow, rowsOf, withoutRow, withRow } from './contents';

let objects: EarthObject[];
beforeAll(async () => {
  objects = await (await layeredField()).store.list();
});
const EMPTY: Contents = { shown: [], out: [], follows: true };
const rows = (contents: Contents, domain: Domain = 'depth', all = objects) =>
  rowsOf(contents, all, layersOf('section'), domain, []);
const names = (contents: Contents) => rows(contents).map((r) => r.object.name);

describe('the list of a view', () => {
  test('takes in what is made, the layers of wells over those of horizons', () => {
    const well = objects.find((o) => o.kind === 'well') as EarthObject;
    const horizon = objects.find((o) => o.kind === 'horizon') as EarthObject;
    expect(names(EMPTY)).toEqual([well.name, horizon.name]);
    const more = rows(EMPTY, 'depth', [...objects, { ...twinOf(horizon, 'made'), name: 'Made' }]);
    expect(more.map((r) => r.object.name)).toContain('Made');
  });
  test('says of what is in the other domain why it is not drawn', () => {
    expect(rows(EMPTY, 'twt').map((r) => r.why)).toEqual([null, 'is in depth; convert it, or switch this view']);
  });
  test('is opened, shut, ordered and shortened by hand, and keeps that', () => {
    const [well, horizon] = rows(EMPTY);
    const shut: Contents = { ...EMPTY, ...withRow(rows(EMPTY), EMPTY, horizon.id, { eye: false, opacity: 0.4 }) };
    expect(rows(shut).map((r) => [r.eye, r.opacity])).toEqual([
      [true, 1],
      [false, 0.4],
    ]);
    const turned: Contents = { ...shut, ...movedRow(rows(shut), 1, 0) };
    expect(names(turned)).toEqual([horizon.object.name, well.object.name]);
    const short: Contents = { ...turned, ...withoutRow(turned, well.id) };
    expect(names(short)).toEqual([horizon.object.name]);
    // and back again, on top
    const back: Contents = { ...short, ...withRow(rows(short), short, well.id, { eye: true }) };
    expect(names(back)).toEqual([well.object.name, horizon.object.name]);
    expect(back.out).toEqual([]);
  });
  test('that does not follow the project holds what was put there', () => {
    expect(names({ ...EMPTY, follows: false })).toEqual([]);
    const gone: Contents = { shown: [{ id: 'deleted', eye: true, opacity: 1 }], out: [], follows: false };
    expect(names(gone)).toEqual([]);
  });
});
