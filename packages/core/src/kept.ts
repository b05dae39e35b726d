/** How a project is kept, and what is said when it cannot be: all that a page needs before one is opened. */
export * from './earth/errors.ts';
export type { EarthObject } from './earth/objects.ts';
export { freeAmong } from './project/make.ts';
export { labelled, matched, mayMatch, wellIdOf, withName } from './storage/belonging.ts';
export { checkedChange } from './storage/commit.ts';
export { migrated, VERSION } from './storage/migrate.ts';
export { type Aside, factsSchema, readProject, sortOut } from './storage/projectFile.ts';
export type { LedgerEntry, ProjectFacts, Store, Transaction } from './storage/store.ts';
