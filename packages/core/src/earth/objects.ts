import { z } from 'zod';
import { schemaNamed } from './kinds.ts';
import { velocityModelSchema } from './objects/depth.ts';
import {
  faultSchema,
  faultSetsSchema,
  faultThrowSchema,
  horizonSchema,
  picksSchema,
  pointsSchema,
  polygonSchema,
} from './objects/interpretation.ts';
import { operatorSchema, turnedPairSchema } from './objects/inversion.ts';
import {
  blendSchema,
  bodiesSchema,
  contactsSchema,
  mapSchema,
  plotClassSchema,
  resultTableSchema,
} from './objects/results.ts';
import { lineSchema, navigationSchema, volumeSchema } from './objects/seismic.ts';
import { gatherSchema, relationSchema, waveletSchema } from './objects/tie.ts';
import { logsSchema, stratigraphySchema, wellSchema, wellTableSchema } from './objects/wells.ts';

export {
  type ArrayRef,
  arrayRefSchema,
  type Domain,
  domainName,
  domainSchema,
  domainUnit,
  type MadeBy,
  madeBySchema,
  quantitySchema,
  type Statistics,
} from './objects/common.ts';
export * from './objects/depth.ts';
export * from './objects/frame.ts';
export * from './objects/interpretation.ts';
export * from './objects/inversion.ts';
export * from './objects/results.ts';
export * from './objects/seismic.ts';
export * from './objects/tie.ts';
export * from './objects/wells.ts';

/** Everything that a project may hold, told apart by its kind. */
const known = z.discriminatedUnion('kind', [
  velocityModelSchema,
  resultTableSchema,
  mapSchema,
  blendSchema,
  bodiesSchema,
  contactsSchema,
  waveletSchema,
  relationSchema,
  gatherSchema,
  plotClassSchema,
  operatorSchema,
  turnedPairSchema,
  stratigraphySchema,
  volumeSchema,
  lineSchema,
  navigationSchema,
  wellSchema,
  logsSchema,
  wellTableSchema,
  faultSchema,
  faultSetsSchema,
  faultThrowSchema,
  picksSchema,
  polygonSchema,
  pointsSchema,
  horizonSchema,
]);
export type EarthObject = z.infer<typeof known>;

/** An object with what it was kept under by versions before: its bin grid as `lattice`. */
function inWordsOfNow(raw: unknown): unknown {
  if (typeof raw !== 'object' || raw === null || !('lattice' in raw) || 'binGrid' in raw) return raw;
  const { lattice, ...rest } = raw;
  return { ...rest, binGrid: lattice };
}

/** The schema that an object passes: that of its kind, one made known later included. */
export const objectSchema: z.ZodType<EarthObject> = z.unknown().transform((given, context) => {
  const raw = inWordsOfNow(given);
  const schema = schemaNamed((raw as { kind?: unknown } | null)?.kind) ?? known;
  const parsed = schema.safeParse(raw);
  if (parsed.success) return parsed.data as EarthObject;
  context.issues.push(...(parsed.error.issues as typeof context.issues));
  return z.NEVER;
});
/** An object of one kind. */
export type ObjectOf<K extends Kind> = EarthObject extends infer O
  ? O extends { kind: string }
    ? K extends O['kind']
      ? O
      : never
    : never
  : never;
export type Kind = EarthObject['kind'];
