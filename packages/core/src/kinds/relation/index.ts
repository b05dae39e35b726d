import type { TimeDepthRelation } from '../../earth/objects.ts';
import { csv } from '../../files/out/rows.ts';
import { defineKind } from '../define.ts';

export const relation = defineKind<TimeDepthRelation>({
  title: 'Time–depth relation',
  plural: 'Time–depth relations',
  facts: (object) => [
    { label: 'Well', value: object.well },
    {
      label: 'Correlation',
      value: `${object.correlation.toFixed(2)}, ${object.windowMs.map((t) => t.toFixed(0)).join(' to ')} ms`,
    },
    { label: 'Shift', value: `${object.shiftMs.toFixed(1)} ms` },
    { label: 'Wavelet phase', value: `${object.phaseDeg.toFixed(0)}°` },
    { label: 'Knees', value: String(object.knees.length) },
  ],
  aside: ({ correlation }) => correlation.toFixed(2).replace('-', '−'),
  moved: null,
  places: () => [],
  formats: { csv: { title: 'CSV', write: csv(({ pairs }) => [['tvdss_m', 'twt_ms'], pairs]) } },
});
