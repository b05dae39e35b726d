import proj4 from 'proj4';
import type { Crs } from '../earth/crs.ts';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject, Frame, Logs, WellTable } from '../earth/objects.ts';
import { dimensionOf, factor, unitNamed } from '../earth/units.ts';
import { type ReadTable, readTable } from '../formats/csv/tables.ts';
import { parseGeoJson } from '../formats/geojson/parse.ts';
import { parseLas } from '../formats/las/parse.ts';
import { canonicalJson } from '../numerics/hash.ts';
import { leastSquares } from '../numerics/leastSquares.ts';
import { freeName, loadedRevision, madeByLoading, newId } from '../project/make.ts';
import { writeWhole } from '../storage/arrays.ts';
import type { Store } from '../storage/store.ts';
import { CURVE_UNIT, classOfCurve } from '../wells/curveClass.ts';
import type { Loaded } from './load.ts';
import type { Declarations } from './report.ts';

const stem = (file: string) => file.replace(/\.[^.]*$/, '');

/** Logs of a well, on a regular depth axis in metres, each curve in the unit of its class. */
export async function objectsOfLas(
  file: string,
  text: string,
  declare: Declarations,
  started: Date,
  store: Store,
  ids: string[],
): Promise<Loaded> {
  const las = parseLas(file, text);
  const well = declare.well ?? las.well;
  if (!well)
    throw new LithagonError('las', `${file} does not name its well.`, { object: file, fix: 'Declare well=NAME.' });
  const id = newId('logs');
  ids.push(id);
  const n = las.depthM.length;
  const firstM = las.depthM[0];
  const stepM = (las.depthM[n - 1] - firstM) / (n - 1);
  const warnings = [...las.warnings];
  let uneven = 0;
  for (let k = 0; k < n; k++) if (Math.abs(las.depthM[k] - (firstM + k * stepM)) > 0.3 * stepM) uneven++;
  if (uneven > 0)
    warnings.push(
      `${uneven} depths are off a regular step; curves were interpolated onto one of ${stepM.toFixed(4)} m.`,
    );
  const curves: Logs['curves'] = [];
  for (const curve of las.curves) {
    const cls = classOfCurve(curve.mnemonic, curve.unit);
    const from = unitNamed(curve.unit);
    const unit = CURVE_UNIT[cls] ?? from ?? curve.unit;
    const scale = from && dimensionOf(from) === dimensionOf(unit) && dimensionOf(unit) ? factor(from, unit) : 1;
    const data = new Float32Array(n);
    let min = Number.POSITIVE_INFINITY;
    let max = Number.NEGATIVE_INFINITY;
    let nulls = 0;
    for (let k = 0, s = 0; k < n; k++) {
      const depth = firstM + k * stepM;
      while (uneven > 0 && s < n - 2 && las.depthM[s + 1] < depth) s++;
      const f = uneven > 0 ? (depth - las.depthM[s]) / (las.depthM[s + 1] - las.depthM[s]) : 0;
      const raw = uneven > 0 ? curve.values[s] * (1 - f) + curve.values[s + 1] * f : curve.values[k];
      const value = raw * scale;
      data[k] = value;
      if (Number.isNaN(value)) nulls++;
      else {
        min = Math.min(min, value);
        max = Math.max(max, value);
      }
    }
    const key = `${id}/${curves.length}`;
    curves.push({
      mnemonic: curve.mnemonic.slice(0, 60),
      class: cls,
      unit,
      fileUnit: curve.unit,
      description: curve.description.slice(0, 200),
      data: await writeWhole(store, key, [n], data, ['depth']),
      min: nulls === n ? 0 : min,
      max: nulls === n ? 0 : max,
      nulls,
    });
  }
  const logs: Logs = {
    id,
    kind: 'logs',
    name: declare.name ?? `${well.slice(0, 100)} logs`,
    stage: 'wells',
    revision: loadedRevision(text, { well }),
    well: well.slice(0, 100),
    depth: { firstM, stepM, count: n },
    curves,
    madeBy: madeByLoading(file, declare, started, warnings),
  };
  return { objects: [logs], warnings };
}

const COLUMNS: Record<string, { key: string; name: string; unit: string }[]> = {
  'directional surveys': [
    { key: 'md', name: 'MD', unit: 'm' },
    { key: 'inclination', name: 'Inclination', unit: '°' },
    { key: 'azimuth', name: 'Azimuth from grid north', unit: '°' },
  ],
  tops: [
    { key: 'top', name: 'Top', unit: '' },
    { key: 'md', name: 'MD', unit: 'm' },
  ],
  checkshots: [
    { key: 'md', name: 'MD', unit: 'm' },
    { key: 'tvdss', name: 'TVDSS', unit: 'm' },
    { key: 'twt', name: 'TWT', unit: 'ms' },
  ],
  pressures: [
    { key: 'md', name: 'MD', unit: 'm' },
    { key: 'tvdss', name: 'TVDSS', unit: 'm' },
    { key: 'pressure', name: 'Pressure', unit: 'Pa' },
  ],
  'fluid samples': [
    { key: 'fluid', name: 'Fluid', unit: '' },
    { key: 'density', name: 'Density', unit: 'kg/m³' },
    { key: 'fvf', name: 'Formation volume factor', unit: 'm³/m³' },
  ],
  'core points': [
    { key: 'md', name: 'MD', unit: 'm' },
    { key: 'porosity', name: 'Porosity', unit: 'fraction' },
  ],
  facies: [
    { key: 'from', name: 'From MD', unit: 'm' },
    { key: 'to', name: 'To MD', unit: 'm' },
    { key: 'facies', name: 'Facies', unit: '' },
  ],
};

/** Objects of a CSV table: one a well, a fault, a polygon; a horizon is one. */
export async function objectsOfTable(
  file: string,
  text: string,
  declare: Declarations,
  existing: EarthObject[],
  started: Date,
  store: Store,
  ids: string[],
): Promise<Loaded> {
  const table = readTable(file, text);
  const { spec, numbers, texts, warnings } = table;
  const madeBy = madeByLoading(file, declare, started, warnings);
  const objects: EarthObject[] = [];
  const groups = (keys: string[]) => {
    const out = new Map<string, number[]>();
    keys.forEach((key, n) => {
      const rows = out.get(key) ?? [];
      rows.push(n);
      out.set(key, rows);
    });
    return out;
  };
  if (spec.kind === 'well heads') {
    for (const [well, [n]] of groups(texts.well))
      objects.push({
        id: newId('well'),
        kind: 'well',
        name: well,
        stage: 'wells',
        revision: loadedRevision('', [well, numbers.x[n], numbers.y[n], numbers.kb[n]]),
        x: numbers.x[n],
        y: numbers.y[n],
        kbM: numbers.kb[n],
        totalMdM: numbers.totalMd && !Number.isNaN(numbers.totalMd[n]) ? numbers.totalMd[n] : undefined,
        status: texts.status?.[n] || undefined,
        madeBy,
      });
  } else if (COLUMNS[spec.kind]) {
    if (spec.kind === 'checkshots' && !numbers.twt) numbers.twt = numbers.owt.map((v) => 2 * v);
    for (const [well, rows] of groups(texts.well ?? Array.from({ length: table.rows }, () => '')))
      objects.push(wellTable(spec.kind as WellTable['kind'], well, rows, table, madeBy));
  } else if (spec.kind === 'fault sticks') {
    const domain = numbers.twt ? 'twt' : 'depth';
    const vertical = numbers.twt ?? numbers.depth;
    for (const [fault, rows] of groups(texts.fault)) {
      const sticks = [...groups(rows.map((n) => String(numbers.stick[n]))).values()].map((members) =>
        members
          .map((m) => rows[m])
          .map((n) => [numbers.x[n], numbers.y[n], vertical[n]] as [number, number, number])
          .sort((a, b) => a[2] - b[2]),
      );
      objects.push({
        id: newId('fault'),
        kind: 'fault',
        name: freeName(existing, 'fault', fault),
        stage: 'interpret',
        revision: loadedRevision(fault, sticks),
        domain,
        sticks,
        madeBy,
      });
    }
  } else if (spec.kind === 'polygon') {
    for (const [name, rows] of groups(texts.polygon)) {
      const ring = rows.map((n) => [numbers.x[n], numbers.y[n]] as [number, number]);
      objects.push({
        id: newId('polygon'),
        kind: 'polygon',
        name: freeName(existing, 'polygon', name),
        stage: 'data',
        revision: loadedRevision(name, ring),
        closed: true,
        rings: [ring],
        madeBy,
      });
    }
  } else objects.push(await horizonOf(file, table, declare, existing, store, ids, madeBy));
  return { objects, warnings };
}

function wellTable(
  kind: WellTable['kind'],
  well: string,
  rows: number[],
  table: ReadTable,
  madeBy: WellTable['madeBy'],
): WellTable {
  const columns = COLUMNS[kind].filter((c) => table.numbers[c.key] || table.texts[c.key]);
  const cells = rows.map((n) =>
    columns.map((c) => {
      if (table.texts[c.key]) return table.texts[c.key][n];
      const value = table.numbers[c.key][n];
      return Number.isNaN(value) ? null : value;
    }),
  );
  return {
    id: newId(kind),
    kind,
    name: well ? `${well.slice(0, 100)} ${kind}` : kind,
    stage: 'wells',
    revision: loadedRevision(canonicalJson(cells), { well, kind }),
    well: well.slice(0, 100),
    columns: columns.map(({ name, unit }) => ({ name, unit })),
    rows: cells,
    madeBy,
  };
}

/** A horizon on the grid of its own line numbers, with bins fitted to its coordinates. */
async function horizonOf(
  file: string,
  table: ReadTable,
  declare: Declarations,
  existing: EarthObject[],
  store: Store,
  ids: string[],
  madeBy: WellTable['madeBy'],
): Promise<EarthObject> {
  const { inline, crossline, x, y, twt, depth } = table.numbers;
  if (!inline || !crossline)
    throw new LithagonError(
      'csv',
      `${file} has points without inline and crossline numbers, which cannot be put on a grid yet.`,
      {
        object: file,
        fix: 'Add the columns “inline” and “crossline”.',
      },
    );
  const axis = (values: Float64Array) => {
    const lines = [...new Set(values)].sort((a, b) => a - b);
    let step = Number.POSITIVE_INFINITY;
    for (let n = 1; n < lines.length; n++) step = Math.min(step, lines[n] - lines[n - 1]);
    if (!Number.isFinite(step)) step = 1;
    return { first: lines[0], step, count: Math.round((lines[lines.length - 1] - lines[0]) / step) + 1 };
  };
  const il = axis(inline);
  const xl = axis(crossline);
  const design = Array.from(x, (_, n) => [1, (inline[n] - il.first) / il.step, (crossline[n] - xl.first) / xl.step]);
  const cx = leastSquares(
    design,
    Array.from(x, (v) => v - x[0]),
  );
  const cy = leastSquares(
    design,
    Array.from(y, (v) => v - y[0]),
  );
  if (!cx || !cy || il.count * xl.count > 50e6)
    throw new LithagonError('csv', `${file}: its points do not make a grid.`, {
      object: file,
      fix: 'Check its inline and crossline columns.',
    });
  const values = new Float32Array(il.count * xl.count).fill(Number.NaN);
  const vertical = twt ?? depth;
  let filled = 0;
  let min = Number.POSITIVE_INFINITY;
  let max = Number.NEGATIVE_INFINITY;
  design.forEach((row, n) => {
    const bin = Math.round(row[1]) * xl.count + Math.round(row[2]);
    if (Number.isNaN(values[bin]) && !Number.isNaN(vertical[n])) filled++;
    values[bin] = vertical[n];
    min = Math.min(min, vertical[n]);
    max = Math.max(max, vertical[n]);
  });
  const id = newId('horizon');
  ids.push(id);
  const wanted = stem(file)
    .replace(/[-_]+/g, ' ')
    .replace(/\b\w/g, (c) => c.toUpperCase());
  return {
    id,
    kind: 'horizon',
    name: freeName(existing, 'horizon', declare.name ?? wanted),
    stage: 'interpret',
    revision: loadedRevision(canonicalJson([il, xl]), Array.from(values)),
    domain: twt ? 'twt' : 'depth',
    lattice: {
      inline: il,
      crossline: xl,
      origin: [x[0] + cx[0], y[0] + cy[0]],
      perInline: [cx[1], cy[1]],
      perCrossline: [cx[2], cy[2]],
    },
    values: await writeWhole(store, `${id}/values`, [il.count, xl.count], values, ['inline', 'crossline']),
    range: [min, max],
    filled: filled / values.length,
    madeBy,
  };
}

/** Polygons and lines of a GeoJSON file, brought into the project's coordinates. */
export async function objectsOfShapes(
  file: string,
  text: string,
  declare: Declarations,
  existing: EarthObject[],
  started: Date,
  frame: Frame | null,
  crs: (code: string) => Promise<Crs>,
): Promise<Loaded> {
  const geo = parseGeoJson(file, text);
  const warnings: string[] = [];
  let convert = (p: [number, number]) => p;
  if (frame && frame.crs !== geo.crs) {
    const [from, to] = [await crs(geo.crs), await crs(frame.crs)];
    const transform = proj4(from.proj4, to.proj4);
    convert = (p) => transform.forward([p[0], p[1]]) as [number, number];
    warnings.push(`Converted from ${geo.crs} (${from.name}) to the project’s ${frame.crs} (${frame.crsName}).`);
  }
  if (geo.skipped > 0) warnings.push(`${geo.skipped} features are neither polygons nor lines and were left out.`);
  const taken = [...existing];
  const objects = geo.shapes.map((shape): EarthObject => {
    const rings = shape.rings.map((ring) => ring.map(convert));
    const object: EarthObject = {
      id: newId('polygon'),
      kind: 'polygon',
      name: freeName(taken, 'polygon', declare.name ?? shape.name),
      stage: 'data',
      revision: loadedRevision(shape.name, rings),
      closed: shape.closed,
      rings,
      madeBy: madeByLoading(file, declare, started, warnings),
    };
    taken.push(object);
    return object;
  });
  return { objects, warnings };
}
