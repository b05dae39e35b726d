import { LithagonError } from '../earth/errors.ts';
import { type EarthObject, type Navigation, TVD_COLUMN, type Wavelet, type WellTable } from '../earth/objects.ts';
import { type MapUnit, METRES } from '../earth/transform.ts';
import { unitNamed } from '../earth/units.ts';
import { mappingOf, type ReadTable, readTable } from '../formats/csv/tables.ts';
import { canonicalJson } from '../numerics/hash.ts';
import { freeName, loadedRevision, madeByLoading, newId } from '../project/make.ts';
import { SAMPLE_COLUMNS } from '../project/wells/fluids.ts';
import { FINE_MS, resampledWavelet } from '../tie/wavelet.ts';
import { placementFor } from './coordinates.ts';
import { horizonOfPoints } from './loadHorizon.ts';
import { type Loaded, type Loading, oneOf } from './loading.ts';
import { wellNamed } from './names.ts';
import { oddCoordinates, oddRows, unusedColumns } from './oddRows.ts';
import { pointsOf } from './points.ts';

const COLUMNS: Record<string, { key: string; name: string; unit: string }[]> = {
  'directional surveys': [
    { key: 'md', name: 'MD', unit: 'm' },
    { key: 'inclination', name: 'Inclination', unit: '°' },
    { key: 'azimuth', name: 'Azimuth from grid north', unit: '°' },
  ],
  tops: [
    { key: 'top', name: 'Top', unit: '' },
    { key: 'md', name: 'MD', unit: 'm' },
    { key: 'tvdss', name: 'TVDSS', unit: 'm' },
    { key: 'tvd', name: TVD_COLUMN, unit: 'm' },
  ],
  checkshots: [
    { key: 'md', name: 'MD', unit: 'm' },
    { key: 'tvdss', name: 'TVDSS', unit: 'm' },
    { key: 'twt', name: 'TWT', unit: 'ms' },
    { key: 'tvd', name: TVD_COLUMN, unit: 'm' },
  ],
  pressures: [
    { key: 'md', name: 'MD', unit: 'm' },
    { key: 'tvdss', name: 'TVDSS', unit: 'm' },
    { key: 'pressure', name: 'Pressure', unit: 'Pa' },
  ],
  'fluid samples': [
    { key: 'fluid', name: 'Fluid', unit: '' },
    { key: 'density', name: SAMPLE_COLUMNS.density, unit: 'kg/m³' },
    { key: 'fvf', name: SAMPLE_COLUMNS.factor, unit: 'm³/m³' },
    { key: 'resistivity', name: SAMPLE_COLUMNS.resistivity, unit: 'ohm.m' },
  ],
  'core points': [
    { key: 'md', name: 'MD', unit: 'm' },
    { key: 'porosity', name: 'Porosity', unit: 'fraction' },
    { key: 'permeability', name: 'Permeability', unit: 'mD' },
    { key: 'grainDensity', name: 'Grain density', unit: 'kg/m³' },
  ],
  facies: [
    { key: 'from', name: 'From MD', unit: 'm' },
    { key: 'to', name: 'To MD', unit: 'm' },
    { key: 'facies', name: 'Facies', unit: '' },
  ],
};

/** Columns that keep their place even where a file lacks them, so that rows of a kind are all alike. */
const ALWAYS: Record<string, string[]> = {
  tops: ['top', 'md'],
  checkshots: ['md', 'tvdss', 'twt'],
  pressures: ['md', 'tvdss', 'pressure'],
};

/** Whether a declared height of kelly bushings is one, m. */
const declaredKb = (text: string | undefined) => Boolean(text?.trim()) && Math.abs(Number(text)) < 1e4;

/** Above this a depth below sea level is no rock on land, m. */
const HIGHEST_LAND_M = 500;

/** What checkshot times and depths may be counted from. */
export const REFERENCES = ['datum', 'msl', 'kb'] as const;

const groups = (keys: string[]) => {
  const out = new Map<string, number[]>();
  keys.forEach((key, n) => {
    const rows = out.get(key) ?? [];
    rows.push(n);
    out.set(key, rows);
  });
  return out;
};

/** The unit of a table's map coordinates, where its headings give one. */
export function mapUnitOf(table: ReadTable): { unit?: MapUnit; degrees?: boolean } {
  const named = unitNamed(table.found.x?.unit ?? '');
  if (named === 'deg' || /^(lon|longitude|long)\b/i.test(table.found.x?.column ?? '')) return { degrees: true };
  return named && named in METRES ? { unit: named as MapUnit } : {};
}

/** Whether depths below the sea are written as elevations: none is below it, and some are further above than land is. */
function areElevations(tvdss: Float64Array): boolean {
  const known = tvdss.filter((v) => !Number.isNaN(v));
  return known.length > 0 && known.every((v) => v <= 0) && known.some((v) => v < -HIGHEST_LAND_M);
}

/** Turn depths below the sea that are written as elevations, and say so. */
export function turnElevations({ numbers }: ReadTable): string[] {
  if (!numbers.tvdss || !areElevations(numbers.tvdss)) return [];
  numbers.tvdss = numbers.tvdss.map((v) => -v);
  return ['TVDSS is negative throughout: it was taken for elevations, and turned to count downwards.'];
}

/** Objects of a table: one a well, a fault, a polygon, a line; a horizon is one. */
export async function objectsOfTable(loading: Loading, text: string): Promise<Loaded> {
  const { source, declare, objects: existing, started } = loading;
  const table = readTable(source.name, text, mappingOf(declare));
  const { spec, numbers, texts } = table;
  const warnings = [...table.warnings];
  const { x, y } = numbers;
  if (x && y) {
    const placement = await placementFor(declare, loading.frame, loading.crsTable, {
      ...mapUnitOf(table),
      at: [x[0], y[0]],
    });
    loading.takeFrame(placement);
    const degrees = mapUnitOf(table).degrees || declare.crs !== undefined;
    warnings.push(...placement.notes, ...oddCoordinates(table, degrees));
    for (let n = 0; n < x.length; n++) [x[n], y[n]] = placement.toMap(x[n], y[n]);
  }
  warnings.push(...turnElevations(table));
  if (texts.well && !table.found.well && !declare.well?.trim())
    throw new LithagonError('csv', `${source.name} does not say of which well it is.`, {
      object: source.name,
      fix: 'Say the well (well=NAME). Nothing was loaded.',
    });
  if (texts.well) texts.well = texts.well.map((name) => wellNamed(declare, name));
  if (spec.kind === 'well heads' && !table.found.kb && !declaredKb(declare.kb))
    throw new LithagonError('csv', `${source.name} does not say how high the kelly bushings of its wells are.`, {
      object: source.name,
      fix: 'Say it for all of them, in metres above sea level (kb=25), add a column, or load it as points (kind=points). Nothing was loaded.',
    });
  warnings.push(...unusedColumns(table), ...oddRows(table, existing, loading.frame));
  const madeBy = madeByLoading(source.name, declare, started, warnings);
  const objects: EarthObject[] = [];
  if (spec.kind === 'well heads') {
    for (const [well, [n]] of groups(texts.well))
      objects.push({
        id: newId('well'),
        kind: 'well',
        name: well || 'unnamed well',
        stage: 'wells',
        revision: loadedRevision('', [well, x[n], y[n], numbers.kb[n]]),
        x: x[n],
        y: y[n],
        kbM: numbers.kb[n],
        totalMdM: numbers.totalMd && !Number.isNaN(numbers.totalMd[n]) ? numbers.totalMd[n] : undefined,
        status: texts.status?.[n] || undefined,
        madeBy,
      });
  } else if (COLUMNS[spec.kind]) {
    if (spec.kind === 'checkshots' && !numbers.twt) numbers.twt = numbers.owt.map((v) => 2 * v);
    for (const [well, rows] of groups(texts.well ?? Array.from({ length: table.rows }, () => '')))
      objects.push(wellTable(loading, spec.kind as WellTable['kind'], well, rows, table, madeBy));
  } else if (spec.kind === 'fault sticks') {
    const domain = numbers.twt ? 'twt' : 'depth';
    const vertical = numbers.twt ?? numbers.depth;
    for (const [fault, rows] of groups(texts.fault)) {
      const sticks = [...groups(rows.map((n) => String(numbers.stick[n]))).values()].map((members) =>
        members
          .map((m) => rows[m])
          .map((n) => [x[n], y[n], vertical[n]] as [number, number, number])
          .sort((a, b) => a[2] - b[2]),
      );
      objects.push({
        id: newId('fault'),
        kind: 'fault',
        name: freeName(existing, 'fault', fault || 'Fault'),
        stage: 'interpret',
        revision: loadedRevision(fault, sticks),
        domain,
        sticks,
        madeBy,
      });
    }
  } else if (spec.kind === 'polygon') {
    for (const [name, rows] of groups(texts.polygon)) {
      const ring = rows.map((n) => [x[n], y[n]] as [number, number]);
      objects.push({
        id: newId('polygon'),
        kind: 'polygon',
        name: freeName(existing, 'polygon', name || 'Outline'),
        stage: 'data',
        revision: loadedRevision(name, ring),
        closed: true,
        rings: [ring],
        madeBy,
      });
    }
  } else if (spec.kind === 'points') {
    const places = Array.from(x, (east, n): [number, number] => [east, y[n]]);
    const names = texts.point ?? places.map(() => '');
    objects.push(pointsOf(loading, places, names, madeBy));
  } else if (spec.kind === 'navigation') {
    const by = numbers.cdp ? 'cdp' : 'shotpoint';
    for (const [line, rows] of groups(texts.line))
      objects.push(
        navigationOf(
          existing,
          line,
          by,
          rows.map((n) => [numbers[by][n], x[n], y[n]]),
          madeBy,
        ),
      );
  } else if (spec.kind === 'wavelet')
    objects.push(waveletOf(source.name, existing, numbers.time, numbers.amplitude, madeBy));
  else objects.push(await horizonOfPoints(loading, table, madeBy));
  return { objects, warnings };
}

export function navigationOf(
  existing: EarthObject[],
  line: string,
  by: 'cdp' | 'shotpoint',
  points: [number, number, number][],
  madeBy: WellTable['madeBy'],
): Navigation {
  const sorted = points.sort((a, b) => a[0] - b[0]);
  return {
    id: newId('navigation'),
    kind: 'navigation',
    name: freeName(existing, 'navigation', `${line || 'Line'} navigation`),
    stage: 'data',
    revision: loadedRevision(line, [by, sorted]),
    line,
    by,
    points: sorted,
    madeBy,
  };
}

/** Samples of a wavelet in the order of time, which has to run in even steps. */
export function waveletSamples(
  file: string,
  times: ArrayLike<number>,
  amplitudes: ArrayLike<number>,
): { t: number[]; samples: number[]; stepMs: number } {
  const order = Array.from({ length: times.length }, (_, n) => n).sort((a, b) => times[a] - times[b]);
  const [t, samples] = [order.map((n) => times[n]), order.map((n) => amplitudes[n])];
  const stepMs = (t[t.length - 1] - t[0]) / (t.length - 1);
  if (
    t.length < 5 ||
    !(stepMs > 0) ||
    t.some((v, n) => Math.abs(v - t[0] - n * stepMs) > 0.05 * stepMs) ||
    samples.some(Number.isNaN)
  )
    throw new LithagonError('wavelet', `${file} is no wavelet: it needs five amplitudes or more at even times.`, {
      object: file,
      fix: 'Write one line for each sample, in even steps. Nothing was loaded.',
    });
  return { t, samples, stepMs };
}

/** A wavelet from times and amplitudes in even steps. */
function waveletOf(
  file: string,
  existing: EarthObject[],
  times: ArrayLike<number>,
  amplitudes: ArrayLike<number>,
  madeBy: WellTable['madeBy'],
): Wavelet {
  const { t, samples, stepMs } = waveletSamples(file, times, amplitudes);
  // synthetics are made in fine time
  const fine = resampledWavelet({ stepMs, firstMs: t[0], samples: Float64Array.from(samples) }, FINE_MS);
  return {
    id: newId('wavelet'),
    kind: 'wavelet',
    name: freeName(existing, 'wavelet', file.replace(/\.[^.]+$/, '').slice(0, 100) || 'Wavelet'),
    stage: 'tie',
    revision: loadedRevision('wavelet', [t, samples]),
    stepMs: fine.stepMs,
    firstMs: fine.firstMs,
    samples: Array.from(fine.samples),
    method: 'imported',
    phaseDeg: 0,
    madeBy,
  };
}

function wellTable(
  { declare, source, frame }: Loading,
  kind: WellTable['kind'],
  well: string,
  rows: number[],
  table: ReadTable,
  madeBy: WellTable['madeBy'],
): WellTable {
  const columns = COLUMNS[kind].filter(
    (c) => table.numbers[c.key] || table.texts[c.key] || ALWAYS[kind]?.includes(c.key),
  );
  const cells = rows.map((n) =>
    columns.map((c) => {
      if (table.texts[c.key]) return table.texts[c.key][n];
      const value = table.numbers[c.key]?.[n] ?? Number.NaN;
      return Number.isNaN(value) ? null : value;
    }),
  );
  const reference =
    kind === 'checkshots' && declare.reference
      ? oneOf(declare.reference, REFERENCES, 'reference of times', source.name)
      : undefined;
  return {
    id: newId(kind),
    kind,
    name: well ? `${well.slice(0, 100)} ${kind}` : kind,
    stage: 'wells',
    revision: loadedRevision(canonicalJson(cells), { well, kind, reference }),
    well: well.slice(0, 100),
    columns: columns.map(({ name, unit }) => ({ name, unit })),
    rows: cells,
    ...(reference ? { reference } : {}),
    ...(kind === 'checkshots' && frame
      ? { datumM: frame.datumM ?? 0, replacementVelocity: frame.replacementVelocity ?? 1500 }
      : {}),
    madeBy,
  };
}
