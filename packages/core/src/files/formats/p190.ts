import { looksLikeP190, parseP190 } from '../../formats/p190/parse.ts';
import { type ByteSource, readText } from '../../formats/source.ts';
import type { Around } from '../context.ts';
import { blank, placeSketch } from '../inspecting.ts';
import { objectsOfNavigation } from '../loadShapes.ts';
import type { Declarations, FileReport } from '../report.ts';
import { defineFormat } from './define.ts';

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

export const p190 = defineFormat({
  name: 'P1/90',
  sniff: ({ text }) => (text !== null && looksLikeP190(text) ? 3 : 0),
  inspect: async (source, declare, { around }) => inspectP190(source, await readText(source), declare, around),
  load: async (loading) => objectsOfNavigation(loading, await readText(loading.source)),
});
