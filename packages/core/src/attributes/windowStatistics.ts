import { quantile } from '../wells/petrophysics.ts';

export const WINDOW_STATISTICS = [
  'value',
  'rms',
  'mean',
  'mean of absolutes',
  'greatest',
  'least',
  'greatest absolute',
  'sum',
  'percentile',
  'part above',
] as const;
export type WindowStatistic = (typeof WINDOW_STATISTICS)[number];

export interface StatisticOptions {
  /** Of the percentile, 0 to 100. */
  percentile: number;
  /** Above which samples are counted. */
  threshold: number;
  /** Where in the window the horizon lies, samples from its top; `value` is read there. */
  at: number;
}

/** A statistic of the samples of a window; those that are none are left out, NaN where all are. */
export function statisticOfWindow(samples: Float32Array, kind: WindowStatistic, o: StatisticOptions): number {
  if (kind === 'value') return samples[Math.round(o.at)] ?? Number.NaN;
  let [n, sum, squares, absolute, high, low, above] = [0, 0, 0, 0, -Infinity, Infinity, 0];
  for (const v of samples) {
    if (Number.isNaN(v)) continue;
    n++;
    sum += v;
    squares += v * v;
    absolute += Math.abs(v);
    if (v > high) high = v;
    if (v < low) low = v;
    if (v > o.threshold) above++;
  }
  if (n === 0) return Number.NaN;
  switch (kind) {
    case 'rms':
      return Math.sqrt(squares / n);
    case 'mean':
      return sum / n;
    case 'mean of absolutes':
      return absolute / n;
    case 'greatest':
      return high;
    case 'least':
      return low;
    case 'greatest absolute':
      return high >= -low ? high : low;
    case 'sum':
      return sum;
    case 'part above':
      return above / n;
    default:
      return quantile(
        samples.filter((v) => !Number.isNaN(v)),
        o.percentile / 100,
      );
  }
}
