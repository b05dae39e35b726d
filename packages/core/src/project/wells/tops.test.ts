import { describe, expect, test } from 'vitest';
import { type EarthObject, TVD_COLUMN, type Well, type WellTable } from '../../earth/objects.ts';
import { MADE } from '../../testing/objects.ts';
import { pointAtMd } from '../../wells/path.ts';
import { checkOrder, columnOfTops, newTable, paintFacies, putTop, removeTop, renameTop, withUnits } from './tops.ts';
import { pathOf, topsOf } from './wells.ts';

const well = (name: string): Well => ({
  id: name,
  kind: 'well',
  name,
  revision: 'w',
  stage: 'wells',
  x: 0,
  y: 0,
  kbM: 20,
  madeBy: MADE,
});
const tops = (name: string, rows: WellTable['rows']): WellTable => ({
  ...newTable('tops', name),
  rows,
  id: `${name}-tops`,
});
const project = (): EarthObject[] => [
  well('A'),
  well('B'),
  tops('A', [
    ['Upper', 500],
    ['Sand', 600],
    ['West Fault', 610],
    ['Lower', 700],
  ]),
];
const replaced = (objects: EarthObject[], after: EarthObject) => [...objects.filter((o) => o.id !== after.id), after];
const top = (name: string, md: number) => ({
  name,
  md,
  confidence: 0.8,
  kind: 'top' as const,
  missingM: null,
  how: 'picked',
});

describe('tops', () => {
  test('a loaded row is a top, and one that is called a fault is a cut', () => {
    expect(topsOf(project(), 'A').map((t) => [t.name, t.kind])).toEqual([
      ['Upper', 'top'],
      ['Sand', 'top'],
      ['West Fault', 'fault cut'],
      ['Lower', 'top'],
    ]);
  });
  test('put into a well without any, moved, renamed everywhere, taken out; the table’s revision follows', () => {
    let objects = project();
    const first = putTop(objects, 'B', top('Sand', 640));
    expect(first.before).toBeNull();
    objects = replaced(objects, first.after);
    const moved = putTop(objects, 'B', top('Sand', 655));
    expect(moved.after.rows).toHaveLength(1);
    expect(moved.after.revision).not.toBe(first.after.revision);
    objects = replaced(objects, moved.after);
    for (const { after } of renameTop(objects, 'Sand', 'Main sand')) objects = replaced(objects, after);
    expect(['A', 'B'].map((w) => topsOf(objects, w).some((t) => t.name === 'Main sand'))).toEqual([true, true]);
    const gone = removeTop(objects, 'B', topsOf(objects, 'B')[0]);
    expect(topsOf(replaced(objects, gone.after), 'B')).toEqual([]);
    expect(topsOf(objects, 'B')[0]).toMatchObject({ confidence: 0.8, how: 'picked' });
  });
  test('two cuts of one fault stand beside each other, and each says what it misses', () => {
    let objects = project();
    const cut = (md: number, missingM: number) => ({
      name: 'West Fault',
      md,
      confidence: null,
      kind: 'fault cut' as const,
      missingM,
      how: '',
    });
    const second = putTop(objects, 'A', cut(650, -12));
    objects = replaced(objects, second.after);
    const cuts = topsOf(objects, 'A').filter((t) => t.kind === 'fault cut');
    expect(cuts.map((c) => [c.md, c.missingM])).toEqual([
      [610, null],
      [650, -12],
    ]);
    const changed = putTop(objects, 'A', { ...cuts[0], missingM: 30 }, cuts[0]);
    expect(
      topsOf(replaced(objects, changed.after), 'A')
        .filter((t) => t.kind === 'fault cut')
        .map((c) => c.missingM),
    ).toEqual([30, -12]);
  });
});

describe('the stratigraphic column', () => {
  test('is made from the tops by depth; a crossing is refused by name, equal depths are a missing bed', () => {
    const objects = project();
    const column = columnOfTops(objects);
    expect(column.units.map((u) => u.top)).toEqual(['Upper', 'Sand', 'Lower']);
    const all = [...objects, column];
    expect(() => checkOrder(all, 'A', 'Sand', 720)).toThrow('Sand would lie below Lower in A');
    expect(() => checkOrder(all, 'A', 'Lower', 590)).toThrow('Lower would lie above Sand in A');
    expect(() => checkOrder(all, 'A', 'Sand', 700)).not.toThrow();
    expect(() => checkOrder(all, 'A', 'New', 10)).not.toThrow();
  });
  test('a colour makes nothing out of date, an order does', () => {
    const column = columnOfTops(project());
    const painted = withUnits(
      column,
      column.units.map((u) => ({ ...u, color: '#000000' })),
    );
    expect(painted.revision).toBe(column.revision);
    expect(withUnits(column, [...column.units].reverse()).revision).not.toBe(column.revision);
  });
});

test('painted facies give way to what is painted over them, and beds that touch are one', () => {
  let table = paintFacies(newTable('facies', 'A'), 100, 120, 'Sand');
  table = paintFacies(table, 110, 105, 'Shale');
  expect(table.rows).toEqual([
    [100, 105, 'Sand'],
    [105, 110, 'Shale'],
    [110, 120, 'Sand'],
  ]);
  table = paintFacies(table, 105, 110, 'Sand');
  expect(table.rows).toEqual([[100, 120, 'Sand']]);
  expect(paintFacies(table, 90, 110, null).rows).toEqual([[110, 120, 'Sand']]);
});

describe('tops of a file that gives no measured depth', () => {
  const inDepth = (): WellTable => ({
    ...tops('A', [
      ['Upper', null, 480, null],
      ['Lower', null, null, 700],
    ]),
    columns: [
      { name: 'Top', unit: '' },
      { name: 'MD', unit: 'm' },
      { name: 'TVDSS', unit: 'm' },
      { name: TVD_COLUMN, unit: 'm' },
    ],
  });
  test('lie where the path of their well comes to their depth, once its head is there', () => {
    expect(topsOf([inDepth()], 'A')).toEqual([]);
    // a vertical well with its kelly bushing 20 m above the sea
    expect(topsOf([well('A'), inDepth()], 'A').map((t) => [t.name, Math.round(t.md * 1e6) / 1e6])).toEqual([
      ['Upper', 500],
      ['Lower', 700],
    ]);
    const survey: WellTable = {
      ...inDepth(),
      id: 'survey',
      kind: 'directional surveys',
      columns: [],
      rows: [
        [0, 60, 0],
        [3000, 60, 0],
      ],
    };
    const [upper] = topsOf([well('A'), inDepth(), survey], 'A');
    const path = pathOf([well('A'), survey], well('A'));
    expect(pointAtMd(path, upper.md).tvdss).toBeCloseTo(480, 6);
    expect(upper.md).toBeGreaterThan(700);
  });
  test('have one as soon as one of them is moved or taken out', () => {
    const objects = [well('A'), inDepth()];
    const [upper] = topsOf(objects, 'A');
    const moved = putTop(objects, 'A', { ...upper, md: 510 }, upper);
    expect(topsOf([well('A'), moved.after], 'A').map((t) => Math.round(t.md))).toEqual([510, 700]);
    const removed = removeTop(objects, 'A', upper);
    expect(topsOf([well('A'), removed.after], 'A').map((t) => t.name)).toEqual(['Lower']);
  });
});
