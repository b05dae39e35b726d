import { unitsOf } from '../../earth/display.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, Frame } from '../../earth/objects.ts';
import { METRES } from '../../earth/transform.ts';
import { csvText } from '../../formats/csv/write.ts';
import type { Store } from '../../storage/store.ts';
import { logsOut } from './logs.ts';
import { segyOut, seismicHdf5, volumeVtk, volumeZarr } from './seismic.ts';
import { pathVtk, surfaceCsv, surfaceGeotiff, surfaceHdf5, surfaceVtk } from './surface.ts';
import { inProjectUnits, plain, round, tableOf } from './tables.ts';

export { plain, round };

/** How an object is written, where a format leaves a choice. */
export interface OutOptions {
  /** SEG-Y samples. */
  format?: 'ieee' | 'ibm' | 'compact';
  /** SEG-Y revision. */
  revision?: '1' | '2';
}

/** What writing needs to know besides the object. */
export interface Out {
  store: Store;
  frame: Frame | null;
  options: OutOptions;
  /** Unit of map coordinates in files, and what metres are multiplied by to be in it. */
  map: { unit: 'm' | 'ft' | 'us-ft'; scale: number };
  signal?: AbortSignal;
}

const SURFACE = { csv: 'CSV, a row a bin', tif: 'GeoTIFF', vtp: 'VTK surface', h5: 'HDF5' };
const TABLE = { csv: 'CSV' };

/** Formats that an object can leave in, by extension. */
export function exportFormats(object: EarthObject): Record<string, string> {
  switch (object.kind) {
    case 'horizon':
    case 'map':
      return SURFACE;
    case 'points':
    case 'polygon':
      return { geojson: 'GeoJSON', csv: 'CSV, a row a point' };
    case 'volume':
      return { sgy: 'SEG-Y', vti: 'VTK image', h5: 'HDF5', 'zarr.zip': 'Zarr v3, zipped' };
    case 'seismic line':
      return { sgy: 'SEG-Y', h5: 'HDF5' };
    case 'logs':
      return { las: 'LAS 2.0', csv: 'CSV' };
    case 'well':
      return { csv: 'CSV of its path', vtp: 'VTK path' };
    case 'contacts':
    case 'velocity model':
      return {};
    default:
      return TABLE;
  }
}

/** The extension of a file's name as `exportFormats` calls it: `zarr.zip`, `csv`. */
export function extensionOf(file: string): string {
  return /\.(zarr\.zip|[^.]+)$/i.exec(file)?.[1].toLowerCase() ?? '';
}

/**
 * An object in an open format, part by part, so that no volume is held whole.
 * @param extension without its dot: one of `exportFormats(object)`
 */
export async function* exportParts(
  store: Store,
  object: EarthObject,
  extension: string,
  frame: Frame | null,
  options: OutOptions = {},
  signal?: AbortSignal,
): AsyncGenerator<Uint8Array> {
  const formats = exportFormats(object);
  if (!Object.hasOwn(formats, extension)) {
    const can = Object.keys(formats);
    throw new LithagonError(
      'export',
      `${object.name} is a ${object.kind}, which cannot be written as “.${extension}”.`,
      {
        object: object.name,
        fix: can.length > 0 ? `It can be written as ${can.map((e) => `.${e}`).join(' or ')}.` : 'Nothing was written.',
      },
    );
  }
  const unit = frame?.unit ?? 'm';
  const out: Out = { store, frame, options, map: { unit, scale: 1 / METRES[unit] }, signal };
  const text = (t: string) => new TextEncoder().encode(t);
  switch (object.kind) {
    case 'volume':
      if (extension === 'sgy') yield* segyOut(out, object);
      else if (extension === 'vti') yield* volumeVtk(out, object);
      else if (extension === 'h5') yield await seismicHdf5(out, object);
      else yield await volumeZarr(out, object);
      return;
    case 'seismic line':
      if (extension === 'sgy') yield* segyOut(out, object);
      else yield await seismicHdf5(out, object);
      return;
    case 'logs':
      yield text(await logsOut(out, object, extension));
      return;
    case 'horizon':
    case 'map':
      if (extension === 'tif') yield await surfaceGeotiff(out, object);
      else if (extension === 'vtp') yield* await surfaceVtk(out, object);
      else if (extension === 'h5') yield await surfaceHdf5(out, object);
      else yield text(await surfaceCsv(out, object));
      return;
    case 'points': {
      const { points, names } = object;
      const placed = points.map(([x, y]) => [x * out.map.scale, y * out.map.scale]);
      if (extension === 'csv') {
        const rows = placed.map(([x, y], n) => [names[n], round(x, 2), round(y, 2)]);
        yield text(csvText(['name', `x_${unit}`, `y_${unit}`], rows));
        return;
      }
      yield text(
        geoJsonText(
          frame,
          placed.map((coordinates, n) => ({ name: names[n] || object.name, geometry: { type: 'Point', coordinates } })),
        ),
      );
      return;
    }
    case 'polygon': {
      const at = (v: number) => round(v * out.map.scale, 2);
      if (extension === 'csv') {
        yield text(
          csvText(
            ['ring', `x_${unit}`, `y_${unit}`],
            object.rings.flatMap((ring, n) => ring.map(([x, y]) => [n + 1, at(x), at(y)])),
          ),
        );
        return;
      }
      const rings = object.rings.map((ring) => ring.map(([x, y]) => [x * out.map.scale, y * out.map.scale]));
      const geometry = object.closed
        ? { type: 'Polygon', coordinates: rings }
        : { type: 'MultiLineString', coordinates: rings };
      yield text(geoJsonText(frame, [{ name: object.name, geometry }]));
      return;
    }
    default:
      if (object.kind === 'well' && extension === 'vtp') {
        yield* await pathVtk(out, object);
        return;
      }
      yield text(csvText(...inProjectUnits(await tableOf(store, object, out.map), unitsOf(frame))));
  }
}

/** Features in the project's system, which RFC 7946 leaves to be named as its forerunner did. */
function geoJsonText(frame: Frame | null, shapes: { name: string; geometry: object }[]): string {
  const crs = frame
    ? { crs: { type: 'name', properties: { name: frame.crs.replace(/^EPSG:/, 'urn:ogc:def:crs:EPSG::') } } }
    : {};
  const features = shapes.map(({ name, geometry }) => ({ type: 'Feature', properties: { name }, geometry }));
  return `${JSON.stringify({ type: 'FeatureCollection', ...crs, features }, null, 1)}\n`;
}

/** The whole of an exported object, for those that are small. */
export async function exportObject(
  store: Store,
  object: EarthObject,
  extension: string,
  frame: Frame | null,
  options: OutOptions = {},
): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  for await (const part of exportParts(store, object, extension, frame, options)) parts.push(part);
  if (parts.length === 1) return parts[0];
  const whole = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
