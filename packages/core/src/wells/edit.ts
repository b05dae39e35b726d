import { leastSquares } from '../numerics/leastSquares.ts';

/** A curve in even steps of measured depth, metres; NaN is null. */
export interface Sampled {
  firstM: number;
  stepM: number;
  values: Float32Array;
}

/** Linear value of a curve at a depth; NaN outside it and beside a null. */
export function sampleAt(curve: Sampled, md: number): number {
  const x = (md - curve.firstM) / curve.stepM;
  // depths that were computed are off by rounding
  const near = Math.round(x);
  if (Math.abs(x - near) < 1e-4) return near >= 0 && near < curve.values.length ? curve.values[near] : Number.NaN;
  const n = Math.floor(x);
  if (n < 0 || n + 1 >= curve.values.length) return Number.NaN;
  return curve.values[n] + (x - n) * (curve.values[n + 1] - curve.values[n]);
}

/**
 * A curve at other steps: linear where it gets finer, the mean of what falls into a step where it gets coarser, so that
 * beds thinner than a step are averaged and not skipped.
 */
export function resampled(curve: Sampled, firstM: number, stepM: number, count: number): Float32Array {
  const out = new Float32Array(count);
  if (stepM <= 1.5 * curve.stepM) {
    for (let n = 0; n < count; n++) out[n] = sampleAt(curve, firstM + n * stepM);
    return out;
  }
  for (let n = 0; n < count; n++) {
    const a = Math.max(0, Math.ceil((firstM + (n - 0.5) * stepM - curve.firstM) / curve.stepM));
    const b = Math.min(curve.values.length, Math.ceil((firstM + (n + 0.5) * stepM - curve.firstM) / curve.stepM));
    let [sum, some] = [0, 0];
    for (let k = a; k < b; k++) {
      const v = curve.values[k];
      if (v !== v) continue;
      sum += v;
      some++;
    }
    // a step of which less than half is known is not known
    out[n] = some > 0 && some >= 0.5 * (b - a) ? sum / some : Number.NaN;
  }
  return out;
}

/** Spikes taken out by a running median (Hampel 1974): those beyond `deviations` scaled deviations become null. */
export function despiked(
  values: Float32Array,
  halfWindow: number,
  deviations: number,
): { values: Float32Array; spikes: number } {
  const out = values.slice();
  const room = new Float64Array(2 * halfWindow + 1);
  let spikes = 0;
  for (let k = 0; k < values.length; k++) {
    if (Number.isNaN(values[k])) continue;
    let count = 0;
    for (let q = Math.max(0, k - halfWindow); q <= Math.min(values.length - 1, k + halfWindow); q++)
      if (!Number.isNaN(values[q])) room[count++] = values[q];
    const spreads = room.subarray(0, count).sort();
    const median = spreads[count >> 1];
    for (let q = 0; q < count; q++) spreads[q] = Math.abs(spreads[q] - median);
    spreads.sort();
    const spread = 1.4826 * spreads[spreads.length >> 1];
    if (Math.abs(values[k] - median) > Math.max(deviations * spread, 1e-6 * Math.abs(median))) {
      out[k] = Number.NaN;
      spikes++;
    }
  }
  return { values: out, spikes };
}

/** Nulls between two values closed by straight lines, gaps longer than `most` samples left. */
export function bridged(values: Float32Array, most: number): { values: Float32Array; filled: number } {
  const out = values.slice();
  let filled = 0;
  let last = -1;
  for (let k = 0; k < out.length; k++) {
    if (Number.isNaN(values[k])) continue;
    const gap = k - last - 1;
    if (last >= 0 && gap > 0 && gap <= most)
      for (let q = last + 1; q < k; q++) {
        out[q] = values[last] + ((values[k] - values[last]) * (q - last)) / (k - last);
        filled++;
      }
    last = k;
  }
  return { values: out, filled };
}

/** A linear fit of one curve to others. */
export interface Regression {
  /** Constant, then one factor a curve. */
  coefficients: number[];
  /** rms of what is left over, in the unit of the curve. */
  spread: number;
  /** Part of the variance that it explains. */
  r2: number;
  samples: number;
}

/** Fit `y` by a constant and the other curves where all are known, least squares; null where too few samples are. */
export function regression(y: Float32Array, others: Float32Array[]): Regression | null {
  const rows: number[][] = [];
  const right: number[] = [];
  for (let k = 0; k < y.length; k++) {
    if (Number.isNaN(y[k]) || others.some((c) => Number.isNaN(c[k]))) continue;
    rows.push([1, ...others.map((c) => c[k])]);
    right.push(y[k]);
  }
  if (rows.length < 10 * (others.length + 1)) return null;
  // about their means, so that large values of one curve do not swallow another
  const means = rows[0].map((_, c) => (c === 0 ? 0 : rows.reduce((s, r) => s + r[c], 0) / rows.length));
  const centred = rows.map((r) => r.map((v, c) => v - means[c]));
  const found = leastSquares(centred, right);
  if (!found) return null;
  const mean = right.reduce((a, b) => a + b, 0) / right.length;
  let [left, all] = [0, 0];
  centred.forEach((row, n) => {
    left += (right[n] - row.reduce((s, v, c) => s + v * found[c], 0)) ** 2;
    all += (right[n] - mean) ** 2;
  });
  return {
    coefficients: [found[0] - found.slice(1).reduce((s, f, c) => s + f * means[c + 1], 0), ...found.slice(1)],
    spread: Math.sqrt(left / rows.length),
    r2: all > 0 ? 1 - left / all : 0,
    samples: rows.length,
  };
}

/** Nulls of a curve filled by a regression where the others are known. */
export function filledBy(y: Float32Array, others: Float32Array[], fit: Regression) {
  let filled = 0;
  const values = y.map((v, k) => {
    if (!Number.isNaN(v)) return v;
    const made = fit.coefficients.reduce((s, f, c) => s + f * (c === 0 ? 1 : others[c - 1][k]), 0);
    if (!Number.isNaN(made)) filled++;
    return made;
  });
  return { values, filled };
}

/** Which run a value is taken from where several have one. */
export type SpliceRule = 'first chosen' | 'longest run' | 'deepest run';

/** Order in which runs are asked for a value. */
export function spliceOrder(runs: Sampled[], rule: SpliceRule): number[] {
  const order = runs.map((_, n) => n);
  const known = runs.map((r) => r.values.reduce((s, v) => s + (Number.isNaN(v) ? 0 : 1), 0) * r.stepM);
  const deepest = runs.map((r) => r.firstM + r.stepM * r.values.length);
  if (rule === 'longest run') order.sort((a, b) => known[b] - known[a] || a - b);
  if (rule === 'deepest run') order.sort((a, b) => deepest[b] - deepest[a] || a - b);
  return order;
}

/** Runs of one curve as one, on an even axis: each depth takes the first run, in the order of the rule, that knows it. */
export function spliced(
  runs: Sampled[],
  order: number[],
  axis: { firstM: number; stepM: number; count: number },
): { values: Float32Array; from: Int8Array } {
  const parts = runs.map((r) => resampled(r, axis.firstM, axis.stepM, axis.count));
  const values = new Float32Array(axis.count).fill(Number.NaN);
  const from = new Int8Array(axis.count).fill(-1);
  for (let k = 0; k < axis.count; k++)
    for (const n of order) {
      if (Number.isNaN(parts[n][k])) continue;
      values[k] = parts[n][k];
      from[k] = n;
      break;
    }
  return { values, from };
}

/**
 * Where the hole is washed out: the caliper stands open by more than `mostOpenM` over the bit, or the density's own
 * correction is greater than `mostCorrection` kg/m³. 1 bad, 0 good, NaN where neither is known.
 */
export function washouts(
  caliper: Float32Array | null,
  correction: Float32Array | null,
  bitM: number,
  mostOpenM: number,
  mostCorrection: number,
): Float32Array {
  const length = caliper?.length ?? correction?.length ?? 0;
  return Float32Array.from({ length }, (_, k) => {
    const open = caliper ? caliper[k] - bitM : Number.NaN;
    const moved = correction ? Math.abs(correction[k]) : Number.NaN;
    if (Number.isNaN(open) && Number.isNaN(moved)) return Number.NaN;
    return open > mostOpenM || moved > mostCorrection ? 1 : 0;
  });
}
