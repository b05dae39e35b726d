import { parseGeoJson } from '../../formats/geojson/parse.ts';
import { type ByteSource, readText } from '../../formats/source.ts';
import type { Around } from '../context.ts';
import { blank, placeSketch } from '../inspecting.ts';
import { NOT_DEGREES, objectsOfShapes, skippedFeatures } from '../loadShapes.ts';
import type { Declarations, FileReport } from '../report.ts';
import { shapeFacts, shapesTitle, sketchOfShapes } from '../shapeFacts.ts';
import { defineFormat } from './define.ts';

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

const MOST = { most: 100e6, lines: false };

export const geoJson = defineFormat({
  name: 'GeoJSON',
  sniff: ({ text, extension }) =>
    text !== null && (extension === 'geojson' || (text.startsWith('{') && text.includes('"Feature'))) ? 5 : 0,
  inspect: async (source, declare, { around }) => inspectGeoJson(source, await readText(source, MOST), declare, around),
  load: async (loading) => objectsOfShapes(loading, await readText(loading.source, MOST)),
});
