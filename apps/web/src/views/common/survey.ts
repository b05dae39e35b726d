import {
  askedInputs,
  type BinGrid,
  type EarthObject,
  type Horizon,
  kindOf,
  pathOf,
  pointAtMd,
  relationOf,
  type TimeDepth,
  toIndex,
  topsOf,
  twtOfDepth,
  type Volume,
  type Well,
} from '@lithagon/core';

/** The volume that the desk shows: the one chosen, else the first; in a view's domain where it was taken there. */
export function shownVolume(
  objects: EarthObject[],
  chosen: string | null,
  domain?: 'twt' | 'depth',
): Volume | undefined {
  const volumes = objects.filter((o): o is Volume => o.kind === 'volume');
  const volume = volumes.find((v) => v.id === chosen) ?? volumes.find((v) => v.quantity === 'amplitude') ?? volumes[0];
  return domain ? counterpart(volumes, volume, domain) : volume;
}

/** The same volume in a domain: itself, what it was stretched to, or what it was stretched from. */
function counterpart(volumes: Volume[], volume: Volume | undefined, domain: 'twt' | 'depth'): Volume | undefined {
  if (!volume || volume.domain === domain) return volume;
  const from = (v: Volume) => askedInputs(v).volume?.[0];
  return (
    volumes.find((v) => v.domain === domain && from(v) === volume.id) ??
    volumes.find((v) => v.domain === domain && from(volume) === v.id) ??
    volume
  );
}

/** Whether an object lies on a grid of its own, with no place on the map. */
const isLocal = (o: EarthObject) => 'binGrid' in o && o.binGrid?.local === true;

/**
 * Objects that lie on one map together, and those that do not: a volume without coordinates is shown by itself, where
 * nothing else is or it is what is looked at.
 */
export function onOneMap(objects: EarthObject[], alone?: EarthObject): { together: EarthObject[]; apart: NotShown[] } {
  const local = objects.filter(isLocal);
  const placed = objects.some((o) => !isLocal(o) && kindOf(o).places(o).length > 0);
  if (local.length === 0 || (!placed && !alone)) return { together: objects, apart: [] };
  if (alone && isLocal(alone)) return { together: local, apart: [] };
  return {
    together: objects.filter((o) => !isLocal(o)),
    apart: local.map(({ name }) => ({ name, why: 'has no place on the map yet: its Sheet can give it one' })),
  };
}

/** Lines to begin with: through the first well inside the survey, else through its middle. */
export function firstLines(
  objects: EarthObject[],
  volume: Volume,
): { inline: number; crossline: number; slice: number } {
  const { binGrid, vertical } = volume;
  const inside = ([i, j]: [number, number]) =>
    i > 0 && j > 0 && i < binGrid.inline.count - 1 && j < binGrid.crossline.count - 1;
  const well = objects
    .filter((o): o is Well => o.kind === 'well')
    .map((w) => toIndex(binGrid, w.x, w.y))
    .find(inside);
  const [i, j] = well ?? [binGrid.inline.count / 2, binGrid.crossline.count / 2];
  return { inline: Math.round(i), crossline: Math.round(j), slice: Math.round(vertical.count * 0.6) };
}

export function clampLine(binGrid: BinGrid, plane: 'inline' | 'crossline', index: number): number {
  return Math.max(0, Math.min(binGrid[plane].count - 1, Math.round(index)));
}

/** A well with its path at even steps, in depth and, where its checkshots allow, in time. */
export interface ShownWell {
  well: Well;
  /** `[x, y, tvdss, twt]`; time is NaN where there is none. */
  points: [number, number, number, number][];
  relation: TimeDepth | null;
  tops: {
    name: string;
    x: number;
    y: number;
    tvdss: number;
    twt: number;
  }[];
  /** Map coordinates, TVDSS and TWT at a measured depth. */
  at(md: number): [x: number, y: number, tvdss: number, twt: number];
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
      const tops = topsOf(objects, well.name).map((top) => {
        const [x, y, tvdss, twt] = at(top.md);
        return { name: top.name, x, y, tvdss, twt };
      });
      return { well, relation, tops, at, points: Array.from({ length: steps + 1 }, (_, n) => at((total * n) / steps)) };
    });
}

/** Horizons that a view draws in a domain: a horizon that was closed stands for the tracked one that it was made from. */
export function shownHorizons(objects: EarthObject[], domain: 'twt' | 'depth'): Horizon[] {
  const horizons = objects.filter((o): o is Horizon => o.kind === 'horizon' && o.domain === domain);
  const closed = new Set(
    horizons
      .filter((h) => h.madeBy.step === 'interpret.close')
      .flatMap((h) => (h.madeBy.inputs.horizon ?? []).map((r) => r.split('@')[0])),
  );
  return horizons.filter((h) => !closed.has(h.id));
}

/** Something that a view cannot show in its domain, and why. */
export interface NotShown {
  name: string;
  why: string;
}

/** What of a project cannot be shown in a domain, listed rather than left out silently. */
export function notShownIn(objects: EarthObject[], domain: 'twt' | 'depth', wells: ShownWell[]): NotShown[] {
  const out: NotShown[] = [];
  for (const object of objects)
    if (
      (object.kind === 'volume' ||
        object.kind === 'seismic line' ||
        object.kind === 'horizon' ||
        object.kind === 'fault') &&
      object.domain !== domain
    )
      out.push({
        name: object.name,
        why: `is in ${object.domain === 'twt' ? 'TWT' : 'depth'}; convert it, or switch this view`,
      });
  if (domain === 'twt')
    for (const well of wells)
      if (!well.relation) out.push({ name: well.well.name, why: 'has no checkshots or tie that give it time' });
  return out;
}
