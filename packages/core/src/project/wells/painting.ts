import type { WellTable } from '../../earth/objects.ts';
import { withRows } from './tops.ts';

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
