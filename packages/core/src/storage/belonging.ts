import type { EarthObject } from '../earth/objects.ts';
import type { Transaction } from './store.ts';

/** What belongs to a well says so by the well's id; the name beside it is for people, and is the well's as it is now. */
type Belonging = EarthObject & { well: string; wellId?: string };

const belongs = (object: EarthObject): object is Belonging => 'well' in object && object.well !== '';

/** Whether a change has something that may have to be matched with its well. */
export const mayMatch = ({ put }: Transaction): boolean => (put ?? []).some((o) => o.kind === 'well' || belongs(o));

/**
 * A change in which everything that comes is matched with its well: by name, once. What waited for a well that comes now is
 * matched with it in the same change.
 */
export function matched(change: Transaction, existing: EarthObject[]): Transaction {
  const put = change.put ?? [];
  const gone = new Set(change.remove ?? []);
  const coming = new Map(put.map((o) => [o.id, o]));
  const after = [...existing.filter((o) => !gone.has(o.id) && !coming.has(o.id)), ...put];
  const ids = new Set(after.flatMap((o) => (o.kind === 'well' ? [o.id] : [])));
  const byName = new Map<string, string | null>();
  // a name that two wells have tells nothing; one that a well had before stands for it where no other has it
  for (const o of after) if (o.kind === 'well') byName.set(o.name, byName.has(o.name) ? null : o.id);
  for (const o of after)
    if (o.kind === 'well' && o.madeBy.called && !byName.has(o.madeBy.called)) byName.set(o.madeBy.called, o.id);
  const match = (o: EarthObject): EarthObject => {
    if (!belongs(o) || (o.wellId && ids.has(o.wellId))) return o;
    const wellId = byName.get(o.well);
    return wellId ? ({ ...o, wellId } as EarthObject) : o;
  };
  const found = after.map((o) => ({ before: o, now: match(o) }));
  return { ...change, put: found.filter(({ before, now }) => now !== before || coming.has(now.id)).map((f) => f.now) };
}

/** Objects with the names of their wells as these are now. */
export function labelled(objects: EarthObject[]): EarthObject[] {
  const names = new Map(objects.flatMap((o) => (o.kind === 'well' ? [[o.id, o.name]] : [])));
  return objects.map((o) => withName(o, belongs(o) && o.wellId ? names.get(o.wellId) : undefined));
}

/** One of them, whose well is called so. */
export const withName = (object: EarthObject, well: string | undefined): EarthObject =>
  well === undefined || !belongs(object) || object.well === well ? object : ({ ...object, well } as EarthObject);

export const wellIdOf = (object: EarthObject | null | undefined): string | undefined =>
  object && belongs(object) ? object.wellId : undefined;
