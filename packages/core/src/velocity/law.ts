/** How velocity runs down a layer. */
export const LAW_FORMS = [
  'constant',
  'v0 + k·z from the datum',
  'v0 + k·z from the top',
  'v0 + k·t from the top',
  'from top to base',
  'velocity volume',
] as const;
export type LawForm = (typeof LAW_FORMS)[number];

/** Velocity in a layer: m/s, `k` in 1/s, or in m/s for each second of two-way time. */
export interface Law {
  form: LawForm;
  /** m/s: everywhere, at the datum, or at the layer's top; by a velocity volume what its velocities are multiplied by. */
  v0: number;
  k: number;
  /** m/s at the layer's base, of one that runs from top to base. */
  vBase?: number;
}

/** No velocity of a layer falls below this, m/s, however far its law goes on. */
export const LEAST_VELOCITY = 300;

/** A stretch of a column: velocity `v` (m/s) at its top and `k`, its change with depth (1/s) or with two-way time (m/s a ms). */
export interface Stretch {
  v: number;
  k: number;
  withTime: boolean;
}

/** Depth (m) gained in `dt` ms of two-way time, in closed form (Slotnick 1936, Geophysics 1, 9–22). */
export function thicknessOf({ v, k, withTime }: Stretch, dt: number): number {
  if (withTime) return ((v + 0.5 * k * dt) * dt) / 2000;
  const x = (k * dt) / 2000;
  return Math.abs(x) < 1e-9 ? (v * dt) / 2000 : (v * Math.expm1(x)) / k;
}

/** Two-way time (ms) over `dz` metres. */
export function timeOver({ v, k, withTime }: Stretch, dz: number): number {
  // the root that does not cancel
  if (withTime) return (4000 * dz) / (v + Math.sqrt(Math.max(0, v * v + 4000 * k * dz)));
  const x = (k * dz) / v;
  return Math.abs(x) < 1e-9 ? (2000 * dz) / v : (2000 * Math.log1p(x)) / k;
}

/** Velocity after `dt` ms. */
export const velocityAfter = ({ v, k, withTime }: Stretch, dt: number): number =>
  withTime ? v + k * dt : v * Math.exp((k * dt) / 2000);

/** A law as it runs from a layer's top at depth `z0` over `dt` ms. */
export function stretchOf({ form, v0, k, vBase = v0 }: Law, z0: number, dt: number): Stretch {
  switch (form) {
    case 'v0 + k·z from the datum':
      return { v: v0 + k * z0, k, withTime: false };
    case 'v0 + k·z from the top':
      return { v: v0, k, withTime: false };
    case 'v0 + k·t from the top':
      return { v: v0, k: k / 1000, withTime: true };
    case 'from top to base':
      return { v: v0, k: dt > 1e-6 ? (2000 * Math.log(vBase / v0)) / dt : 0, withTime: false };
    default:
      return { v: v0, k: 0, withTime: false };
  }
}

/** The law whose velocity is a factor of what it was everywhere. */
export const scaled = (law: Law, factor: number): Law => ({
  ...law,
  v0: law.v0 * factor,
  k: law.k * factor,
  ...(law.vBase === undefined ? {} : { vBase: law.vBase * factor }),
});

/** What a law means, in words that leave nothing open. `velocity` writes m/s in the units of the project. */
export function lawInWords({ form, v0, k, vBase = v0 }: Law, velocity: (v: number) => string): string {
  switch (form) {
    case 'constant':
      return `${velocity(v0)} everywhere`;
    case 'v0 + k·z from the datum':
      return `${velocity(v0)} at the datum and ${k.toFixed(3)} 1/s more with every metre below it, so ${velocity(v0 + 1000 * k)} at 1000 m`;
    case 'v0 + k·z from the top':
      return `${velocity(v0)} at the layer’s top and ${k.toFixed(3)} 1/s more with every metre below that, so ${velocity(v0 + 100 * k)} a hundred metres into the layer`;
    case 'v0 + k·t from the top':
      return `${velocity(v0)} at the layer’s top and ${velocity(k / 10)} more with every 100 ms of TWT below it`;
    case 'from top to base':
      return `${velocity(v0)} at the layer’s top, rising evenly with depth to ${velocity(vBase)} at its base, however thick it is`;
    case 'velocity volume':
      return v0 === 1 ? 'as the velocity volume has it' : `${v0.toFixed(3)} times what the velocity volume has`;
  }
}
