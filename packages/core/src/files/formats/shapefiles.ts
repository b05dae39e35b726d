import { zippedShapefiles } from '../../formats/shapefile/zipped.ts';
import type { ByteSource } from '../../formats/source.ts';
import { zipNames } from '../../formats/zip.ts';
import type { Around } from '../context.ts';
import { blank, placeSketch } from '../inspecting.ts';
import { NO_PRJ, objectsOfShapefile, objectsOfZipped, shapesOf, systemQuestion } from '../loadShapes.ts';
import type { Declarations, FileReport } from '../report.ts';
import { shapeFacts, shapesTitle, sketchOfShapes } from '../shapeFacts.ts';
import { defineFormat } from './define.ts';

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

export const shapefile = defineFormat({
  name: 'shapefile',
  sniff: ({ bytes, view, extension }) =>
    bytes.length >= 100 && view.getInt32(0) === 9994 && extension !== 'shx' ? 8 : 0,
  inspect: (source, declare, { around, beside }) => inspectShapefile(source, beside, declare, around),
  load: objectsOfShapefile,
});

export const zippedShapefile = defineFormat({
  name: 'zipped shapefile',
  async sniff({ mark, source }) {
    if (mark !== 0x504b0304 && mark !== 0x504b0506) return 0;
    const names = await zipNames(source).catch(() => null);
    return names?.some((n) => /\.shp$/i.test(n)) ? 7 : 0;
  },
  inspect: (source, declare, { around }) => inspectZipped(source, declare, around),
  load: objectsOfZipped,
});
