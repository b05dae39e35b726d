import { type Units, unitsOf } from '../earth/display.ts';
import type { Store } from '../storage/store.ts';

/** The units that a project shows, for sentences that are made while something runs. */
export async function shownUnits(store: Store): Promise<Units> {
  return unitsOf((await store.facts()).frame);
}
