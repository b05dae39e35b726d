import {
  askedInputs,
  type CurveClass,
  crosslineAt,
  type Domain,
  type EarthObject,
  type Horizon,
  inlineAt,
  kindOf,
  type Model,
  type Plane,
  pathOf,
  pathOfLine,
  pointAtMd,
  relationOf,
  type SeismicLine,
  type TimeDepth,
  toIndex,
  topsOf,
  turned,
  twtOfDepth,
  type Volume,
  type Well,
} from '@lithagon/core';
import { pageOf, seriesOf } from '../../state/pages';
import { JOINED, type Place, type Settings } from '../../state/views';

/** The volume that the desk shows: the one chosen, else the first; in a view's domain where it was taken there. */
export function shownVolume(objects: EarthObject[], chosen: string | null, domain?: Domain): Volume | undefined {
  const volumes = objects.filter((o): o is Volume => o.kind === 'volume');
  const volume = volumes.find((v) => v.id === chosen) ?? volumes.find((v) => v.quantity === 'amplitude') ?? volumes[0];
  // of a series the page that is turned up
  const series = seriesOf(volume, objects);
  const page = series.length > 0 ? pageOf(series) : volume;
  return domain ? counterpart(volumes, page, domain) : page;
}

/** The 2D line that a section shows: the one chosen, of a composite the first; where there is no volume, the first that has its places. */
export function shownLine(
  objects: EarthObject[],
  settings: Pick<Settings['section'], 'line' | 'joined'>,
): SeismicLine | undefined {
  const chosen = settings.line === JOINED ? (settings.joined?.[0].line ?? null) : settings.line;
  const lines = objects.filter((o): o is SeismicLine => o.kind === 'seismic line');
  const line = lines.find((l) => l.id === chosen);
  if (line || objects.some((o) => o.kind === 'volume')) return line;
  return lines.find((l) => pathOfLine(objects, l) !== null) ?? lines[0];
}

/** The same volume in a domain: itself, what it was stretched to, or what it was stretched from. */
function counterpart(volumes: Volume[], volume: Volume | undefined, domain: Domain): Volume | undefined {
  if (!volume || volume.domain === domain) return volume;
  const from = (v: Volume) => askedInputs(v).volume?.[0];
  return (
    volumes.find((v) => v.domain === domain && from(v) === volume.id) ??
    volumes.find((v) => v.domain === domain && from(volume) === v.id) ??
    volume
  );
}

/** What a volume was stretched from, where it was. */
export const convertedOf = (volume: Volume | undefined): string | undefined =>
  volume?.madeBy.step === 'depth.volume' ? askedInputs(volume).volume?.[0] : undefined;

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

type Survey = Pick<Volume, 'binGrid' | 'vertical' | 'domain'>;

/** Where to look first: through the first well inside the survey, else through its middle. */
export function firstPlace(objects: EarthObject[], volume: Volume): Partial<Place> {
  const { binGrid, vertical } = volume;
  const inside = ([i, j]: [number, number]) =>
    i > 0 && j > 0 && i < binGrid.inline.count - 1 && j < binGrid.crossline.count - 1;
  const well = objects
    .filter((o): o is Well => o.kind === 'well')
    .map((w) => toIndex(binGrid, w.x, w.y))
    .find(inside);
  const [i, j] = well ?? [binGrid.inline.count / 2, binGrid.crossline.count / 2];
  return {
    ...placeAt(volume, 'inline', Math.round(i)),
    ...placeAt(volume, 'crossline', Math.round(j)),
    ...placeAt(volume, 'slice', Math.round(vertical.count * 0.6)),
  };
}

const countOf = ({ binGrid, vertical }: Survey, plane: Plane) =>
  plane === 'slice' ? vertical.count : binGrid[plane].count;

/** Which line or slice of a volume lies at a place: the nearest that it has; its middle where the place says nothing. */
export function indexAt(volume: Survey, plane: Plane, place: Place): number {
  const { binGrid, vertical, domain } = volume;
  const count = countOf(volume, plane);
  const [value, { first, step }] = plane === 'slice' ? [place[domain], vertical] : [place[plane], binGrid[plane]];
  const index = value === null ? count / 2 : (value - first) / step;
  return Math.max(0, Math.min(count - 1, Math.round(index)));
}

/** The place of a line or slice of a volume, no further than it reaches. */
export function placeAt(volume: Survey, plane: Plane, index: number): Partial<Place> {
  const n = Math.max(0, Math.min(countOf(volume, plane) - 1, index));
  if (plane === 'inline') return { inline: inlineAt(volume.binGrid, n) };
  if (plane === 'crossline') return { crossline: crosslineAt(volume.binGrid, n) };
  const value = volume.vertical.first + n * volume.vertical.step;
  return { [volume.domain]: value };
}

/** The inline and crossline nearest to a position on the map, no further than the survey. */
export function placeOver(volume: Survey, x: number, y: number): Partial<Place> {
  const [i, j] = toIndex(volume.binGrid, x, y).map(Math.round);
  return { ...placeAt(volume, 'inline', i), ...placeAt(volume, 'crossline', j) };
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

/** Wells as they are shown; one without checkshots or tie has the times of a model, where there is one. */
export function shownWells(objects: EarthObject[], model: Model | null = null): ShownWell[] {
  return objects
    .filter((o): o is Well => o.kind === 'well')
    .map((well) => {
      const path = pathOf(objects, well);
      const relation = relationOf(objects, well.name);
      const total = well.totalMdM ?? path.md[path.md.length - 1];
      const steps = Math.max(2, Math.ceil(total / 15));
      const at = (md: number): [number, number, number, number] => {
        const p = pointAtMd(path, md);
        if (relation) return [p.x, p.y, p.tvdss, twtOfDepth(relation, p.tvdss)];
        return [p.x, p.y, p.tvdss, model ? turned(model.column(p.x, p.y), 'twt', p.tvdss) : Number.NaN];
      };
      const tops = topsOf(objects, well.name).map((top) => {
        const [x, y, tvdss, twt] = at(top.md);
        return { name: top.name, x, y, tvdss, twt };
      });
      return { well, relation, tops, at, points: Array.from({ length: steps + 1 }, (_, n) => at((total * n) / steps)) };
    });
}

/** Horizons that a view draws in a domain: a horizon that was closed stands for the tracked one that it was made from. */
export function shownHorizons(objects: EarthObject[], domain: Domain): Horizon[] {
  const closed = standsFor(objects);
  return objects.filter((o): o is Horizon => o.kind === 'horizon' && o.domain === domain && !closed.has(o.id));
}

/** Tracked horizons that have been closed. */
export function standsFor(objects: EarthObject[]): Set<string> {
  return new Set(
    objects
      .filter((o) => o.kind === 'horizon' && o.madeBy.step === 'interpret.close')
      .flatMap((h) => (h.madeBy.inputs.horizon ?? []).map((r) => r.split('@')[0])),
  );
}

/** Something that a view cannot show in its domain, and why. */
export interface NotShown {
  name: string;
  why: string;
}

/** Classes of curves that wells have. */
export const curveClassesOf = (objects: EarthObject[]): CurveClass[] => [
  ...new Set(objects.flatMap((o) => (o.kind === 'logs' ? o.curves.map((c) => c.class) : []))),
];
