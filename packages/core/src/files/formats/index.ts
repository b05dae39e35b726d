import type { Format } from './define.ts';
import { geoJson } from './geoJson.ts';
import { asciiGrid, geoTiff, netCdf } from './grids.ts';
import { las } from './las.ts';
import { p190 } from './p190.ts';
import { segy } from './segy.ts';
import { shapefile, zippedShapefile } from './shapefiles.ts';
import { table } from './table.ts';
import { zarr } from './zarr.ts';

const formats = new Map<string, Format>();

/** Make a format known everywhere that files are looked into or loaded. */
export function registerFormat(format: Format): void {
  if (formats.has(format.name)) throw new Error(`two formats are called ${format.name}`);
  formats.set(format.name, format);
}

export function forgetFormat(name: string): void {
  formats.delete(name);
}

for (const each of [segy, geoTiff, netCdf, shapefile, zippedShapefile, zarr, las, geoJson, asciiGrid, p190, table])
  registerFormat(each);

export const formatNamed = (name: string): Format | undefined => formats.get(name);

export const allFormats = (): Format[] => [...formats.values()];
