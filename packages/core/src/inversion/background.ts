import { type Kriger, krigerOf, type Place } from './kriging.ts';
import { fitVariogram, type Lag, type Variogram, type VariogramFit, type VariogramShape } from './variogram.ts';

/** A log of a well by the number of its bed: even steps, NaN where it is not logged; and where the well passes each. */
export interface LogByBed {
  well: string;
  values: Float64Array;
  /** Map coordinates, and those that tell sides of faults. */
  places: Place[];
}

/** Even steps of bed numbers. */
export interface BedAxis {
  first: number;
  step: number;
  count: number;
}

/** A Gaussian low-pass down to half power at a frequency, over what is there: ends and gaps spread nothing. */
export function lowPassed(values: ArrayLike<number>, stepMs: number, cutHz: number): Float64Array {
  const sigma = (1000 * Math.sqrt(Math.LN2)) / (2 * Math.PI * cutHz) / stepMs;
  const reach = Math.ceil(4 * sigma);
  const kernel = Float64Array.from({ length: reach + 1 }, (_, n) => Math.exp(-0.5 * (n / sigma) ** 2));
  return Float64Array.from({ length: values.length }, (_, k) => {
    if (values[k] !== values[k]) return Number.NaN;
    let [sum, weight] = [0, 0];
    for (let q = Math.max(0, k - reach); q <= Math.min(values.length - 1, k + reach); q++) {
      const v = values[q];
      if (v !== v) continue;
      const w = kernel[Math.abs(q - k)];
      sum += w * v;
      weight += w;
    }
    return sum / weight;
  });
}

/**
 * What pairs of wells show of how logs differ with distance: for each pair the mean square difference at the same beds. Beds of one pair
 * that lie near each other tell the same, so pairs count by the height that they share over that of the low-pass.
 */
export function lagsOf(logs: LogByBed[], axis: BedAxis, cutHz: number): Lag[] {
  const out: Lag[] = [];
  const own = Math.max(1, 1000 / cutHz / 2 / axis.step);
  for (const [n, a] of logs.entries())
    for (const b of logs.slice(n + 1)) {
      let [sum, count, far] = [0, 0, 0];
      for (let k = 0; k < axis.count; k++) {
        const d = a.values[k] - b.values[k];
        if (d !== d) continue;
        sum += d * d;
        count++;
        let square = 0;
        for (let c = 0; c < a.places[k].length; c++) square += (a.places[k][c] - b.places[k][c]) ** 2;
        far += Math.sqrt(square);
      }
      if (count > 0)
        out.push({ distance: far / count, semivariance: sum / count / 2, pairs: Math.max(1, Math.round(count / own)) });
    }
  return out.sort((a, b) => a.distance - b.distance);
}

/** Fewest wells whose pairs tell a range. */
export const LEAST_WELLS = 3;

/** The variogram that wells show; null where there are too few of them, or their differences tell nothing. */
export function variogramOf(lags: Lag[], wells: number, shape: VariogramShape, farthest: number): VariogramFit | null {
  return wells >= LEAST_WELLS ? fitVariogram(lags, shape, farthest) : null;
}

/** Logs ready to be spread: at each bed the wells that have it, and how their values are weighed anywhere. */
export interface Spread {
  axis: BedAxis;
  variogram: Variogram;
  /** For each bed the number of its set of wells, −1 for none. */
  setOf: Int16Array;
  sets: number[][];
  values: Float64Array[];
  places: Place[][];
}

/** Bring logs together. Where no well has a bed, what the nearest bed that one has stands in, and nothing is sure. */
export function spreadOf(logs: LogByBed[], axis: BedAxis, variogram: Variogram): Spread {
  const keys = new Map<string, number>();
  const sets: number[][] = [];
  const setOf = new Int16Array(axis.count).fill(-1);
  for (let k = 0; k < axis.count; k++) {
    const own = logs.flatMap((l, n) => (l.values[k] === l.values[k] ? [n] : []));
    if (own.length === 0) continue;
    const key = own.join();
    if (!keys.has(key)) {
      keys.set(key, sets.length);
      sets.push(own);
    }
    setOf[k] = keys.get(key) as number;
  }
  return { axis, variogram, setOf, sets, values: logs.map((l) => l.values), places: logs.map((l) => l.places) };
}

/** What spreads logs at one place after another. */
export function spreader(spread: Spread) {
  const { axis, variogram, setOf, sets, values, places } = spread;
  const middle = (n: number, set: number): Place => {
    // a well that leans has a place at each bed; its weights are those of the middle of what the set shares
    const own: number[] = [];
    for (let k = 0; k < axis.count; k++) if (setOf[k] === set) own.push(k);
    return places[n][own[own.length >> 1]];
  };
  const krigers: Kriger[] = sets.map((own, s) =>
    krigerOf(
      own.map((n) => middle(n, s)),
      variogram,
      'unknown',
    ),
  );
  const weights = sets.map((own) => new Float64Array(own.length + 1));
  const parts = new Float64Array(sets.length);
  const means = new Float64Array(axis.count);
  const variances = new Float64Array(axis.count);
  return {
    /** Mean and variance at every bed of a place. */
    at(place: Place): { means: Float64Array; variances: Float64Array } {
      for (let s = 0; s < sets.length; s++) parts[s] = krigers[s].at(place, weights[s]);
      let last = -1;
      for (let k = 0; k < axis.count; k++) {
        const s = setOf[k];
        if (s < 0) {
          means[k] = last >= 0 ? means[last] : Number.NaN;
          variances[k] = 2 * variogram.sill;
          continue;
        }
        const own = sets[s];
        let sum = 0;
        for (let q = 0; q < own.length; q++) sum += weights[s][q] * values[own[q]][k];
        means[k] = sum;
        variances[k] = variogram.sill * parts[s];
        if (last < 0) for (let q = 0; q < k; q++) means[q] = sum;
        last = k;
      }
      return { means, variances };
    },
  };
}

/** A function of beds between its steps by straight lines, held beyond them. */
export function atBed({ first, step, count }: BedAxis, values: Float64Array, bed: number): number {
  const x = (bed - first) / step;
  if (x <= 0) return values[0];
  if (x >= count - 1) return values[count - 1];
  const n = Math.floor(x);
  return values[n] + (x - n) * (values[n + 1] - values[n]);
}
