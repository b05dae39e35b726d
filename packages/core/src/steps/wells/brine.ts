import { samplesFor, sampleValue } from '../../project/wells/fluids.ts';
import { choice, number } from '../define.ts';
import type { OneWell } from './perWell.ts';

/** Where a step takes the brine in the pores from. */
export const brineFrom = choice(
  {
    title: 'Brine from',
    description: 'A water sample of the well, or else of the field, where there is one; or as typed below.',
  },
  ['water sample', 'typed'],
  'water sample',
);

export const brineOhmM = number(
  {
    title: 'Brine resistivity',
    description: 'At the formation’s temperature; used where no water sample gives one, or where it is typed.',
    unit: 'ohm.m',
  },
  { min: 0.005, max: 5, step: 0.005, initial: 0.1 },
);

/** Resistivity (ohm·m) and density (kg/m³) of the brine: sampled, or what was typed, which is said. */
export function brineOf(
  one: OneWell,
  from: string,
  typed: { resistivity: number; density?: number },
): { resistivity: number; density: number } {
  const samples = from === 'water sample' ? samplesFor(one.around, one.well.name) : [];
  const resistivity = sampleValue(samples, 'water', 'resistivity');
  for (const o of samples) if (sampleValue([o], 'water', 'resistivity') !== null) one.uses(o);
  if (from === 'water sample' && resistivity === null)
    one.warn(
      `no water sample gives a resistivity, so ${typed.resistivity} ohm.m was taken for the brine: saturation hangs on it.`,
    );
  return {
    resistivity: resistivity ?? typed.resistivity,
    density: sampleValue(samples, 'water', 'density') ?? typed.density ?? Number.NaN,
  };
}
