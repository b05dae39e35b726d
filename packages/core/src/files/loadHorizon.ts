import type { Axis, BinGrid } from '../earth/binGrid.ts';
import { unitsOf } from '../earth/display.ts';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject, Horizon, MadeBy } from '../earth/objects.ts';
import type { ReadTable } from '../formats/csv/tables.ts';
import { binGridOfPoints } from '../horizons/binGridOfPoints.ts';
import { fillGaps } from '../horizons/fill.ts';
import { hasher } from '../numerics/hash.ts';
import { leastSquares } from '../numerics/leastSquares.ts';
import { freeName, loadedRevision, newId } from '../project/make.ts';
import { writeWhole } from '../storage/arrays.ts';
import type { Loading } from './loading.ts';

/** Bins that points may leave empty for each that they fill: more, and a number among them is wrong. */
const MOST_EMPTY = 60;

/** “tolven_top.csv” → “Tolven Top”. */
export function titleOfFile(file: string): string {
  return file
    .replace(/\.[^.]*$/, '')
    .replace(/[-_]+/g, ' ')
    .replace(/\b\w/g, (c) => c.toUpperCase());
}

function axisOf(values: Float64Array): Axis {
  const lines = [...new Set(values)].sort((a, b) => a - b);
  let step = Number.POSITIVE_INFINITY;
  for (let n = 1; n < lines.length; n++) step = Math.min(step, lines[n] - lines[n - 1]);
  if (!Number.isFinite(step)) step = 1;
  return { first: lines[0], step, count: Math.round((lines[lines.length - 1] - lines[0]) / step) + 1 };
}

/** Columns of a table without the rows that cannot be placed. */
function placedRows({ numbers, rows }: ReadTable): Record<string, Float64Array> {
  const needed = ['x', 'y', ...(numbers.inline && numbers.crossline ? ['inline', 'crossline'] : [])];
  const keep: number[] = [];
  for (let n = 0; n < rows; n++) if (needed.every((key) => Number.isFinite(numbers[key][n]))) keep.push(n);
  return Object.fromEntries(Object.entries(numbers).map(([key, v]) => [key, Float64Array.from(keep, (n) => v[n])]));
}

/** A hash of values, bit for bit. */
const contentOf = (values: Float32Array) =>
  hasher()
    .words(new Uint32Array(values.buffer, values.byteOffset, values.length))
    .digest();

/** The bin grid that line numbers and coordinates make, with the bin of each point. */
function binGridOfLines({ inline, crossline, x, y }: Record<string, Float64Array>): {
  binGrid: BinGrid;
  bins: Int32Array;
} | null {
  const il = axisOf(inline);
  const xl = axisOf(crossline);
  if (il.count < 2 || xl.count < 2 || il.count * xl.count > MOST_EMPTY * x.length + 1000) return null;
  const design = Array.from(x, (_, n) => [1, (inline[n] - il.first) / il.step, (crossline[n] - xl.first) / xl.step]);
  const fit = (values: Float64Array) =>
    leastSquares(
      design,
      Array.from(values, (v) => v - values[0]),
    );
  const [cx, cy] = [fit(x), fit(y)];
  if (!cx || !cy) return null;
  return {
    binGrid: {
      inline: il,
      crossline: xl,
      origin: [x[0] + cx[0], y[0] + cy[0]],
      perInline: [cx[1], cy[1]],
      perCrossline: [cx[2], cy[2]],
    },
    bins: Int32Array.from(design, (row) => Math.round(row[1]) * xl.count + Math.round(row[2])),
  };
}

/** Values on the bins of a bin grid as a horizon object; arrays are written under a new id. */
export async function horizonOnBinGrid(
  { objects, store, ids }: Pick<Loading, 'objects' | 'store' | 'ids'>,
  name: string,
  domain: Horizon['domain'],
  binGrid: BinGrid,
  values: Float32Array,
  madeBy: MadeBy,
): Promise<Horizon> {
  const id = newId('horizon');
  ids.push(id);
  let [min, max, filled] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, 0];
  for (const v of values) {
    if (Number.isNaN(v)) continue;
    filled++;
    min = Math.min(min, v);
    max = Math.max(max, v);
  }
  const { inline: il, crossline: xl } = binGrid;
  return {
    id,
    kind: 'horizon',
    name: freeName(objects, 'horizon', name),
    stage: 'interpret',
    revision: loadedRevision(contentOf(values), [il, xl]),
    domain,
    binGrid,
    values: await writeWhole(store, `${id}/values`, [il.count, xl.count], values, ['inline', 'crossline']),
    range: filled ? [min, max] : [0, 0],
    filled: filled / values.length,
    madeBy,
  };
}

/**
 * A horizon of points: on the grid of their line numbers, else on the grid that they lie on, else gridded by a spline in
 * tension (Smith & Wessel 1990) at a bin that fits their density.
 */
export async function horizonOfPoints(loading: Loading, table: ReadTable, madeBy: MadeBy): Promise<EarthObject> {
  const { source, declare } = loading;
  const kept = placedRows(table);
  if (kept.x.length < 4)
    throw new LithagonError(
      'csv',
      `${source.name} has ${kept.x.length} points that can be placed, which make no horizon.`,
      {
        object: source.name,
        fix: 'Check its columns. Nothing was loaded.',
      },
    );
  if (kept.x.length < table.rows)
    madeBy.warnings.push(`${table.rows - kept.x.length} points have no line number or position and were left out.`);
  const { inline, crossline, x, y, twt, depth } = kept;
  const vertical = twt ?? depth;
  const placed = inline && crossline ? binGridOfLines(kept) : binGridOfPoints(x, y);
  if (inline && crossline && !placed)
    throw new LithagonError('csv', `${source.name}: its points do not make a grid.`, {
      object: source.name,
      fix: 'Check its inline and crossline columns.',
    });
  const { binGrid, bins } = placed ?? scattered(x, y);
  const values = new Float32Array(binGrid.inline.count * binGrid.crossline.count).fill(Number.NaN);
  const counts = new Uint16Array(values.length);
  bins.forEach((bin, n) => {
    if (Number.isNaN(vertical[n]) || bin < 0) return;
    const sum = counts[bin] > 0 && !placed ? values[bin] * counts[bin] : 0;
    counts[bin] = placed ? 1 : counts[bin] + 1;
    values[bin] = (sum + vertical[n]) / counts[bin];
  });
  let out: Float32Array = values;
  if (!placed) {
    out = fillGaps(values, binGrid.inline.count, binGrid.crossline.count);
    const bin = Math.hypot(...binGrid.perInline);
    madeBy.warnings.push(
      `Its ${x.length} points lie on no grid: they were gridded at ${unitsOf(loading.frame).text(bin, 'm')} by a spline in tension.`,
    );
  }
  return horizonOnBinGrid(
    loading,
    declare.name || titleOfFile(source.name),
    twt ? 'twt' : 'depth',
    binGrid,
    out,
    madeBy,
  );
}

/** Bins along the map's axes, about one to a point. */
function scattered(x: Float64Array, y: Float64Array): { binGrid: BinGrid; bins: Int32Array } {
  const of = (values: Float64Array) =>
    values.reduce(([a, b], v) => [Math.min(a, v), Math.max(b, v)], [values[0], values[0]]);
  const [x0, x1] = of(x);
  const [y0, y1] = of(y);
  const size = Math.max(1, Math.sqrt(((x1 - x0) * (y1 - y0)) / x.length), Math.max(x1 - x0, y1 - y0) / 2000);
  const axis = (span: number): Axis => ({ first: 1, step: 1, count: Math.max(2, Math.floor(span / size) + 1) });
  const binGrid: BinGrid = {
    inline: axis(y1 - y0),
    crossline: axis(x1 - x0),
    origin: [x0, y0],
    perInline: [0, size],
    perCrossline: [size, 0],
  };
  const bins = Int32Array.from(x, (px, n) => {
    const i = Math.min(binGrid.inline.count - 1, Math.round((y[n] - y0) / size));
    return i * binGrid.crossline.count + Math.min(binGrid.crossline.count - 1, Math.round((px - x0) / size));
  });
  return { binGrid, bins };
}
