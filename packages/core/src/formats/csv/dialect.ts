import Papa from 'papaparse';
import { LithagonError } from '../../earth/errors.ts';
import { unitNamed } from '../../earth/units.ts';
import { unguarded } from './guard.ts';

/** The cells of a table as text, whatever its separators. */
export interface Cells {
  header: string[];
  /** Units from a row of their own below the header; empty strings where there is none. */
  units: string[];
  body: string[][];
  /** Line of the file (from 1) on which the body's first row stands. */
  firstLine: number;
}

const isNumber = (cell: string) => cell !== '' && Number.isFinite(Number(cell.replace(',', '.')));
/** What stands for “nothing” in numeric columns of files of the trade. */
const NOTHING = /^(|-|na|n\/a|nan|null|none|-999(\.25|9|99)?(\.0*)?|-?1(\.0*)?e\+?30)$/i;

/** Whether a cell says that there is no value, as against a text where a number should be. */
export const isNothing = (cell: string) => NOTHING.test(cell.trim());

/** A number as written with a point or a comma, NaN for an empty cell or a value that stands for nothing. */
export function numberOf(cell: string, comma: boolean): number {
  const text = cell.trim();
  if (NOTHING.test(text)) return Number.NaN;
  const value = Number(comma ? text.replace(/\./g, '').replace(',', '.') : text);
  return Number.isFinite(value) ? value : Number.NaN;
}

/** `12°34'56.7"S`, `S 12 34 56,7`, `-12:34:56.7`: degrees, minutes and perhaps seconds, with a sign or a side; `s` after
 * a number is of seconds, `S` south. */
const SEXAGESIMAL =
  /^([NSEWnsew])?\s*([+-])?(\d{1,3})(?:\s*[°º:dD]\s*|\s+)(\d{1,2}(?:[.,]\d+)?)(?:\s*['′:mM]\s*|\s+|$)(?:(\d{1,2}(?:[.,]\d+)?)\s*["″s]?\s*)?([NSEWnsew])?$/;

/** An angle (degrees; south and west negative) written in degrees, minutes and seconds, NaN for what is not. */
export function degreesOf(cell: string): number {
  const found = SEXAGESIMAL.exec(cell.trim());
  if (!found) return Number.NaN;
  const [, before, sign, degrees, minutes, seconds = '0', after] = found;
  const [m, s] = [minutes, seconds].map((part) => Number(part.replace(',', '.')));
  if (Number(degrees) > 180 || m >= 60 || s >= 60) return Number.NaN;
  const turned = sign === '-' || /[SW]/i.test(before ?? after ?? '');
  return (turned ? -1 : 1) * (Number(degrees) + m / 60 + s / 3600);
}

/** Whether numbers have a decimal comma: some cell only makes sense so, and none has a point. */
export function hasDecimalComma(body: string[][]): boolean {
  let comma = false;
  for (const row of body.slice(0, 200))
    for (const cell of row) {
      if (/^\s*-?\d*\.\d+\s*$/.test(cell)) return false;
      if (/^\s*-?\d+,\d+\s*$/.test(cell)) comma = true;
    }
  return comma;
}

/** Characters from the beginning of a text by which its dialect is told. */
const LOOK = 1 << 15;

const byBlanks = (text: string): string[][] =>
  text
    .split(/\r\n|\n|\r/)
    .filter((line) => line.trim() !== '' && !line.startsWith('#'))
    .map((line) => line.trim().split(/\s+/));

/** Part of the first rows that have as many cells as most of them, 0 where that is one. */
function evenness(rows: string[][]): number {
  const some = rows.slice(0, 50);
  const usual = usualWidth(some);
  return usual < 2 ? 0 : some.filter((r) => r.length === usual).length / some.length;
}

/** How many cells most rows have, the most of several such numbers; 0 of no rows. */
function usualWidth(rows: string[][]): number {
  const counts = new Map<number, number>();
  for (const r of rows) counts.set(r.length, (counts.get(r.length) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0]?.[0] ?? 0;
}

/** Whether a first row is one of numbers and texts as the rows below it are, half numbers or more: no row of names. */
function isRowLike(first: string[], below: string[][]): boolean {
  const numbers = first.filter(isNumber).length;
  return (
    below.length > 0 &&
    numbers >= first.length / 2 &&
    below.every((row) => row.length === first.length && row.every((cell, n) => isNumber(cell) === isNumber(first[n])))
  );
}

/**
 * Split a text into a table: separators are found, lines before the row of names are skipped, a row of units below it is
 * understood. A table without names gets “Column 1”, “Column 2” ….
 */
export function cellsOf(name: string, text: string): Cells {
  const plain = text.replace(/^\uFEFF/, '').replace(/\0/g, '');
  const parsed = Papa.parse<string[]>(plain, { skipEmptyLines: 'greedy', comments: '#' });
  let rows = parsed.data;
  // columns set apart by blanks; a comma may be one of decimals, of which the row of names has none
  const head = byBlanks(plain.slice(0, LOOK)).slice(0, plain.length > LOOK ? -1 : undefined);
  const even = evenness(rows);
  if (even < 0.5 ? evenness(head) >= even : even < 1 && evenness(head) === 1) rows = byBlanks(plain);
  rows = rows.map((row) => row.map((cell) => unguarded(cell.trim())));
  const refuse = (): never => {
    throw new LithagonError('csv', `${name} cannot be read as a table: it has no row of column names.`, {
      object: name,
      fix: 'Give it a first line that names the columns, such as “well,md_m,twt_ms”.',
    });
  };
  const usual = usualWidth(rows.slice(0, 200));
  if (usual < 2) refuse();
  // lines above the table are remarks
  let at = rows.findIndex((row) => row.length >= usual - 1 && row.length >= 2);
  if (at < 0) at = 0;
  const first = rows[at];
  if (first.every((cell) => isNumber(cell) || cell === '') || isRowLike(first, rows.slice(at + 1, at + 6))) {
    const header = first.map((_, n) => `Column ${n + 1}`);
    return { header, units: header.map(() => ''), body: rows.slice(at), firstLine: at + 1 };
  }
  const next = rows[at + 1] ?? [];
  const bare = next.map((cell) => cell.replace(/^[([]|[)\]]$/g, ''));
  const areUnits =
    next.length > 1 &&
    bare.some((cell) => unitNamed(cell) !== null) &&
    bare.every((cell) => /^[-_]*$/.test(cell) || (!isNumber(cell) && unitNamed(cell) !== null));
  return {
    header: first,
    units: first.map((_, n) => (areUnits ? (bare[n] ?? '') : '')),
    body: rows.slice(at + (areUnits ? 2 : 1)),
    firstLine: at + (areUnits ? 3 : 2),
  };
}
