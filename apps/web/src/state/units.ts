import { type MapUnit, METRES, type Units, unitsOf } from '@lithagon/core';
import { useMemo } from 'react';
import { useProject } from './project';

/** How quantities read in this project: metric, or the units of the field. */
export function useUnits(): Units {
  const frame = useProject((s) => s.facts?.frame ?? null);
  return useMemo(() => unitsOf(frame), [frame]);
}

/** The unit of map coordinates, and how many metres it has. */
export function useMapUnit(): { unit: MapUnit; metres: number } {
  const unit = useProject((s) => s.facts?.frame?.unit ?? 'm');
  return { unit, metres: METRES[unit] };
}
