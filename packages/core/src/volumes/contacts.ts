import { extentOf } from '../numerics/extent.ts';
import { solve } from '../numerics/leastSquares.ts';
import { heed } from '../numerics/stop.ts';

export type Fluid = 'gas' | 'oil' | 'water';

/** What is known of the fluids and of the pressures before they are fitted. */
export interface PressureKnowledge {
  /** Densities, kg/m³; null of a fluid that is not there. */
  density: Record<Fluid, number | null>;
  /** Standard error of each density, kg/m³. */
  densityError: number;
  /** Standard error of a pressure, Pa; what the fit leaves over is taken where that is more. */
  pressureError: number;
  /** Pressure (Pa) of the water at sea level, where its line is assumed and not seen. */
  assumedWaterPa?: number;
}

/** A depth below which a fluid gives way to a heavier one, m. */
export interface Contact {
  /** The depth; of one that is not seen the deepest that its lighter fluid is known to reach. */
  z: number;
  /** Depths that the data allow, about 95 %; its end is infinite where nothing bounds it. */
  range: [number, number];
  /** `seen` between two fluids of the data, `assumed` against a line that was assumed, or not seen: at or below `z`. */
  kind: 'seen' | 'assumed' | 'at or below';
}

/** Contacts where pressure gradients meet. */
export interface ContactFit {
  /** Fluids that the pressures show, from the top. */
  fluids: Fluid[];
  /** The deepest hydrocarbon over what is below it: water, or what is not known. */
  base: Contact | null;
  /** Gas over oil, where both are seen. */
  gasOil: Contact | null;
  /** rms misfit of the pressures, Pa. */
  rms: number;
}

const G = 9.80665;
/** How much further than the best fit the misfit may be for a depth to be allowed: two standard errors. */
const ALLOWED = 4;
/** Steps of the depths that are tried, at least and at most, m; those far below all points are further apart. */
const STEP = { least: 0.25, most: 5, below: 1500 };

interface Point {
  z: number;
  p: number;
}

/**
 * Misfit of a column of fluids whose contacts are given: gradients are free within the errors of the densities, the
 * pressure at one depth is free.
 * @param order fluids from the top; @param contacts depths between them, m
 */
function misfitOf(
  points: Point[],
  order: Fluid[],
  contacts: number[],
  { density, densityError }: PressureKnowledge,
  sigma: number,
  water: { z: number; p: number; error: number } | null,
): number {
  const count = order.length;
  const datum = contacts.length > 0 ? contacts[contacts.length - 1] : points[0].z;
  const size = count + 1;
  // unknowns: pressure at the datum, then how far each gradient is from what its density says, in its standard errors
  const normal = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  const right = new Array<number>(size).fill(0);
  heed();
  const error = densityError * G;
  let constant = 0;
  const row = new Array<number>(size).fill(0);
  const observe = (z: number, p: number, weight: number) => {
    row.fill(0);
    row[0] = 1;
    let known = 0;
    const [from, to, sign] = z >= datum ? [datum, z, 1] : [z, datum, -1];
    for (let f = 0; f < count; f++) {
      const top = Math.max(from, f === 0 ? Number.NEGATIVE_INFINITY : contacts[f - 1]);
      const base = Math.min(to, f === count - 1 ? Number.POSITIVE_INFINITY : contacts[f]);
      const length = sign * Math.max(0, base - top);
      known += length * (density[order[f]] ?? 0) * G;
      row[f + 1] = length * error;
    }
    const left = (p - known) * weight;
    constant += left * left;
    for (let a = 0; a < size; a++) {
      if (row[a] === 0) continue;
      right[a] += row[a] * weight * left;
      for (let b = 0; b < size; b++) normal[a][b] += row[a] * row[b] * weight * weight;
    }
  };
  for (const { z, p } of points) observe(z, p, 1 / sigma);
  if (water) observe(water.z, water.p, 1 / water.error);
  for (let f = 1; f < size; f++) normal[f][f] += 1;
  const found = solve(normal, right);
  if (!found) return Number.POSITIVE_INFINITY;
  return Math.max(0, constant - found.reduce((sum, v, n) => sum + v * right[n], 0));
}

interface Candidate {
  order: Fluid[];
  contacts: number[];
  misfit: number;
}

/** Depths that are tried for a contact: close together where points are, further apart below. */
function depthsToTry([low, high]: [number, number], below: boolean): number[] {
  const step = Math.max(STEP.least, (high - low) / 240);
  const out: number[] = [];
  for (let z = low; z <= high + step; z += step) out.push(z);
  if (below) for (let z = high + STEP.most; z <= high + STEP.below; z += STEP.most) out.push(z);
  return out;
}

/**
 * Fit a column of fluids to formation pressures (Dake 1978, Fundamentals of Reservoir Engineering, chapter 1): each
 * gradient lies within the error of its fluid's density, and contacts are where neighbouring gradients meet. Of columns
 * with more fluids and with fewer the simpler is taken unless the other fits better by more than two standard errors. A
 * contact is given only where fluids are seen on both its sides, or the line of the water is assumed; else the deepest
 * hydrocarbon is, at or below which it lies. Ranges are profiles of the misfit: what all other unknowns, the densities too,
 * can make up for.
 * @param points depth below the datum (m) and pressure (Pa)
 * @returns null of fewer than three points, or where no density is known
 */
export function contactsFromPressures(points: Point[], knowledge: PressureKnowledge): ContactFit | null {
  const { density, pressureError, assumedWaterPa } = knowledge;
  if (points.length < 3) return null;
  const sorted = [...points].sort((a, b) => a.z - b.z);
  const ends = extentOf(sorted.map((q) => q.z)) as [number, number];
  const [shallow, deep] = ends;
  const known = (['gas', 'oil', 'water'] as const).filter((f) => density[f] !== null);
  if (known.length === 0) return null;
  const columns: Fluid[][] = [];
  for (let from = 0; from < known.length; from++)
    for (let to = from; to < known.length; to++) columns.push(known.slice(from, to + 1));
  // gas may lie on water without oil between them
  if (known.length === 3) columns.push(['gas', 'water']);
  const inside = depthsToTry(ends, false);
  const best = (order: Fluid[], sigma: number): Candidate => {
    let found: Candidate = { order, contacts: [], misfit: Number.POSITIVE_INFINITY };
    const offer = (contacts: number[]) => {
      const misfit = misfitOf(sorted, order, contacts, knowledge, sigma, null);
      if (misfit < found.misfit) found = { order, contacts, misfit };
    };
    // a fluid that no point lies in is not seen
    const splits = (a: number, b: number) => sorted.some((q) => q.z >= a && q.z < b);
    if (order.length === 1) offer([]);
    else if (order.length === 2) {
      for (const z of inside) if (splits(shallow, z) && splits(z, deep + 1)) offer([z]);
    } else {
      const coarse = inside.filter((_, n) => n % 4 === 0);
      for (const a of coarse)
        for (const b of coarse) if (b > a && splits(shallow, a) && splits(a, b) && splits(b, deep + 1)) offer([a, b]);
      const [a0, b0] = found.contacts;
      const near = (z: number) => inside.filter((v) => Math.abs(v - z) <= 4 * (inside[1] - inside[0]));
      if (a0 !== undefined)
        for (const a of near(a0))
          for (const b of near(b0))
            if (b > a && splits(shallow, a) && splits(a, b) && splits(b, deep + 1)) offer([a, b]);
    }
    return found;
  };
  const choose = (sigma: number) =>
    columns
      .map((order) => best(order, sigma))
      .filter((c) => Number.isFinite(c.misfit))
      .sort((p, q) => p.misfit + ALLOWED * p.order.length - (q.misfit + ALLOWED * q.order.length))[0];
  // pressures are worth what they prove to be: the error is what the best column leaves over, where that is more
  const first = choose(pressureError);
  const free = Math.max(1, sorted.length - 1 - first.contacts.length);
  const sigma = pressureError * Math.max(1, Math.sqrt(first.misfit / free));
  const chosen = choose(sigma);
  const { order } = chosen;
  /** Depths of one contact that are allowed, the other being free. */
  const rangeOf = (which: number): [number, number] => {
    const allowed = inside.filter((z) => {
      const other = order.length === 3 ? inside.filter((v) => (which === 0 ? v > z : v < z)) : [Number.NaN];
      return other.some((v) => {
        const contacts = order.length === 3 ? (which === 0 ? [z, v] : [v, z]) : [z];
        return misfitOf(sorted, order, contacts, knowledge, sigma, null) <= chosen.misfit + ALLOWED;
      });
    });
    // between two depths that were tried nothing is known better than to their distance
    const step = inside[1] - inside[0];
    const [from, to] = extentOf([...allowed, chosen.contacts[which]]);
    return [from - step, to + step];
  };
  const contact = (which: number): Contact => ({ z: chosen.contacts[which], range: rangeOf(which), kind: 'seen' });
  const rms = sigma * Math.sqrt(chosen.misfit / sorted.length);
  const gasOil = order[0] === 'gas' && order[1] === 'oil' ? contact(0) : null;
  if (order[order.length - 1] === 'water')
    return { fluids: order, base: order.length > 1 ? contact(order.length - 2) : null, gasOil, rms };
  const base =
    assumedWaterPa !== undefined && density.water !== null
      ? againstAssumed(sorted, chosen, knowledge, sigma, ends)
      : null;
  return {
    fluids: order,
    base: base ?? { z: deep, range: [deep, Number.POSITIVE_INFINITY], kind: 'at or below' },
    gasOil,
    rms,
  };
}

/** Where the deepest hydrocarbon's gradient meets the line of water that is assumed; null where it does not below the points. */
function againstAssumed(
  points: Point[],
  { order, contacts }: Candidate,
  knowledge: PressureKnowledge,
  sigma: number,
  ends: [number, number],
): Contact | null {
  const { density, densityError, assumedWaterPa = 0 } = knowledge;
  const rho = density.water ?? 0;
  const at = (z: number) =>
    misfitOf(points, [...order, 'water'], [...contacts, z], knowledge, sigma, {
      z,
      p: assumedWaterPa + rho * G * z,
      error: Math.hypot(sigma, densityError * G * z),
    });
  const tried = depthsToTry(ends, true).filter((z) => z >= ends[1]);
  const misfits = tried.map(at);
  const least = misfits.reduce((a, b) => Math.min(a, b));
  const n = misfits.indexOf(least);
  if (n === tried.length - 1) return null;
  const allowed = tried.filter((_, k) => misfits[k] <= least + ALLOWED);
  return { z: tried[n], range: extentOf(allowed) as [number, number], kind: 'assumed' };
}
