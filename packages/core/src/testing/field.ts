import type { LoadContext } from '../files/load.ts';
import type { Store } from '../storage/store.ts';

/** A context for loading into a store, without a table of coordinate systems. */
export const fileContext = (store: Store): LoadContext => ({ store, crsTable: async () => [] });
