import { describe, expect, test } from 'vitest';
import type { Horizon } from '../../earth/objects.ts';
import { madeTops, madeWell, project } from '../../testing/wellTables.ts';
import { checkOrder, columnOfTops, topsBeside, withSurface, withTop, withUnits } from './column.ts';

describe('the stratigraphic column', () => {
  test('takes a horizon in where its level has it among those that are tops of it', () => {
    const column = columnOfTops(project());
    const at = (name: string, level: number, step = 'interpret.track') =>
      ({
        kind: 'horizon',
        name,
        domain: 'twt',
        range: [level - 10, level + 10],
        madeBy: { step },
      }) as unknown as Horizon;
    const known = [at('Upper', 400), at('Sand', 600), at('Lower', 700)];
    const objects = [...project(), ...known];
    const order = (name: string, level: number, step?: string) =>
      withSurface(objects, column, at(name, level, step)).units.map((u) => u.top);
    expect(order('Boundary', 650)).toEqual(['Upper', 'Sand', 'Boundary', 'Lower']);
    expect(order('Deep', 900)).toEqual(['Upper', 'Sand', 'Lower', 'Deep']);
    expect(order('Shallow', 100)).toEqual(['Shallow', 'Upper', 'Sand', 'Lower']);
    const proposed = withSurface(objects, column, at('Boundary', 650, 'interpret.terminations'));
    expect(proposed.units[2].unconformity).toBe(true);
    expect(proposed.revision).not.toBe(column.revision);
  });

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
  test('takes in a top that was picked later, where its depth has it and in a colour of its own', () => {
    const column = columnOfTops(project());
    const objects = [
      ...project(),
      madeTops('B', [
        ['Marker', 640],
        ['SAND', 615],
        ['Deep', 900],
      ]),
    ];
    expect(topsBeside(objects, column)).toEqual([
      { name: 'SAND', wells: ['B'], like: 'Sand' },
      { name: 'Marker', wells: ['B'], like: null },
      { name: 'Deep', wells: ['B'], like: null },
    ]);
    const marked = withTop(objects, column, 'Marker');
    expect(marked.units.map((u) => u.top)).toEqual(['Upper', 'Sand', 'Marker', 'Lower']);
    expect(new Set(marked.units.map((u) => u.color)).size).toBe(4);
    expect(marked.revision).not.toBe(column.revision);
    expect(withTop(objects, marked, 'Deep').units.at(-1)?.top).toBe('Deep');
    expect(topsBeside(objects, withTop(objects, marked, 'Deep')).map((t) => t.name)).toEqual(['SAND']);
  });
  test('made where wells spell a top in two ways holds the commonest, and offers the other to be joined', () => {
    const objects = [
      ...project(),
      madeWell('C'),
      madeTops('B', [['SAND', 620]]),
      madeTops('C', [
        ['Sand', 610],
        ['lower', 720],
      ]),
    ];
    const column = columnOfTops(objects);
    expect(column.units.map((u) => u.top)).toEqual(['Upper', 'Sand', 'Lower']);
    expect(topsBeside(objects, column).map((t) => [t.name, t.like])).toEqual([
      ['SAND', 'Sand'],
      ['lower', 'Lower'],
    ]);
  });
  test('goes by depth below the sea, not along the hole', () => {
    const deviated = { ...madeWell('C'), id: 'C' };
    const survey = {
      ...madeTops('C', [
        [0, 60, 0],
        [3000, 60, 0],
      ]),
      id: 'survey',
      kind: 'directional surveys' as const,
    };
    // at 1100 m along hole it has come down no further than 550 m
    const objects = [...project(), deviated, survey, madeTops('C', [['Between', 1100]])];
    expect(columnOfTops(objects).units.map((u) => u.top)).toEqual(['Upper', 'Between', 'Sand', 'Lower']);
  });
});
