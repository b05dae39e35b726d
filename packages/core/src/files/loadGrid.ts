import { type BinGrid, toIndex, toMap } from '../earth/binGrid.ts';
import type { CrsRow } from '../earth/crs.ts';
import { unitsOf } from '../earth/display.ts';
import { LithagonError } from '../earth/errors.ts';
import type { QuantityMap } from '../earth/objects.ts';
import { factor, unitNamed } from '../earth/units.ts';
import { type GridFile, parseAsciiGrid } from '../formats/esri/ascii.ts';
import { parseGeotiff } from '../formats/geotiff/read.ts';
import { systemOfKeys } from '../formats/geotiff/system.ts';
import { parseNetcdf } from '../formats/netcdf/grid.ts';
import { type ByteSource, readText } from '../formats/source.ts';
import { type SystemOfText, systemOfWkt } from '../formats/wkt/match.ts';
import { canonicalJson } from '../numerics/hash.ts';
import { leastSquares } from '../numerics/leastSquares.ts';
import { freeName, loadedRevision, madeByLoading, newId } from '../project/make.ts';
import { writeWhole } from '../storage/arrays.ts';
import { placementFor } from './coordinates.ts';
import { horizonOnBinGrid, titleOfFile } from './loadHorizon.ts';
import type { Loaded, Loading } from './loading.ts';
import { refuseUnknown } from './loadShapes.ts';
import type { Declarations, FileFormat, Question } from './report.ts';

/** Largest binary grid that is taken into memory. */
const MOST_BYTES = 1e9;

/** A grid, and where its file has several the names of all. */
export async function readGrid(
  source: ByteSource,
  format: FileFormat,
  declare: Declarations,
): Promise<{ grid: GridFile; names: string[] }> {
  const { name, size } = source;
  if (format === 'ESRI ASCII grid') return { grid: parseAsciiGrid(name, await readText(source)), names: [] };
  if (size > MOST_BYTES)
    throw new LithagonError('size', `${name} is ${(size / 1e6).toFixed(0)} MB long.`, {
      object: name,
      fix: `Grids up to ${MOST_BYTES / 1e6} MB are read. Nothing was loaded.`,
    });
  const bytes = await source.read(0, size);
  if (format === 'netCDF') return parseNetcdf(name, bytes, declare.variable);
  return { grid: await parseGeotiff(name, bytes), names: [] };
}

/** What a grid says of its system without a code, matched to one; null where it says nothing, or has a code. */
export async function systemOfGrid(
  { crs, keys, wkt }: GridFile,
  crsTable: () => Promise<CrsRow[]>,
): Promise<SystemOfText | null> {
  if (crs || (!keys && !wkt)) return null;
  const rows = await crsTable();
  if (keys) return systemOfKeys(keys, rows);
  return systemOfWkt(wkt ?? '', rows) ?? { name: (wkt ?? '').slice(0, 60), candidates: [] };
}

/** The question which of several grids of a file is meant. */
export function variableQuestion(names: string[]): Question[] {
  if (names.length < 2) return [];
  return [
    {
      key: 'variable',
      label: 'Which of its grids',
      optional: true,
      options: names.map((value) => ({ value, label: value })),
      hint: { value: names[0], why: `It has ${names.length}: the first is taken where none is chosen.` },
    },
  ];
}

function unitHint({ unit }: GridFile, largest: number, count: number): Question['hint'] {
  const named = unit ? unitNamed(unit) : null;
  if (named && ['m', 'ft', 'ms', 's'].includes(named)) return { value: named, why: `The file says “${unit}”.` };
  return largest < 12 && count > 0 ? { value: 's', why: `No value is above ${largest.toFixed(2)}.` } : undefined;
}

/** What the numbers of a grid hint at; no grid file says what they are. */
export function gridQuestions(grid: GridFile): Question[] {
  let [negative, count, largest] = [0, 0, 0];
  for (const v of grid.values) {
    if (Number.isNaN(v)) continue;
    count++;
    if (v < 0) negative++;
    largest = Math.max(largest, Math.abs(v));
  }
  return [
    {
      key: 'domain',
      label: 'Values are',
      options: [
        { value: 'depth', label: 'depth' },
        { value: 'twt', label: 'TWT' },
        { value: 'map', label: 'something else' },
      ],
    },
    {
      key: 'unit',
      label: 'in',
      options: ['m', 'ft', 'ms', 's', 'none'].map((value) => ({ value, label: value })),
      hint: unitHint(grid, largest, count),
    },
    {
      key: 'sign',
      label: 'and count',
      options: [
        { value: 'down', label: 'downwards' },
        { value: 'up', label: 'upwards' },
      ],
      hint:
        count > 0
          ? negative > 0.9 * count
            ? { value: 'up', why: 'Nearly all are negative, as elevations below the sea are.' }
            : { value: 'down', why: 'They are positive, as depths and times are.' }
          : undefined,
    },
  ];
}

/** The bin grid of a grid in the project's coordinates: an affine fit, which is exact where nothing was converted. */
function binGridOf(
  grid: GridFile,
  toMap: (x: number, y: number) => [number, number],
): { binGrid: BinGrid; off: number } {
  const design: number[][] = [];
  const [xs, ys]: number[][] = [[], []];
  const steps = (n: number) => [...new Set(Array.from({ length: 9 }, (_, k) => Math.round((k * (n - 1)) / 8)))];
  const base = toMap(...grid.origin);
  for (const r of steps(grid.rows))
    for (const c of steps(grid.columns)) {
      const [x, y] = toMap(
        grid.origin[0] + r * grid.perRow[0] + c * grid.perColumn[0],
        grid.origin[1] + r * grid.perRow[1] + c * grid.perColumn[1],
      );
      design.push([1, r, c]);
      xs.push(x - base[0]);
      ys.push(y - base[1]);
    }
  const [cx, cy] = [leastSquares(design, xs), leastSquares(design, ys)];
  if (!cx || !cy) throw new LithagonError('surface', 'The grid has no area.', { fix: 'Check its coordinate system.' });
  let off = 0;
  design.forEach(([, r, c], n) => {
    off = Math.max(off, Math.hypot(cx[0] + cx[1] * r + cx[2] * c - xs[n], cy[0] + cy[1] * r + cy[2] * c - ys[n]));
  });
  return {
    binGrid: {
      inline: { first: 1, step: 1, count: grid.rows },
      crossline: { first: 1, step: 1, count: grid.columns },
      origin: [base[0] + cx[0], base[1] + cy[0]],
      perInline: [cx[1], cy[1]],
      perCrossline: [cx[2], cy[2]],
    },
    off,
  };
}

/** Values of a grid at the bins of the bin grid nearest to it, bilinear; NaN where a corner has none. */
function onBinGrid(
  grid: GridFile,
  binGrid: BinGrid,
  toMapOf: (x: number, y: number) => [number, number],
): Float32Array {
  const { rows, columns, values, origin: o, perRow: p, perColumn: q } = grid;
  const out = new Float32Array(rows * columns).fill(Number.NaN);
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++) {
      const [x, y] = toMap(binGrid, i, j);
      let [r, c] = [i, j];
      // the way there is known, the way back is found: each round leaves a small part of what is missing
      for (let round = 0; round < 4; round++) {
        const [px, py] = toMapOf(o[0] + r * p[0] + c * q[0], o[1] + r * p[1] + c * q[1]);
        const [di, dj] = toIndex(binGrid, binGrid.origin[0] + x - px, binGrid.origin[1] + y - py);
        r += di;
        c += dj;
      }
      const [r0, c0] = [Math.min(rows - 2, Math.floor(r + 1e-6)), Math.min(columns - 2, Math.floor(c + 1e-6))];
      // a bin beyond the grid by rounding alone lies on its edge
      if (r < -0.5 || c < -0.5 || r > rows - 0.5 || c > columns - 0.5) continue;
      const [a, b] = [Math.max(0, r0), Math.max(0, c0)];
      const [f, g] = [Math.min(1, Math.max(0, r - a)), Math.min(1, Math.max(0, c - b))];
      const at = (m: number, n: number) => values[m * columns + n];
      out[i * columns + j] =
        (1 - f) * ((1 - g) * at(a, b) + g * at(a, b + 1)) + f * ((1 - g) * at(a + 1, b) + g * at(a + 1, b + 1));
    }
  return out;
}

/** A horizon in depth or time, or a map of another quantity, from a grid file. */
export async function objectsOfGrid(loading: Loading, format: FileFormat): Promise<Loaded> {
  const { source, declare, started, store, ids, objects } = loading;
  const domain = declare.domain;
  if (!domain)
    throw new LithagonError(
      'undeclared',
      `${source.name} does not say what its values are, and no one has declared it.`,
      {
        object: source.name,
        fix: 'Declare domain=depth, domain=twt or domain=map, and unit.',
      },
    );
  if (!['depth', 'twt', 'map'].includes(domain))
    throw new LithagonError('declare', `“${domain}” is nothing that a grid can hold.`, {
      object: source.name,
      fix: 'Declare domain=depth, domain=twt or domain=map.',
    });
  const { grid } = await readGrid(source, format, declare);
  const system = await systemOfGrid(grid, loading.crsTable);
  if (system && !system.crs && !declare.crs) refuseUnknown(source.name, system);
  const placement = await placementFor(declare, loading.frame, loading.crsTable, {
    crs: grid.crs ?? system?.crs,
    metres: grid.metres,
    at: grid.origin,
  });
  loading.takeFrame(placement);
  const { binGrid, off } = binGridOf(grid, placement.toMap);
  const warnings = [...(grid.notes ?? []), ...(system?.note ? [system.note] : []), ...placement.notes];
  const bent = off > 0.01 * Math.min(Math.hypot(...binGrid.perInline), Math.hypot(...binGrid.perCrossline));
  if (bent)
    warnings.push(
      `In the project’s system its cells are no exact grid, but up to ${unitsOf(placement.frame).text(off, 'm', 2)} off the nearest one: its values were interpolated to the bins of that.`,
    );
  const unit = declare.unit && declare.unit !== 'none' ? unitNamed(declare.unit) : null;
  if (declare.unit && declare.unit !== 'none' && !unit)
    throw new LithagonError('unit', `“${declare.unit}” is no unit that is known.`, { object: source.name });
  const scale =
    (domain === 'map' || !unit ? 1 : factor(unit, domain === 'twt' ? 'ms' : 'm')) * (declare.sign === 'up' ? -1 : 1);
  const values = (bent ? onBinGrid(grid, binGrid, placement.toMap) : grid.values).map((v) => v * scale);
  const madeBy = madeByLoading(source.name, declare, started, warnings);
  const name = declare.name || declare.variable || titleOfFile(source.name);
  if (domain !== 'map')
    return {
      objects: [await horizonOnBinGrid(loading, name, domain as 'depth' | 'twt', binGrid, values, madeBy)],
      warnings,
    };
  const id = newId('map');
  ids.push(id);
  let [min, max] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const v of values) {
    if (v < min) min = v;
    if (v > max) max = v;
  }
  const map: QuantityMap = {
    id,
    kind: 'map',
    name: freeName(objects, 'map', name),
    stage: 'data',
    revision: loadedRevision(canonicalJson(binGrid), Array.from(values)),
    binGrid,
    quantity: declare.quantity || name,
    unit: declare.unit === 'none' ? '' : (declare.unit ?? ''),
    values: await writeWhole(store, `${id}/values`, [grid.rows, grid.columns], values, ['inline', 'crossline']),
    range: min <= max ? [min, max] : [0, 0],
    madeBy,
  };
  return { objects: [map], warnings };
}
