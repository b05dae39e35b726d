import type { FaultSets } from '../../earth/objects.ts';
import { csv, round } from '../../files/out/rows.ts';
import { counted, defineKind } from '../define.ts';

export const faultSets = defineKind<FaultSets>({
  title: 'Fault sets',
  plural: 'Fault sets',
  facts: ({ sets, members }) => [
    ...sets.map(({ name, dip, azimuth }, n) => ({
      label: name,
      value: `strike ${((azimuth + 270) % 360).toFixed(0)}°, dips ${dip.toFixed(0)}° to ${azimuth.toFixed(0)}°, ${counted(members.filter((m) => m.set === n).length, 'fault')}`,
    })),
    ...(members.some((m) => m.set < 0)
      ? [{ label: 'In none', value: counted(members.filter((m) => m.set < 0).length, 'fault') }]
      : []),
  ],
  aside: ({ sets }) => counted(sets.length, 'set'),
  moved: null,
  places: () => [],
  formats: {
    csv: {
      title: 'CSV, a row a fault',
      write: csv(({ sets, members }) => [
        ['fault', 'set', 'strike_deg', 'dip_deg', 'dip_azimuth_deg', 'probability'],
        members.map((m) => [
          m.name,
          m.set < 0 ? '' : sets[m.set].name,
          round((m.azimuth + 270) % 360, 1),
          round(m.dip, 1),
          round(m.azimuth, 1),
          round(m.sure, 3),
        ]),
      ]),
    },
  },
});
