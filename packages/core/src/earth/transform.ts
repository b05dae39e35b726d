import proj4 from 'proj4';
import type { Crs } from './crs.ts';
import { alongRoute, datumOf, datumRoute, type Ellipsoid } from './datums.ts';
import { withEllipsoid } from './ellipsoids.ts';
import { LithagonError } from './errors.ts';

/** Lengths that map coordinates are measured in, in metres. */
export const METRES = { m: 1, ft: 0.3048, 'us-ft': 1200 / 3937 } as const;
export type MapUnit = keyof typeof METRES;

/** Whether a system's coordinates are longitude and latitude in degrees. */
export function isGeographic(crs: Crs): boolean {
  return /\+proj=longlat/.test(crs.proj4);
}

/** Metres in one unit of a system's coordinates; 1 where these are degrees. */
export function metresPerUnit(crs: Crs): number {
  const length = /\+to_meter=([\d.eE+-]+)/.exec(crs.proj4)?.[1];
  if (length) return Number(length);
  const unit = /\+units=([\w-]+)/.exec(crs.proj4)?.[1];
  return unit && unit in METRES ? METRES[unit as MapUnit] : 1;
}

/** A conversion between two coordinate reference systems. */
export interface Transform {
  /** What it does and how well, as a sentence. */
  says: string;
  /** From coordinates in the units of one system to those of the other. */
  convert(x: number, y: number): [number, number];
}

/** The datum by the name of the geographic system that a projected one is based on. */
const datumName = (crs: Crs) => crs.name.split(' / ')[0].trim().toLowerCase();

const call = (crs: Crs) => `EPSG:${crs.code} (${crs.name})`;

/** A definition without a datum: the projection on its own ellipsoid. */
const plain = (crs: Crs) =>
  withEllipsoid(crs.proj4)
    .replace(/\+datum=WGS84/, '+ellps=WGS84')
    .replace(/\+datum=NAD83/, '+ellps=GRS80')
    .replace(/\+datum=NAD27/, '+ellps=clrk66');

/** The ellipsoid of a system; refuses one whose projection proj4 cannot do. */
export function ellipsoidOf(crs: Crs): Ellipsoid {
  try {
    const { a, es } = new (proj4 as unknown as { Proj: new (text: string) => Ellipsoid }).Proj(plain(crs));
    return { a, es };
  } catch {
    throw new LithagonError(
      'crs',
      `No transformation is known here to or from ${call(crs)}: its projection is none of those that can be computed.`,
      {
        fix: 'Convert the file with a program that has it, or choose another system.',
      },
    );
  }
}

/** Longitude and latitude, counted from Greenwich, on an ellipsoid. */
const degreesOn = ({ a, es }: Ellipsoid) => `+proj=longlat +a=${a} +b=${a * Math.sqrt(1 - es)} +no_defs`;

/** Longitude and latitude of places in a system, on its own datum and counted from Greenwich, degrees, and back. */
export function lonLatOf(crs: Crs): {
  to(x: number, y: number): [number, number];
  from(lon: number, lat: number): [number, number];
} {
  const way = proj4(plain(crs), degreesOn(ellipsoidOf(crs)));
  const grads = isGeographic(crs) && /grad/i.test(crs.unit) ? 0.9 : 1;
  return {
    to: (x, y) => way.forward([x * grads, y * grads], true) as [number, number],
    from(lon, lat) {
      const [x, y] = way.inverse([lon, lat], true);
      return [x / grads, y / grads];
    },
  };
}

/** Middle of the area that two systems share, or of the second's where they share none or it is not known, degrees. */
function middleOf(from: Crs, to: Crs): [number, number] {
  const [p, q] = [from.bounds, to.bounds];
  const one = p ?? q;
  if (!one) return [0, 0];
  if (!p || !q) return [(one[1] + one[3]) / 2, (one[0] + one[2]) / 2];
  const [north, west, south, east] = [
    Math.min(p[0], q[0]),
    Math.max(p[1], q[1]),
    Math.max(p[2], q[2]),
    Math.min(p[3], q[3]),
  ];
  return north > south && east > west
    ? [(west + east) / 2, (south + north) / 2]
    : [(q[1] + q[3]) / 2, (q[0] + q[2]) / 2];
}

/** An error as it is said: to the centimetre below a metre. */
const errorText = (m: number) =>
  m >= 999 ? 'an error that is not known' : m < 1 ? `${Number(m.toFixed(2))} m` : `${Number(m.toFixed(1))} m`;

/**
 * How coordinates of one system become those of another: projections by proj4; between datums the operations of the EPSG
 * registry whose stated error is the least for the place. Where none is known the conversion is refused: it is not a shift
 * of nothing.
 * @param at a place in the units of `from`, for which the operation is chosen; the middle of both areas where not given
 * @throws LithagonError `crs` where no operation is known
 */
export function transformBetween(from: Crs, to: Crs, at?: [number, number]): Transform {
  const [a, b] = [plain(from), plain(to)];
  const shapes: [Ellipsoid, Ellipsoid] = [ellipsoidOf(from), ellipsoidOf(to)];
  const [down, up] = [proj4(a, degreesOn(shapes[0])), proj4(degreesOn(shapes[1]), b)];
  const [own, other] = [datumOf(from), datumOf(to)];
  const same = own !== null && other !== null ? own === other : datumName(from) === datumName(to);
  // axes may run south or west, which proj4 heeds only where it is told to
  const [gradsIn, gradsOut] = [from, to].map((crs) => (isGeographic(crs) && /grad/i.test(crs.unit) ? 0.9 : 1));
  const toDegrees = (x: number, y: number) => down.forward([x * gradsIn, y * gradsIn], true) as [number, number];
  const fromDegrees = (place: [number, number]): [number, number] => {
    const [x, y] = up.forward(place, true);
    return [x / gradsOut, y / gradsOut];
  };
  const checked = (x: number, y: number, [px, py]: [number, number]): [number, number] => {
    if (Number.isFinite(px) && Number.isFinite(py)) return [px, py];
    throw new LithagonError('crs', `The position ${x}, ${y} lies outside what ${call(to)} can hold.`, {
      fix: 'Check the system that was declared.',
    });
  };
  if (same)
    return {
      says: `Converted from ${call(from)} to ${call(to)}: one datum, so that only the projection changes (to a millimetre).`,
      convert: (x, y) => checked(x, y, fromDegrees(toDegrees(x, y))),
    };
  const seen = at && toDegrees(...at);
  const place = seen?.every(Number.isFinite) ? seen : middleOf(from, to);
  const route = own !== null && other !== null ? datumRoute(own, other, place) : null;
  if (!route)
    throw new LithagonError(
      'crs',
      `No transformation is known here between the datums of ${call(from)} and ${call(to)}: the registry has no formula for it, or only a grid of shifts.`,
      { fix: 'Convert the file with a program that has it, or load it into a project in its own system.' },
    );
  return {
    says: `Converted from ${call(from)} to ${call(to)} by ${route.says}, stated as good to ${errorText(route.accuracyM)}${route.inArea ? '' : ', though not for this place: its area of use is another'}.`,
    convert: (x, y) => checked(x, y, fromDegrees(alongRoute(route, ...shapes, toDegrees(x, y)))),
  };
}
