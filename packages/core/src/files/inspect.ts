import { asLithagonError, LithagonError } from '../earth/errors.ts';
import { readTable } from '../formats/csv/tables.ts';
import { parseGeoJson } from '../formats/geojson/parse.ts';
import { parseLas } from '../formats/las/parse.ts';
import { type ByteSource, readText } from '../formats/source.ts';
import { inspectSegy } from './inspectSegy.ts';
import type { Declarations, FileReport } from './report.ts';

/** What kind of file it is, from its content first and its name second. */
export async function recognise(source: ByteSource): Promise<FileReport['format']> {
  const head = await source.read(0, Math.min(source.size, 3600));
  const looksText =
    head.length > 0 && head.subarray(0, 1000).every((b) => b === 9 || b === 10 || b === 13 || (b >= 32 && b !== 127));
  const extension = source.name.toLowerCase().split('.').pop() ?? '';
  if (['sgy', 'segy'].includes(extension)) return 'SEG-Y';
  if (!looksText) return head.length >= 3600 ? 'SEG-Y' : 'unknown';
  const text = new TextDecoder().decode(head).trimStart();
  if (/^(#.*\n)*~v/i.test(text) || extension === 'las') return 'LAS';
  if (extension === 'geojson' || (text.startsWith('{') && text.includes('"Feature'))) return 'GeoJSON';
  if (extension === 'csv' || extension === 'txt' || text.split('\n', 1)[0].split(/[,;\t]/).length > 1) return 'CSV';
  return 'unknown';
}

function refusal(source: ByteSource, format: FileReport['format'], cause: unknown): FileReport {
  const error = asLithagonError(cause);
  return {
    file: source.name,
    bytes: source.size,
    format,
    takenFor: format === 'unknown' ? 'Not recognised' : `${format}, which cannot be read`,
    facts: [],
    problems: [],
    questions: [],
    sketch: { lines: [], points: [] },
    refused: { code: error.code, message: error.message, object: error.object, fix: error.fix },
  };
}

/** Look into a file and say what it is, what it holds, and what only a person can say. Never throws for a bad file. */
export async function inspectFile(
  source: ByteSource,
  declare: Declarations = {},
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<FileReport> {
  let format: FileReport['format'] = 'unknown';
  try {
    format = await recognise(source);
    switch (format) {
      case 'SEG-Y':
        return (await inspectSegy(source, declare, signal, onProgress)).report;
      case 'LAS':
        return inspectLas(source, await readText(source));
      case 'CSV':
        return inspectTable(source, await readText(source));
      case 'GeoJSON':
        return inspectGeoJson(source, await readText(source));
      default:
        throw new LithagonError('format', `${source.name} is of no kind that is known.`, {
          object: source.name,
          fix: 'SEG-Y, LAS, CSV and GeoJSON files are read.',
        });
    }
  } catch (cause) {
    if (signal?.aborted) throw cause;
    return refusal(source, format, cause);
  }
}

function blank(source: ByteSource, format: FileReport['format'], takenFor: string): FileReport {
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

function inspectLas(source: ByteSource, text: string): FileReport {
  const las = parseLas(source.name, text);
  const report = blank(source, 'LAS', `Logs of ${las.well || 'an unnamed well'}`);
  const last = las.depthM.length - 1;
  report.facts = [
    { label: 'Well', value: las.well || '(none)' },
    { label: 'Version', value: las.version },
    { label: 'Depths', value: `${las.depthM[0].toFixed(2)} to ${las.depthM[last].toFixed(2)} m, ${last + 1} of them` },
    { label: 'Curves', value: las.curves.map((c) => `${c.mnemonic} (${c.unit || 'no unit'})`).join(', ') },
  ];
  report.problems = las.warnings;
  if (!las.well)
    report.refused = {
      code: 'las',
      message: `${source.name} does not name its well.`,
      object: source.name,
      fix: 'Put the name in its WELL line.',
    };
  return report;
}

function inspectTable(source: ByteSource, text: string): FileReport {
  const table = readTable(source.name, text);
  const report = blank(source, 'CSV', table.spec.title);
  report.facts = [
    { label: 'Rows', value: String(table.rows) },
    {
      label: 'Columns',
      value: Object.entries(table.found)
        .map(([key, f]) => `${key} from “${f.column}”${f.unit ? ` in ${f.unit}` : ''}`)
        .join(', '),
    },
  ];
  report.problems = table.warnings;
  const { x, y } = table.numbers;
  if (x && y) {
    const every = Math.max(1, Math.floor(x.length / 400));
    const group = table.texts.fault ?? table.texts.polygon;
    const stick = table.numbers.stick;
    if (table.spec.kind === 'well heads')
      report.sketch.points = Array.from(x, (px, n) => ({ x: px, y: y[n], label: table.texts.well[n] }));
    else if (group) {
      const lines = new Map<string, [number, number][]>();
      for (let n = 0; n < x.length; n++) {
        const key = `${group[n]}/${stick?.[n] ?? ''}`;
        const line = lines.get(key) ?? [];
        line.push([x[n], y[n]]);
        lines.set(key, line);
      }
      report.sketch.lines = [...lines.values()];
    } else for (let n = 0; n < x.length; n += every) report.sketch.points.push({ x: x[n], y: y[n], label: '' });
  }
  return report;
}

function inspectGeoJson(source: ByteSource, text: string): FileReport {
  const file = parseGeoJson(source.name, text);
  const report = blank(
    source,
    'GeoJSON',
    file.shapes.length === 1 ? (file.shapes[0].closed ? 'Polygon' : 'Line') : `${file.shapes.length} shapes`,
  );
  report.facts = [
    { label: 'Shapes', value: file.shapes.map((s) => s.name).join(', ') },
    { label: 'Coordinates', value: file.crs },
  ];
  if (file.skipped > 0)
    report.problems.push(`${file.skipped} features are neither polygons nor lines and are left out.`);
  report.sketch.lines = file.shapes.flatMap((s) => s.rings);
  return report;
}
