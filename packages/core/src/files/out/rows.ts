import { type Units, unitsOf } from '../../earth/display.ts';
import { csvText } from '../../formats/csv/write.ts';
import type { Out } from './out.ts';

/** A number with so many places, NaN as it is. */
export const round = (v: number, places: number) => (Number.isNaN(v) ? v : Number(v.toFixed(places)));

/** A column's name with its unit, plain enough for any program: “Depth in well (m TVDSS)” → `depth_in_well_m_tvdss`. */
export const plain = (name: string, unit: string) =>
  `${name} ${unit}`
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_|_$/g, '');

/** Column names, and rows. */
export type Rows = [head: string[], rows: unknown[][]];

/** What a table is written with: names of map coordinates, and those in the unit of files, to a millimetre. */
export interface RowsOut extends Out {
  xy: [string, string];
  at(v: number): number;
}

/** A kind's rows as CSV, lengths in the units of the project. */
export const csv =
  <O>(rows: (object: O, out: RowsOut) => Rows | Promise<Rows>) =>
  async (out: Out, object: O): Promise<string> => {
    const { map, frame } = out;
    const xy: [string, string] = [`x_${map.unit}`, `y_${map.unit}`];
    // millimetres, where a place is computed from a path to less than that
    const made = await rows(object, { ...out, xy, at: (v) => round(v * map.scale, 3) });
    return csvText(...inProjectUnits(made, unitsOf(frame)));
  };

/** Lengths of a table in the units of the project: `md_m` becomes `md_ft` where that has feet. Map coordinates are not lengths. */
export function inProjectUnits([head, rows]: Rows, units: Units): Rows {
  if (units.of('m') === 'm') return [head, rows];
  const isLength = head.map((name) => /(?<!^[xy])_m(_tvdss)?$/.test(name));
  return [
    head.map((name, n) => (isLength[n] ? name.replace(/_m(?=(_tvdss)?$)/, '_ft') : name)),
    rows.map((row) =>
      row.map((cell, n) => (isLength[n] && typeof cell === 'number' ? round(units.to(cell, 'm'), 3) : cell)),
    ),
  ];
}
