import type { PlotClass } from '../../earth/objects.ts';
import { csv, plain } from '../../files/out/rows.ts';
import { defineKind } from '../define.ts';

export const plotClass = defineKind<PlotClass>({
  title: 'Crossplot class',
  plural: 'Crossplot classes',
  facts: ({ x, y, ring, limits }) => [
    { label: 'Along', value: `${x.of}${x.log ? ', logarithmic' : ''}` },
    { label: 'Against', value: `${y.of}${y.log ? ', logarithmic' : ''}` },
    { label: 'Corners', value: String(ring.length) },
    ...(limits ?? []).map(({ of, from, to }) => ({
      label: 'Limited',
      value: `${of} from ${Number(from.toPrecision(4))} to ${Number(to.toPrecision(4))}`,
    })),
  ],
  aside: ({ x }) => x.of,
  moved: null,
  places: () => [],
  formats: {
    csv: { title: 'CSV', write: csv(({ x, y, ring }) => [[plain(x.of, ''), plain(y.of, '')], ring]) },
  },
  drawn: ({ x, y, ring, limits }) => (limits ? [x, y, ring, limits] : [x, y, ring]),
});
