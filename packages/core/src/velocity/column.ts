import { type Law, LEAST_VELOCITY, type Stretch, stretchOf, thicknessOf, timeOver, velocityAfter } from './law.ts';

/** What lies above the layers: times begin at a datum, from there to the sea with a replacement velocity, then with water's. */
export interface Above {
  waterVelocity: number;
  /** m above mean sea level; 0 where not given. */
  datumM?: number;
  /** m/s; that of water where not given. */
  replacementVelocity?: number;
}

/** TWT (ms) of a depth (m below the sea, negative above it) where nothing but water or replacement lies above. */
export function timeAbove(
  { waterVelocity, datumM = 0, replacementVelocity = waterVelocity }: Above,
  depth: number,
): number {
  const fromSea = (z: number) => (2000 * z) / (z < 0 ? replacementVelocity : waterVelocity);
  return fromSea(depth) - fromSea(-datumM);
}

/** Depth of a TWT there. */
export function depthAbove(above: Above, twt: number): number {
  const { waterVelocity, replacementVelocity = waterVelocity } = above;
  const beyond = twt - timeAbove(above, 0);
  return (beyond * (beyond < 0 ? replacementVelocity : waterVelocity)) / 2000;
}

/** Velocities of one place of a volume, m/s, by time or depth. */
export interface VelocityTrace {
  values: ArrayLike<number>;
  domain: 'twt' | 'depth';
  first: number;
  step: number;
  samples: VelocitySamples;
}

/** What a sample of an interval velocity stands for: the interval that begins or ends there, or that time or depth itself. */
export const VELOCITY_SAMPLES = ['the interval below it', 'the interval above it', 'its own time or depth'] as const;
export type VelocitySamples = (typeof VELOCITY_SAMPLES)[number];

/**
 * One place of the earth: TWT (ms) and depth (m) of the tops of stretches from the first layer down, and how velocity runs
 * through each; the last goes on. Boundaries are the bases of layers, in their order.
 */
export interface Column {
  above: Above;
  t: number[];
  z: number[];
  stretches: Stretch[];
  boundaries: { t: number; z: number }[];
}

/** A layer as it is met at one place. */
export interface LayerHere {
  law: Law;
  /** TWT of its base; infinite of what goes on for ever. */
  base: number;
  /** Velocities of a volume, where the law is by one. */
  trace?: VelocityTrace;
}

/** Layers nearer than this, ms, are no layer. */
const THIN = 1e-9;

/** Stretches of a velocity trace from a time (ms) and depth (m) down to another time. */
function stretchesOf(
  { values, domain, first, step, samples }: VelocityTrace,
  factor: number,
  begin: { t: number; z: number },
  base: number,
): { stretch: Stretch; dt: number }[] {
  const out: { stretch: Stretch; dt: number }[] = [];
  const points = samples === 'its own time or depth';
  const from = samples === 'the interval above it' ? first - step : first;
  const count = values.length;
  const of = (n: number) => factor * values[Math.max(0, Math.min(count - 1, n))];
  let { t, z } = begin;
  const at = () => (domain === 'twt' ? t : z);
  // the interval that it begins in; −1 before the first
  for (let k = Math.max(-1, Math.floor((at() - from) / step + 1e-9)); base - t > THIN; k++) {
    const last = k >= count - 1;
    const next = from + (k + 1) * step;
    const inside = points && k >= 0 && !last;
    const slope = inside ? (of(k + 1) - of(k)) / step : 0;
    const v = of(k) + (inside ? slope * (at() - from - k * step) : 0);
    const stretch = { v, k: slope, withTime: domain === 'twt' };
    const far = last ? Number.POSITIVE_INFINITY : domain === 'twt' ? next - t : timeOver(stretch, next - z);
    // what begins on a knot has nothing before it
    if (far <= THIN) continue;
    const dt = Math.min(base - t, far);
    out.push({ stretch, dt });
    if (last) break;
    z += thicknessOf(stretch, dt);
    t += dt;
  }
  return out;
}

/** Thickness (m) that a velocity trace gives from a time and depth down to another time. */
export const thicknessByTrace = (trace: VelocityTrace, begin: { t: number; z: number }, base: number): number =>
  stretchesOf(trace, 1, begin, base).reduce((sum, { stretch, dt }) => sum + thicknessOf(stretch, dt), 0);

/**
 * Depths of boundaries from their times, layer by layer; boundaries that cross leave no layer between them, the upper one
 * counts. Below the last boundary the last layer goes on: one from top to base with the velocity of its base.
 * @param begins depth at which the first layer begins
 */
export function columnOf(begins: number, above: Above, layers: LayerHere[]): Column {
  const column: Column = { above, t: [], z: [], stretches: [], boundaries: [] };
  let [t, z] = [timeAbove(above, begins), begins];
  const add = (stretch: Stretch, dt: number) => {
    const held = stretch.v > LEAST_VELOCITY ? stretch : { v: LEAST_VELOCITY, k: 0, withTime: false };
    const slows =
      held.k < 0
        ? held.withTime
          ? (LEAST_VELOCITY - held.v) / held.k
          : (2000 * Math.log(LEAST_VELOCITY / held.v)) / held.k
        : dt;
    column.t.push(t);
    column.z.push(z);
    column.stretches.push(held);
    const over = Math.min(dt, slows);
    if (!Number.isFinite(over)) return;
    z += thicknessOf(held, over);
    t += over;
    if (dt > slows) add({ v: LEAST_VELOCITY, k: 0, withTime: false }, dt - slows);
  };
  const addTrace = (trace: VelocityTrace, factor: number, base: number) => {
    for (const { stretch, dt } of stretchesOf(trace, factor, { t, z }, base)) add(stretch, dt);
  };
  layers.forEach(({ law, base, trace }, n) => {
    const dt = base - t;
    const last = n === layers.length - 1;
    if (dt > THIN) {
      if (trace) addTrace(trace, law.v0, base);
      else add(stretchOf(law, z, dt), dt);
      if (Number.isFinite(base)) t = base;
    }
    column.boundaries.push({ t, z });
    if (!last || !Number.isFinite(base)) return;
    if (trace) addTrace(trace, law.v0, Number.POSITIVE_INFINITY);
    else if (law.form === 'from top to base')
      add({ v: law.vBase ?? law.v0, k: 0, withTime: false }, Number.POSITIVE_INFINITY);
    else {
      const before = column.stretches.at(-1);
      const on =
        dt > THIN && before
          ? { ...before, v: velocityAfter(before, t - (column.t.at(-1) as number)) }
          : stretchOf(law, z, 0);
      add(on, Number.POSITIVE_INFINITY);
    }
  });
  return column;
}

/** Number of the stretch that a value lies in, by its place among the tops. */
function stretchAt(tops: number[], value: number): number {
  let [low, high] = [0, tops.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (tops[middle] <= value) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** TWT of a depth. */
export function timeOfDepth({ above, t, z, stretches }: Column, depth: number): number {
  if (!(depth > z[0])) return timeAbove(above, depth);
  const n = stretchAt(z, depth);
  return t[n] + timeOver(stretches[n], depth - z[n]);
}

/** Depth of a TWT. */
export function depthOfTime({ above, t, z, stretches }: Column, twt: number): number {
  if (!(twt > t[0])) return depthAbove(above, twt);
  const n = stretchAt(t, twt);
  return z[n] + thicknessOf(stretches[n], twt - t[n]);
}

/** Interval velocity at a TWT, m/s. */
export function velocityOfTime({ above, t, stretches }: Column, twt: number): number {
  if (!(twt >= t[0])) {
    const { waterVelocity, replacementVelocity = waterVelocity } = above;
    return twt < timeAbove(above, 0) ? replacementVelocity : waterVelocity;
  }
  const n = stretchAt(t, twt);
  return velocityAfter(stretches[n], twt - t[n]);
}

/** Positions in one domain of even positions in the other, from the first down. */
export function downColumn(
  column: Column,
  to: 'twt' | 'depth',
  first: number,
  step: number,
  out: Float64Array,
): Float64Array {
  const { t, z, stretches } = column;
  const [tops, others] = to === 'twt' ? [z, t] : [t, z];
  let n = 0;
  for (let k = 0; k < out.length; k++) {
    const value = first + k * step;
    if (!(value > tops[0])) {
      out[k] = to === 'twt' ? timeAbove(column.above, value) : depthAbove(column.above, value);
      continue;
    }
    while (n + 1 < tops.length && tops[n + 1] <= value) n++;
    const d = value - tops[n];
    out[k] = others[n] + (to === 'twt' ? timeOver(stretches[n], d) : thicknessOf(stretches[n], d));
  }
  return out;
}
