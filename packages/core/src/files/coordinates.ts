import { type Crs, type CrsRow, crsFromRow, searchCrs } from '../earth/crs.ts';
import { LithagonError } from '../earth/errors.ts';
import type { Frame } from '../earth/objects.ts';
import { isGeographic, type MapUnit, METRES, metresPerUnit, transformBetween } from '../earth/transform.ts';
import type { Declarations, Question } from './report.ts';

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
  /**
   * The system that the file's longitude and latitude are in, where the project has none to bring them to: places are
   * then left in degrees, and nothing is loaded before somebody chooses the project's.
   */
  waits: Crs | null;
}

/** What the project's own system is declared under, with a file that is in degrees. */
export const PROJECT_SYSTEM = 'project.crs';

/** The question which system a project is to be in, with the UTM zone of places in degrees as what is likely. */
export async function projectSystemQuestion(
  { name }: Crs,
  places: [number, number][],
  crsTable: () => Promise<CrsRow[]>,
): Promise<Question> {
  const known = places.filter(([x, y]) => Math.abs(x) <= 360 && Math.abs(y) <= 90);
  const middle = (of: number[]) => of.sort((a, b) => a - b)[of.length >> 1];
  const options: Question['options'] = [];
  if (known.length > 0) {
    const [lon, lat] = [middle(known.map((p) => p[0])), middle(known.map((p) => p[1]))];
    const zone = 1 + (Math.floor((lon + 180) / 6) % 60);
    const titles = [name, 'WGS 84'].map((base) => `${base} / UTM zone ${zone}${lat < 0 ? 'S' : 'N'}`);
    for (const row of (await crsTable()).filter((r) => titles.includes(r[1])))
      options.push({ value: `EPSG:${row[0]}`, label: `EPSG:${row[0]}, ${row[1]}` });
  }
  return {
    key: PROJECT_SYSTEM,
    label: 'The project is to be in',
    typed: true,
    options,
    hint: {
      value: options[0]?.value ?? null,
      why: `The file is in longitude and latitude (${name}), and the project has no system yet: it needs one in lengths.`,
    },
  };
}

/** Refuse to load what is in degrees into a project that has no system to bring it to. */
export function refuseWaiting(file: string, { waits }: Placement): void {
  if (waits)
    throw new LithagonError('crs', `${file} is in longitude and latitude, and the project has no system yet.`, {
      object: file,
      fix: 'Choose the project’s coordinate system first, or with this file (project.crs=EPSG:n, such as the UTM zone that inspecting it names).',
    });
}

export function mapUnitNamed(text: string): MapUnit {
  if (text in METRES) return text as MapUnit;
  throw new LithagonError('declare', `“${text}” is no unit of map coordinates.`, {
    fix: 'One of: m, ft, us-ft.',
  });
}

/**
 * How a file's coordinates are read. `declare.crs` is the system that the file is in, the project's own where it is not
 * given; `declare['unit.xy']` its unit, else `says`, what the file says of it (`metres` in a unit that has no name), else
 * that of the system. `says.at` is a place of the file, for which the operation between two datums is chosen.
 */
export async function placementFor(
  declare: Declarations,
  frame: Frame | null,
  crsTable: () => Promise<CrsRow[]>,
  says?: { crs?: string; unit?: MapUnit; degrees?: boolean; metres?: number; at?: [number, number] },
): Promise<Placement> {
  const code = declare.crs ?? (says?.degrees ? 'EPSG:4326' : says?.crs);
  const notes: string[] = [];
  const own = code ? await crsOf(code, crsTable) : null;
  const chosen = declare[PROJECT_SYSTEM];
  const next =
    frame ?? (chosen ? frameFor(await crsOf(chosen, crsTable)) : own && !isGeographic(own) ? frameFor(own) : null);
  if (!next && own && isGeographic(own)) return { toMap: (x, y) => [x, y], frame: null, notes, waits: own };
  const wanted = declare['unit.xy'] ? mapUnitNamed(declare['unit.xy']) : says?.unit;
  const native = own ? metresPerUnit(own) : next ? METRES[next.unit] : 1;
  // a file that says “feet” means those of its system, where that has feet of its own
  const feetOfSystem = wanted === 'ft' && !declare['unit.xy'] && Math.abs(native - METRES['us-ft']) < 1e-6;
  const metres = wanted && !feetOfSystem ? METRES[wanted] : (says?.metres ?? native);
  if (says?.metres && !wanted && Math.abs(says.metres / native - 1) > 1e-9)
    notes.push(`Its coordinates are in units of ${Number(says.metres.toPrecision(9))} m and were converted.`);
  if (wanted && wanted !== 'm' && (!next || next.unit !== wanted))
    notes.push(`Its coordinates are in ${wanted === 'ft' ? 'feet' : 'US survey feet'} and were converted.`);
  if (!own || !next || `EPSG:${own.code}` === next.crs)
    return { toMap: (x, y) => [x * metres, y * metres], frame: next, notes, waits: null };
  const to = await crsOf(next.crs, crsTable);
  const scale = isGeographic(own) ? 1 : metres / native;
  const at = says?.at?.every(Number.isFinite) ? says.at : undefined;
  const { convert, says: how } = transformBetween(own, to, at && [at[0] * scale, at[1] * scale]);
  notes.push(how);
  const out = metresPerUnit(to);
  return {
    toMap: (x, y) => {
      const [px, py] = convert(x * scale, y * scale);
      return [px * out, py * out];
    },
    frame: next,
    notes,
    waits: null,
  };
}
