import type { CrsRow } from '../earth/crs.ts';
import type { EarthObject, Frame } from '../earth/objects.ts';

/** What the project that a file is meant for holds already. */
export interface Around {
  objects: EarthObject[];
  frame: Frame | null;
  /** Rows of the table of coordinate reference systems, fetched when first needed. */
  crsTable: () => Promise<CrsRow[]>;
}

/** No project: what a file is, by itself. */
export const NOTHING_AROUND: Around = {
  objects: [],
  frame: null,
  crsTable: () => Promise.reject(new Error('no table of coordinate reference systems was given')),
};
