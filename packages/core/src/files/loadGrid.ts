import { unitsOf } from '../earth/display.ts';
import { LithagonError } from '../earth/errors.ts';
import type { Lattice } from '../earth/lattice.ts';
import type { QuantityMap } from '../earth/objects.ts';
import { factor, unitNamed } from '../earth/units.ts';
import { type GridFile, parseAsciiGrid } from '../formats/esri/ascii.ts';
import { parseGeotiff } from '../formats/geotiff/read.ts';
import { type ByteSource, readText } from '../formats/source.ts';
import { canonicalJson } from '../numerics/hash.ts';
import { leastSquares } from '../numerics/leastSquares.ts';
import { freeName, loadedRevision, madeByLoading, newId } from '../project/make.ts';
import { writeWhole } from '../storage/arrays.ts';
import { placementFor } from './coordinates.ts';
import type { Loaded, Loading } from './load.ts';
import { horizonOnLattice, titleOfFile } from './loadHorizon.ts';
import type { FileFormat, Question } from './report.ts';

export async function readGrid(source: ByteSource, format: FileFormat): Promise<GridFile> {
  return format === 'GeoTIFF'
    ? parseGeotiff(source.name, await source.read(0, source.size))
    : parseAsciiGrid(source.name, await readText(source));
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
      hint: largest < 12 && count > 0 ? { value: 's', why: `No value is above ${largest.toFixed(2)}.` } : undefined,
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

/** The lattice of a grid in the project's coordinates: an affine fit, which is exact where nothing was converted. */
function latticeOf(
  grid: GridFile,
  toMap: (x: number, y: number) => [number, number],
): { lattice: Lattice; off: number } {
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
    lattice: {
      inline: { first: 1, step: 1, count: grid.rows },
      crossline: { first: 1, step: 1, count: grid.columns },
      origin: [base[0] + cx[0], base[1] + cy[0]],
      perInline: [cx[1], cy[1]],
      perCrossline: [cx[2], cy[2]],
    },
    off,
  };
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
  const grid = await readGrid(source, format);
  const placement = await placementFor(declare, loading.frame, loading.crsTable, { crs: grid.crs });
  loading.takeFrame(placement);
  const { lattice, off } = latticeOf(grid, placement.toMap);
  const warnings = [...placement.notes];
  if (off > 0.01 * Math.hypot(...lattice.perCrossline))
    warnings.push(
      `In the project’s system its cells are no exact grid: they were put on one that is off by ${unitsOf(placement.frame).text(off, 'm', 2)} at most.`,
    );
  const unit = declare.unit && declare.unit !== 'none' ? unitNamed(declare.unit) : null;
  if (declare.unit && declare.unit !== 'none' && !unit)
    throw new LithagonError('unit', `“${declare.unit}” is no unit that is known.`, { object: source.name });
  const scale =
    (domain === 'map' || !unit ? 1 : factor(unit, domain === 'twt' ? 'ms' : 'm')) * (declare.sign === 'up' ? -1 : 1);
  const values = grid.values.map((v) => v * scale);
  const madeBy = madeByLoading(source.name, declare, started, warnings);
  const name = declare.name || titleOfFile(source.name);
  if (domain !== 'map')
    return {
      objects: [await horizonOnLattice(loading, name, domain as 'depth' | 'twt', lattice, values, madeBy)],
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
    revision: loadedRevision(canonicalJson(lattice), Array.from(values)),
    lattice,
    quantity: declare.quantity || name,
    unit: declare.unit === 'none' ? '' : (declare.unit ?? ''),
    values: await writeWhole(store, `${id}/values`, [grid.rows, grid.columns], values, ['inline', 'crossline']),
    range: min <= max ? [min, max] : [0, 0],
    madeBy,
  };
  return { objects: [map], warnings };
}
