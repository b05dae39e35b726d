import type { EarthObject } from '../earth/objects.ts';
import { labelled, matched, wellIdOf, withName } from './belonging.ts';
import { checkedChange } from './commit.ts';
import type { LedgerEntry, ProjectFacts, Store, Transaction } from './store.ts';

/** A project in memory: for tests and trials. */
export function memoryStore(name = 'Untitled'): Store {
  let facts: ProjectFacts = { id: crypto.randomUUID(), name, created: new Date().toISOString(), frame: null };
  const objects = new Map<string, EarthObject>();
  const arrays = new Map<string, Uint8Array>();
  const ledger: LedgerEntry[] = [];
  return {
    facts: async () => ({ ...facts }),
    list: async () => labelled([...objects.values()].map((o) => structuredClone(o))),
    async get(id) {
      const object = objects.get(id);
      if (!object) return null;
      return withName(structuredClone(object), objects.get(wellIdOf(object) ?? '')?.name);
    },
    ledger: async () => [...ledger],
    aside: async () => [],
    async commit(given: Transaction) {
      const change = matched(checkedChange(given), [...objects.values()]);
      const copies = (change.put ?? []).map((o) => structuredClone(o));
      for (const object of copies) objects.set(object.id, object);
      for (const id of change.remove ?? []) objects.delete(id);
      if (change.facts) facts = { ...facts, ...change.facts };
      ledger.push(...(change.ledger ?? []));
    },
    readBytes: async (key) => arrays.get(key) ?? null,
    async writeBytes(key, bytes) {
      arrays.set(key, bytes.slice());
    },
    async removeArrays(prefix) {
      for (const key of [...arrays.keys()]) if (key.startsWith(prefix)) arrays.delete(key);
    },
    arrayOwners: async () => [...new Set([...arrays.keys()].map((key) => key.split('/')[0]))],
  };
}
