import { describe, expect, test } from 'vitest';
import { type EarthObject, TVD_COLUMN, type WellTable } from '../../earth/objects.ts';
import { madeTops, madeWell, project } from '../../testing/wellTables.ts';
import { pointAtMd } from '../../wells/path.ts';
import { putTop, removeTop, renameTop } from './tops.ts';
import { pathOf, topsOf } from './wells.ts';

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
  test('a new name that a well has already is refused, and one that only other wells have joins them', () => {
    const objects = [...project(), madeTops('B', [['Main sand', 640]])];
    expect(() => renameTop(objects, 'Sand', 'Lower')).toThrow('A has both Sand and Lower, which cannot be one top.');
    const [{ after }] = renameTop(objects, 'Sand', 'Main sand');
    const joined = replaced(objects, after);
    expect(['A', 'B'].map((w) => topsOf(joined, w).filter((t) => t.name === 'Main sand').length)).toEqual([1, 1]);
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

describe('tops of a file that gives no measured depth', () => {
  const inDepth = (): WellTable => ({
    ...madeTops('A', [
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
    expect(topsOf([madeWell('A'), inDepth()], 'A').map((t) => [t.name, Math.round(t.md * 1e6) / 1e6])).toEqual([
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
    const [upper] = topsOf([madeWell('A'), inDepth(), survey], 'A');
    const path = pathOf([madeWell('A'), survey], madeWell('A'));
    expect(pointAtMd(path, upper.md).tvdss).toBeCloseTo(480, 6);
    expect(upper.md).toBeGreaterThan(700);
  });
  test('have one as soon as one of them is moved or taken out', () => {
    const objects = [madeWell('A'), inDepth()];
    const [upper] = topsOf(objects, 'A');
    const moved = putTop(objects, 'A', { ...upper, md: 510 }, upper);
    expect(topsOf([madeWell('A'), moved.after], 'A').map((t) => Math.round(t.md))).toEqual([510, 700]);
    const removed = removeTop(objects, 'A', upper);
    expect(topsOf([madeWell('A'), removed.after], 'A').map((t) => t.name)).toEqual(['Lower']);
  });
});
