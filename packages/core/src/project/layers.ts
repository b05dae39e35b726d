import type { EarthObject, Horizon, Well } from '../earth/objects.ts';
import { type Above, timeAbove } from '../velocity/column.ts';
import type { LayerPoints } from '../velocity/fit.ts';
import { mdAtTvdss, pointAtMd, type WellPath } from '../wells/path.ts';
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

/** Where layers begin: the sea bed as a horizon in depth. */
export interface SeaBed {
  /** The top of the wells that it is. */
  top: string;
  at(x: number, y: number): number;
}

/**
 * Depths and times of a well between two tops: its checkshots there, and the lower top itself. The first layer begins at
 * the sea bed, as the well's tops have it or else as the horizon does, and at the datum where there is none; `lower` null goes
 * down to the last time that the well has.
 */
export function layerPoints(
  objects: EarthObject[],
  well: Well,
  upper: string | null,
  lower: string | null,
  overburden: Above,
  seaBed?: SeaBed,
): (LayerPoints & { x: number; y: number }) | null {
  const relation = relationOf(objects, well.name);
  if (!relation) return null;
  const deepest = relation.tvdss.length - 1;
  const path = pathOf(objects, well);
  const base = lower === null ? atDepth(path, relation.tvdss[deepest]) : topInDepth(objects, well, lower);
  const above = upper === null ? seaBed && topInDepth(objects, well, seaBed.top) : topInDepth(objects, well, upper);
  if (!base || (upper && !above)) return null;
  const z = above?.tvdss ?? seaBed?.at(well.x, well.y) ?? -(overburden.datumM ?? 0);
  if (Number.isNaN(z)) return null;
  const top = { z, t: upper ? twtOfDepth(relation, z) : timeAbove(overburden, z) };
  const points = Array.from(relation.tvdss, (z, n) => ({ z, t: relation.twt[n] })).filter(
    (p) => p.z > top.z + 5 && p.z < base.tvdss && p.t > top.t,
  );
  points.push({ z: base.tvdss, t: twtOfDepth(relation, base.tvdss) });
  return { top, points, x: base.x, y: base.y };
}

/** A place of a well by its depth. */
function atDepth(path: WellPath, tvdss: number): { x: number; y: number; tvdss: number } {
  const { x, y } = pointAtMd(path, mdAtTvdss(path, tvdss));
  return { x, y, tvdss };
}
