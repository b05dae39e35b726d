import type { EarthObject } from '@lithagon/core';
import { LINE_COLORS } from './maps';

/** The colour that stands for an object, the same wherever it is drawn or listed. */
export function colorOf(object: EarthObject, objects: EarthObject[]): string {
  if (object.color) return object.color;
  if (object.kind !== 'horizon')
    return object.kind === 'fault' || object.kind === 'well' ? 'var(--ink)' : 'var(--slate)';
  const horizons = objects.filter((o) => o.kind === 'horizon');
  return LINE_COLORS[horizons.indexOf(object) % LINE_COLORS.length];
}
