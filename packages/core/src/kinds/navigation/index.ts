import type { Navigation } from '../../earth/objects.ts';
import { csv } from '../../files/out/rows.ts';
import { counted, defineKind } from '../define.ts';

export const navigation = defineKind<Navigation>({
  title: 'Navigation',
  plural: 'Navigation',
  facts: ({ line, points, by }) => [
    { label: 'Line', value: line },
    { label: 'Points', value: `${points.length}, by ${by}` },
  ],
  aside: ({ points }) => counted(points.length, 'point'),
  moved: (object, { point }) => ({ ...object, points: object.points.map(([n, x, y]) => [n, ...point(x, y)]) }),
  places: () => [],
  formats: {
    csv: {
      title: 'CSV',
      write: csv(({ line, by, points }, { xy, at }) => [
        ['line', by, ...xy],
        points.map(([n, x, y]) => [line, n, at(x), at(y)]),
      ]),
    },
  },
});
