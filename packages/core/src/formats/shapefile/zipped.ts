import type { FileEntry } from '@zip.js/zip.js';
import { LithagonError } from '../../earth/errors.ts';
import { type ByteSource, memorySource } from '../source.ts';
import { unzipped, zipFiles } from '../zip.ts';

const MOST_ENTRIES = 10_000;
const MOST_BYTES = 500e6;

/** A shapefile with the files that belong to it. */
export interface ShapefileSet {
  shp: ByteSource;
  beside: ByteSource[];
}

const stemOf = (path: string) => path.replace(/\.[^./]*$/, '').toLowerCase();

/** The shapefiles in a zip file, each with its companions of the same name; refuses what unpacks to too much. */
export async function zippedShapefiles(source: ByteSource): Promise<ShapefileSet[]> {
  const refuse = (why: string): never => {
    throw new LithagonError('shapefile', `${source.name} cannot be unpacked: ${why}.`, {
      object: source.name,
      fix: 'Unpack it, and load the shapefile with the files beside it.',
    });
  };
  const entries: FileEntry[] = [];
  let bytes = 0;
  try {
    for await (const entry of zipFiles(source)) {
      if (entries.length >= MOST_ENTRIES) refuse(`it has more than ${MOST_ENTRIES} entries`);
      // what a system adds beside each file is no part of it
      if (/(^|\/)(__MACOSX\/|\._)/.test(entry.filename)) continue;
      if (!/\.(shp|dbf|prj|cpg)$/i.test(entry.filename)) continue;
      bytes += entry.uncompressedSize;
      if (entry.encrypted) refuse('it is locked with a password');
      if (bytes > MOST_BYTES) refuse(`it unpacks to more than ${MOST_BYTES / 1e6} MB`);
      entries.push(entry);
    }
  } catch (cause) {
    if (cause instanceof LithagonError) throw cause;
    refuse('it is no zip file, or was cut short');
  }
  const open = async (entry: FileEntry) =>
    memorySource(
      entry.filename.split('/').pop() ?? entry.filename,
      await unzipped(entry).catch(() => refuse(`“${entry.filename.slice(0, 80)}” in it is damaged`)),
    );
  const sets: ShapefileSet[] = [];
  for (const shp of entries.filter((e) => /\.shp$/i.test(e.filename))) {
    const own = entries.filter((e) => e !== shp && stemOf(e.filename) === stemOf(shp.filename));
    sets.push({ shp: await open(shp), beside: await Promise.all(own.map(open)) });
  }
  return sets;
}
