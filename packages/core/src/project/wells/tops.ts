import { LithagonError } from '../../earth/errors.ts';
import { type EarthObject, TOP_COLUMNS, type WellTable } from '../../earth/objects.ts';
import { madeByHand } from '../given.ts';
import { loadedRevision, newId } from '../make.ts';
import { type Top, topsOf, topsOfTable } from './wells.ts';

/** A table that a person changed: its revision follows its rows. */
export function withRows(table: WellTable, rows: WellTable['rows']): WellTable {
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

/** A top under another name in every well that has it; refused where a well has a top of that name already. */
export function renameTop(objects: EarthObject[], from: string, to: string): TopEdit[] {
  const tables = objects.filter((o): o is WellTable => o.kind === 'tops' && o.rows.some((r) => String(r[0]) === from));
  // one fault may cut a well twice, but a bed has one top
  const isTop = (well: string, name: string) => topsOf(objects, well).some((t) => t.name === name && t.kind === 'top');
  const both = tables.find(({ well }) => isTop(well, from) && isTop(well, to));
  if (both)
    throw new LithagonError('names', `${both.well} has both ${from} and ${to}, which cannot be one top.`, {
      object: both.well,
      fix: 'Delete one of them there first. Nothing was renamed.',
    });
  return tables.map((table) => ({
    before: table,
    after: withRows(
      table,
      table.rows.map((r) => (String(r[0]) === from ? [to, ...r.slice(1)] : r)),
    ),
  }));
}
