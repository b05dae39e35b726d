import { type EarthObject, type SeismicLine, sameBins, type Volume } from '@lithagon/core';

/** Volumes that can be laid over or against what a section shows: those of its domain, those with its bins first. */
export function othersOf(objects: EarthObject[], shown: Volume | SeismicLine): Volume[] {
  const alike = (v: Volume) => Number(shown.kind === 'volume' && sameBins(v.binGrid, shown.binGrid));
  return objects
    .filter((o): o is Volume => o.kind === 'volume' && o.domain === shown.domain && o.id !== shown.id)
    .sort((a, b) => alike(b) - alike(a));
}
