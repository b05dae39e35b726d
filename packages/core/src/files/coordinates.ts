import { type Crs, type CrsRow, crsFromRow, searchCrs } from '../earth/crs.ts';
import { LithagonError } from '../earth/errors.ts';
import type { Frame } from '../earth/objects.ts';
import { isGeographic, type MapUnit, METRES, metresPerUnit, transformBetween } from '../earth/transform.ts';
import type { Declarations } from './report.ts';

/** The system with a code such as `EPSG:32740`, or a sentence saying what to do. */
export async function crsOf(code: string, table: () => Promise<CrsRow[]>): Promise<Crs> {
  const number = Number(/^(?:epsg:)?(\d+)$/i.exec(code.trim())?.[1]);
  const rows = await table();
  const row = rows.find((r) => r[0] === number);
  if (row) return crsFromRow(row);
  const near = searchCrs(rows, code, 3);
  throw new LithagonError('crs', `There is no coordinate reference system “${code}”.`, {
    fix:
      near.length > 0
        ? `Perhaps ${near.map((c) => `EPSG:${c.code} (${c.name})`).join(', ')}?`
        : 'Give an EPSG code, such as EPSG:32740.',
  });
}

/** The frame of a project in a system, metric, with the sea as its datum. */
export function frameFor(crs: Crs): Frame {
  if (isGeographic(crs))
    throw new LithagonError('crs', `${crs.name} is in degrees, and a project is worked in lengths.`, {
      fix: 'Choose a projected system of the area, such as its UTM zone.',
    });
  const metres = metresPerUnit(crs);
  return {
    crs: `EPSG:${crs.code}`,
    crsName: crs.name,
    unit: Math.abs(metres - METRES['us-ft']) < 1e-9 ? 'us-ft' : Math.abs(metres - METRES.ft) < 1e-9 ? 'ft' : 'm',
    datumM: 0,
    replacementVelocity: 1500,
    polarity: 'harder-positive',
    display: 'metric',
  };
}

/** How the coordinates of a file become positions in the project: metres along the axes of its system. */
export interface Placement {
  toMap(x: number, y: number): [number, number];
  /** The project's frame, set by this file where there was none. */
  frame: Frame | null;
  /** What was converted, as sentences. */
  notes: string[];
}

export function mapUnitNamed(text: string): MapUnit {
  if (text in METRES) return text as MapUnit;
  throw new LithagonError('declare', `“${text}” is no unit of map coordinates.`, {
    fix: 'One of: m, ft, us-ft.',
  });
}

/**
 * How a file's coordinates are read. `declare.crs` is the system that the file is in, the project's own where it is not
 * given; `declare['unit.xy']` its unit, else `says`, what the file says of it, else that of the system.
 */
export async function placementFor(
  file: string,
  declare: Declarations,
  frame: Frame | null,
  crsTable: () => Promise<CrsRow[]>,
  says?: { crs?: string; unit?: MapUnit; degrees?: boolean },
): Promise<Placement> {
  const code = declare.crs ?? (says?.degrees ? 'EPSG:4326' : says?.crs);
  const notes: string[] = [];
  const own = code ? await crsOf(code, crsTable) : null;
  if (!frame && own && isGeographic(own))
    throw new LithagonError('crs', `${file} is in longitude and latitude, and the project has no system yet.`, {
      object: file,
      fix: 'Choose the project’s coordinate system first.',
    });
  const next = frame ?? (own ? frameFor(own) : null);
  const wanted = declare['unit.xy'] ? mapUnitNamed(declare['unit.xy']) : says?.unit;
  const native = own ? metresPerUnit(own) : next ? METRES[next.unit] : 1;
  // a file that says “feet” means those of its system, where that has feet of its own
  const feetOfSystem = wanted === 'ft' && !declare['unit.xy'] && Math.abs(native - METRES['us-ft']) < 1e-6;
  const metres = wanted && !feetOfSystem ? METRES[wanted] : native;
  if (wanted && wanted !== 'm' && (!next || next.unit !== wanted))
    notes.push(`Its coordinates are in ${wanted === 'ft' ? 'feet' : 'US survey feet'} and were converted.`);
  if (!own || !next || `EPSG:${own.code}` === next.crs)
    return { toMap: (x, y) => [x * metres, y * metres], frame: next, notes };
  const to = await crsOf(next.crs, crsTable);
  const { convert, says: how } = transformBetween(own, to);
  notes.push(how);
  const scale = isGeographic(own) ? 1 : metres / native;
  const out = metresPerUnit(to);
  return {
    toMap: (x, y) => {
      const [px, py] = convert(x * scale, y * scale);
      return [px * out, py * out];
    },
    frame: next,
    notes,
  };
}
