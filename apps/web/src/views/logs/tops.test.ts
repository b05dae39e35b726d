import { columnOfTops, stratigraphyOf, topsOf, type WellTable } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { beforeEach, describe, expect, test } from 'vitest';
import { redo, undo } from '../../state/history';
import { done, objectsNow, openWith } from '../../testing/field';
import { acceptTops, deleteTop, paint, renameTops, setTop } from './tops';

const WELL = 'T-1';
const tops = () => topsOf(objectsNow(), WELL).map((t) => [t.name, t.md]);
const top = (name: string, md: number) => ({
  name,
  md,
  confidence: null,
  kind: 'top' as const,
  missingM: null,
  how: 'picked',
});
beforeEach(async () => {
  const { store } = await layeredField();
  await openWith(await store.list());
});

describe('tops worked on by hand', () => {
  test('are picked, moved and deleted by name, and taken back one by one', async () => {
    const before = tops();
    const below = Math.max(...before.map(([, md]) => Number(md))) + 40;
    expect(await setTop(WELL, top('New', below))).toBe(true);
    const picked = topsOf(objectsNow(), WELL).find((t) => t.name === 'New');
    if (!picked) throw new Error('the top is not there');
    expect(await setTop(WELL, { ...picked, md: below + 5 }, picked)).toBe(true);
    expect(tops()).toContainEqual(['New', below + 5]);
    await deleteTop(WELL, { ...picked, md: below + 5 });
    expect(tops()).toEqual(before);
    expect(done()).toEqual(['Pick New in T-1', 'Move New in T-1', 'Delete New in T-1']);
    await undo();
    await undo();
    expect(tops()).toContainEqual(['New', below]);
    await undo();
    expect(tops()).toEqual(before);
    await redo();
    expect(tops()).toContainEqual(['New', below]);
  });
  test('keep a new name in the well, as one edit', async () => {
    const [[old]] = tops();
    await renameTops(String(old), '  Renamed  ');
    expect(tops()[0][0]).toBe('Renamed');
    expect(done()).toEqual([`Rename ${old} to Renamed`]);
    // nothing is no name
    await renameTops('Renamed', '   ');
    expect(tops()[0][0]).toBe('Renamed');
    await undo();
    expect(tops()[0][0]).toBe(old);
  });
  test('keep their place in the order of the rocks under a new name; one that the well has already is refused', async () => {
    const [[first], [second]] = tops();
    await openWith([...objectsNow(), columnOfTops(objectsNow())]);
    const order = () => stratigraphyOf(objectsNow())?.units.map((u) => u.top);
    const before = order();
    await renameTops(String(first), String(second));
    expect(done()).toEqual([]);
    expect(tops().map(([name]) => name)).toContain(first);
    await renameTops(String(first), 'Renamed');
    expect(order()).toEqual(before?.map((name) => (name === first ? 'Renamed' : name)));
    await undo();
    expect(order()).toEqual(before);
  });
  test('correlated from other wells come in as one edit, and those that cannot are left out', async () => {
    const deepest = Math.max(...tops().map(([, md]) => Number(md)));
    const count = await acceptTops('Accept 2 correlated tops in T-1', [
      { well: WELL, top: top('One', deepest + 20) },
      { well: WELL, top: top('Two', deepest + 60) },
    ]);
    expect(count).toBe(2);
    expect(done()).toEqual(['Accept 2 correlated tops in T-1']);
    await undo();
    expect(tops().map(([name]) => name)).not.toContain('One');
    expect(tops().map(([name]) => name)).not.toContain('Two');
  });
});

describe('facies painted on a well', () => {
  const rows = () =>
    objectsNow()
      .filter((o): o is WellTable => o.kind === 'facies' && o.well === WELL)
      .flatMap((o) => o.rows);
  test('are intervals that a later stroke cuts, and an empty one erases', async () => {
    await paint(WELL, 700, 760, 'sand');
    await paint(WELL, 720, 730, 'shale');
    expect(rows()).toEqual([
      [700, 720, 'sand'],
      [720, 730, 'shale'],
      [730, 760, 'sand'],
    ]);
    await paint(WELL, 690, 725, null);
    expect(rows()).toEqual([
      [725, 730, 'shale'],
      [730, 760, 'sand'],
    ]);
    await undo();
    await undo();
    expect(rows()).toEqual([[700, 760, 'sand']]);
    await undo();
    expect(rows()).toEqual([]);
  });
  test('in strokes that come before the last is kept are all there, in one table', async () => {
    await Promise.all([paint(WELL, 700, 710, 'sand'), paint(WELL, 710, 720, 'shale'), paint(WELL, 720, 730, 'sand')]);
    expect(rows()).toEqual([
      [700, 710, 'sand'],
      [710, 720, 'shale'],
      [720, 730, 'sand'],
    ]);
    const tables = objectsNow().filter((o) => o.kind === 'facies' && o.well === WELL);
    expect(tables).toHaveLength(1);
    await undo();
    expect(rows()).toHaveLength(2);
  });
});

test('tops picked before the last is kept are all there', async () => {
  const deepest = Math.max(...tops().map(([, md]) => Number(md)));
  const names = ['One', 'Two', 'Three'];
  const put = await Promise.all(names.map((name, n) => setTop(WELL, top(name, deepest + 20 * (n + 1)))));
  expect(put).toEqual([true, true, true]);
  expect(tops().map(([name]) => name)).toEqual(expect.arrayContaining(names));
});
