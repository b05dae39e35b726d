import { type BinGrid, sameBins, toIndex, toMap } from '../earth/binGrid.ts';
import { LithagonError, stopIf } from '../earth/errors.ts';
import type { Horizon, QuantityMap, Volume } from '../earth/objects.ts';
import { gridAt } from '../horizons/grid.ts';
import { cubicBetween } from '../numerics/cubic.ts';
import { readWhole } from '../storage/arrays.ts';
import { shapeOf } from '../storage/planes.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';

/** A window around one horizon, or between two: on every bin of the first its top and its base, in the unit of the vertical; NaN where there is none. */
export interface Windows {
  binGrid: BinGrid;
  top: Float32Array;
  base: Float32Array;
}

/**
 * Windows from `above` over a horizon to `below` under it, or under another.
 * @param above, below in the unit of the vertical, negative inward
 */
export async function windowsOf(
  store: Store,
  horizon: Horizon,
  other: Horizon | undefined,
  above: number,
  below: number,
): Promise<Windows> {
  if (other && other.domain !== horizon.domain)
    throw new LithagonError('domain', `${horizon.name} and ${other.name} are not both in one domain.`, {
      object: other.name,
      fix: 'Choose two horizons in time or two in depth.',
    });
  const { binGrid } = horizon;
  const first = await readWhole(store, horizon.values);
  const second = other ? await onBinsOf(store, other, binGrid) : first;
  const top = first.map((v) => v - above);
  // a top that lies under its base leaves no window
  const base = second.map((v, n) => (v + below >= top[n] ? v + below : Number.NaN));
  return { binGrid, top, base };
}

/** Values of a horizon or map on bins, its own or between them. */
export async function onBinsOf(
  store: Store,
  horizon: Pick<Horizon | QuantityMap, 'binGrid' | 'values'>,
  binGrid: BinGrid,
): Promise<Float32Array> {
  const values = await readWhole(store, horizon.values);
  if (sameBins(horizon.binGrid, binGrid)) return values;
  const columns = binGrid.crossline.count;
  return Float32Array.from({ length: binGrid.inline.count * columns }, (_, n) =>
    gridAt(values, horizon.binGrid, ...toMap(binGrid, Math.floor(n / columns), n % columns)),
  );
}

/** Values of a volume on every bin of a horizon, `[inline][crossline]`, between samples by cubics; NaN where there is none. */
export async function valuesOn(
  store: Store,
  volume: Volume,
  horizon: Horizon,
  work: { signal?: AbortSignal } = {},
): Promise<Float32Array> {
  const windows = await windowsOf(store, horizon, undefined, 0, 0);
  const out = new Float32Array(windows.top.length).fill(Number.NaN);
  await eachWindow(
    store,
    volume,
    windows,
    (bin, samples) => {
      out[bin] = samples[0];
    },
    work,
  );
  return out;
}

/** Lines of bins whose samples are read at once. */
const LINES = 8;

/**
 * Samples of a volume in the window of every bin that has one: at `top + n · step` and no further than the base, between its samples by
 * cubics, between its traces by straight lines where bins lie between them. Only the samples that windows need are read, or worked out
 * where the volume is live.
 * @param visit told the bin's number and its samples (NaN where there are none)
 */
export async function eachWindow(
  store: Store,
  volume: Volume,
  windows: Windows,
  visit: (bin: number, samples: Float32Array, top: number) => void,
  work: { signal?: AbortSignal; progress?(part: number): void } = {},
): Promise<void> {
  const { binGrid, top, base } = windows;
  const { first, step, count } = volume.vertical;
  const [vi, vj] = shapeOf(volume);
  const [rows, columns] = [binGrid.inline.count, binGrid.crossline.count];
  for (let i0 = 0; i0 < rows; i0 += LINES) {
    stopIf(work.signal);
    const bins: { n: number; i: number; j: number }[] = [];
    let [k0, k1, a0, a1, b0, b1] = [count, -1, vi, -1, vj, -1];
    for (let n = i0 * columns; n < Math.min(rows, i0 + LINES) * columns; n++) {
      if (Number.isNaN(top[n]) || Number.isNaN(base[n])) continue;
      const [i, j] = toIndex(volume.binGrid, ...toMap(binGrid, Math.floor(n / columns), n % columns)).map(snapped);
      if (i < 0 || j < 0 || i > vi - 1 || j > vj - 1) continue;
      bins.push({ n, i, j });
      [a0, a1] = [Math.min(a0, Math.floor(i)), Math.max(a1, Math.ceil(i))];
      [b0, b1] = [Math.min(b0, Math.floor(j)), Math.max(b1, Math.ceil(j))];
      k0 = Math.min(k0, Math.floor((top[n] - first) / step) - 1);
      k1 = Math.max(k1, Math.ceil((base[n] - first) / step) + 2);
    }
    if (bins.length > 0) {
      const region = {
        i: [a0, a1 + 1] as [number, number],
        j: [b0, b1 + 1] as [number, number],
        k: [Math.max(0, k0), Math.min(count, k1 + 1)] as [number, number],
      };
      const samples = region.k[1] - region.k[0];
      const data = samples > 0 ? await readRegion(store, volume, region) : new Float32Array(0);
      const across = b1 + 1 - b0;
      const at = (i: number, j: number, k: number) =>
        k < region.k[0] || k >= region.k[1]
          ? Number.NaN
          : data[((i - a0) * across + j - b0) * samples + k - region.k[0]];
      for (const { n, i, j } of bins) {
        const length = Math.floor((base[n] - top[n]) / step + 1e-6) + 1;
        const out = new Float32Array(length);
        const [i1, j1, fi, fj] = [Math.floor(i), Math.floor(j), i - Math.floor(i), j - Math.floor(j)];
        // on a bin and its samples there is nothing to be read between
        const begin = Math.round((top[n] - first) / step);
        const on = fi === 0 && fj === 0 && Math.abs((top[n] - first) / step - begin) < 1e-6;
        if (on && begin >= region.k[0] && begin + length <= region.k[1]) {
          const own = ((i1 - a0) * across + j1 - b0) * samples + begin - region.k[0];
          visit(n, data.slice(own, own + length), top[n]);
          continue;
        }
        for (let m = 0; m < length; m++) {
          const x = (top[n] - first) / step + m;
          let [sum, weight] = [0, 0];
          for (const [di, wi] of [
            [0, 1 - fi],
            [1, fi],
          ])
            for (const [dj, wj] of [
              [0, 1 - fj],
              [1, fj],
            ])
              if (wi * wj > 0) {
                sum += wi * wj * between((k) => at(i1 + di, j1 + dj, k), x);
                weight += wi * wj;
              }
          out[m] = sum / weight;
        }
        visit(n, out, top[n]);
      }
    }
    work.progress?.(Math.min(1, (i0 + LINES) / rows));
  }
}

/** Positions that went over the map and back are a rounding off their line. */
const snapped = (v: number) => (Math.abs(v - Math.round(v)) < 1e-5 ? Math.round(v) : v);

/** A value between samples by a cubic, by a straight line beside a gap. */
function between(at: (k: number) => number, x: number): number {
  const k = Math.floor(x + 1e-6);
  const f = x - k;
  const b = at(k);
  if (Math.abs(f) < 1e-6) return b;
  const [a, c, d] = [at(k - 1), at(k + 1), at(k + 2)];
  const value = cubicBetween(a, b, c, d, f);
  return Number.isNaN(value) ? b + f * (c - b) : value;
}
