import { LithagonError } from '../../earth/errors.ts';
import { factor, unitNamed } from '../../earth/units.ts';
import { extentOf } from '../../numerics/extent.ts';
import { cellsOf, degreesOf, hasDecimalComma, isNothing, numberOf } from './dialect.ts';
import { TABLES, type TableSpec } from './tableKinds.ts';

/** What a person says of a table over what was found: its kind, columns by key (empty: none), units by key. */
export interface Mapping {
  kind?: string;
  columns: Record<string, string>;
  units: Record<string, string>;
  /** The well that all rows are of, where no column says it. */
  well?: string;
  /** Height (m) of the kelly bushing of all wells, where no column says it. */
  kb?: number;
}

/** The mapping among declarations such as `kind`, `column.md`, `unit.md` and `well`. */
export function mappingOf(declare: Record<string, string>): Mapping {
  const under = (prefix: string) =>
    Object.fromEntries(
      Object.entries(declare)
        .filter(([key]) => key.startsWith(prefix))
        .map(([key, value]) => [key.slice(prefix.length), value]),
    );
  return {
    kind: declare.kind || undefined,
    columns: under('column.'),
    units: under('unit.'),
    well: declare.well?.trim() || undefined,
    kb: declare.kb?.trim() ? Number(declare.kb) : undefined,
  };
}

export interface ReadTable {
  spec: TableSpec;
  /** Which column of the file each key was found in, and its unit there. */
  found: Record<string, { column: string; unit: string | null; unknown?: string }>;
  /** One array a key: numbers in SI units (map coordinates as they stand in the file), or text. */
  numbers: Record<string, Float64Array>;
  texts: Record<string, string[]>;
  rows: number;
  /** All columns of the file. */
  columns: string[];
  /** Row of the file on which each stands. */
  lines: number[];
  warnings: string[];
}

interface Heading {
  column: string;
  name: string;
  unit: string | null;
  /** What it gives as a unit that is none. */
  unknown?: string;
}

/** `twt_ms`, `TWT (ms)`, `twt [ms]`: the name and its unit. */
function headingOf(column: string, unitBelow: string): Heading {
  const plain = column.trim().toLowerCase();
  const below = unitBelow ? unitNamed(unitBelow) : null;
  const bracket = /^(.*?)[\s_]*[([]([^)\]]+)[)\]]$/.exec(plain);
  if (bracket) {
    const unit = unitNamed(bracket[2]) ?? below;
    return { column, name: bracket[1].trim().replace(/[\s-]+/g, '_'), unit, unknown: unit ? undefined : bracket[2] };
  }
  const name = plain.replace(/[\s-]+/g, '_');
  const parts = name.split('_');
  for (let n = Math.max(1, parts.length - 2); n < parts.length; n++) {
    const tail = parts.slice(n);
    const unit =
      unitNamed(tail.join('_')) ?? (tail.length === 2 ? (unitNamed(tail.join('/')) ?? unitNamed(tail.join(''))) : null);
    if (unit) return { column, name: parts.slice(0, n).join('_'), unit };
    if (tail.join('_') === 'kg_m3') return { column, name: parts.slice(0, n).join('_'), unit: 'kg/m3' };
  }
  return { column, name, unit: below };
}

function match(
  spec: TableSpec,
  headings: Heading[],
  body: string[][],
  mapping: Mapping,
): Pick<TableGuess, 'found' | 'missing' | 'told'> {
  const found: ReadTable['found'] = {};
  const missing: string[] = [];
  const told: string[] = [];
  const taken = new Set(Object.values(mapping.columns));
  const names = (at: number) => new Set(body.map((row) => row[at])).size;
  const differs = (at: number) => names(at) === body.length;
  const shared = (at: number) => 3 * names(at) <= body.length;
  const named = (words: RegExp | undefined, fits: (at: number) => boolean = () => true) =>
    headings.find((h, n) => !taken.has(h.column) && words?.test(h.name) && fits(n));
  for (const column of spec.columns) {
    const said = Object.hasOwn(mapping.columns, column.key) ? mapping.columns[column.key] : undefined;
    const heading =
      said === undefined
        ? (named(column.words) ?? named(column.wordsOfOne, differs) ?? named(column.wordsOfMany, shared))
        : headings.find((h) => h.column === said);
    const unit = mapping.units[column.key] ? unitNamed(mapping.units[column.key]) : (heading?.unit ?? null);
    if (heading) found[column.key] = { column: heading.column, unit, unknown: unit ? undefined : heading.unknown };
    else if (!column.optional) (column.told ? told : missing).push(column.told ? column.key : column.label);
  }
  const label = (key: string) => spec.columns.find((c) => c.key === key)?.label ?? key;
  for (const group of spec.either ?? [])
    if (!group.some((key) => found[key])) missing.push(group.map(label).join(' or '));
  return { found, missing, told };
}

/** A table's cells and what it is taken for, with what is still missing for that. */
export interface TableGuess {
  header: string[];
  body: string[][];
  firstLine: number;
  spec: TableSpec;
  found: ReadTable['found'];
  missing: string[];
  /** Keys that no column has and that are told for the whole file. */
  told: string[];
}

/** What kind of table a text is by its columns, the nearest where none fits. */
export function guessTable(name: string, text: string, mapping: Mapping): TableGuess {
  const { header, units, body, firstLine } = cellsOf(name, text);
  const headings = header.map((column, n) => headingOf(column, units[n]));
  const matched = TABLES.filter((t) => !mapping.kind || t.kind === mapping.kind).map((spec) => ({
    spec,
    ...match(spec, headings, body, mapping),
  }));
  // points have nothing but places and names: a table with more that is known is one of something else, or lacks a column
  const more = matched.some(({ spec, found }) =>
    spec.columns.some((c) => {
      const column = c.key !== 'x' && c.key !== 'y' && found[c.key]?.column;
      const heading = column ? headings.find((h) => h.column === column) : undefined;
      return heading && spec.kind !== 'points' && c.words.test(heading.name);
    }),
  );
  const fits = matched.filter((m) => m.missing.length === 0 && (m.spec.kind !== 'points' || mapping.kind || !more));
  // what needs telling fits less well than what does not
  const best =
    fits.find((m) => m.told.length === 0) ??
    fits[0] ??
    matched
      .filter((m) => m.spec.kind !== 'points' || mapping.kind || !more)
      .sort(
        (a, b) =>
          Object.keys(b.found).length - 1.5 * b.missing.length - (Object.keys(a.found).length - 1.5 * a.missing.length),
      )[0];
  if (!best)
    throw new LithagonError('declare', `“${mapping.kind}” is no kind of table that is known.`, {
      object: name,
      fix: `One of: ${TABLES.map((t) => t.kind).join(', ')}.`,
    });
  return { header, body, firstLine, ...best };
}

/** Refuse a table that lacks a column, naming it. */
export function refuseIncomplete(name: string, { header, spec, found, missing }: TableGuess): void {
  if (missing.length === 0) return;
  throw new LithagonError(
    'csv',
    `${name} has columns ${header
      .slice(0, 8)
      .map((h) => `“${h.slice(0, 40)}”`)
      .join(
        ', ',
      )}, which make up no table that is known${Object.keys(found).length > 1 ? `; for ${spec.title.toLowerCase()} it lacks ${missing.join(' and ')}` : ''}.`,
    {
      object: name,
      fix:
        Object.keys(found).length > 0
          ? 'Say which column is which, or add the missing one.'
          : 'Say what it is a table of, and which column is which.',
    },
  );
}

/** Recognise a table by its columns, or by what is said of them, and read it; refuses what no kind fits. */
export function readTable(name: string, text: string, mapping: Mapping = { columns: {}, units: {} }): ReadTable {
  const guess = guessTable(name, text, mapping);
  refuseIncomplete(name, guess);
  const { header, body, spec, found } = guess;
  const comma = hasDecimalComma(body);
  const numbers: Record<string, Float64Array> = {};
  const texts: Record<string, string[]> = {};
  const warnings: string[] = [];
  const bad = new Set<number>();
  const wide = body.flatMap((row, n) => (row.slice(header.length).some((cell) => cell !== '') ? [n] : []));
  if (wide.length > 0)
    warnings.push(
      `${wide.length} ${wide.length === 1 ? 'row has' : 'rows have'} more cells than there are columns (first: row ${wide[0] + guess.firstLine}); what is beyond them was left out.`,
    );
  for (const column of spec.columns) {
    const place = found[column.key];
    if (!place) continue;
    const at = header.indexOf(place.column);
    if (column.text) {
      texts[column.key] = body.map((row) => (row[at] ?? '').slice(0, 200));
      continue;
    }
    // map coordinates wait until it is known what system they are in
    const onMap = column.key === 'x' || column.key === 'y';
    const scale = column.unit && place.unit && !onMap ? factor(place.unit, column.unit) : 1;
    const cells = onMap ? body.map((row) => row[at] ?? '') : [];
    const degrees =
      cells.some((cell) => !Number.isNaN(degreesOf(cell))) &&
      cells.every((cell) => Number.isNaN(numberOf(cell, comma)));
    if (degrees) place.unit = 'deg';
    if (place.unknown && column.unit)
      warnings.push(
        `“${place.column}”: “${place.unknown.slice(0, 30)}” is no unit that is known here; its numbers were taken as ${column.unit}.`,
      );
    const texted: number[] = [];
    const read = degrees ? degreesOf : (cell: string) => numberOf(cell, comma);
    numbers[column.key] = Float64Array.from(body, (row, n) => {
      const cell = row[at] ?? '';
      const value = read(cell) * scale;
      if (Number.isNaN(value)) {
        if (!isNothing(cell)) texted.push(n);
        if (!column.optional) bad.add(n);
      }
      return value;
    });
    if (texted.length > 0 && texted.length < body.length)
      warnings.push(
        `“${place.column}” has ${texted.length} ${texted.length === 1 ? 'cell' : 'cells'} that ${texted.length === 1 ? 'is no number' : 'are no numbers'} (first: “${(body[texted[0]][at] ?? '').slice(0, 30)}” in row ${texted[0] + guess.firstLine}).`,
      );
  }
  for (const group of spec.either ?? [])
    body.forEach((_, n) => {
      if (group.every((key) => !numbers[key] || Number.isNaN(numbers[key][n])) && !group.some((key) => texts[key]))
        bad.add(n);
    });
  if (bad.size === body.length)
    throw new LithagonError(
      'csv',
      `${name} has no row with a number in every column that ${spec.title.toLowerCase()} need.`,
      { object: name, fix: 'Check its columns.' },
    );
  if (bad.size > 0)
    warnings.unshift(
      `${bad.size} of ${body.length} rows lack a number and were left out (first: row ${extentOf(bad)[0] + guess.firstLine}).`,
    );
  if (guess.told.includes('kb')) numbers.kb = new Float64Array(body.length).fill(mapping.kb ?? Number.NaN);
  if (guess.told.includes('well')) texts.well = body.map(() => mapping.well ?? '');
  const keep = body.map((_, n) => n).filter((n) => !bad.has(n));
  for (const key of Object.keys(numbers)) numbers[key] = Float64Array.from(keep, (n) => numbers[key][n]);
  for (const key of Object.keys(texts)) texts[key] = keep.map((n) => texts[key][n]);
  return {
    spec,
    found,
    numbers,
    texts,
    columns: header,
    rows: keep.length,
    lines: keep.map((n) => n + guess.firstLine),
    warnings,
  };
}
