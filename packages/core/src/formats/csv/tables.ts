import Papa from 'papaparse';
import { LithagonError } from '../../earth/errors.ts';
import { factor, unitNamed } from '../../earth/units.ts';

/** A column that a kind of table may have: the words it goes by, and the unit that it is converted to. */
interface ColumnSpec {
  key: string;
  words: RegExp;
  unit?: string;
  text?: boolean;
  optional?: boolean;
}

export interface TableSpec {
  kind: string;
  title: string;
  columns: ColumnSpec[];
  /** Either of these must be there. */
  either?: string[];
}

const well: ColumnSpec = { key: 'well', words: /^(well|wellbore|well_?name|uwi)$/, text: true };
const md: ColumnSpec = { key: 'md', words: /^(md|measured_depth|depth_md)$/, unit: 'm' };
const x: ColumnSpec = { key: 'x', words: /^(x|easting|e)$/, unit: 'm' };
const y: ColumnSpec = { key: 'y', words: /^(y|northing|n)$/, unit: 'm' };
const twt: ColumnSpec = { key: 'twt', words: /^(twt|twt_time|two_way_time)$/, unit: 'ms', optional: true };
const depth: ColumnSpec = { key: 'depth', words: /^(depth|tvdss|z)$/, unit: 'm', optional: true };

/** The kinds of table that are recognised by their columns, the most particular first. */
export const TABLES: TableSpec[] = [
  {
    kind: 'well heads',
    title: 'Well heads',
    columns: [
      well,
      x,
      y,
      { key: 'kb', words: /^(kb|kelly_?bushing|elevation|rkb)$/, unit: 'm' },
      { key: 'totalMd', words: /^(total_depth_md|td|total_depth)$/, unit: 'm', optional: true },
      { key: 'status', words: /^status$/, text: true, optional: true },
    ],
  },
  {
    kind: 'directional surveys',
    title: 'Directional surveys',
    columns: [
      well,
      md,
      { key: 'inclination', words: /^(inc|incl|inclination)$/, unit: 'deg' },
      { key: 'azimuth', words: /^(azi|azim|azimuth|azimuth_grid)$/, unit: 'deg' },
    ],
  },
  {
    kind: 'pressures',
    title: 'Formation pressures',
    columns: [
      well,
      md,
      { ...depth, key: 'tvdss', words: /^tvdss$/ },
      { key: 'pressure', words: /^pressure$/, unit: 'Pa' },
    ],
  },
  {
    kind: 'checkshots',
    title: 'Checkshots',
    columns: [
      well,
      md,
      { ...depth, key: 'tvdss', words: /^tvdss$/ },
      twt,
      { key: 'owt', words: /^(owt|one_way_time)$/, unit: 'ms', optional: true },
    ],
    either: ['twt', 'owt'],
  },
  {
    kind: 'fluid samples',
    title: 'Fluid samples',
    columns: [
      { ...well, optional: true },
      { key: 'fluid', words: /^fluid$/, text: true },
      { key: 'density', words: /^density$/, unit: 'kg/m3', optional: true },
      { key: 'fvf', words: /^(formation_volume_factor|fvf|bo|bg)$/ },
    ],
  },
  {
    kind: 'core points',
    title: 'Core points',
    columns: [well, md, { key: 'porosity', words: /^(porosity|phi)$/, unit: '1' }],
  },
  {
    kind: 'facies',
    title: 'Facies intervals',
    columns: [
      well,
      { key: 'from', words: /^(from|from_md|top_md)$/, unit: 'm' },
      { key: 'to', words: /^(to|to_md|base_md)$/, unit: 'm' },
      { key: 'facies', words: /^(facies|lithology)$/, text: true },
    ],
  },
  {
    kind: 'tops',
    title: 'Tops',
    columns: [well, { key: 'top', words: /^(top|marker|surface|pick)$/, text: true }, md],
  },
  {
    kind: 'fault sticks',
    title: 'Fault sticks',
    columns: [
      { key: 'fault', words: /^(fault|fault_name)$/, text: true },
      { key: 'stick', words: /^(stick|stick_number|segment)$/ },
      x,
      y,
      twt,
      depth,
    ],
    either: ['twt', 'depth'],
  },
  {
    kind: 'polygon',
    title: 'Polygon',
    columns: [{ key: 'polygon', words: /^(polygon|outline|name)$/, text: true }, x, y],
  },
  {
    kind: 'horizon',
    title: 'Horizon points',
    columns: [
      x,
      y,
      { key: 'inline', words: /^(inline|il)$/, optional: true },
      { key: 'crossline', words: /^(crossline|xl)$/, optional: true },
      twt,
      depth,
    ],
    either: ['twt', 'depth'],
  },
]; // prettier-ignore

export interface ReadTable {
  spec: TableSpec;
  /** Which column of the file each key was found in, and its unit there. */
  found: Record<string, { column: string; unit: string | null }>;
  /** One array a key: numbers in SI-based project units, or text. */
  numbers: Record<string, Float64Array>;
  texts: Record<string, string[]>;
  rows: number;
  warnings: string[];
}

interface Heading {
  column: string;
  name: string;
  unit: string | null;
}

/** `twt_ms`, `TWT (ms)`, `twt [ms]`: the name and its unit. */
function headingOf(column: string): Heading {
  const plain = column.trim().toLowerCase();
  const bracket = /^(.*?)[\s_]*[([]([^)\]]+)[)\]]$/.exec(plain);
  if (bracket) return { column, name: bracket[1].trim().replace(/[\s-]+/g, '_'), unit: unitNamed(bracket[2]) };
  const name = plain.replace(/[\s-]+/g, '_');
  const parts = name.split('_');
  for (let n = Math.max(1, parts.length - 2); n < parts.length; n++) {
    const tail = parts.slice(n);
    const unit =
      unitNamed(tail.join('_')) ?? (tail.length === 2 ? (unitNamed(tail.join('/')) ?? unitNamed(tail.join(''))) : null);
    if (unit) return { column, name: parts.slice(0, n).join('_'), unit };
    if (tail.join('_') === 'kg_m3') return { column, name: parts.slice(0, n).join('_'), unit: 'kg/m3' };
  }
  return { column, name, unit: null };
}

function match(spec: TableSpec, headings: Heading[]): { found: ReadTable['found']; missing: string[] } {
  const found: ReadTable['found'] = {};
  const missing: string[] = [];
  for (const column of spec.columns) {
    const heading = headings.find((h) => column.words.test(h.name));
    if (heading) found[column.key] = { column: heading.column, unit: heading.unit };
    else if (!column.optional) missing.push(column.key);
  }
  if (spec.either && !spec.either.some((key) => found[key])) missing.push(spec.either.join(' or '));
  return { found, missing };
}

/** Recognise a CSV table by its columns and read it; refuses, naming the missing column, what no kind fits. */
export function readTable(name: string, text: string): ReadTable {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy', comments: '#' });
  const header = parsed.data[0]?.map((cell) => cell.trim()) ?? [];
  if (header.length < 2)
    throw new LithagonError('csv', `${name} cannot be read as a table: it has no row of column names.`, {
      object: name,
      fix: 'Give it a first line that names the columns, such as “well,md_m,twt_ms”.',
    });
  const headings = header.map(headingOf);
  let best: { spec: TableSpec; found: ReadTable['found']; missing: string[] } | null = null;
  for (const spec of TABLES) {
    const { found, missing } = match(spec, headings);
    if (missing.length === 0) {
      best = { spec, found, missing };
      break;
    }
    const worth = Object.keys(found).length - 1.5 * missing.length;
    if (!best || worth > Object.keys(best.found).length - 1.5 * best.missing.length) best = { spec, found, missing };
  }
  if (!best || best.missing.length > 0)
    throw new LithagonError(
      'csv',
      `${name} has columns ${header
        .slice(0, 8)
        .map((h) => `“${h.slice(0, 40)}”`)
        .join(
          ', ',
        )}, which make up no table that is known${best && Object.keys(best.found).length > 1 ? `; for ${best.spec.title.toLowerCase()} it lacks ${best.missing.join(' and ')}` : ''}.`,
      { object: name, fix: 'Rename its columns, or add the missing one.' },
    );
  const body = parsed.data.slice(1);
  const { spec, found } = best;
  const numbers: Record<string, Float64Array> = {};
  const texts: Record<string, string[]> = {};
  const warnings: string[] = [];
  const bad = new Set<number>();
  for (const column of spec.columns) {
    const place = found[column.key];
    if (!place) continue;
    const at = header.indexOf(place.column);
    if (column.text) {
      texts[column.key] = body.map((row) => (row[at] ?? '').trim().slice(0, 200));
      continue;
    }
    const scale = column.unit && place.unit ? factor(place.unit, column.unit) : 1;
    numbers[column.key] = Float64Array.from(body, (row, n) => {
      const cell = (row[at] ?? '').trim();
      const value = cell === '' ? Number.NaN : Number(cell) * scale;
      if (Number.isNaN(value) && !column.optional) bad.add(n);
      return value;
    });
  }
  if (bad.size === body.length)
    throw new LithagonError(
      'csv',
      `${name} has no row with a number in every column that ${spec.title.toLowerCase()} need.`,
      { object: name, fix: 'Check its columns.' },
    );
  if (bad.size > 0)
    warnings.push(
      `${bad.size} of ${body.length} rows lack a number and were left out (first: row ${Math.min(...bad) + 2}).`,
    );
  const keep = body.map((_, n) => n).filter((n) => !bad.has(n));
  for (const key of Object.keys(numbers)) numbers[key] = Float64Array.from(keep, (n) => numbers[key][n]);
  for (const key of Object.keys(texts)) texts[key] = keep.map((n) => texts[key][n]);
  return { spec, found, numbers, texts, rows: keep.length, warnings };
}
