import type { TurnedPair } from '../../earth/objects.ts';
import { csv } from '../../files/out/rows.ts';
import { defineKind } from '../define.ts';

export const turnedPair = defineKind<TurnedPair>({
  title: 'Turned pair',
  plural: 'Turned pairs',
  facts: ({ angleDeg, background, curves }) => [
    { label: 'Angle', value: `${angleDeg.toFixed(0)}°` },
    {
      label: 'Background',
      value: `slope ${background.slope.toFixed(2)}, correlation ${background.correlation.toFixed(2)}; least at ${background.angle.toFixed(0)}°`,
    },
    ...curves.map(({ well, log, best }) => ({
      label: `${well} ${log}`,
      value: `${best.angle}° (${best.from}° to ${best.to}°), correlation ${best.correlation.toFixed(2)}`,
    })),
  ],
  aside: ({ angleDeg }) => `${angleDeg.toFixed(0)}°`,
  moved: null,
  places: () => [],
  formats: {
    csv: {
      title: 'CSV',
      write: csv(({ curves }) => [
        ['angle_deg', ...curves.map((c) => `correlation_${c.well}_${c.log}`.replaceAll(' ', '_'))],
        Array.from({ length: 181 }, (_, n) => [n - 90, ...curves.map((c) => c.values[n])]),
      ]),
    },
  },
});
