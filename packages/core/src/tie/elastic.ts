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

/** A log with its gaps bridged by straight lines and its spikes taken out (Hampel 1974: median ± 4 scaled deviations). */
export function mended(
  values: Float32Array | Float64Array,
  halfWindow = 12,
): { values: Float64Array; bridged: number; spikes: number; first: number; last: number } {
  const n = values.length;
  let [first, last] = [0, n - 1];
  while (first < n && Number.isNaN(values[first])) first++;
  while (last > first && Number.isNaN(values[last])) last--;
  const out = Float64Array.from(values);
  let [bridged, spikes] = [0, 0];
  const near: number[] = [];
  for (let k = first; k <= last; k++) {
    if (Number.isNaN(values[k])) continue;
    near.length = 0;
    for (let q = Math.max(first, k - halfWindow); q <= Math.min(last, k + halfWindow); q++)
      if (!Number.isNaN(values[q])) near.push(values[q]);
    near.sort((a, b) => a - b);
    const median = near[near.length >> 1];
    const deviations = near.map((v) => Math.abs(v - median)).sort((a, b) => a - b);
    const spread = 1.4826 * deviations[deviations.length >> 1];
    if (Math.abs(values[k] - median) > Math.max(4 * spread, 0.02 * Math.abs(median))) {
      out[k] = Number.NaN;
      spikes++;
    }
  }
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
    for (let q = k; q < to; q++) if (Number.isNaN(values[q])) bridged++;
    k = to;
  }
  return { values: out, bridged, spikes, first, last };
}

/** Density (kg/m³) from velocity (m/s), Gardner et al. (1974), Geophysics 39, 770–780: 310·v^0.25. */
export function gardner(velocity: number): number {
  return 310 * velocity ** 0.25;
}
