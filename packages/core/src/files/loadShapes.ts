import type { CrsRow } from '../earth/crs.ts';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject } from '../earth/objects.ts';
import { type NamedPoint, parseGeoJson, type Shape } from '../formats/geojson/parse.ts';
import { parseP190 } from '../formats/p190/parse.ts';
import { parseShapes, type ShapeRecord } from '../formats/shapefile/parse.ts';
import { zippedShapefiles } from '../formats/shapefile/zipped.ts';
import { type ByteSource, readText } from '../formats/source.ts';
import { type SystemOfText, systemOfWkt } from '../formats/wkt/match.ts';
import { freeName, loadedRevision, madeByLoading, newId } from '../project/make.ts';
import { type Placement, placementFor } from './coordinates.ts';
import type { Loaded, Loading } from './loading.ts';
import { navigationOf } from './loadTable.ts';
import { pointsOf } from './points.ts';
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

/** What a file of shapes holds, as objects. */
function objectsOf(
  loading: Loading,
  { shapes, points }: { shapes: Shape[]; points: NamedPoint[] },
  toMap: (x: number, y: number) => [number, number],
  warnings: string[],
): EarthObject[] {
  const made = polygonsOf(loading, shapes, toMap, warnings);
  if (points.length === 0) return made;
  const { source, declare, started } = loading;
  const madeBy = madeByLoading(source.name, declare, started, warnings);
  const placed = points.map(({ at }) => toMap(...at));
  return [
    ...made,
    pointsOf(
      loading,
      placed,
      points.map((p) => p.name),
      madeBy,
    ),
  ];
}

/** A place of a file of shapes. */
const firstOf = ({ shapes, points }: { shapes: Shape[]; points: NamedPoint[] }): [number, number] | undefined =>
  shapes[0]?.rings[0]?.[0] ?? points[0]?.at;

export const NO_PRJ = 'No .prj file says what system it is in; its coordinates were taken for the project’s.';

export const NOT_DEGREES =
  'It names no coordinate system, and its coordinates are no longitude and latitude as the standard has them: they were taken for the project’s.';

export const skippedFeatures = (count: number) =>
  `${count} ${count === 1 ? 'feature is no polygon, line or point' : 'features are no polygons, lines or points'} and ${count === 1 ? 'was' : 'were'} left out.`;

/** Polygons, lines and points of a GeoJSON file, brought into the project's coordinates. */
export async function objectsOfShapes(loading: Loading, text: string): Promise<Loaded> {
  const { source, declare, frame, crsTable } = loading;
  const geo = parseGeoJson(source.name, text);
  const warnings: string[] = [];
  if (geo.skipped > 0) warnings.push(skippedFeatures(geo.skipped));
  if (!geo.crs) warnings.push(NOT_DEGREES);
  const placement = await placementFor(declare, frame, crsTable, { crs: geo.crs, at: firstOf(geo) });
  loading.takeFrame(placement);
  warnings.push(...placement.notes);
  return { objects: objectsOf(loading, geo, placement.toMap, warnings), warnings };
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
      why: `${note ?? `It names “${name}”, which is none of the systems known by its numbers.`} Give its EPSG code.`,
    },
  };
}

export function refuseUnknown(file: string, { name, candidates, note }: SystemOfText): never {
  throw new LithagonError(
    'undeclared',
    `${file} is in a system that is not known here: it names “${name}”.${note ? ` ${note}` : ''}`,
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
  const nameOf = ({ attributes }: ShapeRecord) => {
    const key = Object.keys(attributes).find((k) => /^(name|label|title|id|well|station|point)$/i.test(k));
    return (key && attributes[key]) || '';
  };
  return {
    shapes: records
      .filter((r) => r.kind !== 'point')
      .map((r): Shape => ({ name: nameOf(r) || stem, closed: r.kind === 'polygon', rings: r.parts })),
    points: records
      .filter((r) => r.kind === 'point')
      .flatMap((r) => r.parts.flat().map((at): NamedPoint => ({ name: nameOf(r), at }))),
    /** What its .prj says, where it has one. */
    system: prj ? await systemOfPrj(prj, crsTable) : null,
  };
}

export async function objectsOfShapefile(loading: Loading): Promise<Loaded> {
  const { source, beside, declare, frame, crsTable } = loading;
  const found = await shapesOf(source, beside, crsTable);
  const { system } = found;
  const warnings: string[] = [];
  if (system && !system.crs && !declare.crs) refuseUnknown(source.name, system);
  if (system?.note) warnings.push(system.note);
  if (!system && !declare.crs) warnings.push(NO_PRJ);
  const placement = await placementFor(declare, frame, crsTable, { crs: system?.crs, at: firstOf(found) });
  loading.takeFrame(placement);
  warnings.push(...placement.notes);
  return { objects: objectsOf(loading, found, placement.toMap, warnings), warnings };
}

/** Shapes of every shapefile in a zip file. */
export async function objectsOfZipped(loading: Loading): Promise<Loaded> {
  const { source, objects } = loading;
  const all: Loaded = { objects: [], warnings: [] };
  // the first of them gives a project without a system its own, to which the others are brought
  let { frame } = loading;
  const takeFrame = (placement: Placement) => {
    loading.takeFrame(placement);
    frame = placement.frame;
  };
  for (const { shp, beside } of await zippedShapefiles(source)) {
    const taken = [...objects, ...all.objects];
    const one = await objectsOfShapefile({ ...loading, source: shp, beside, objects: taken, frame, takeFrame });
    // what can be loaded again is the zip file
    all.objects.push(...one.objects.map((o) => ({ ...o, madeBy: { ...o.madeBy, file: source.name } })));
    all.warnings.push(...one.warnings);
  }
  return all;
}

/** Navigation of 2D lines from a P1/90 text. */
export async function objectsOfNavigation(loading: Loading, text: string): Promise<Loaded> {
  const { source, declare, frame, crsTable, objects, started } = loading;
  const { lines, skipped } = parseP190(source.name, text);
  const [[, x, y]] = lines[0].points;
  const placement = await placementFor(declare, frame, crsTable, { at: [x, y] });
  loading.takeFrame(placement);
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
