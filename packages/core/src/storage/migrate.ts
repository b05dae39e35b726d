import type { EarthObject } from '../earth/objects.ts';
import { matched } from './belonging.ts';

/**
 * The version of projects that is written. 1: what belongs to a well was found by its name, outputs of a run by its time.
 * 2: bin grids were kept as `lattice`, which the schema of objects still reads.
 */
export const VERSION = 3;

/** Versions that are read. */
export const READ = [1, 2, VERSION];

/** Objects of a project of an earlier version as they are kept now. Nothing is out of date by it. */
export function migrated(objects: EarthObject[]): EarthObject[] {
  const { put = [] } = matched({ put: objects }, []);
  const wells = new Map(put.flatMap((o) => (o.kind === 'well' ? [[o.name, o.id]] : [])));
  return put.map((object) => {
    const { madeBy } = object;
    const [role, of] = madeBy.output?.split('/') ?? [];
    return {
      ...object,
      madeBy: {
        ...madeBy,
        ...(madeBy.run || madeBy.file ? {} : { run: `${madeBy.step}-${madeBy.started}` }),
        ...(of && wells.has(of) ? { output: `${role}/${wells.get(of)}` } : {}),
      },
    };
  });
}
