import { type BinGrid, toIndex, toMap } from '../earth/binGrid.ts';
import { gridAt } from '../horizons/grid.ts';
import { heed } from '../numerics/stop.ts';
import { krige } from './kriging.ts';
import { depthAfter, type LayerPoints, type LinearVelocity } from './layer.ts';
import { type Above, timeAbove } from './layered.ts';

/** Distance that a velocity volume says is travelled down to a time: cumulated once, looked up anywhere. */
export interface Guide {
  /** Thickness (m) between two times (ms) at a map position; NaN outside the volume. */
  thickness(x: number, y: number, from: number, to: number): number;
}

/** What a sample of an interval velocity stands for: the interval that begins or ends at its time, or that time itself. */
export const GUIDE_SAMPLES = ['the interval below it', 'the interval above it', 'its own time'] as const;
export type GuideSamples = (typeof GUIDE_SAMPLES)[number];

/**
 * A volume of interval velocities as a guide to how velocity changes sideways; bilinear between traces, held at the
 * volume's edges for one bin. Down a trace velocities are constant over the intervals that samples stand for, or straight
 * lines between points.
 * @param velocity `[inline][crossline][sample]`, m/s at `first + k·step` ms
 */
export function guideOf(
  velocity: Float32Array,
  binGrid: BinGrid,
  vertical: { first: number; step: number; count: number },
  samples: GuideSamples = 'its own time',
): Guide {
  const { count: nk, step } = vertical;
  const points = samples === 'its own time';
  // where the interval of the first sample begins, or where it lies
  const first = vertical.first - (samples === 'the interval above it' ? step : 0);
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  const sums = new Float64Array(velocity.length);
  for (let trace = 0; trace < ni * nj; trace++) {
    if (trace % 1024 === 0) heed();
    const o = trace * nk;
    // from time zero to the first sample at its velocity
    sums[o] = (velocity[o] * first) / 2000;
    for (let k = 1; k < nk; k++)
      sums[o + k] =
        sums[o + k - 1] + ((points ? velocity[o + k] : velocity[o + k - 1]) + velocity[o + k - 1]) * (step / 4000);
  }
  const depth = (trace: number, ms: number): number => {
    const o = trace * nk;
    const x = (ms - first) / step;
    if (x <= 0) return (velocity[o] * ms) / 2000;
    if (!points) {
      const k = Math.min(nk - 1, Math.floor(x));
      return sums[o + k] + (velocity[o + k] * (x - k) * step) / 2000;
    }
    const k = Math.min(nk - 2, Math.floor(x));
    const f = x - k;
    if (f > 1) return sums[o + nk - 1] + (velocity[o + nk - 1] * (f - 1) * step) / 2000;
    const v = velocity[o + k] + 0.5 * f * (velocity[o + k + 1] - velocity[o + k]);
    return sums[o + k] + (v * f * step) / 2000;
  };
  return {
    thickness(x, y, from, to) {
      const [i, j] = toIndex(binGrid, x, y);
      if (i < -1 || j < -1 || i > ni || j > nj) return Number.NaN;
      const a = Math.max(0, Math.min(ni - 2, Math.floor(i)));
      const b = Math.max(0, Math.min(nj - 2, Math.floor(j)));
      const [fi, fj] = [Math.max(0, Math.min(1, i - a)), Math.max(0, Math.min(1, j - b))];
      const at = (p: number, q: number) => depth(p * nj + q, to) - depth(p * nj + q, from);
      return (
        (1 - fi) * ((1 - fj) * at(a, b) + fj * at(a, b + 1)) + fi * ((1 - fj) * at(a + 1, b) + fj * at(a + 1, b + 1))
      );
    },
  };
}

/** The v0 of a layer with gradient `k` that makes it `thickness` (m) thick over `dt` ms from depth `z0`. */
export function v0ForThickness(k: number, z0: number, dt: number, thickness: number): number {
  if (dt <= 0) return Number.NaN;
  if (Math.abs(k) < 1e-9) return (2000 * thickness) / dt;
  const e = Math.exp((k * dt) / 2000);
  return ((z0 + thickness - z0 * e) * k) / (e - 1);
}

interface GuidedLayer extends LinearVelocity {
  /** A typed law stands as it is, whatever the guide says. */
  typed: boolean;
  /** TWT of the layer's base. */
  values: Float32Array;
  binGrid: BinGrid;
  wells: { x: number; y: number; points: LayerPoints }[];
}

/**
 * Maps of v0, layer by layer: the guide's thickness gives v0 in every bin, and the ratio of the wells' own v0 to it is
 * kriged over the map, so that wells decide how fast a layer is and the guide how that changes between them.
 * @returns one `[inline][crossline]` map a layer, m/s
 */
export function guidedV0(options: {
  binGrid: BinGrid;
  guide: Guide;
  seaBed: { values: Float32Array; binGrid: BinGrid };
  above: Above;
  layers: GuidedLayer[];
  rangeM: number;
}): Float32Array[] {
  const { binGrid, guide, seaBed, above } = options;
  const [rows, columns] = [binGrid.inline.count, binGrid.crossline.count];
  const z = new Float64Array(rows * columns);
  const t = new Float64Array(rows * columns);
  const places = Array.from({ length: rows * columns }, (_, n) => toMap(binGrid, Math.floor(n / columns), n % columns));
  places.forEach(([x, y], n) => {
    if (n % 1024 === 0) heed();
    z[n] = gridAt(seaBed.values, seaBed.binGrid, x, y);
    t[n] = timeAbove(above, z[n]);
  });
  return options.layers.map((layer) => {
    const logs = layer.wells.flatMap((w) => {
      const { top, points } = w.points;
      const base = points[points.length - 1];
      const thick = guide.thickness(w.x, w.y, top.t, base.t);
      const guided = v0ForThickness(layer.k, top.z, base.t - top.t, thick);
      const own = v0ForThickness(layer.k, top.z, base.t - top.t, base.z - top.z);
      return guided > 0 && own > 0 ? [{ x: w.x, y: w.y, value: Math.log(own / guided) }] : [];
    });
    const mean = logs.length > 0 ? logs.reduce((s, l) => s + l.value, 0) / logs.length : 0;
    const spread = krige(
      logs.map((l) => ({ ...l, value: l.value - mean })),
      options.rangeM,
    );
    return Float32Array.from(places, ([x, y], n) => {
      if (n % 1024 === 0) heed();
      const next = gridAt(layer.values, layer.binGrid, x, y);
      const dt = next - t[n];
      if (Number.isNaN(dt)) return Number.NaN;
      // where horizons meet there is no layer to measure: its usual velocity stands in
      const thick = dt > 4 ? guide.thickness(x, y, t[n], next) : Number.NaN;
      const guided = v0ForThickness(layer.k, z[n], dt, thick);
      const v0 = guided > 0 && !layer.typed ? guided * Math.exp(mean + spread(x, y)) : layer.v0;
      z[n] = depthAfter({ v0, k: layer.k }, z[n], Math.max(0, dt));
      t[n] = Math.max(t[n], next);
      return v0;
    });
  });
}
