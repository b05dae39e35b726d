import type { Crs } from './crs.ts';
import { BASES, DATUM_SHIFTS, type DatumShift, SAME_DATUM } from './datumShifts.ts';

const ARC = Math.PI / 180 / 3600;

/** The geographic system that a system is based on, its prime meridian aside; null where the registry's list lacks it. */
export function datumOf({ code, proj4 }: Crs): number | null {
  const base = proj4.includes('+proj=longlat')
    ? code
    : Object.keys(BASES)
        .map(Number)
        .find((key) => BASES[key].some(([first, last]) => code >= first && code <= last));
  if (base === undefined) return null;
  return SAME_DATUM.find(([from]) => from === base)?.[1] ?? base;
}

/** An operation on the way between two datums, and whether it is gone backwards. */
interface Leg {
  shift: DatumShift;
  back: boolean;
}

/** How one datum becomes another. */
export interface DatumRoute {
  legs: Leg[];
  /** Sum of the stated errors, m. */
  accuracyM: number;
  /** Whether the place lies in the area that each operation is stated for. */
  inArea: boolean;
  /** The operations by their codes. */
  says: string;
}

const edges = new Map<number, { to: number; leg: Leg }[]>();
function edgesOf(code: number) {
  if (edges.size === 0)
    for (const shift of DATUM_SHIFTS)
      for (const back of [false, true]) {
        const [from, to] = back ? [shift[2], shift[1]] : [shift[1], shift[2]];
        const list = edges.get(from) ?? [];
        list.push({ to, leg: { shift, back } });
        edges.set(from, list);
      }
  return edges.get(code) ?? [];
}

/** How far a place lies outside an area, degrees; 0 inside it. */
function beyond([south, west, north, east]: DatumShift[4], [lon, lat]: [number, number]): number {
  const width = east >= west ? east - west : east + 360 - west;
  const x = (((lon - west) % 360) + 360) % 360;
  return Math.hypot(Math.max(south - lat, 0, lat - north), x <= width ? 0 : Math.min(x - width, 360 - x));
}
const sizeOf = ([south, west, north, east]: DatumShift[4]) =>
  (north - south) * (east >= west ? east - west : east + 360 - west);

/**
 * The operation whose stated error is the least for a place, or two through a third datum where there is none; those whose
 * area of use does not hold it are taken only where no other is known, the nearest first.
 * @param place longitude and latitude, degrees
 * @returns null where the registry has no formula from the one to the other
 */
export function datumRoute(from: number, to: number, place: [number, number]): DatumRoute | null {
  // one operation goes before two: what is stated for each does not tell how they fit together
  let best: { legs: Leg[]; error: number; out: number; size: number } | null = null;
  const offer = (legs: Leg[]) => {
    const error = legs.reduce((sum, { shift }) => sum + shift[3], 0);
    const out = Math.max(...legs.map(({ shift }) => beyond(shift[4], place)));
    const size = Math.max(...legs.map(({ shift }) => sizeOf(shift[4])));
    const order = best && (out - best.out || legs.length - best.legs.length || error - best.error || size - best.size);
    if (order === null || order < 0) best = { legs, error, out, size };
  };
  for (const { to: next, leg } of edgesOf(from)) {
    if (next === to) offer([leg]);
    else for (const { to: last, leg: second } of edgesOf(next)) if (last === to) offer([leg, second]);
  }
  const found = best as { legs: Leg[]; error: number; out: number } | null;
  if (!found) return null;
  return {
    legs: found.legs,
    accuracyM: found.error,
    inArea: found.out === 0,
    says: found.legs.map(({ shift, back }) => `operation EPSG:${shift[0]}${back ? ' backwards' : ''}`).join(' and '),
  };
}

/** Half axis (m) and first eccentricity squared. */
export interface Ellipsoid {
  a: number;
  es: number;
}

/** Geocentric coordinates (m) of a place on an ellipsoid (EPSG method 9602). */
function geocentric({ a, es }: Ellipsoid, lon: number, lat: number): [number, number, number] {
  const [sin, cos] = [Math.sin(lat), Math.cos(lat)];
  const n = a / Math.sqrt(1 - es * sin * sin);
  return [n * cos * Math.cos(lon), n * cos * Math.sin(lon), n * (1 - es) * sin];
}

/** Longitude and latitude (radians) of geocentric coordinates (Bowring 1976, Survey Review 23, 323–327). */
function geodetic({ a, es }: Ellipsoid, [x, y, z]: [number, number, number]): [number, number] {
  const b = a * Math.sqrt(1 - es);
  const second = es / (1 - es);
  const p = Math.hypot(x, y);
  let beta = Math.atan2(z * a, p * b);
  let lat = 0;
  for (let turn = 0; turn < 3; turn++) {
    lat = Math.atan2(z + second * b * Math.sin(beta) ** 3, p - es * a * Math.cos(beta) ** 3);
    beta = Math.atan2(b * Math.sin(lat), a * Math.cos(lat));
  }
  return [Math.atan2(y, x), lat];
}

type Vector = [number, number, number];

/** Geocentric coordinates moved by an operation (EPSG methods 9603, 9606 and 1063, position vector). */
function moved([x, y, z]: Vector, { shift, back }: Leg): Vector {
  const [tx, ty, tz, rx = 0, ry = 0, rz = 0, ppm = 0, px = 0, py = 0, pz = 0] = shift[5];
  const [a, b, c] = [rx * ARC, ry * ARC, rz * ARC];
  const m = 1 + ppm * 1e-6;
  const forward = ([u, v, w]: Vector): Vector => {
    const [dx, dy, dz] = [u - px, v - py, w - pz];
    return [
      m * (dx - c * dy + b * dz) + px + tx,
      m * (c * dx + dy - a * dz) + py + ty,
      m * (-b * dx + a * dy + dz) + pz + tz,
    ];
  };
  if (!back) return forward([x, y, z]);
  // the way back is found by going there and mending what is left: rotations are too small to do more than that
  let guess: Vector = [x - tx, y - ty, z - tz];
  for (let turn = 0; turn < 4; turn++) {
    const there = forward(guess);
    guess = [guess[0] + x - there[0], guess[1] + y - there[1], guess[2] + z - there[2]];
  }
  return guess;
}

/** Longitude and latitude (degrees) on one ellipsoid as those on another, by the operations of a route. */
export function alongRoute(
  { legs }: DatumRoute,
  from: Ellipsoid,
  to: Ellipsoid,
  [lon, lat]: [number, number],
): [number, number] {
  const rad = Math.PI / 180;
  let at = geocentric(from, lon * rad, lat * rad);
  for (const leg of legs) at = moved(at, leg);
  const [x, y] = geodetic(to, at);
  return [x / rad, y / rad];
}
