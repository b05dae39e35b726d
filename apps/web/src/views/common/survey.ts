import {
  type EarthObject,
  fromCheckshots,
  type Lattice,
  pathOf,
  pointAtMd,
  type TimeDepth,
  tableOf,
  toIndex,
  twtOfDepth,
  type Volume,
  type Well,
} from '@lithagon/core';

/** The volume that the desk shows: the one chosen, else the first. */
export function shownVolume(objects: EarthObject[], chosen: string | null): Volume | undefined {
  const volumes = objects.filter((o): o is Volume => o.kind === 'volume');
  return volumes.find((v) => v.id === chosen) ?? volumes.find((v) => v.quantity === 'amplitude') ?? volumes[0];
}

/** Lines to begin with: through the first well inside the survey, else through its middle. */
export function firstLines(
  objects: EarthObject[],
  volume: Volume,
): { inline: number; crossline: number; slice: number } {
  const { lattice, vertical } = volume;
  const inside = ([i, j]: [number, number]) =>
    i > 0 && j > 0 && i < lattice.inline.count - 1 && j < lattice.crossline.count - 1;
  const well = objects
    .filter((o): o is Well => o.kind === 'well')
    .map((w) => toIndex(lattice, w.x, w.y))
    .find(inside);
  const [i, j] = well ?? [lattice.inline.count / 2, lattice.crossline.count / 2];
  return { inline: Math.round(i), crossline: Math.round(j), slice: Math.round(vertical.count * 0.6) };
}

export function clampLine(lattice: Lattice, plane: 'inline' | 'crossline', index: number): number {
  return Math.max(0, Math.min(lattice[plane].count - 1, Math.round(index)));
}

/** A well with its path at even steps, in depth and, where its checkshots allow, in time. */
export interface ShownWell {
  well: Well;
  /** `[x, y, tvdss, twt]`; time is NaN where there is none. */
  points: [number, number, number, number][];
  relation: TimeDepth | null;
  tops: { name: string; x: number; y: number; tvdss: number; twt: number }[];
}

/** Time and depth of a well by its checkshots: what there is before it is tied. */
export function relationOf(objects: EarthObject[], well: string): TimeDepth | null {
  const table = tableOf(objects, well, 'checkshots');
  if (!table) return null;
  return fromCheckshots(table.rows.map((r) => ({ tvdss: Number(r[1]), twt: Number(r[2]) })));
}

export function shownWells(objects: EarthObject[]): ShownWell[] {
  return objects
    .filter((o): o is Well => o.kind === 'well')
    .map((well) => {
      const path = pathOf(objects, well);
      const relation = relationOf(objects, well.name);
      const total = well.totalMdM ?? path.md[path.md.length - 1];
      const steps = Math.max(2, Math.ceil(total / 15));
      const at = (md: number): [number, number, number, number] => {
        const p = pointAtMd(path, md);
        return [p.x, p.y, p.tvdss, relation ? twtOfDepth(relation, p.tvdss) : Number.NaN];
      };
      const tops = (tableOf(objects, well.name, 'tops')?.rows ?? []).map((row) => {
        const [x, y, tvdss, twt] = at(Number(row[1]));
        return { name: String(row[0]), x, y, tvdss, twt };
      });
      return { well, relation, tops, points: Array.from({ length: steps + 1 }, (_, n) => at((total * n) / steps)) };
    });
}

/** Something that a view cannot show in its domain, and why. */
export interface NotShown {
  name: string;
  why: string;
}

/** What of a project cannot be shown in a domain, listed rather than left out silently. */
export function notShownIn(objects: EarthObject[], domain: 'twt' | 'depth', wells: ShownWell[]): NotShown[] {
  const word = domain === 'twt' ? 'TWT' : 'depth';
  const out: NotShown[] = [];
  for (const object of objects)
    if ((object.kind === 'volume' || object.kind === 'horizon' || object.kind === 'fault') && object.domain !== domain)
      out.push({
        name: object.name,
        why: `is in ${object.domain === 'twt' ? 'TWT' : 'depth'}; no velocity model takes it to ${word} yet`,
      });
  if (domain === 'twt')
    for (const well of wells)
      if (!well.relation) out.push({ name: well.well.name, why: 'has no checkshots or tie that give it time' });
  return out;
}
