import type { CrsRow } from '../earth/crs.ts';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject } from '../earth/objects.ts';
import { type ByteSource, readText } from '../formats/source.ts';
import type { Store } from '../storage/store.ts';
import type { Around } from './context.ts';
import { type Placement, PROJECT_SYSTEM, placementFor, refuseWaiting } from './coordinates.ts';

import { farFrom } from './far.ts';
import { objectsOfGrid } from './loadGrid.ts';
import { objectsOfLas } from './loadLas.ts';
import { objectsOfSegy } from './segy/load.ts';
import { objectsOfNavigation, objectsOfShapefile, objectsOfShapes, objectsOfZipped } from './loadShapes.ts';
import { objectsOfTable } from './loadTable.ts';
import { objectsOfZarr } from './loadZarr.ts';
import { recognise, unknownFormat } from './recognise.ts';
import type { Declarations } from './report.ts';
import { sketchOfObjects } from './sketch.ts';

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

/**
 * Load one file into a project, in one transaction: nothing of it is visible before the end, and nothing remains of
 * a load that fails or is cancelled.
 * @param beside further parts of the same volume, or companions of a shapefile
 */
export async function loadFile(
  source: ByteSource,
  declare: Declarations,
  context: LoadContext,
  beside: ByteSource[] = [],
): Promise<Loaded> {
  const { store } = context;
  const format = await recognise(source);
  const facts = await store.facts();
  let { frame } = facts;
  const ids: string[] = [];
  const loading: Loading = {
    ...context,
    source,
    beside,
    declare,
    started: new Date(),
    ids,
    objects: await store.list(),
    frame,
    takeFrame: (placement) => {
      refuseWaiting(source.name, placement);
      frame = placement.frame;
    },
  };
  let loaded: Loaded;
  try {
    // a table without coordinates can say what system the project is in, too
    if ((declare.crs || declare[PROJECT_SYSTEM]) && !frame)
      frame = (await placementFor(declare, frame, context.crsTable)).frame;
    switch (format) {
      case 'SEG-Y':
        loaded = await objectsOfSegy(loading);
        break;
      case 'LAS':
        loaded = await objectsOfLas(loading, await readText(source));
        break;
      case 'CSV':
        loaded = await objectsOfTable(loading, await readText(source));
        break;
      case 'GeoJSON':
        loaded = await objectsOfShapes(loading, await readText(source, { most: 100e6, lines: false }));
        break;
      case 'shapefile':
        loaded = await objectsOfShapefile(loading);
        break;
      case 'P1/90':
        loaded = await objectsOfNavigation(loading, await readText(source));
        break;
      case 'Zarr':
        loaded = await objectsOfZarr(loading);
        break;
      case 'zipped shapefile':
        loaded = await objectsOfZipped(loading);
        break;
      case 'netCDF':
      case 'GeoTIFF':
      case 'ESRI ASCII grid':
        loaded = await objectsOfGrid(loading, format);
        break;
      default:
        throw await unknownFormat(source);
    }
    const around = { objects: loading.objects, frame, crsTable: context.crsTable };
    const far = farFrom(sketchOfObjects(loaded.objects), around);
    if (far) {
      loaded.warnings.push(far);
      for (const { madeBy } of loaded.objects) if (!madeBy.warnings.includes(far)) madeBy.warnings.push(far);
    }
    const at = new Date().toISOString();
    await store.commit({
      put: loaded.objects,
      facts: frame !== facts.frame ? { frame } : undefined,
      ledger: loaded.objects.map((o) => ({
        at,
        what: 'in' as const,
        object: o.id,
        name: o.name,
        note: `from ${source.name}`,
      })),
    });
    return loaded;
  } catch (cause) {
    for (const id of ids) await store.removeArrays(`${id}/`);
    throw cause;
  }
}

/** Refuse a declaration that is not one of its options. */
export function oneOf<T extends string>(value: string, options: readonly T[], what: string, file: string): T {
  if ((options as readonly string[]).includes(value)) return value as T;
  throw new LithagonError('declare', `“${value}” is no ${what} that is known.`, {
    object: file,
    fix: `One of: ${options.join(', ')}.`,
  });
}
