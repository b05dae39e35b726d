// @vitest-environment happy-dom
import { type ArrayRef, type EarthObject, readWhole, type Store, type Well } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { renderHook } from '@testing-library/react';
import { beforeAll, beforeEach, expect, test, vi } from 'vitest';
import { useProject } from '../../state/project';
import { show } from '../../testing/field';
import { waitFor } from '../../testing/page';

let store: Store;
const read: string[] = [];
vi.mock('../../compute/planes', () => ({
  readArray: (_: string, key: string, ref: ArrayRef) => {
    read.push(key);
    return readWhole(store, ref);
  },
}));
const { useColumns } = await import('./columns');

let objects: EarthObject[];
let well: Well;
beforeAll(async () => {
  ({ store, well } = await layeredField());
  objects = await store.list();
});
let projects = 0;
beforeEach(() => {
  read.length = 0;
  useProject.setState({ id: `project ${projects++}` });
  show(objects);
});

const columns = (ids: string[], wanted: string[]) => renderHook(() => useColumns(ids, wanted, 'TVDSS')).result;
const WANTED = ['gamma ray', 'density'];

test('wells come with their tops at once, and with the curves that are wanted as these are read, once', async () => {
  const ids = [well.id];
  const first = columns(ids, WANTED);
  expect(first.current.map((c) => c.well.name)).toEqual([well.name]);
  expect(first.current[0].tops.map((t) => t.name)).toContain('Top');
  expect(first.current[0].curves.size).toBe(0);
  await waitFor(() => expect([...first.current[0].curves.keys()]).toEqual(WANTED));
  const density = first.current[0].curves.get('density');
  expect(density?.unit).toBe('kg/m3');
  // extremes of every sixteen samples hold all of them
  density?.values.forEach((v, n) => {
    expect(v).toBeGreaterThanOrEqual(density.low[n >> 4]);
    expect(v).toBeLessThanOrEqual(density.high[n >> 4]);
  });
  expect(read).toHaveLength(2);
  const second = columns(ids, WANTED);
  await waitFor(() => expect(second.current[0].curves.size).toBe(2));
  expect(read).toHaveLength(2);
});

test('checkshots stand at their measured depths, whichever depth their table gives', () => {
  const ids = [well.id];
  const [{ checkshots }] = columns(ids, WANTED).current;
  expect(checkshots.length).toBeGreaterThan(2);
  show(
    objects.map((o) =>
      o.kind === 'checkshots' ? { ...o, rows: o.rows.map(([md, , twt]) => [null, Number(md) - well.kbM, twt]) } : o,
    ),
  );
  const again = columns(ids, WANTED).current[0].checkshots;
  expect(again.map((md) => Math.round(md))).toEqual(checkshots.map((md) => Math.round(md)));
});

test('what is no well any more has no column', () => {
  const ids = [well.id, 'gone'];
  expect(columns(ids, WANTED).current).toHaveLength(1);
});
