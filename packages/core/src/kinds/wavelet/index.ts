import type { Wavelet } from '../../earth/objects.ts';
import { csv, round } from '../../files/out/rows.ts';
import { defineKind } from '../define.ts';

export const wavelet = defineKind<Wavelet>({
  title: 'Wavelet',
  plural: 'Wavelets',
  facts: (object) => [
    { label: 'Method', value: object.method },
    {
      label: 'Length',
      value: `${((object.samples.length - 1) * object.stepMs).toFixed(0)} ms by ${object.stepMs} ms`,
    },
    { label: 'Phase', value: `${object.phaseDeg.toFixed(0)}°` },
    ...(object.angleDeg === undefined ? [] : [{ label: 'Angle', value: `${object.angleDeg}°` }]),
    ...(object.estimate
      ? [
          { label: 'Predicts', value: `${(100 * object.estimate.predictability).toFixed(0)} % of the trace` },
          { label: 'From', value: object.estimate.wells.join(', ') },
        ]
      : []),
  ],
  aside: ({ method }) => method,
  moved: null,
  places: () => [],
  formats: {
    csv: {
      title: 'CSV',
      write: csv(({ samples, firstMs, stepMs }) => [
        ['time_ms', 'amplitude'],
        samples.map((v, n) => [round(firstMs + n * stepMs, 3), v]),
      ]),
    },
  },
});
