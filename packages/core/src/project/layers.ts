import type { EarthObject, Horizon, Well } from '../earth/objects.ts';
import type { LayerPoints } from '../velocity/layer.ts';
import { type Above, timeAbove } from '../velocity/layered.ts';
import { pointAtMd } from '../wells/path.ts';
import { twtOfDepth } from '../wells/timeDepth.ts';
import { relationOf } from './wells/seeds.ts';
import { pathOf, topsOf } from './wells/wells.ts';

/** The top of the wells that a horizon is: what it was called when it came, whatever it is called now. */
export const topOfHorizon = ({ top, name }: Horizon): string => top ?? name;

/** Depth of a top in a well with its position, or null. */
export function topInDepth(
  objects: EarthObject[],
  well: Well,
  top: string,
): { x: number; y: number; tvdss: number } | null {
  const found = topsOf(objects, well.name).find((t) => t.name === top);
  return found ? pointAtMd(pathOf(objects, well), found.md) : null;
}

/**
 * Depths and times of a well between two tops: its checkshots there, and the lower top itself. The first layer begins at
 * the sea bed, as the well's tops have it or else as `seaBedAt` does, and at the datum where there is none.
 */
export function layerPoints(
  objects: EarthObject[],
  well: Well,
  upper: string | null,
  lower: string,
  overburden: Above,
  seaBedAt?: (x: number, y: number) => number,
): LayerPoints | null {
  const relation = relationOf(objects, well.name);
  const base = topInDepth(objects, well, lower);
  const above = topInDepth(objects, well, upper ?? 'Sea Bed');
  if (!relation || !base || (upper && !above)) return null;
  const z = above?.tvdss ?? seaBedAt?.(well.x, well.y) ?? -(overburden.datumM ?? 0);
  if (Number.isNaN(z)) return null;
  const top = { z, t: upper ? twtOfDepth(relation, z) : timeAbove(overburden, z) };
  const points = Array.from(relation.tvdss, (z, n) => ({ z, t: relation.twt[n] })).filter(
    (p) => p.z > top.z + 5 && p.z < base.tvdss && p.t > top.t,
  );
  points.push({ z: base.tvdss, t: twtOfDepth(relation, base.tvdss) });
  return { top, points };
}
