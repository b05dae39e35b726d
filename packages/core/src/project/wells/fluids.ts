import type { ObjectOf } from '../../earth/objects.ts';

const COLUMN = { density: 1, factor: 2 } as const;

/** Density (kg/m³) or formation volume factor (m³/m³) of a fluid from the first sample that gives it, or null. */
export function sampleValue(
  samples: ObjectOf<'fluid samples'>[],
  fluid: 'gas' | 'oil' | 'water',
  what: keyof typeof COLUMN,
): number | null {
  const row = samples.flatMap((s) => s.rows).find((r) => r[0] === fluid);
  const value = row?.[COLUMN[what]];
  return typeof value === 'number' ? value : null;
}
