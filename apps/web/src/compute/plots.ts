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
} from '@lithagon/core';

/** The crossplot looked at last, and the one before it: points never leave the worker. */
const held = new Map<string, { points: PlotPoints; bins: number }>();
let next = 0;

/** Gather points and say what there is. */
export async function gatherPlot(store: Store, objects: EarthObject[], request: PlotRequest) {
  const points = await plotPoints(store, objects, request);
  const key = `plot-${next++}`;
  const of = objects.find((o) => o.id === request.x.of);
  const binGrid = of && 'binGrid' in of ? of.binGrid : undefined;
  held.set(key, { points, bins: binGrid ? binGrid.inline.count * binGrid.crossline.count : 0 });
  for (const old of held.keys()) if (held.size > 2) held.delete(old);
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
    fit: fitLine(points),
    notes: points.x.length === 0 ? [...notes, 'Nothing is known of both at one place.'] : notes,
  };
}

export function rasterOf(key: string, window: PlotWindow, width: number, height: number) {
  const plot = held.get(key);
  return plot ? densityOf(plot.points, window, width, height, plot.points.classes.length) : null;
}

export function selectPlot(key: string, ring: [number, number][]) {
  const plot = held.get(key);
  if (!plot) return null;
  const mask = selected(plot.points, ring);
  let count = 0;
  for (const v of mask) count += v;
  if (plot.points.wells.length > 0) return { count, wells: [...selectedIntervals(plot.points, mask)], mask: null };
  const bins = new Uint8Array(plot.bins);
  for (let n = 0; n < mask.length; n++) if (mask[n]) bins[plot.points.place[n]] = 1;
  return { count, wells: [] as [string, [number, number][]][], mask: bins };
}
