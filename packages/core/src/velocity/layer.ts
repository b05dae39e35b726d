import { heed } from '../numerics/stop.ts';

/** Velocity in a layer: `v(z) = v0 + k·z`, `z` in metres below the datum, `v` in m/s, `k` in 1/s. */
export interface LinearVelocity {
  v0: number;
  k: number;
}

/** Depth (m) reached from `z0` after `dt` ms of two-way time, in closed form (Slotnick 1936, Geophysics 1, 9–22). */
export function depthAfter(law: LinearVelocity, z0: number, dt: number): number {
  const { v0, k } = law;
  if (Math.abs(k) < 1e-9) return z0 + (v0 * dt) / 2000;
  return (z0 + v0 / k) * Math.exp((k * dt) / 2000) - v0 / k;
}

/** Two-way time (ms) from `z0` to `z1`. */
export function timeBetween(law: LinearVelocity, z0: number, z1: number): number {
  const { v0, k } = law;
  if (Math.abs(k) < 1e-9) return (2000 * (z1 - z0)) / v0;
  return (2000 / k) * Math.log((v0 + k * z1) / (v0 + k * z0));
}

/** Depths and times of one well inside a layer, from the layer's top down. */
export interface LayerPoints {
  top: { z: number; t: number };
  points: { z: number; t: number }[];
}

/**
 * rms misfit (m) of a law in wells, each counting once however many points it has: a tie gives hundreds, checkshots a few.
 * 0 where there are none.
 */
export function misfitOf(law: LinearVelocity, wells: LayerPoints[]): number {
  let [sum, count] = [0, 0];
  for (const { top, points } of wells) {
    if (points.length === 0) continue;
    let own = 0;
    for (const { z, t } of points) own += (depthAfter(law, top.z, t - top.t) - z) ** 2;
    sum += own / points.length;
    count++;
  }
  return count > 0 ? Math.sqrt(sum / count) : 0;
}

/**
 * Fit a layer's velocity to wells by least squares on depth, each well counting once; the gradient is held within bounds,
 * since few wells say little about it. Null where there is no point.
 * @returns `atBound` where the gradient would go beyond
 */
export function fitLayer(
  wells: LayerPoints[],
  bounds = { lowK: 0, highK: 1.2 },
): (LinearVelocity & { rms: number; atBound: boolean }) | null {
  const count = wells.reduce((n, w) => n + w.points.length, 0);
  if (count === 0) return null;
  let best: (LinearVelocity & { rms: number; atBound: boolean }) | null = null;
  const steps = 48;
  for (let s = 0; s <= steps; s++) {
    heed();
    const k = bounds.lowK + ((bounds.highK - bounds.lowK) * s) / steps;
    // z = z0·e + v0·(e − 1)/k is linear in v0
    let [num, den] = [0, 0];
    for (const { top, points } of wells)
      for (const { z, t } of points) {
        const e = Math.exp((k * (t - top.t)) / 2000);
        const slope = k < 1e-9 ? (t - top.t) / 2000 : (e - 1) / k;
        num += (slope * (z - top.z * e)) / points.length;
        den += (slope * slope) / points.length;
      }
    if (den === 0) continue;
    const law = { v0: num / den, k };
    const rms = misfitOf(law, wells);
    if (law.v0 > 300 && (!best || rms < best.rms - 1e-9)) best = { ...law, rms, atBound: s === 0 || s === steps };
  }
  return best;
}
