import type { Stratigraphy } from '../../earth/objects.ts';
import { csv } from '../../files/out/rows.ts';
import { counted, defineKind } from '../define.ts';

export const stratigraphy = defineKind<Stratigraphy>({
  title: 'Stratigraphic column',
  plural: 'Stratigraphic columns',
  facts: ({ units }) => [
    { label: 'Units', value: String(units.length) },
    ...units.map((u) => ({ label: u.top, value: `${u.zone}${u.unconformity ? ', unconformity' : ''}` })),
  ],
  aside: ({ units }) => counted(units.length, 'unit'),
  moved: null,
  places: () => [],
  formats: {
    csv: {
      title: 'CSV',
      write: csv(({ units }) => [
        ['top', 'zone', 'unconformity', 'color', 'pattern'],
        units.map((u) => [u.top, u.zone, u.unconformity ? 'yes' : 'no', u.color, u.pattern]),
      ]),
    },
  },
});
