import type { ByteSource } from '../../formats/source.ts';
import { type Around, NOTHING_AROUND } from '../context.ts';
import { blank, placeSketch } from '../inspecting.ts';
import { gridQuestions, objectsOfGrid, readGrid, systemOfGrid, variableQuestion } from '../loadGrid.ts';
import { systemQuestion } from '../loadShapes.ts';
import type { Declarations, FileFormat, FileReport } from '../report.ts';
import { defineFormat, type Format } from './define.ts';

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

const gridFormat = (name: string, sniff: Format['sniff']): Format =>
  defineFormat({
    name,
    sniff,
    inspect: (source, declare, { around }) => inspectGrid(source, name, declare, around),
    load: (loading) => objectsOfGrid(loading, name),
  });

export const geoTiff = gridFormat('GeoTIFF', ({ mark }) =>
  [0x49492a00, 0x4d4d002a, 0x49492b00, 0x4d4d002b].includes(mark) ? 8 : 0,
);
export const netCdf = gridFormat('netCDF', ({ mark }) =>
  [0x89484446, 0x43444601, 0x43444602, 0x43444605].includes(mark) ? 8 : 0,
);
export const asciiGrid = gridFormat('ESRI ASCII grid', ({ text }) =>
  text !== null && /^\s*ncols\s+\d+/i.test(text) ? 4 : 0,
);
