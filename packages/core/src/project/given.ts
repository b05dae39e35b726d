import type { EarthObject, Fault, Picks, PlotClass, Polygon } from '../earth/objects.ts';
import { kindOf } from '../kinds/index.ts';
import { canonicalJson, hasher } from '../numerics/hash.ts';
import { ENGINE, newId } from './make.ts';

/** What a person draws: its base is empty, and all of it is handwork. */
export type Given = Picks | Fault | Polygon | PlotClass;

function revisionOf(object: Given): string {
  return hasher()
    .text(canonicalJson(kindOf(object).drawn?.(object) ?? []))
    .digest();
}

/** A drawn object with its revision as its content asks for; a name or colour does not change it. */
export function drawn<G extends Given>(object: G): G {
  return { ...object, revision: revisionOf(object) };
}

/** Whether something is what a person gave from nothing. */
export const isByHand = (made: EarthObject['madeBy']): boolean => /\.draw$/.test(made.step);

/** How something came that a person gave from nothing, now; its step is called `….draw`. */
export function madeByHand(step: string): EarthObject['madeBy'] {
  return {
    step,
    version: 1,
    params: {},
    inputs: {},
    started: new Date().toISOString(),
    tookMs: 0,
    warnings: [],
    engine: ENGINE,
  };
}

type Fresh<G extends Given> = Omit<G, 'id' | 'revision' | 'stage' | 'madeBy'>;

/** A new drawn object, dated now. */
export function newDrawn<G extends Given>(content: Fresh<G>): G {
  const madeBy = madeByHand('interpret.draw');
  return drawn({ ...content, id: newId(content.kind), stage: 'interpret', revision: '', madeBy } as unknown as G);
}
