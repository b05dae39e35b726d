/** Kinds of velocity that are means from time nought down, by the power of which they are the mean. */
export const MEAN_OF = { 'average velocity': 1, 'RMS velocity': 2, 'stacking velocity': 2 } as const;
export type MeanKind = keyof typeof MEAN_OF;

export interface IntervalSpec {
  /** Bounds of interval velocities, m/s. */
  least: number;
  most: number;
  /** Period, in samples, below which changes are smoothed away; none where it is nothing. */
  smooth: number;
}

/** Weight by which an interval that leaves its bounds is drawn to them, beside the data; turns in which that is sought. */
const HOLD = 1e6;
const TURNS = 24;

/**
 * Interval velocities from means down to each sample (Dix 1955, Geophysics 20, 68–86), of which sample k is that of the interval that ends
 * there. Means of a power are sums of it over time, so they are smoothed as sums: least squares with second differences held small
 * (Whittaker 1923, Proceedings of the Edinburgh Mathematical Society 41, 63–75) and intervals held inside their bounds, which no noise can
 * then leave. Without noise, bounds and smoothing it is Dix’s formula itself.
 * @param means m/s at `first + k·step` ms; samples that are nothing, less or not there are told by those around them
 */
export function intervalFromMean(
  means: ArrayLike<number>,
  first: number,
  step: number,
  power: 1 | 2,
  { least, most, smooth }: IntervalSpec,
): Float64Array {
  const n = means.length;
  const time = Float64Array.from({ length: n }, (_, k) => first + k * step);
  const from = time.findIndex((t) => t > 0);
  const known = bridged(means);
  const out = new Float64Array(n).fill(Number.NaN);
  if (!known || from < 0) return out;
  const count = n - from;
  const wide = Float64Array.from({ length: count }, (_, i) => (i === 0 ? time[from] : step));
  const sums = Float64Array.from({ length: count }, (_, i) => known[from + i] ** power * time[from + i]);
  const [low, high] = [least ** power, most ** power];
  // how many times a sum is off goes with its time
  const weight = Float64Array.from({ length: count }, (_, i) => (time[from] / time[from + i]) ** 2);
  const lambda = smooth > 0 ? (smooth / (2 * Math.PI)) ** 4 * (time[from] / time[n - 1]) ** 2 : 0;
  const held = new Int8Array(count);
  let made: Float64Array = sums;
  for (let turn = 0; turn < TURNS; turn++) {
    if (turn > 0 || lambda > 0) made = smoothedSums(sums, weight, wide, lambda, held, low, high);
    let changed = false;
    for (let i = 0; i < count; i++) {
      const u = (made[i] - (i > 0 ? made[i - 1] : 0)) / wide[i];
      const side = u < low * (1 - 1e-9) ? -1 : u > high * (1 + 1e-9) ? 1 : 0;
      if (side !== 0 && held[i] !== side) {
        held[i] = side;
        changed = true;
      }
    }
    if (!changed) break;
  }
  for (let i = 0; i < count; i++) {
    const u = (made[i] - (i > 0 ? made[i - 1] : 0)) / wide[i];
    out[from + i] = Math.max(low, Math.min(high, u)) ** (1 / power);
  }
  // at time nought there is no interval yet
  out.fill(out[from], 0, from);
  return out;
}

/** Sums near those given, with second differences held small and some increments at a bound: a symmetric system of bandwidth two. */
function smoothedSums(
  sums: Float64Array,
  weight: Float64Array,
  wide: Float64Array,
  lambda: number,
  held: Int8Array,
  low: number,
  high: number,
): Float64Array {
  const n = sums.length;
  const [d, e, f] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  const right = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    d[i] += weight[i];
    right[i] += weight[i] * sums[i];
  }
  if (lambda > 0)
    for (let i = 1; i + 1 < n; i++) {
      // differences of rates, so that the first interval may be longer
      const [a, c] = [wide[i + 1] / wide[i], 1];
      const b = -(a + c);
      d[i - 1] += lambda * a * a;
      d[i] += lambda * b * b;
      d[i + 1] += lambda * c * c;
      e[i - 1] += lambda * a * b;
      e[i] += lambda * b * c;
      f[i - 1] += lambda * a * c;
    }
  for (let i = 0; i < n; i++) {
    if (held[i] === 0) continue;
    const wanted = (held[i] < 0 ? low : high) * wide[i];
    d[i] += HOLD;
    right[i] += HOLD * wanted;
    if (i === 0) continue;
    d[i - 1] += HOLD;
    e[i - 1] -= HOLD;
    right[i - 1] -= HOLD * wanted;
  }
  // Cholesky of five diagonals, L·D·Lᵀ
  const [l1, l2] = [new Float64Array(n), new Float64Array(n)];
  for (let i = 0; i < n; i++) {
    if (i > 0) {
      l1[i] = (e[i - 1] - (i > 1 ? l2[i] * d[i - 2] * l1[i - 1] : 0)) / d[i - 1];
      d[i] -= l1[i] ** 2 * d[i - 1];
    }
    if (i > 1) d[i] -= l2[i] ** 2 * d[i - 2];
    if (i + 2 < n) l2[i + 2] = f[i] / d[i];
  }
  for (let i = 0; i < n; i++) right[i] -= (i > 0 ? l1[i] * right[i - 1] : 0) + (i > 1 ? l2[i] * right[i - 2] : 0);
  for (let i = n - 1; i >= 0; i--)
    right[i] =
      right[i] / d[i] - (i + 1 < n ? l1[i + 1] * right[i + 1] : 0) - (i + 2 < n ? l2[i + 2] * right[i + 2] : 0);
  return right;
}

/** Values of which those that are nothing, less or not there lie on straight lines between the others; null where all are so. */
export function bridged(values: ArrayLike<number>): Float64Array | null {
  const out = Float64Array.from(values, (v) => (v > 0 ? v : Number.NaN));
  let last = -1;
  for (let k = 0; k <= out.length; k++) {
    if (k < out.length && !(out[k] === out[k])) continue;
    for (let q = last + 1; q < k; q++) {
      if (last < 0 && k === out.length) return null;
      const f = last < 0 ? 1 : k === out.length ? 0 : (q - last) / (k - last);
      out[q] = (last < 0 ? 0 : (1 - f) * out[last]) + (k === out.length ? 0 : f * out[k]);
    }
    last = k;
  }
  return out;
}

/** Means from time nought down of interval velocities, of which sample k is that of the interval that ends there. */
export function meanFromInterval(
  intervals: ArrayLike<number>,
  first: number,
  step: number,
  power: 1 | 2,
): Float64Array {
  let sum = 0;
  return Float64Array.from(intervals, (v, k) => {
    const t = first + k * step;
    if (t > 0) sum += v ** power * Math.min(step, t);
    if (k === 0 && t > step) sum = v ** power * t;
    return t > 0 ? (sum / t) ** (1 / power) : v;
  });
}

/** How far a velocity may lie from the median around it, in scaled deviations and as a part, before it is a spike (Hampel 1974). */
const SPIKE = { deviations: 4, part: 0.03 };

/** Samples of a block without spikes: what sticks out of the traces around it at its time is the median of them. @returns the inner part */
export function withoutSpikes(
  data: Float32Array,
  [mi, mj, nk]: readonly [number, number, number],
  radius: number,
): Float32Array {
  const [ni, nj] = [mi - 2 * radius, mj - 2 * radius];
  const out = new Float32Array(ni * nj * nk);
  const near: number[] = [];
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++)
      for (let k = 0; k < nk; k++) {
        const own = data[((i + radius) * mj + j + radius) * nk + k];
        near.length = 0;
        for (let a = i; a <= i + 2 * radius; a++)
          for (let b = j; b <= j + 2 * radius; b++) {
            const v = data[(a * mj + b) * nk + k];
            if (v > 0) near.push(v);
          }
        const to = (i * nj + j) * nk + k;
        out[to] = own;
        if (near.length < 5) continue;
        near.sort((a, b) => a - b);
        const median = near[near.length >> 1];
        const away = near.map((v) => Math.abs(v - median)).sort((a, b) => a - b);
        const spread = 1.4826 * away[away.length >> 1];
        if (!(Math.abs(own - median) <= Math.max(SPIKE.deviations * spread, SPIKE.part * median))) out[to] = median;
      }
  return out;
}
