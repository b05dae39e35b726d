import { toIndex } from '../../earth/binGrid.ts';
import type { EarthObject, Volume, Well } from '../../earth/objects.ts';
import { pointAtMd } from '../../wells/path.ts';
import { fromCheckshots, type TimeDepth, twtOfDepth } from '../../wells/timeDepth.ts';
import { shotsOf, startOfTable } from './checkshots.ts';
import { activeRelation, pathOf, tableOf, topsOf } from './wells.ts';

/** Time and depth of a well by its active tie, or by its checkshots where it is not tied. */
export function relationOf(objects: EarthObject[], well: string): TimeDepth | null {
  const tie = activeRelation(objects, well);
  if (tie) return { tvdss: Float64Array.from(tie.pairs, (p) => p[0]), twt: Float64Array.from(tie.pairs, (p) => p[1]) };
  const table = tableOf(objects, well, 'checkshots');
  return table ? fromCheckshots(shotsOf(objects, table), startOfTable(objects, table)) : null;
}

/** Where a well meets a top on a volume's bin grid, with its time; null where it has no such top or no time. */
export interface TopInTime {
  well: string;
  i: number;
  j: number;
  twt: number;
}

export function topInTime(objects: EarthObject[], well: Well, top: string, volume: Volume): TopInTime | null {
  const found = topsOf(objects, well.name).find((t) => t.name === top);
  const relation = relationOf(objects, well.name);
  if (!found || !relation) return null;
  const at = pointAtMd(pathOf(objects, well), found.md);
  const [i, j] = toIndex(volume.binGrid, at.x, at.y).map(Math.round);
  const { inline, crossline } = volume.binGrid;
  if (i < 0 || j < 0 || i >= inline.count || j >= crossline.count) return null;
  return { well: well.name, i, j, twt: twtOfDepth(relation, at.tvdss) };
}
