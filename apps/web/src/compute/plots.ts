import {
  densityOf,
  type EarthObject,
  fitLine,
  type PlotPoints,
  type PlotRequest,
  type PlotWindow,
  plotPoints,
  quantile,
  type Store,
  selected,
  selectedIntervals,
  within,
} from '@lithagon/core';

/** The crossplot looked at last, and the one before it: points never leave the worker. */
const held = new Map<
  string,
  { points: PlotPoints; bins: number; part: { key: string; points: PlotPoints } | null; turn: number }
>();

/** Ranges of the further quantities that points are limited to. */
export type Ranges = [number, number][];

/** Points of a plot within ranges: those asked for last are kept. */
function pointsIn(plot: NonNullable<ReturnType<typeof held.get>>, ranges: Ranges): PlotPoints {
  const key = JSON.stringify(ranges);
  if (plot.part?.key !== key) plot.part = { key, points: within(plot.points, ranges) };
  return plot.part.points;
}
let next = 0;

/** Gather points and say what there is. */
export async function gatherPlot(store: Store, objects: EarthObject[], request: PlotRequest) {
  // the turn of the request, not of its end, says which plot is the latest
  const turn = next++;
  const points = await plotPoints(store, objects, request);
  const key = `plot-${turn}`;
  const of = objects.find((o) => o.id === request.x.of);
  const binGrid = of && 'binGrid' in of ? of.binGrid : undefined;
  held.set(key, { points, bins: binGrid ? binGrid.inline.count * binGrid.crossline.count : 0, part: null, turn });
  for (const [old] of [...held].sort(([, a], [, b]) => a.turn - b.turn)) if (held.size > 2) held.delete(old);
  // percentiles from an even part: outliers are seen on zooming out
  const thin = (v: Float32Array) =>
    v.length > 200_000 ? v.filter((_, n) => n % Math.ceil(v.length / 200_000) === 0) : v;
  const span = (v: Float32Array): [number, number] => {
    const some = thin(v);
    const [a, b] = [quantile(some, 0.002), quantile(some, 0.998)];
    const pad = 0.04 * (b - a) || 1;
    return [a - pad, b + pad];
  };
  const [x0, x1] = span(points.x);
  const [y0, y1] = span(points.y);
  const { unitX, unitY, unitColor, notes, color, classes } = points;
  return {
    key,
    count: points.x.length,
    window: { x0, x1, y0, y1 } satisfies PlotWindow,
    colorRange:
      classes.length === 0 && color?.some((v) => !Number.isNaN(v))
        ? ([quantile(thin(color), 0.02), quantile(thin(color), 0.98)] as [number, number])
        : null,
    classes,
    unitX,
    unitY,
    unitColor,
    more: points.more.map((v, m) => ({
      unit: points.unitsMore[m],
      range: [quantile(thin(v), 0), quantile(thin(v), 1)] as [number, number],
    })),
    fit: fitLine(points),
    notes: points.x.length === 0 ? [...notes, 'Nothing is known of both at one place.'] : notes,
  };
}

export function rasterOf(key: string, window: PlotWindow, ranges: Ranges, width: number, height: number) {
  const plot = held.get(key);
  return plot ? densityOf(pointsIn(plot, ranges), window, width, height, plot.points.classes.length) : null;
}

/** How many points lie in more than one of several rings. */
export function overlapOf(key: string, rings: [number, number][][]): number {
  const plot = held.get(key);
  if (!plot) return 0;
  const masks = rings.map((ring) => selected(plot.points, ring));
  let count = 0;
  for (let n = 0; n < plot.points.x.length; n++) if (masks.reduce((sum, m) => sum + m[n], 0) > 1) count++;
  return count;
}

export function selectPlot(key: string, ring: [number, number][], ranges: Ranges) {
  const plot = held.get(key);
  if (!plot) return null;
  const points = pointsIn(plot, ranges);
  const mask = selected(points, ring);
  let count = 0;
  for (const v of mask) count += v;
  if (points.wells.length > 0) return { count, wells: [...selectedIntervals(points, mask)], mask: null };
  const bins = new Uint8Array(plot.bins);
  for (let n = 0; n < mask.length; n++) if (mask[n]) bins[points.place[n]] = 1;
  return { count, wells: [] as [string, [number, number][]][], mask: bins };
}
