import type { Logs } from '../../earth/objects.ts';
import { logsOut } from '../../files/out/logs.ts';
import { counted, defineKind, fixed } from '../define.ts';

export const logs = defineKind<Logs>({
  title: 'Logs',
  plural: 'Logs',
  facts: ({ well, depth, curves }, units) => [
    { label: 'Well', value: well },
    {
      label: 'Depths',
      value: `${fixed(units.to(depth.firstM, 'm'), 2)} to ${units.text(depth.firstM + depth.stepM * (depth.count - 1), 'm MD', 2)} by ${fixed(units.to(depth.stepM, 'm'), 4)}`,
    },
    ...curves.map((c) => ({
      label: c.mnemonic,
      value: `${c.class}, ${units.of(c.unit)}${c.nulls ? `, ${c.nulls} null` : ''}`,
    })),
  ],
  aside: ({ curves }) => counted(curves.length, 'curve'),
  moved: null,
  places: () => [],
  formats: {
    las: { title: 'LAS 2.0', write: (out, object) => logsOut(out, object, 'las') },
    csv: { title: 'CSV', write: (out, object) => logsOut(out, object, 'csv') },
  },
});
