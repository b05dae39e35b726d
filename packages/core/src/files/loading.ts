import type { CrsRow } from '../earth/crs.ts';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject } from '../earth/objects.ts';
import type { ByteSource } from '../formats/source.ts';
import type { Store } from '../storage/store.ts';
import type { Around } from './context.ts';
import type { Placement } from './coordinates.ts';
import type { Declarations } from './report.ts';

/** What loading needs to know besides the file. */
export interface LoadContext {
  store: Store;
  /** Rows of the table of coordinate reference systems, fetched when first needed. */
  crsTable: () => Promise<CrsRow[]>;
  signal?: AbortSignal;
  onProgress?: (part: number, what: string) => void;
}

export interface Loaded {
  objects: EarthObject[];
  warnings: string[];
}

/** What a loader of one format is given. */
export interface Loading extends LoadContext, Around {
  source: ByteSource;
  /** Files that belong to it: other parts of a volume, the companions of a shapefile. */
  beside: ByteSource[];
  declare: Declarations;
  started: Date;
  /** Ids under which arrays are written; cleared away if the load fails. */
  ids: string[];
  /** Sets the frame of a project that has none; refuses what cannot be placed before somebody chooses one. */
  takeFrame(placement: Placement): void;
}

/** Refuse a declaration that is not one of its options. */
export function oneOf<T extends string>(value: string, options: readonly T[], what: string, file: string): T {
  if ((options as readonly string[]).includes(value)) return value as T;
  throw new LithagonError('declare', `“${value}” is no ${what} that is known.`, {
    object: file,
    fix: `One of: ${options.join(', ')}.`,
  });
}
