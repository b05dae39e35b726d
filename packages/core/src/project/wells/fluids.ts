import type { EarthObject, ObjectOf } from '../../earth/objects.ts';

/** Names under which the columns of fluid samples are kept. */
export const SAMPLE_COLUMNS = {
  density: 'Density',
  factor: 'Formation volume factor',
  resistivity: 'Resistivity',
} as const;

/**
 * Density (kg/m³), formation volume factor (m³/m³) or resistivity at the formation's temperature (ohm·m) of a fluid from
 * the first sample that gives it, or null.
 */
export function sampleValue(
  samples: ObjectOf<'fluid samples'>[],
  fluid: 'gas' | 'oil' | 'water',
  what: keyof typeof SAMPLE_COLUMNS,
): number | null {
  for (const { columns, rows } of samples) {
    const at = columns.findIndex((c) => c.name === SAMPLE_COLUMNS[what]);
    for (const row of at < 0 ? [] : rows) if (row[0] === fluid && typeof row[at] === 'number') return row[at];
  }
  return null;
}

/** Fluid samples of a project, those of a well before those of the others. */
export function samplesFor(around: EarthObject[], well: string): ObjectOf<'fluid samples'>[] {
  const samples = around.filter((o): o is ObjectOf<'fluid samples'> => o.kind === 'fluid samples');
  return [...samples.filter((o) => o.well === well), ...samples.filter((o) => o.well !== well)];
}
