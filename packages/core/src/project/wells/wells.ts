import {
  type EarthObject,
  type Kind,
  type ObjectOf,
  TOP_COLUMNS,
  TVD_COLUMN,
  type Well,
  type WellTable,
} from '../../earth/objects.ts';
import { mdAtTvdss, type WellPath, wellPath } from '../../wells/path.ts';
import { pathOfLine } from '../lines.ts';

/** What names a well or line whose position is not there yet: it waits for it, whatever order files came in. */
export function waitingFor(objects: EarthObject[]): Map<string, string> {
  const wells = new Set(objects.filter((o) => o.kind === 'well').map((o) => o.name));
  const out = new Map<string, string>();
  for (const object of objects)
    if ('well' in object && object.well !== '' && !wells.has(object.well))
      out.set(object.id, `the head of well ${object.well}`);
    else if (object.kind === 'seismic line' && !pathOfLine(objects, object))
      out.set(object.id, `navigation of line ${object.name}`);
  return out;
}

/** The table of a kind that belongs to a well, or undefined. */
export function tableOf(objects: EarthObject[], well: string, kind: WellTable['kind']): WellTable | undefined {
  return objects.find((o): o is WellTable => o.kind === kind && 'well' in o && o.well === well);
}

/** A top or a fault cut of a well. */
export interface Top {
  name: string;
  md: number;
  /** 0 to 1, where it was said. */
  confidence: number | null;
  kind: 'top' | 'fault cut';
  /** Section that a cut misses (positive) or repeats (negative), m, where it is known. */
  missingM: number | null;
  /** How it came, where it was not loaded. */
  how: string;
}

/**
 * Measured depth of rows about a well: their own, else where its path first comes to their TVDSS, or TVD from the kelly
 * bushing; NaN where that takes a head which is not there.
 */
export function mdsOf(objects: EarthObject[], name: string) {
  const well = objects.find((o): o is Well => o.kind === 'well' && o.name === name);
  let path: WellPath | undefined;
  return (md: unknown, tvdss: unknown, tvd: unknown): number => {
    if (typeof md === 'number') return md;
    const kb = well?.kbM ?? Number.NaN;
    const depth = typeof tvdss === 'number' ? tvdss : typeof tvd === 'number' ? tvd - kb : Number.NaN;
    if (!well || Number.isNaN(depth)) return Number.NaN;
    path ??= pathOf(objects, well);
    return mdAtTvdss(path, depth);
  };
}

/**
 * Rows of a table of tops, in its order; a name that says it is a fault is taken for a cut. A row that gives no measured
 * depth has one as soon as the head of its well is there, and follows its path.
 */
export function topsOfTable(objects: EarthObject[], table: WellTable): Top[] {
  const column = (name: string) => table.columns.findIndex((c) => c.name === name);
  const [name, md, confidence, kind, missing, how] = TOP_COLUMNS.map((c) => column(c.name));
  const [tvdss, tvd] = [column('TVDSS'), column(TVD_COLUMN)];
  const mdOf = mdsOf(objects, table.well);
  return table.rows.map((row) => ({
    name: String(row[name]),
    md: mdOf(row[md], row[tvdss], row[tvd]),
    confidence: typeof row[confidence] === 'number' ? row[confidence] : null,
    kind: row[kind] === 'fault cut' || (!row[kind] && /\bfault\b/i.test(String(row[name]))) ? 'fault cut' : 'top',
    missingM: typeof row[missing] === 'number' ? row[missing] : null,
    how: typeof row[how] === 'string' ? row[how] : '',
  }));
}

/** Tops and fault cuts of a well by depth; of several tables the first that names a top is believed. */
export function topsOf(objects: EarthObject[], well: string): Top[] {
  const out: Top[] = [];
  for (const table of objects)
    if (table.kind === 'tops' && table.well === well)
      for (const top of topsOfTable(objects, table))
        if (Number.isFinite(top.md) && (top.kind === 'fault cut' || !out.some((t) => t.name === top.name)))
          out.push(top);
  return out.sort((a, b) => a.md - b.md);
}

/** The relation of a well that is in use: the one that was made active or accepted last. */
export function activeRelation(objects: EarthObject[], well: string): ObjectOf<'time-depth relation'> | undefined {
  const when = (o: ObjectOf<'time-depth relation'>) => o.activated ?? o.madeBy.started;
  return objects
    .filter((o): o is ObjectOf<'time-depth relation'> => o.kind === 'time-depth relation' && o.well === well)
    .reduce<ObjectOf<'time-depth relation'> | undefined>((a, b) => (a && when(a) >= when(b) ? a : b), undefined);
}

/** What of a kind belongs to a well; of time–depth relations only the active one. */
export function companionsOf(objects: EarthObject[], well: string, kind: Kind): EarthObject[] {
  if (kind === 'time-depth relation') return [activeRelation(objects, well) ?? []].flat();
  return objects.filter((o) => o.kind === kind && 'well' in o && o.well === well);
}

/** Paths worked out so far, by head and survey: objects are never changed in place, so that another survey is another key. */
const paths = new WeakMap<Well, { survey: WellTable | undefined; path: WellPath }>();

/** Path of a well from its head and, where there is one, its directional survey; vertical otherwise. */
export function pathOf(objects: EarthObject[], well: Well): WellPath {
  const survey = tableOf(objects, well.name, 'directional surveys');
  const known = paths.get(well);
  if (known && known.survey === survey) return known.path;
  const stations = (survey?.rows ?? []).map(
    (r) => [Number(r[0]), Number(r[1]), Number(r[2])] as [number, number, number],
  );
  const path = wellPath(well.x, well.y, well.kbM, stations, well.totalMdM);
  paths.set(well, { survey, path });
  return path;
}
