import type { InversionOperator } from '../../earth/objects.ts';
import { csv, round } from '../../files/out/rows.ts';
import { defineKind } from '../define.ts';

export const operator = defineKind<InversionOperator>({
  title: 'Operator',
  plural: 'Operators',
  facts: ({ band, law, phaseDeg, traces, logs }) => [
    { label: 'Band', value: `${band.join(', ')} Hz` },
    {
      label: 'Aims at',
      value: `f^${law.exponent.toFixed(2)}${law.misfitDb === null ? ', typed' : `, within ${law.misfitDb.toFixed(1)} dB of logs`}`,
    },
    { label: 'Phase', value: `${phaseDeg}°` },
    { label: 'Designed on', value: `${traces} traces` },
    ...(logs.length > 0 ? [{ label: 'Wells', value: logs.map((l) => l.well).join(', ') }] : []),
  ],
  aside: ({ law }) => `f^${law.exponent.toFixed(2)}`,
  moved: null,
  places: () => [],
  formats: {
    csv: {
      title: 'CSV',
      write: csv(({ hz, gain, seismic, result }) => [
        ['frequency_Hz', 'gain', 'seismic_amplitude', 'result_amplitude'],
        hz.map((f, n) => [round(f, 3), gain[n], seismic[n], result[n]]),
      ]),
    },
  },
});
