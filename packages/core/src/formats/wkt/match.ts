import proj4 from 'proj4';
import type { CrsRow } from '../../earth/crs.ts';
import { withEllipsoid } from '../../earth/ellipsoids.ts';
import { parseWkt } from './parse.ts';
import { plain, systemIn, type WktSystem } from './projection.ts';

/** What a text of a coordinate system was found to mean. */
export interface SystemOfText {
  /** Name that the text gives the system. */
  name: string;
  /** `EPSG:n` where it is one system of the table, and no other. */
  crs?: string;
  /** Codes that it may be, where it is not plain. */
  candidates: string[];
  /** What is odd about it. */
  note?: string;
}

/** A projection as proj4 sets it up, in radians and metres. */
interface Projection {
  a: number;
  rf?: number;
  b?: number;
  to_meter?: number;
  from_greenwich?: number;
  forward(p: { x: number; y: number }): { x: number; y: number };
}

const DEGREE = Math.PI / 180;

function projectionOf(definition: string): Projection | null {
  try {
    return new (proj4 as unknown as { Proj: new (text: string) => Projection }).Proj(withEllipsoid(definition));
  } catch {
    return null;
  }
}

const set = new WeakMap<CrsRow, Projection | null>();
function projectionOfRow(row: CrsRow): Projection | null {
  let projection = set.get(row);
  if (projection === undefined) {
    projection = projectionOf(row[5]);
    set.set(row, projection);
  }
  return projection;
}

/** Half axis (m) and inverse flattening of the ellipsoid of a row. */
export function shapeOfRow(row: CrsRow): { a: number; rf: number } | null {
  const own = projectionOfRow(row);
  if (!own) return null;
  const b = polar(own);
  return { a: own.a, rf: own.a > b ? own.a / (own.a - b) : 0 };
}

const isDegrees = (row: CrsRow) => row[5].includes('+proj=longlat');
const near = (a: number, b: number, tolerance: number) => Math.abs(a - b) <= tolerance;
const polar = (p: Projection) => p.b ?? (p.rf ? p.a * (1 - 1 / p.rf) : p.a);
// half axes are rounded in one list or another
const sameShape = (p: Projection, q: Projection) => near(p.a, q.a, 0.2) && near(polar(p), polar(q), 0.2);

/** Degrees of the central meridian of a row, where its text gives one that counts from Greenwich. */
function meridianOf(proj: string): number | null {
  if (/\+pm=(?!greenwich)/.test(proj)) return null;
  const zone = /\+zone=(\d+)/.exec(proj)?.[1];
  if (zone) return 6 * Number(zone) - 183;
  const given = /\+(?:lon_0|lonc)=(-?[\d.]+)/.exec(proj)?.[1];
  return given === undefined ? null : Number(given);
}

/** Whether two projections put the same places of an area at the same coordinates, to half a metre. */
function agree(p: Projection, q: Projection, bounds: number[] | null): boolean {
  if (!sameShape(p, q) || !near((p.to_meter ?? 1) / (q.to_meter ?? 1), 1, 1e-7)) return false;
  const [north, west, south, east] = bounds ?? [60, -1, 50, 1];
  const width = east > west ? east - west : east + 360 - west;
  return [
    [0.5, 0.5],
    [0.25, 0.7],
    [0.8, 0.3],
  ].every(([f, g]) => {
    const place = { x: (west + f * width) * DEGREE, y: (south + g * (north - south)) * DEGREE };
    try {
      const [a, b] = [p.forward({ ...place }), q.forward({ ...place })];
      return Math.hypot(a.x - b.x, a.y - b.y) < 0.5;
    } catch {
      return false;
    }
  });
}

const keyOfBase = (row: CrsRow) => `base ${plain(row[1].split(' / ')[0])}`;
const keysOfRow = (row: CrsRow) => (row[7] ? [plain(row[7]), keyOfBase(row)] : [keyOfBase(row)]);

/** What the datum of a text goes by in the table. */
function datumsOf({ base, datum }: WktSystem, rows: CrsRow[]): Set<string> {
  const own = plain(datum.replace(/^D_/, ''));
  const byName = rows.filter(
    (row) => isDegrees(row) && base !== '' && [row[1], row[6] ?? ''].some((name) => plain(name) === plain(base)),
  );
  return new Set([own, `base ${plain(base)}`, ...byName.flatMap(keysOfRow)]);
}

/**
 * The system of the table that a text means: WKT 1 as OGC 01-009 and as .prj files have it, or WKT 2 (ISO 19162). Its
 * numbers decide; a code or name in it is believed where the numbers bear it out.
 * @returns null where the text is no coordinate system
 */
export function systemOfWkt(text: string, rows: CrsRow[]): SystemOfText | null {
  const root = parseWkt(text.trim());
  const said = root && systemIn(root);
  if (!said) return null;
  const { name, code, degrees } = said;
  const projection = said.proj4 ? projectionOf(said.proj4) : null;
  const datums = datumsOf(said, rows);
  const onDatum = (row: CrsRow) => keysOfRow(row).some((key) => datums.has(key));
  const fits = (row: CrsRow): boolean | null => {
    if (isDegrees(row) !== degrees) return false;
    const own = projectionOfRow(row);
    if (!own || !projection) return null;
    if (!degrees) return agree(projection, own, row[4]);
    return sameShape(projection, own) && near((own.from_greenwich ?? 0) / DEGREE, said.primeMeridian, 1e-4);
  };
  const named = rows.filter(
    (row) => row[0] === code || [row[1], row[6] ?? ''].some((each) => each && plain(each) === plain(name)),
  );
  // where a projection cannot be set up, name and datum together are believed
  const borne = named
    .filter((row) => fits(row) ?? (row[0] === code || onDatum(row)))
    .filter((row) => row[0] === code || onDatum(row));
  const best =
    borne.find((row) => row[0] === code) ?? borne.find((row) => row[1] === name || row[6] === name) ?? borne[0];
  if (best) return { name, crs: `EPSG:${best[0]}`, candidates: [] };
  const note =
    named.length > 0
      ? `It calls itself ${name || `EPSG:${code}`}, and its numbers are not those of that system.`
      : undefined;
  const alike = rows.filter((row) => {
    const own = meridianOf(row[5]);
    return (degrees || own === null || said.meridian === null || near(own, said.meridian, 1e-4)) && fits(row) === true;
  });
  const likely = alike.filter(onDatum);
  // of several entries for one and the same system the first is as good as any
  const same = likely.every(
    (row) => degrees || agree(projectionOfRow(row) as Projection, projectionOfRow(likely[0]) as Projection, row[4]),
  );
  if (likely.length > 0 && same) return { name, crs: `EPSG:${likely[0][0]}`, candidates: [], note };
  return { name, candidates: (likely.length > 0 ? likely : alike).slice(0, 8).map((row) => `EPSG:${row[0]}`), note };
}
