import { heed } from '../numerics/stop.ts';
import { FINE_MS } from './wavelet.ts';

/** Impedance and reflectivity in even steps of two-way time. */
export interface ElasticInTime {
  firstMs: number;
  stepMs: number;
  /** kg/m²s. */
  impedance: Float64Array;
  /** m/s and kg/m³ of the same steps; S only where a shear log is given. */
  vp: Float64Array;
  vs: Float64Array | null;
  density: Float64Array;
  /** Reflection coefficient at the top of each step. */
  reflectivity: Float64Array;
}

/**
 * What a wave would see of a well: density averaged, and compliance averaged (Backus 1962, Journal of Geophysical
 * Research 67, 4427–4440), over steps of time far finer than the seismic; their impedance and its reflections.
 * @param twt ms of each log sample, rising; @param tvdss m; @param slowness s/m; @param density kg/m³; @param shear s/m of S waves
 */
export function elasticInTime(
  twt: Float64Array,
  tvdss: Float64Array,
  slowness: Float64Array,
  density: Float64Array,
  shear: Float64Array | null = null,
  stepMs = FINE_MS,
): ElasticInTime {
  const firstMs = Math.ceil(twt[0] / stepMs) * stepMs;
  const count = Math.max(0, Math.floor((twt[twt.length - 1] - firstMs) / stepMs));
  const mass = new Float64Array(count);
  const compliance = new Float64Array(count);
  const shearing = new Float64Array(count);
  const thickness = new Float64Array(count);
  for (let n = 0; n + 1 < twt.length; n++) {
    const rho = 0.5 * (density[n] + density[n + 1]);
    const s = 0.5 * (slowness[n] + slowness[n + 1]);
    const [t0, t1] = [twt[n], twt[n + 1]];
    const dz = tvdss[n + 1] - tvdss[n];
    if (t1 <= t0) continue;
    // a log sample that spans several steps is shared out among them
    for (let b = Math.floor((t0 - firstMs) / stepMs); b * stepMs + firstMs < t1; b++) {
      if (b < 0 || b >= count) continue;
      const part = (Math.min(t1, firstMs + (b + 1) * stepMs) - Math.max(t0, firstMs + b * stepMs)) / (t1 - t0);
      thickness[b] += part * dz;
      mass[b] += part * dz * rho;
      compliance[b] += (part * dz * s * s) / rho;
      if (shear) shearing[b] += (part * dz * (0.5 * (shear[n] + shear[n + 1])) ** 2) / rho;
    }
  }
  const impedance = new Float64Array(count);
  const averaged = { vp: new Float64Array(count), vs: shear ? new Float64Array(count) : null, density: mass };
  for (let b = 0; b < count; b++) {
    // what no sample reaches is as what is above it
    const there = thickness[b] > 0;
    const rho = there ? mass[b] / thickness[b] : (mass[b - 1] ?? 0);
    mass[b] = rho;
    averaged.vp[b] = there ? Math.sqrt(thickness[b] / (compliance[b] * rho)) : (averaged.vp[b - 1] ?? 0);
    if (averaged.vs) averaged.vs[b] = there ? Math.sqrt(thickness[b] / (shearing[b] * rho)) : (averaged.vs[b - 1] ?? 0);
    impedance[b] = averaged.vp[b] * rho;
  }
  const reflectivity = new Float64Array(count);
  for (let b = 1; b < count; b++) {
    const sum = impedance[b] + impedance[b - 1];
    reflectivity[b] = sum > 0 ? (impedance[b] - impedance[b - 1]) / sum : 0;
  }
  return { firstMs, stepMs, impedance, reflectivity, ...averaged };
}

/** What spikes are told by: heights in metres, so that sampling changes nothing. */
const SPIKE = {
  /** Height on either side over which a sample is compared with the median. */
  besideM: 2,
  /** No tool sees a bed thinner than this: what sticks out for less is no rock. */
  thinnestM: 0.5,
  /** Scaled deviations, and part of the median, by which it has to stick out. */
  deviations: 4,
  part: 0.02,
};

/**
 * Samples of a log that are spikes: they stick out of the median about them (Hampel 1974, Journal of the American
 * Statistical Association 69, 383–393), and of what lies on either side to the same hand, for less than a bed that a tool
 * can see. Edges of beds and beds themselves stay.
 */
export function spikesOf(values: ArrayLike<number>, stepM: number): number[] {
  const n = values.length;
  const half = Math.max(3, Math.round(SPIKE.besideM / stepM));
  const longest = Math.max(1, Math.floor(SPIKE.thinnestM / stepM + 1e-6));
  const outside = new Uint8Array(n);
  const limits = new Float64Array(n);
  const room = new Float64Array(n);
  /** What is known between two samples, in order. */
  const inOrder = (from: number, to: number) => {
    let count = 0;
    for (let q = Math.max(0, from); q <= Math.min(n - 1, to); q++)
      if (!Number.isNaN(values[q])) room[count++] = values[q];
    return room.subarray(0, count).sort();
  };
  const medianOf = (from: number, to: number) => {
    const near = inOrder(from, to);
    return near.length > 0 ? near[near.length >> 1] : Number.NaN;
  };
  for (let k = 0; k < n; k++) {
    if (Number.isNaN(values[k])) continue;
    if (k % 1024 === 0) heed();
    const deviations = inOrder(k - half, k + half);
    const median = deviations[deviations.length >> 1];
    for (let q = 0; q < deviations.length; q++) deviations[q] = Math.abs(deviations[q] - median);
    deviations.sort();
    const spread = 1.4826 * deviations[deviations.length >> 1];
    limits[k] = Math.max(SPIKE.deviations * spread, SPIKE.part * Math.abs(median));
    if (Math.abs(values[k] - median) > limits[k]) outside[k] = 1;
  }
  const out: number[] = [];
  for (let k = 0; k < n; k++) {
    if (!outside[k]) continue;
    let end = k;
    while (end + 1 < n && outside[end + 1]) end++;
    const own = medianOf(k, end);
    const limit = limits[k];
    const [before, after] = [medianOf(k - half, k - 1), medianOf(end + 1, end + half)];
    const apart = [before, after].filter((v) => !Number.isNaN(v)).map((v) => own - v);
    const oneHand = apart.every((v) => v > limit) || apart.every((v) => v < -limit);
    if (end - k + 1 <= longest && oneHand) for (let q = k; q <= end; q++) out.push(q);
    k = end;
  }
  return out;
}

/** A log with its spikes taken out and its gaps bridged by straight lines; `removed` are the samples of spikes. */
export function mended(
  values: Float32Array | Float64Array,
  stepM: number,
): { values: Float64Array; bridged: number; removed: number[]; first: number; last: number } {
  const n = values.length;
  let [first, last] = [0, n - 1];
  while (first < n && Number.isNaN(values[first])) first++;
  while (last > first && Number.isNaN(values[last])) last--;
  const out = Float64Array.from(values);
  const removed = spikesOf(values, stepM);
  for (const k of removed) out[k] = Number.NaN;
  let bridged = 0;
  for (let k = first; k <= last; k++) if (Number.isNaN(values[k])) bridged++;
  bridgeGaps(out, first, last);
  return { values: out, bridged, removed, first, last };
}

/** Fill NaN between two samples of an array by straight lines, and at its ends by the nearest value. */
export function bridgeGaps(out: Float64Array, first = 0, last = out.length - 1): void {
  for (let k = first; k <= last; k++) {
    if (!Number.isNaN(out[k])) continue;
    let to = k;
    while (to <= last && Number.isNaN(out[to])) to++;
    const from = k - 1;
    for (let q = k; q < to; q++) {
      const a = from >= first ? out[from] : out[to];
      const b = to <= last ? out[to] : out[from];
      out[q] = a + ((b - a) * (q - from)) / (to - from);
    }
    k = to;
  }
}

/** Density (kg/m³) from velocity (m/s), Gardner et al. (1974), Geophysics 39, 770–780: 310·v^0.25. */
export function gardner(velocity: number): number {
  return 310 * velocity ** 0.25;
}
