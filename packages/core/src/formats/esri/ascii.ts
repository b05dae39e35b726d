import { LithagonError } from '../../earth/errors.ts';

/** A raster in map coordinates: rows from north to south, as both grid formats have it. */
export interface GridFile {
  rows: number;
  columns: number;
  /** `[row][column]`, NaN where there is none. */
  values: Float32Array;
  /** Map position of the middle of cell (0, 0), and the ways to the next row and column, in the file's units. */
  origin: [number, number];
  perRow: [number, number];
  perColumn: [number, number];
  /** `EPSG:n` where the file says so. */
  crs?: string;
  /** What a file says of its system where that has no code, to be matched. */
  keys?: Record<string, unknown>;
  wkt?: string;
  /** Metres in its unit of map coordinates, where it gives one of its own. */
  metres?: number;
  /** What its values are in, where it says so. */
  unit?: string;
  /** Name of what its values are. */
  title?: string;
  /** What was done to its values, or left out, as sentences. */
  notes?: string[];
}

/** Read an ESRI ASCII grid (ncols, nrows, xllcorner or xllcenter, cellsize, NODATA_value). */
export function parseAsciiGrid(name: string, text: string): GridFile {
  const refuse = (why: string): never => {
    throw new LithagonError('ascii-grid', `${name} cannot be read as an ASCII grid: ${why}.`, {
      object: name,
      fix: 'It may have been cut short: copy it again.',
    });
  };
  const head = new Map<string, number>();
  let at = 0;
  for (;;) {
    const line = /^[ \t]*([a-z_]+)[ \t]+(\S+)[ \t]*(?:\r\n|\n|\r)/i.exec(text.slice(at, at + 400));
    if (!line) break;
    head.set(line[1].toLowerCase(), Number(line[2]));
    at += line[0].length;
  }
  const [columns, rows, size] = [head.get('ncols') ?? 0, head.get('nrows') ?? 0, head.get('cellsize') ?? Number.NaN];
  if (!(Number.isInteger(columns) && Number.isInteger(rows) && columns > 1 && rows > 1 && size > 0))
    refuse('its header lacks ncols, nrows or cellsize');
  if (columns * rows > 100e6) refuse(`it says it has ${columns} × ${rows} cells, which is too many`);
  const nothing = head.get('nodata_value') ?? -9999;
  const left = head.get('xllcenter') ?? (head.get('xllcorner') ?? Number.NaN) + size / 2;
  const bottom = head.get('yllcenter') ?? (head.get('yllcorner') ?? Number.NaN) + size / 2;
  if (!Number.isFinite(left) || !Number.isFinite(bottom))
    refuse('its header does not say where its lower left corner is');
  const values = new Float32Array(rows * columns).fill(Number.NaN);
  const words = text.slice(at).split(/\s+/).filter(Boolean);
  if (words.length < values.length) refuse(`it has ${words.length} of its ${values.length} values`);
  const odd: number[] = [];
  for (let n = 0; n < values.length; n++) {
    const value = Number(words[n]);
    if (Number.isNaN(value) && !/^[-+]?nan$/i.test(words[n])) odd.push(n);
    // the largest of floats stands for nothing in many files, and is not always written alike in head and cells
    values[n] = value === nothing || !(Math.abs(value) < 1e30) ? Number.NaN : value;
  }
  return {
    rows,
    columns,
    values,
    origin: [left, bottom + (rows - 1) * size],
    perRow: [0, -size],
    perColumn: [size, 0],
    notes: [
      ...(odd.length > 0
        ? [
            `${odd.length} ${odd.length === 1 ? 'cell is no number' : 'cells are no numbers'} (first “${words[odd[0]].slice(0, 20)}” in row ${1 + Math.floor(odd[0] / columns)}, column ${1 + (odd[0] % columns)} of the grid): taken as empty.`,
          ]
        : []),
      ...(words.length > values.length
        ? [`It has ${words.length - values.length} more values than its header says cells; they were left out.`]
        : []),
    ],
  };
}
