import { LithagonError } from '../../earth/errors.ts';
import { type EarthObject, type Stratigraphy, TOP_COLUMNS, type WellTable } from '../../earth/objects.ts';
import { madeByHand } from '../given.ts';
import { loadedRevision, newId } from '../make.ts';
import { type Top, topsOf, topsOfTable } from './wells.ts';

/** A table that a person changed: its revision follows its rows. */
function withRows(table: WellTable, rows: WellTable['rows']): WellTable {
  return { ...table, rows, revision: loadedRevision('rows', rows) };
}

/** An empty table of a well, drawn by hand. */
export function newTable(kind: 'tops' | 'facies', well: string): WellTable {
  return {
    id: newId(kind),
    kind,
    name: kind === 'tops' ? `${well} picked tops` : `${well} painted facies`,
    stage: 'wells',
    revision: '',
    well,
    columns:
      kind === 'tops'
        ? TOP_COLUMNS
        : [
            { name: 'From MD', unit: 'm' },
            { name: 'To MD', unit: 'm' },
            { name: 'Facies', unit: '' },
          ],
    rows: [],
    madeBy: madeByHand('wells.draw'),
  };
}

const rowOf = (t: Top): WellTable['rows'][number] => [t.name, t.md, t.confidence, t.kind, t.missingM, t.how || null];

/**
 * The table of tops that holds a name, else the one that was picked here, else a new one: what was loaded changes only
 * where its own tops do, and with it what rests on it.
 */
function tableFor(objects: EarthObject[], well: string, name: string): WellTable {
  const tables = objects.filter((o): o is WellTable => o.kind === 'tops' && o.well === well);
  return (
    tables.find((t) => t.rows.some((r) => String(r[0]) === name)) ??
    tables.find((t) => t.madeBy.step === 'wells.draw') ??
    newTable('tops', well)
  );
}

/** An edit of a well's tops: the table before (if there was one) and after. */
export interface TopEdit {
  before: WellTable | null;
  after: WellTable;
}

/** Put a top into a well, or move and change the one of its name; cuts of a fault may be several. */
export function putTop(objects: EarthObject[], well: string, top: Top, was?: Top): TopEdit {
  const table = tableFor(objects, well, was?.name ?? top.name);
  const own = topsOfTable(objects, table);
  const at = own.findIndex((t) =>
    was ? t.name === was.name && t.md === was.md : t.kind === 'top' && t.name === top.name,
  );
  const next = at < 0 ? [...own, top] : own.map((t, n) => (n === at ? top : t));
  const after = withRows({ ...table, columns: TOP_COLUMNS }, next.sort((a, b) => a.md - b.md).map(rowOf));
  return { before: objects.some((o) => o.id === table.id) ? table : null, after };
}

export function removeTop(objects: EarthObject[], well: string, top: Top): TopEdit {
  const table = tableFor(objects, well, top.name);
  const own = topsOfTable(objects, table);
  const left = table.rows.filter((_, n) => !(own[n].name === top.name && own[n].md === top.md));
  return { before: table, after: withRows(table, left) };
}

/** A top under another name in every well that has it. */
export function renameTop(objects: EarthObject[], from: string, to: string): TopEdit[] {
  return objects
    .filter((o): o is WellTable => o.kind === 'tops' && o.rows.some((r) => String(r[0]) === from))
    .map((table) => ({
      before: table,
      after: withRows(
        table,
        table.rows.map((r) => (String(r[0]) === from ? [to, ...r.slice(1)] : r)),
      ),
    }));
}

/** The project's stratigraphic column, where it has one. */
export function stratigraphyOf(objects: EarthObject[]): Stratigraphy | undefined {
  return objects.find((o): o is Stratigraphy => o.kind === 'stratigraphic column');
}

/**
 * Refuse a top at a depth that would cross another by the order of the stratigraphic column, by name. Tops at one depth
 * are beds that are missing, and cross nothing.
 */
export function checkOrder(objects: EarthObject[], well: string, name: string, md: number): void {
  const order = stratigraphyOf(objects)?.units.map((u) => u.top) ?? [];
  const own = order.indexOf(name);
  if (own < 0) return;
  for (const other of topsOf(objects, well)) {
    const at = order.indexOf(other.name);
    if (other.kind !== 'top' || at < 0 || at === own) continue;
    if ((at < own && md < other.md - 0.01) || (at > own && md > other.md + 0.01))
      throw new LithagonError(
        'order',
        `${name} would lie ${at < own ? 'above' : 'below'} ${other.name} in ${well}, and the stratigraphic column has it ${at < own ? 'below' : 'above'}.`,
        { object: well, fix: 'Pick it elsewhere, or change the order of the column. Nothing was changed.' },
      );
  }
}

/** Colours of units, youngest first, muted like drawn rock; used again from the start after the last. */
export const UNIT_COLORS = [
  '#d9c9a3',
  '#c8a98a',
  '#b9bf9a',
  '#9fb0a8',
  '#e2c36f',
  '#a9a0b5',
  '#8fb6c4',
  '#b98f86',
  '#a7b58b',
  '#cfb3a1',
];

/** A column from the tops of all wells, by their mean depth. */
export function columnOfTops(objects: EarthObject[]): Stratigraphy {
  const depths = new Map<string, number[]>();
  for (const well of objects)
    if (well.kind === 'well')
      for (const top of topsOf(objects, well.name))
        if (top.kind === 'top') depths.set(top.name, [...(depths.get(top.name) ?? []), top.md - well.kbM]);
  const mean = (v: number[]) => v.reduce((a, b) => a + b, 0) / v.length;
  const names = [...depths].sort((a, b) => mean(a[1]) - mean(b[1])).map(([name]) => name);
  return withUnits(
    {
      id: newId('stratigraphic column'),
      kind: 'stratigraphic column',
      name: 'Stratigraphic column',
      stage: 'wells',
      revision: '',
      units: [],
      madeBy: madeByHand('wells.draw'),
    },
    names.map((top, n) => ({
      top,
      zone: top.replace(/\s+top$/i, ''),
      color: UNIT_COLORS[n % UNIT_COLORS.length],
      pattern: 'none',
      unconformity: /unconformity/i.test(top),
    })),
  );
}

/** The column with other units; its revision follows what the order and the names are, not colours. */
export function withUnits(column: Stratigraphy, units: Stratigraphy['units']): Stratigraphy {
  return {
    ...column,
    units,
    revision: loadedRevision(
      'units',
      units.map((u) => [u.top, u.zone, u.unconformity]),
    ),
  };
}

/** Paint a facies over an interval of a well; what was painted there before gives way. `null` takes it out. */
export function paintFacies(table: WellTable, from: number, to: number, facies: string | null): WellTable {
  const [a, b] = [Math.min(from, to), Math.max(from, to)];
  const rows: [number, number, string][] = [];
  for (const row of table.rows) {
    const [top, base, name] = [Number(row[0]), Number(row[1]), String(row[2])];
    if (base <= a || top >= b) rows.push([top, base, name]);
    else {
      if (top < a) rows.push([top, a, name]);
      if (base > b) rows.push([b, base, name]);
    }
  }
  if (facies !== null && b > a) rows.push([a, b, facies]);
  rows.sort((p, q) => p[0] - q[0]);
  // beds of one kind that touch are one bed
  const joined: [number, number, string][] = [];
  for (const row of rows) {
    const last = joined.at(-1);
    if (last && last[2] === row[2] && row[0] - last[1] < 1e-6) last[1] = row[1];
    else joined.push(row);
  }
  return withRows(table, joined);
}
