import type { Fault } from '../../earth/objects.ts';
import { csv, round } from '../../files/out/rows.ts';
import { counted, defineKind } from '../define.ts';

export const fault = defineKind<Fault>({
  title: 'Fault',
  plural: 'Faults',
  facts: ({ sticks, found }) => [
    { label: 'Sticks', value: `${sticks.length}, ${sticks.reduce((n, s) => n + s.length, 0)} points` },
    ...(found
      ? [
          { label: 'Area', value: `${(found.areaM2 / 1e6).toFixed(2)} km²` },
          { label: 'Mean strength', value: found.strength.toFixed(2) },
          { label: 'Strike', value: `${((found.azimuth + 270) % 360).toFixed(0)}°` },
          { label: 'Dips', value: `${found.dip.toFixed(0)}° to ${found.azimuth.toFixed(0)}°` },
          ...found.joined.map((reason) => ({ label: 'Joined', value: reason })),
        ]
      : []),
  ],
  aside: ({ sticks }) => counted(sticks.length, 'stick'),
  moved: (object, { point }) => ({
    ...object,
    sticks: object.sticks.map((stick) => stick.map(([x, y, z]) => [...point(x, y), z])),
  }),
  places: ({ sticks }) => sticks.flat().map(([x, y]) => [x, y]),
  formats: {
    csv: {
      title: 'CSV',
      write: csv(({ name, domain, sticks }, { xy, at }) => [
        ['fault', 'stick', ...xy, domain === 'twt' ? 'twt_ms' : 'depth_m'],
        sticks.flatMap((stick, n) => stick.map((p) => [name, n + 1, at(p[0]), at(p[1]), round(p[2], 2)])),
      ]),
    },
  },
  drawn: ({ domain, sticks }) => [domain, sticks],
});
