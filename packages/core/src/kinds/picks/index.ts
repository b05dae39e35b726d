import type { Picks } from '../../earth/objects.ts';
import { csv, round } from '../../files/out/rows.ts';
import { counted, defineKind } from '../define.ts';

export const picks = defineKind<Picks>({
  title: 'Picks',
  plural: 'Picks',
  facts: ({ event, points, erased }) => [
    { label: 'Event', value: event },
    { label: 'Picks', value: String(points.length) },
    { label: 'Erased', value: erased.length === 1 ? 'one area' : `${erased.length} areas` },
  ],
  aside: ({ points }) => counted(points.length, 'pick'),
  moved: (object, { point }) => ({
    ...object,
    points: object.points.map(([x, y, z]) => [...point(x, y), z]),
    erased: object.erased.map((ring) => ring.map(([x, y]) => point(x, y))),
  }),
  places: ({ points }) => points.map(([x, y]) => [x, y]),
  formats: {
    csv: {
      title: 'CSV',
      write: csv(({ domain, points }, { xy, at }) => [
        [...xy, domain === 'twt' ? 'twt_ms' : 'depth_m'],
        points.map((p) => [at(p[0]), at(p[1]), round(p[2], 2)]),
      ]),
    },
  },
  drawn: ({ event, points, erased }) => [event, points, erased],
});
