import type { z } from 'zod';
import { LithagonError } from '../earth/errors.ts';
import { type EarthObject, objectSchema } from '../earth/objects.ts';
import { factsSchema, ledgerEntrySchema } from './projectFile.ts';
import type { Transaction } from './store.ts';

/** What is wrong with a value, by the first field that is: “vertical.step: must be more than 0”. */
export function whyNot(error: z.ZodError): string {
  const [issue] = error.issues;
  const at = issue.path.join('.');
  const message = issue.message.replace('Invalid input: ', '');
  return at ? `${at}: ${message}` : message;
}

/**
 * A change as it may be kept: every object, fact and ledger line passes its schema, so that what is kept can be opened
 * again. Whatever door a change comes through, a store calls this first.
 * @throws LithagonError naming the object and the field; then nothing of the change has happened
 */
export function checkedChange(change: Transaction): Transaction {
  return {
    ...change,
    put: change.put?.map(checkedObject),
    facts: change.facts && checked(factsSchema.partial(), change.facts, 'The project’s facts'),
    ledger: change.ledger?.map((entry) => checked(ledgerEntrySchema, entry, 'A line of the ledger')),
  };
}

function checkedObject(object: EarthObject): EarthObject {
  // without names that the schema does not know, which may have come from anywhere
  return checked(objectSchema, object, typeof object?.name === 'string' ? object.name : 'An object');
}

function checked<T>(schema: z.ZodType<T>, value: unknown, name: string): T {
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  throw new LithagonError('schema', `${name} cannot be kept as it is (${whyNot(parsed.error)}).`, {
    object: name,
    fix: 'Nothing was changed. Look at what it was made from: a value in it is missing or out of range.',
  });
}
