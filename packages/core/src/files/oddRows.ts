import { unitsOf } from '../earth/display.ts';
import type { EarthObject, Frame, Well } from '../earth/objects.ts';
import type { ReadTable } from '../formats/csv/tables.ts';

/** How far apart two heads of one name may lie and still be one, m. */
const APART_M = 1;

function rowsByWell({ texts }: ReadTable): Map<string, number[]> {
  const out = new Map<string, number[]>();
  (texts.well ?? []).forEach((well, n) => {
    const rows = out.get(well) ?? [];
    rows.push(n);
    out.set(well, rows);
  });
  return out;
}

/** What a table of points has besides names and places, which points do not keep. */
export function unusedColumns({ spec, columns, found }: ReadTable): string[] {
  if (spec.kind !== 'points') return [];
  const used = new Set(Object.values(found).map((f) => f.column));
  const left = columns.filter((column) => column.trim() !== '' && !used.has(column));
  if (left.length === 0) return [];
  return [
    `Points are kept by name and place alone; ${left.map((c) => `“${c.slice(0, 40)}”`).join(', ')} ${left.length === 1 ? 'was' : 'were'} left out.`,
  ];
}

/** Wells that a table puts at two places, or elsewhere than the project has them. */
function oddHeads(table: ReadTable, objects: EarthObject[], frame: Frame | null): string[] {
  const { x, y } = table.numbers;
  const units = unitsOf(frame);
  const out: string[] = [];
  for (const [well, [first, ...more]] of rowsByWell(table)) {
    const other = more.find((n) => Math.hypot(x[n] - x[first], y[n] - y[first]) > APART_M);
    if (other !== undefined)
      out.push(
        `${well} stands at two places ${units.text(Math.hypot(x[other] - x[first], y[other] - y[first]), 'm', 0)} apart (rows ${table.lines[first]} and ${table.lines[other]}); the first was taken.`,
      );
    else if (more.length > 0)
      out.push(`${well} stands ${more.length + 1} times (first: row ${table.lines[first]}); it was taken once.`);
    const there = objects.find((o): o is Well => o.kind === 'well' && o.name === well);
    if (!there) continue;
    const apart = Math.hypot(there.x - x[first], there.y - y[first]);
    out.push(
      apart > APART_M
        ? `The project has a well ${well} already, ${units.text(apart, 'm', 0)} from where row ${table.lines[first]} puts it: one of the two is wrong, or has another name.`
        : `The project has the well ${well} already, at the same place (row ${table.lines[first]}).`,
    );
  }
  return out;
}

/** Checkshots whose time goes back with depth. */
function oddTimes(table: ReadTable): string[] {
  const { md, tvdss, tvd, twt, owt } = table.numbers;
  const depth = md ?? tvdss ?? tvd;
  const time = twt ?? owt;
  if (!depth || !time) return [];
  const out: string[] = [];
  for (const [well, rows] of rowsByWell(table)) {
    const known = rows
      .filter((n) => !Number.isNaN(depth[n]) && !Number.isNaN(time[n]))
      .sort((a, b) => depth[a] - depth[b]);
    const back = known.filter((n, k) => k > 0 && time[n] < time[known[k - 1]]);
    if (back.length > 0)
      out.push(
        `In ${well || 'the table'} the time goes back with depth ${back.length === 1 ? 'once' : `${back.length} times`} (first: row ${table.lines[back[0]]}).`,
      );
  }
  return out;
}

/** Tops below the total depth of their well. */
function oddTops(table: ReadTable, objects: EarthObject[], frame: Frame | null): string[] {
  const { md } = table.numbers;
  if (!md) return [];
  const units = unitsOf(frame);
  const out: string[] = [];
  for (const [well, rows] of rowsByWell(table)) {
    const total = objects.find((o): o is Well => o.kind === 'well' && o.name === well)?.totalMdM;
    const below = total === undefined ? [] : rows.filter((n) => md[n] > total + 1);
    if (total !== undefined && below.length > 0)
      out.push(
        `${below.length} ${below.length === 1 ? 'top of' : 'tops of'} ${well} ${below.length === 1 ? 'lies' : 'lie'} below its total depth of ${units.text(total, 'm', 1)} MD (first: row ${table.lines[below[0]]}).`,
      );
  }
  return out;
}

/** Numbers that stand without a unit and can be read in more than one: what they were taken for. */
function unsaidUnits({ spec, found, numbers }: ReadTable): string[] {
  const out: string[] = [];
  for (const key of ['pressure', 'density', 'grainDensity']) {
    const place = found[key];
    const unit = spec.columns.find((c) => c.key === key)?.unit;
    if (place && unit && !place.unit && !place.unknown && numbers[key])
      out.push(
        `“${place.column}” has no unit: its numbers were taken as ${unit} (declare unit.${key} if they are not).`,
      );
  }
  for (const key of ['twt', 'owt']) {
    const place = found[key];
    const known = numbers[key]?.filter((v) => !Number.isNaN(v)) ?? [];
    if (place && !place.unit && known.length > 0 && known.every((v) => Math.abs(v) < SHORT_MS))
      out.push(
        `“${place.column}” has no unit and no number of ${SHORT_MS} or more: its times were taken as ms and may be seconds (declare unit.${key}=s).`,
      );
  }
  return out;
}

/** Times all below this, ms, are likely seconds. */
const SHORT_MS = 12;

/** Directional surveys that go back, or with angles that no hole has. */
function oddSurveys(table: ReadTable): string[] {
  const { md, inclination, azimuth } = table.numbers;
  const out: string[] = [];
  const say = (rows: number[], what: string) => {
    if (rows.length > 0) out.push(`${what} (${rows.length === 1 ? '' : 'first: '}row ${table.lines[rows[0]]}).`);
  };
  for (const [well, rows] of rowsByWell(table)) {
    const of = well || 'the well';
    say(
      rows.filter((n, k) => k > 0 && md[n] < md[rows[k - 1]]),
      `In the survey of ${of} the depth goes back: stations were put in order`,
    );
    say(
      rows.filter((n) => inclination[n] < 0 || inclination[n] > MOST_INCLINED),
      `In the survey of ${of} an inclination is below 0° or above ${MOST_INCLINED}°`,
    );
    say(
      rows.filter((n) => azimuth[n] < -360 || azimuth[n] > 360),
      `In the survey of ${of} an azimuth is more than a whole turn`,
    );
  }
  return out;
}

/** Holes are not drilled steeper upwards than this from straight down, degrees. */
const MOST_INCLINED = 130;

/** Tops of one name at two depths of one well. */
function repeatedTops(table: ReadTable, frame: Frame | null): string[] {
  const { md } = table.numbers;
  const units = unitsOf(frame);
  const out: string[] = [];
  if (!md || !table.texts.top) return out;
  for (const [well, rows] of rowsByWell(table)) {
    const first = new Map<string, number>();
    for (const n of rows) {
      const top = table.texts.top[n];
      const before = first.get(top);
      if (before === undefined) first.set(top, n);
      else if (Math.abs(md[n] - md[before]) > 0.01)
        out.push(
          `${well || 'The well'} has ${top || 'a top without a name'} at two depths, ${units.text(md[before], 'm', 1)} and ${units.text(md[n], 'm', 1)} MD (rows ${table.lines[before]} and ${table.lines[n]}).`,
        );
    }
  }
  return out.slice(0, 5);
}

/** What of a table’s coordinates reads as degrees though nothing says so; asked before they are brought into the project. */
export function oddCoordinates({ numbers: { x, y } }: ReadTable, known: boolean): string[] {
  if (!x || !y || known || x.length === 0) return [];
  const small = x.every((v, n) => Number.isNaN(v) || (Math.abs(v) <= 180 && Math.abs(y[n]) <= 90));
  const fractions = x.some((v) => v % 1 !== 0);
  return small && fractions
    ? [
        'Its coordinates read like longitude and latitude in degrees, and were taken as they stand: declare crs=EPSG:4326 if that is what they are.',
      ]
    : [];
}

/** What is odd about the rows of a table, by well and row, once its coordinates are those of the project. */
export function oddRows(table: ReadTable, objects: EarthObject[], frame: Frame | null): string[] {
  const { kind } = table.spec;
  const units = unsaidUnits(table);
  if (kind === 'well heads') return [...units, ...oddHeads(table, objects, frame)];
  if (kind === 'checkshots') return [...units, ...oddTimes(table)];
  if (kind === 'tops') return [...units, ...oddTops(table, objects, frame), ...repeatedTops(table, frame)];
  if (kind === 'directional surveys') return [...units, ...oddSurveys(table)];
  return units;
}
