import { z } from 'zod';
import { LithagonError } from '../earth/errors.ts';
import { curveClassSchema, frameSchema, objectSchema } from '../earth/objects.ts';
import { stepOf } from '../steps/define.ts';

/**
 * A trail written out: files by name, what people gave, then steps whose inputs are objects by name. With it alone the same
 * project is made again.
 */
export const recipeSchema = z.object({
  lithagon: z.literal('recipe'),
  version: z.literal(1),
  title: z.string(),
  /** Coordinate system, units, datum and polarity of the project, where people said them. */
  frame: frameSchema.optional(),
  /** Classes that people gave to mnemonics. */
  curveClasses: z.record(z.string(), curveClassSchema).optional(),
  files: z.array(z.object({ file: z.string(), declare: z.record(z.string(), z.string()).default({}) })),
  /** What people drew or typed, whole: picks, faults, areas, tops, facies, columns; and tables of files that they changed. */
  given: z.array(objectSchema).default([]),
  /** What was loaded and is called otherwise now. */
  names: z.array(z.object({ kind: z.string(), from: z.string(), to: z.string() })).default([]),
  steps: z.array(
    z.object({
      /** How `--set` names it; unique in the recipe. */
      id: z.string(),
      step: z.string(),
      name: z.string(),
      inputs: z.record(z.string(), z.array(z.string())),
      params: z.record(z.string(), z.unknown()).default({}),
      /** Names of what it made, by role (and the object that it was made for), where several are kept; others go. */
      outputs: z.record(z.string(), z.string()).optional(),
      /** Whether its volumes are worked out where they are looked at. */
      live: z.literal(true).optional(),
    }),
  ),
  /** Ties that people made the active ones, in the order in which they did. */
  active: z.array(z.string()).default([]),
  /** Colours, tags and notes. */
  looks: z
    .array(
      z.object({
        object: z.string(),
        color: z.string().optional(),
        tags: z.array(z.string()).optional(),
        note: z.string().optional(),
      }),
    )
    .default([]),
});
export type Recipe = z.infer<typeof recipeSchema>;

export function parseRecipe(name: string, text: string): Recipe {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new LithagonError('recipe', `${name} is not valid JSON.`, { object: name, fix: 'Nothing was run.' });
  }
  const parsed = recipeSchema.safeParse(raw);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    throw new LithagonError(
      'recipe',
      `${name} is no recipe: ${issue.path.join('.') || 'its top level'}: ${issue.message}.`,
      { object: name, fix: 'Nothing was run.' },
    );
  }
  for (const step of parsed.data.steps)
    if (!stepOf(step.step))
      throw new LithagonError('recipe', `${name} uses a step “${step.step}” that is not known.`, {
        object: name,
        fix: '“lithagon steps” lists those that are.',
      });
  return parsed.data;
}
