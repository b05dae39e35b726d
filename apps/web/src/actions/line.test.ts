import '../testing/browser';
import { beforeEach, expect, test } from 'vitest';
import { useDesk } from '../state/desk';
import { useTool } from '../state/tool';
import { settingsOf } from '../state/views';
import type { ShownWell } from '../views/common/survey';
import { cornersThrough, sectionAlong } from './line';

const well = (name: string, points: [number, number][]) =>
  ({
    well: { id: name, name, x: points[0][0], y: points[0][1] },
    points: points.map(([x, y]) => [x, y, 0, 0]),
  }) as unknown as ShownWell;
const wells = [
  well('V-1', [
    [0, 0],
    [0, 0],
  ]),
  well('D-1', [
    [1000, 0],
    [1000, 100],
    [1000, 300],
  ]),
  well('V-2', [
    [2000, 300],
    [2000, 310],
  ]),
];
beforeEach(() => useDesk.setState({ views: {}, links: {}, active: null, recent: [] }));

test('a line through wells runs along a deviated one, from its near end to its far one', () => {
  const through = (...names: string[]) =>
    cornersThrough(
      { points: names.map((n) => wells.find((w) => w.well.name === n)?.points[0].slice(0, 2) as never), names },
      wells,
    );
  expect(through('V-1', 'D-1', 'V-2')).toEqual([
    [0, 0],
    [1000, 0],
    [1000, 100],
    [1000, 300],
    [2000, 300],
  ]);
  // coming from the other side it is run along from its foot
  expect(through('V-2', 'D-1', 'V-1')).toEqual([
    [2000, 300],
    [1000, 300],
    [1000, 100],
    [1000, 0],
    [0, 0],
  ]);
});

test('the section in front runs along what was drawn, and one corner is no line', () => {
  sectionAlong(
    {
      kind: 'line',
      points: [
        [0, 0],
        [500, 500],
      ],
      names: ['V-1', null],
    },
    wells,
  );
  expect(settingsOf('section', 'section')).toMatchObject({
    along: 'path',
    line: null,
    path: {
      points: [
        [0, 0],
        [500, 500],
      ],
      names: ['V-1'],
    },
  });
  sectionAlong({ kind: 'line', points: [[5, 5]], names: [null] }, wells);
  expect(settingsOf('section', 'section').path?.points).toHaveLength(2);
  expect(useTool.getState().tool).toBeNull();
});
