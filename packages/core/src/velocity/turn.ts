import { sincDown } from '../numerics/sinc.ts';
import { type Column, depthOfTime, downColumn, timeOfDepth } from './column.ts';
import type { Even } from './even.ts';
import type { Model } from './model.ts';

/** A position of one domain in the other at a place; NaN where the model does not reach. */
export type Turn = (x: number, y: number, value: number) => number;

/** A position in a domain from one in the other; NaN without a column. */
export const turned = (column: Column | null, to: 'twt' | 'depth', value: number): number =>
  column && !Number.isNaN(value) ? (to === 'depth' ? depthOfTime : timeOfDepth)(column, value) : Number.NaN;

/** Positions in a domain from those of the other. */
export function turnerOf(model: Model, to: 'twt' | 'depth'): Turn {
  return (x, y, value) => (Number.isNaN(value) ? Number.NaN : turned(model.column(x, y), to, value));
}

/**
 * Traces in the other domain, as they are stored by a run: by a windowed sinc; or quickly, by straight lines between samples.
 * @param data `[trace][sample]` on `vertical`; @param columns one for each trace, null where there is none
 * @returns `[trace][sample]` on `even`
 */
export function turnedTraces(
  data: Float32Array,
  vertical: Even,
  columns: (Column | null)[],
  to: 'twt' | 'depth',
  even: Even,
  quick = false,
): Float32Array {
  const out = new Float32Array(columns.length * even.count).fill(Number.NaN);
  const places = new Float64Array(even.count + 1);
  const { first, step, count } = vertical;
  for (const [n, column] of columns.entries()) {
    if (!column) continue;
    downColumn(column, to === 'depth' ? 'twt' : 'depth', even.first, even.step, places);
    for (let k = 0; k <= even.count; k++) places[k] = (places[k] - first) / step;
    if (!quick) sincDown(data, n * count, count, places, out, n * even.count);
    else
      for (let k = 0; k < even.count; k++) {
        const at = places[k];
        if (!(at >= 0 && at <= count - 1)) continue;
        const low = Math.min(count - 2, Math.floor(at));
        const a = data[n * count + low];
        out[n * even.count + k] = a + (at - low) * (data[n * count + low + 1] - a);
      }
  }
  return out;
}
