import type { CrsRow } from '@lithagon/core';
import crsUrl from '@lithagon/core/crs-table.json?url';

let table: Promise<CrsRow[]> | null = null;

/** The table of coordinate reference systems, fetched when it is first searched. */
export function crsTable(): Promise<CrsRow[]> {
  table ??= fetch(crsUrl).then((r) => r.json());
  return table;
}
