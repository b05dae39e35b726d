import { unitsOf } from '../earth/display.ts';
import { asLithagonError } from '../earth/errors.ts';
import { TABLES } from '../formats/csv/tableKinds.ts';
import { guessTable, mappingOf, readTable, refuseIncomplete } from '../formats/csv/tables.ts';
import { type GeoJson, parseGeoJson } from '../formats/geojson/parse.ts';
import { parseLas } from '../formats/las/parse.ts';
import { parseP190 } from '../formats/p190/parse.ts';
import { zippedShapefiles } from '../formats/shapefile/zipped.ts';
import { type ByteSource, readText } from '../formats/source.ts';
import { type Around, NOTHING_AROUND } from './context.ts';
import { type Placement, placementFor, projectSystemQuestion } from './coordinates.ts';
import { farFrom } from './far.ts';
import { inspectSegy } from './segy/inspect.ts';
import { gridQuestions, readGrid, systemOfGrid, variableQuestion } from './loadGrid.ts';
import { depthNotes } from './loadLas.ts';
import { NO_PRJ, NOT_DEGREES, shapesOf, skippedFeatures, systemQuestion } from './loadShapes.ts';
import { mapUnitOf, REFERENCES, turnElevations, waveletSamples } from './loadTable.ts';
import { inspectZarr } from './loadZarr.ts';
import { wellNamed, wellNames, wellQuestion } from './names.ts';
import { oddLogs } from './oddLogs.ts';
import { oddCoordinates, oddRows, unusedColumns } from './oddRows.ts';
import { recognise, unknownFormat } from './recognise.ts';
import type { Declarations, FileFormat, FileReport } from './report.ts';
import { sketchOfTable } from './sketch.ts';

function blank(source: ByteSource, format: FileFormat, takenFor: string): FileReport {
  return {
    file: source.name,
    bytes: source.size,
    format,
    takenFor,
    facts: [],
    problems: [],
    questions: [],
    sketch: { lines: [], points: [] },
  };
}

function refused(report: FileReport, cause: unknown): FileReport {
  const error = asLithagonError(cause);
  return { ...report, refused: { code: error.code, message: error.message, object: error.object, fix: error.fix } };
}

/** What a file is looked at with besides its bytes. */
export interface Looking {
  around?: Around;
  /** Further parts of the same volume, or companions of a shapefile. */
  beside?: ByteSource[];
  signal?: AbortSignal;
  onProgress?: (part: number) => void;
}

async function reportOf(
  format: FileFormat,
  source: ByteSource,
  declare: Declarations,
  { around = NOTHING_AROUND, beside = [], signal, onProgress }: Looking,
): Promise<FileReport> {
  switch (format) {
    case 'SEG-Y':
      return (await inspectSegy([source, ...beside], declare, around, signal, onProgress)).report;
    case 'LAS':
      return inspectLas(source, await readText(source), declare, around);
    case 'CSV':
      return await inspectTable(source, await readText(source), declare, around);
    case 'GeoJSON':
      return await inspectGeoJson(source, await readText(source, { most: 100e6, lines: false }), declare, around);
    case 'shapefile':
      return await inspectShapefile(source, beside, declare, around);
    case 'P1/90':
      return await inspectP190(source, await readText(source), declare, around);
    case 'Zarr':
      return { ...blank(source, format, ''), ...(await inspectZarr(source)) };
    case 'zipped shapefile':
      return await inspectZipped(source, declare, around);
    case 'netCDF':
    case 'GeoTIFF':
    case 'ESRI ASCII grid':
      return await inspectGrid(source, format, declare, around);
    default:
      throw await unknownFormat(source);
  }
}

/** Bring the sketch of a file into the project's system, where that is known, and say what was done. */
async function placeSketch(
  report: FileReport,
  declare: Declarations,
  around: Around,
  says: { crs?: string; metres?: number } = {},
): Promise<FileReport> {
  const { frame, crsTable } = around;
  // by itself a file keeps its own numbers
  if (!frame && (around === NOTHING_AROUND || (!says.crs && !declare.crs))) return report;
  const [first] = report.sketch.lines.flat().concat(report.sketch.points.map(({ x, y }) => [x, y]));
  const placement = await placementFor(declare, frame, crsTable, { ...says, at: first });
  report.problems.push(...placement.notes);
  return sketched(report, placement, around);
}

/** The report with its sketch on the map, or with the question which system the project is to be in. */
async function sketched(report: FileReport, placement: Placement, { crsTable }: Around): Promise<FileReport> {
  const { lines, points } = report.sketch;
  if (placement.waits) {
    const places = [...lines.flat(), ...points.map(({ x, y }): [number, number] => [x, y])];
    report.questions.push(await projectSystemQuestion(placement.waits, places, crsTable));
    return { ...report, sketch: { lines: [], points: [] } };
  }
  report.sketch = {
    lines: lines.map((line) => line.map(([x, y]) => placement.toMap(x, y))),
    points: points.map((point) => {
      const [x, y] = placement.toMap(point.x, point.y);
      return { ...point, x, y };
    }),
  };
  return report;
}

/** Look into a file and say what it is, what it holds, and what only a person can say. Never throws for a bad file. */
export async function inspectFile(
  source: ByteSource,
  declare: Declarations = {},
  { around = NOTHING_AROUND, beside = [], signal, onProgress }: Looking = {},
): Promise<FileReport> {
  let format: FileFormat = 'unknown';
  try {
    format = await recognise(source);
    const report = await reportOf(format, source, declare, { around, beside, signal, onProgress });
    const far = farFrom(report.sketch, around);
    if (far) report.problems.push(far);
    return report;
  } catch (cause) {
    if (signal?.aborted) throw cause;
    return refused(
      blank(source, format, format === 'unknown' ? 'Not recognised' : `${format}, which cannot be read`),
      cause,
    );
  }
}

function inspectLas(source: ByteSource, text: string, declare: Declarations, around: Around): FileReport {
  const units = unitsOf(around.frame);
  const sets = parseLas(source.name, text);
  const [las] = sets;
  const report = blank(source, 'LAS', `Logs of ${las.well || 'an unnamed well'}`);
  report.facts = [
    { label: 'Well', value: las.well || '(none)' },
    { label: 'Version', value: las.version },
    ...sets.flatMap((set, n) => {
      const last = set.depthM.length - 1;
      const which = sets.length > 1 ? ` ${n + 1}` : '';
      return [
        {
          label: `Depths${which}`,
          value: `${units.to(set.depthM[0], 'm').toFixed(2)} to ${units.text(set.depthM[last], 'm', 2)}, ${last + 1} of them`,
        },
        {
          label: `Curves${which}`,
          value: set.curves.map((c) => `${c.mnemonic} (${c.unit || 'no unit'})`).join(', '),
        },
      ];
    }),
  ];
  const well = wellNamed(declare, declare.well || las.well);
  report.problems = sets.flatMap((set) => [
    ...set.warnings,
    ...depthNotes(set, units),
    ...oddLogs(set, well, around.objects, units),
  ]);
  report.wells = [declare.well || las.well].filter(Boolean);
  if (!las.well) report.questions.push(wellQuestion(source.name, wellNames(around.objects)));
  return report;
}

async function inspectTable(
  source: ByteSource,
  text: string,
  declare: Declarations,
  around: Around,
): Promise<FileReport> {
  const mapping = mappingOf(declare);
  const guess = guessTable(source.name, text, mapping);
  const { spec, found, header, body } = guess;
  // columns that go by no known word say nothing of what the table is
  const known = mapping.kind !== undefined || Object.keys(found).length > 0;
  const report = blank(source, 'CSV', known ? spec.title : 'Table');
  const keyOf = new Map(Object.entries(found).map(([key, f]) => [f.column, { key, unit: f.unit }]));
  report.table = {
    kind: known ? spec.kind : '',
    title: report.takenFor,
    kinds: TABLES.map(({ kind, title }) => ({ kind, title })),
    columns: header.map((column, n) => ({
      column,
      key: keyOf.get(column)?.key ?? null,
      unit: keyOf.get(column)?.unit ?? null,
      cells: body.slice(0, 6).map((row) => (row[n] ?? '').slice(0, 60)),
    })),
    keys: (known ? spec.columns : []).map((c) => ({
      key: c.key,
      label: c.label,
      unit: c.unit ?? null,
      needed: !c.optional && !c.told,
    })),
  };
  try {
    refuseIncomplete(source.name, guess);
    const table = readTable(source.name, text, mapping);
    report.problems = [...table.warnings];
    report.facts = [
      { label: 'Rows', value: String(table.rows) },
      {
        label: 'Columns',
        value: Object.entries(table.found)
          .map(([key, f]) => `${key} from “${f.column}”${f.unit ? ` in ${f.unit}` : ''}`)
          .join(', '),
      },
    ];
    report.wells = [...new Set(table.texts.well ?? [])].filter(Boolean);
    if (guess.told.includes('well')) report.questions.push(wellQuestion(source.name, wellNames(around.objects)));
    if (guess.told.includes('kb'))
      report.questions.push({
        key: 'kb',
        label: 'Kelly bushing above sea level, m, of all wells',
        typed: true,
        options: [],
      });
    if (spec.kind === 'checkshots')
      report.questions.push({
        key: 'reference',
        label: 'Times are counted from',
        optional: true,
        options: REFERENCES.map((value) => ({
          value,
          label: { datum: 'the seismic datum', msl: 'mean sea level', kb: 'the kelly bushing' }[value],
        })),
      });
    if (spec.kind === 'wavelet') waveletSamples(source.name, table.numbers.time, table.numbers.amplitude);
    report.problems.push(...turnElevations(table));
    const { x, y } = table.numbers;
    if (x && y) {
      const says = { ...mapUnitOf(table), at: [x[0], y[0]] as [number, number] };
      const placement = await placementFor(declare, around.frame, around.crsTable, says);
      const degrees = mapUnitOf(table).degrees || declare.crs !== undefined;
      report.problems.push(...placement.notes, ...oddCoordinates(table, degrees));
      report.sketch = sketchOfTable(table);
      Object.assign(report, await sketched(report, placement, around));
      if (!placement.waits) for (let n = 0; n < x.length; n++) [x[n], y[n]] = placement.toMap(x[n], y[n]);
    }
    report.problems.push(...unusedColumns(table), ...oddRows(table, around.objects, around.frame));
    return report;
  } catch (cause) {
    return refused(report, cause);
  }
}

type FoundShapes = Pick<GeoJson, 'shapes' | 'points'>;

function shapesTitle({ shapes, points }: FoundShapes): string {
  const [shape] = shapes;
  const named = shapes.length === 1 ? (shape.closed ? 'Polygon' : 'Line') : `${shapes.length} shapes`;
  const places = points.length === 1 ? '1 point' : `${points.length} points`;
  if (points.length === 0) return named;
  return shapes.length === 0 ? places : `${named} and ${places}`;
}

function shapeFacts({ shapes, points }: FoundShapes): FileReport['facts'] {
  const few = (names: string[]) => [...new Set(names)].filter(Boolean).slice(0, 40).join(', ');
  return [
    ...(shapes.length > 0 ? [{ label: 'Shapes', value: few(shapes.map((s) => s.name)) }] : []),
    ...(points.length > 0
      ? [
          {
            label: 'Points',
            value: `${points.length}${points.some((p) => p.name) ? `: ${few(points.map((p) => p.name))}` : ''}`,
          },
        ]
      : []),
  ];
}

function sketchOfShapes({ shapes, points }: FoundShapes): FileReport['sketch'] {
  const labels = points.length <= 200;
  return {
    lines: shapes.flatMap((s) => s.rings),
    points: points.slice(0, 4000).map(({ name, at: [x, y] }) => ({ x, y, label: labels ? name : '' })),
  };
}

async function inspectGeoJson(
  source: ByteSource,
  text: string,
  declare: Declarations,
  around: Around,
): Promise<FileReport> {
  const file = parseGeoJson(source.name, text);
  const report = blank(source, 'GeoJSON', shapesTitle(file));
  report.facts = [
    ...shapeFacts(file),
    { label: 'Coordinates', value: file.crs ?? 'not said: the project’s are taken' },
  ];
  if (file.skipped > 0) report.problems.push(skippedFeatures(file.skipped));
  if (!file.crs) report.problems.push(NOT_DEGREES);
  report.sketch = sketchOfShapes(file);
  return placeSketch(report, declare, around, { crs: file.crs });
}

async function inspectShapefile(
  source: ByteSource,
  beside: ByteSource[],
  declare: Declarations,
  around: Around,
): Promise<FileReport> {
  const found = await shapesOf(source, beside, around.crsTable);
  const { system } = found;
  const report = blank(source, 'shapefile', shapesTitle(found));
  report.facts = [
    ...shapeFacts(found),
    {
      label: 'Coordinates',
      value: system
        ? `${system.name}${system.crs ? ` (${system.crs})` : ', which is not known'}`
        : 'not said: the project’s are taken',
    },
    { label: 'With it', value: beside.map((s) => s.name).join(', ') || 'no .dbf (names) and no .prj (system)' },
  ];
  if (system?.note) report.problems.push(system.note);
  if (!system && !declare.crs) report.problems.push(NO_PRJ);
  report.sketch = sketchOfShapes(found);
  if (system && !system.crs) {
    report.questions.push(systemQuestion(system));
    // where it lies is not known before somebody says it
    if (!declare.crs) return { ...report, sketch: { lines: [], points: [] } };
  }
  return placeSketch(report, declare, around, { crs: system?.crs });
}

/** All shapefiles in a zip file as one report. */
async function inspectZipped(source: ByteSource, declare: Declarations, around: Around): Promise<FileReport> {
  const sets = await zippedShapefiles(source);
  const report = blank(source, 'zipped shapefile', sets.length === 1 ? '1 shapefile' : `${sets.length} shapefiles`);
  for (const { shp, beside } of sets) {
    const each = await inspectShapefile(shp, beside, declare, around);
    report.facts.push({ label: each.file, value: each.takenFor }, ...each.facts);
    report.problems.push(...each.problems.map((p) => (sets.length > 1 ? `${each.file}: ${p}` : p)));
    report.questions.push(...each.questions.filter((q) => !report.questions.some((asked) => asked.key === q.key)));
    report.sketch.lines.push(...each.sketch.lines);
    report.sketch.points.push(...each.sketch.points);
  }
  return report;
}

async function inspectP190(
  source: ByteSource,
  text: string,
  declare: Declarations,
  around: Around,
): Promise<FileReport> {
  const { lines, kind, skipped } = parseP190(source.name, text);
  const what = { C: 'common midpoints', S: 'sources', V: 'vessel positions' }[kind] ?? kind;
  const report = blank(source, 'P1/90', `Navigation of ${lines.length} ${lines.length === 1 ? 'line' : 'lines'}`);
  report.facts = [
    { label: 'Positions', value: what },
    ...lines.slice(0, 20).map((l) => ({
      label: l.line,
      value: `${l.points.length} points, ${l.points[0][0]} to ${l.points[l.points.length - 1][0]}`,
    })),
  ];
  if (skipped > 0) report.problems.push(`${skipped} records have no readable position and are left out.`);
  report.sketch.lines = lines.map((l) => l.points.map(([, x, y]) => [x, y]));
  return placeSketch(report, declare, around);
}

async function inspectGrid(
  source: ByteSource,
  format: FileFormat,
  declare: Declarations,
  around: Around,
): Promise<FileReport> {
  const { grid, names } = await readGrid(source, format, declare);
  const system = around === NOTHING_AROUND ? null : await systemOfGrid(grid, around.crsTable);
  const crs = grid.crs ?? system?.crs;
  const report = blank(source, format, 'Surface or map');
  const live = grid.values.reduce((n, v) => n + (Number.isNaN(v) ? 0 : 1), 0);
  let [min, max] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const v of grid.values) {
    if (v < min) min = v;
    if (v > max) max = v;
  }
  report.facts = [
    { label: 'Cells', value: `${grid.rows} rows of ${grid.columns}, ${live} with a value` },
    {
      label: 'Cell',
      value: `${Math.hypot(...grid.perColumn).toPrecision(5)} × ${Math.hypot(...grid.perRow).toPrecision(5)} in the file’s unit`,
    },
    { label: 'Values', value: live > 0 ? `${min.toPrecision(5)} to ${max.toPrecision(5)}` : 'none' },
    {
      label: 'Coordinates',
      value: crs ?? (system ? `${system.name}, which is not known` : 'not said: the project’s are taken'),
    },
    ...(grid.title ? [{ label: 'It says', value: `${grid.title}${grid.unit ? `, ${grid.unit}` : ''}` }] : []),
  ];
  report.problems = [...(grid.notes ?? []), ...(system?.note ? [system.note] : [])];
  report.questions = [...variableQuestion(names), ...gridQuestions(grid)];
  if (system && !crs) {
    report.questions.push(systemQuestion(system));
    if (!declare.crs) return report;
  }
  const corner = (r: number, c: number): [number, number] => [
    grid.origin[0] + r * grid.perRow[0] + c * grid.perColumn[0],
    grid.origin[1] + r * grid.perRow[1] + c * grid.perColumn[1],
  ];
  const [r, c] = [grid.rows - 1, grid.columns - 1];
  report.sketch.lines = [[corner(0, 0), corner(0, c), corner(r, c), corner(r, 0), corner(0, 0)]];
  return placeSketch(report, declare, around, { crs, metres: grid.metres });
}
