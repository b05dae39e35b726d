import type { CrsRow } from '../earth/crs.ts';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject } from '../earth/objects.ts';
import { parseGeoJson, type Shape } from '../formats/geojson/parse.ts';
import { parseP190 } from '../formats/p190/parse.ts';
import { parseShapes } from '../formats/shapefile/parse.ts';
import { type ByteSource, readText } from '../formats/source.ts';
import { type SystemOfText, systemOfWkt } from '../formats/wkt/match.ts';
import { freeName, loadedRevision, madeByLoading, newId } from '../project/make.ts';
import { placementFor } from './coordinates.ts';
import type { Loaded, Loading } from './load.ts';
import { navigationOf } from './loadTable.ts';
import type { Question } from './report.ts';

function polygonsOf(
  loading: Loading,
  shapes: Shape[],
  toMap: (x: number, y: number) => [number, number],
  warnings: string[],
): EarthObject[] {
  const { source, declare, objects, started } = loading;
  const taken = [...objects];
  return shapes.map((shape): EarthObject => {
    const rings = shape.rings.map((ring) => ring.map(([x, y]) => toMap(x, y)));
    const object: EarthObject = {
      id: newId('polygon'),
      kind: 'polygon',
      name: freeName(taken, 'polygon', (shapes.length === 1 && declare.name) || shape.name || 'Outline'),
      stage: 'data',
      revision: loadedRevision(shape.name, rings),
      closed: shape.closed,
      rings,
      madeBy: madeByLoading(source.name, declare, started, warnings),
    };
    taken.push(object);
    return object;
  });
}

/** Polygons and lines of a GeoJSON file, brought into the project's coordinates. */
export async function objectsOfShapes(loading: Loading, text: string): Promise<Loaded> {
  const { source, declare, frame, crsTable } = loading;
  const geo = parseGeoJson(source.name, text);
  const warnings: string[] = [];
  if (geo.skipped > 0) warnings.push(`${geo.skipped} features are neither polygons nor lines and were left out.`);
  // longitude and latitude stay as they are where nothing says what the project is in
  const placement =
    frame || geo.crs !== 'EPSG:4326'
      ? await placementFor(source.name, declare, frame, crsTable, { crs: geo.crs })
      : { toMap: (x: number, y: number): [number, number] => [x, y], notes: [], frame };
  loading.takeFrame(placement.frame);
  warnings.push(...placement.notes);
  return { objects: polygonsOf(loading, geo.shapes, placement.toMap, warnings), warnings };
}

/** The system that a .prj file means, as far as it is plain. */
async function systemOfPrj(prj: ByteSource, crsTable: () => Promise<CrsRow[]>): Promise<SystemOfText> {
  const text = await readText(prj, { most: 1e6, lines: false });
  return systemOfWkt(text, await crsTable()) ?? { name: text.trim().slice(0, 60), candidates: [] };
}

/** What is asked where a file names a system that is none of those known: it is not taken for the project's. */
export function systemQuestion({ name, candidates, note }: SystemOfText): Question {
  return {
    key: 'crs',
    label: 'It is in the system',
    typed: true,
    options: candidates.map((value) => ({ value, label: value })),
    hint: {
      value: null,
      why: `${note ?? `Its .prj names “${name}”, which is none of the systems known by its numbers.`} Give its EPSG code.`,
    },
  };
}

function refuseUnknown(file: string, { name, candidates, note }: SystemOfText): never {
  throw new LithagonError(
    'undeclared',
    `${file} is in a system that is not known here: its .prj names “${name}”.${note ? ` ${note}` : ''}`,
    {
      object: file,
      fix: `Declare crs=EPSG:n.${candidates.length > 0 ? ` By its numbers it may be ${candidates.join(', ')}.` : ''}`,
    },
  );
}

export const companion = (beside: ByteSource[], extension: string) =>
  beside.find((s) => s.name.toLowerCase().endsWith(extension));

/** Shapes of a shapefile with its attributes and system from the files beside it. */
export async function shapesOf(source: ByteSource, beside: ByteSource[], crsTable: () => Promise<CrsRow[]>) {
  const [dbf, prj, cpg] = ['.dbf', '.prj', '.cpg'].map((extension) => companion(beside, extension));
  const records = parseShapes(
    source.name,
    await source.read(0, source.size),
    dbf ? await dbf.read(0, dbf.size) : undefined,
    cpg ? await readText(cpg, { most: 1e4 }) : undefined,
  );
  const stem = source.name.replace(/\.[^.]*$/, '');
  const shapes = records
    .filter((r) => r.kind !== 'point')
    .map((r): Shape => {
      const key = Object.keys(r.attributes).find((k) => /^(name|label|title|id)$/i.test(k));
      return { name: (key && r.attributes[key]) || stem, closed: r.kind === 'polygon', rings: r.parts };
    });
  return {
    shapes,
    points: records.length - shapes.length,
    /** What its .prj says, where it has one. */
    system: prj ? await systemOfPrj(prj, crsTable) : null,
  };
}

export async function objectsOfShapefile(loading: Loading): Promise<Loaded> {
  const { source, beside, declare, frame, crsTable } = loading;
  const { shapes, points, system } = await shapesOf(source, beside, crsTable);
  if (shapes.length === 0)
    throw new LithagonError('shapefile', `${source.name} holds points only, which are not loaded from shapefiles.`, {
      object: source.name,
      fix: 'Lines and polygons are.',
    });
  const warnings: string[] = [];
  if (points > 0) warnings.push(`${points} points were left out: lines and polygons are loaded.`);
  if (system && !system.crs && !declare.crs) refuseUnknown(source.name, system);
  if (system?.note) warnings.push(system.note);
  if (!system && !declare.crs)
    warnings.push('No .prj file says what system it is in; its coordinates were taken for the project’s.');
  const placement = await placementFor(source.name, declare, frame, crsTable, { crs: system?.crs });
  loading.takeFrame(placement.frame);
  warnings.push(...placement.notes);
  return { objects: polygonsOf(loading, shapes, placement.toMap, warnings), warnings };
}

/** Navigation of 2D lines from a P1/90 text. */
export async function objectsOfNavigation(loading: Loading, text: string): Promise<Loaded> {
  const { source, declare, frame, crsTable, objects, started } = loading;
  const { lines, skipped } = parseP190(source.name, text);
  const placement = await placementFor(source.name, declare, frame, crsTable);
  loading.takeFrame(placement.frame);
  const warnings = [...placement.notes];
  if (skipped > 0) warnings.push(`${skipped} records have no readable position and were left out.`);
  const madeBy = madeByLoading(source.name, declare, started, warnings);
  return {
    objects: lines.map(({ line, points }) =>
      navigationOf(
        objects,
        line,
        'shotpoint',
        points.map(([n, x, y]) => [n, ...placement.toMap(x, y)]),
        madeBy,
      ),
    ),
    warnings,
  };
}
