import { z } from 'zod';
import { curveClassSchema, frameSchema, objectSchema } from '../earth/objects.ts';

/** `project.json`: what a project holds besides its arrays, in a folder and in a parcel alike. */
export const projectSchema = z.object({
  lithagon: z.literal(1),
  facts: z.object({
    id: z.string(),
    name: z.string(),
    created: z.string(),
    frame: frameSchema.nullable(),
    curveClasses: z.record(z.string(), curveClassSchema).optional(),
    desks: z.array(z.object({ name: z.string(), state: z.record(z.string(), z.unknown()) })).optional(),
  }),
  objects: z.array(objectSchema),
  ledger: z.array(
    z.object({
      at: z.string(),
      what: z.enum(['in', 'out', 'made', 'removed', 'changed']),
      object: z.string(),
      name: z.string(),
      note: z.string(),
    }),
  ),
});
export type ProjectFile = z.infer<typeof projectSchema>;
