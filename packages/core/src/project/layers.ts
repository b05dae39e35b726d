import type { EarthObject, Well } from '../earth/objects.ts';
import type { LayerPoints } from '../velocity/layer.ts';
import { pointAtMd } from '../wells/path.ts';
import { twtOfDepth } from '../wells/timeDepth.ts';
import { relationOf } from './wells/seeds.ts';
import { pathOf, topsOf } from './wells/wells.ts';

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
 * Depths and times of a well between two tops: its checkshots there, and the lower top itself. The upper top of the
 * first layer is the sea bed, whose time is that of water.
 */
export function layerPoints(
  objects: EarthObject[],
  well: Well,
  upper: string | null,
  lower: string,
  waterVelocity: number,
): LayerPoints | null {
  const relation = relationOf(objects, well.name);
  const base = topInDepth(objects, well, lower);
  const above = topInDepth(objects, well, upper ?? 'Sea Bed');
  if (!relation || !base || !above) return null;
  const top = { z: above.tvdss, t: upper ? twtOfDepth(relation, above.tvdss) : (2000 * above.tvdss) / waterVelocity };
  const points = Array.from(relation.tvdss, (z, n) => ({ z, t: relation.twt[n] })).filter(
    (p) => p.z > top.z + 5 && p.z < base.tvdss && p.t > top.t,
  );
  points.push({ z: base.tvdss, t: twtOfDepth(relation, base.tvdss) });
  return { top, points };
}
