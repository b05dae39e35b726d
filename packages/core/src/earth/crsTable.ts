import { readFile } from 'node:fs/promises';
import type { CrsRow } from './crs.ts';

let rows: Promise<CrsRow[]> | null = null;

/** The trimmed EPSG table that is made when the packages are built. */
export function crsTable(): Promise<CrsRow[]> {
  rows ??= readFile(new URL('../../generated/crs-table.json', import.meta.url), 'utf8').then((text) =>
    JSON.parse(text),
  );
  return rows;
}
