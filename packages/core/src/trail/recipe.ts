import { z } from 'zod';
import { LithagonError } from '../earth/errors.ts';
import { type EarthObject, faultSchema, picksSchema, polygonSchema } from '../earth/objects.ts';
import type { JobRunner } from '../engine/runner.ts';
import { type LoadContext, loadFile } from '../files/load.ts';
import type { ByteSource } from '../formats/source.ts';
import { findObject } from '../project/catalogue/find.ts';
import { stepOf } from '../steps/define.ts';
import { checkParams } from '../steps/params.ts';
import { runStep } from '../steps/run.ts';
import { cutPlanes } from '../storage/volumes.ts';
import { askedInputs, beneath } from './rebuild.ts';

/** A trail written out: files by name, then steps whose inputs are objects by name. */
export const recipeSchema = z.object({
  lithagon: z.literal('recipe'),
  version: z.literal(1),
  title: z.string(),
  files: z.array(z.object({ file: z.string(), declare: z.record(z.string(), z.string()).default({}) })),
  /** What people drew: picks, faults, areas. */
  given: z.array(z.discriminatedUnion('kind', [picksSchema, faultSchema, polygonSchema])).default([]),
  steps: z.array(
    z.object({
      /** How `--set` names it; unique in the recipe. */
      id: z.string(),
      step: z.string(),
      name: z.string(),
      inputs: z.record(z.string(), z.array(z.string())),
      params: z.record(z.string(), z.unknown()).default({}),
    }),
  ),
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

/**
 * The trail of an object as a recipe: the files that it comes from with what was declared of them, what was drawn for
 * it, and the steps in order.
 */
export function recipeOf(objects: EarthObject[], object: EarthObject): Recipe {
  const trail = beneath(objects, object.id);
  const nameIn = (id: string): string => {
    const found = objects.find((o) => o.id === id);
    if (!found) return id;
    return objects.filter((o) => o.name === found.name).length > 1 ? `${found.kind}/${found.name}` : found.name;
  };
  const files = new Map<string, Recipe['files'][number]>();
  const given: Recipe['given'] = [];
  const steps: Recipe['steps'] = [];
  const runs = new Set<string>();
  for (const each of trail) {
    const { file, step, started, params } = each.madeBy;
    if (file !== undefined) files.set(file, { file, declare: params as Record<string, string> });
    else if (stepOf(step)) {
      const run = `${step} ${started}`;
      if (runs.has(run)) continue;
      runs.add(run);
      const inputs = Object.fromEntries(
        Object.entries(askedInputs(each)).map(([role, ids]) => [role, ids.map(nameIn)] as const),
      );
      // what is made for each of several objects is named after them
      const of = each.madeBy.output?.split('/')[1];
      const name = of && each.name.endsWith(` of ${of}`) ? each.name.slice(0, -` of ${of}`.length) : each.name;
      steps.push({ id: `step${steps.length + 1}`, step, name, inputs, params });
    } else if (each.kind === 'picks' || each.kind === 'fault' || each.kind === 'polygon') given.push(each);
  }
  return { lithagon: 'recipe', version: 1, title: object.name, files: [...files.values()], given, steps };
}

export interface RunRecipeOptions extends LoadContext {
  open: (file: string) => Promise<ByteSource>;
  /** Parameters by `step.param`, over those of the recipe. */
  set?: Record<string, unknown>;
  say?: (what: string) => void;
  /** Where local steps are worked on. */
  runner?: JobRunner;
}

/** Load a recipe's files and run its steps, in order. Everything is checked that can be before the first is run. */
export async function runRecipe(recipe: Recipe, options: RunRecipeOptions): Promise<void> {
  const params = recipe.steps.map((s) => ({ ...s.params }));
  for (const [key, value] of Object.entries(options.set ?? {})) {
    const dot = key.lastIndexOf('.');
    const at = recipe.steps.findIndex((s) => s.id === key.slice(0, dot));
    if (at < 0)
      throw new LithagonError('recipe', `The recipe has no step “${key.slice(0, dot)}”.`, {
        fix: `It has ${recipe.steps.map((s) => s.id).join(', ')}.`,
      });
    params[at][key.slice(dot + 1)] = value;
  }
  recipe.steps.forEach((s, n) => {
    const step = stepOf(s.step);
    if (step) checkParams(step, params[n]);
  });
  for (const { file, declare } of recipe.files) {
    options.say?.(`Loading ${file}`);
    const source = await options.open(file);
    try {
      const { objects } = await loadFile(source, declare, options);
      for (const o of objects) if (o.kind === 'volume') await cutPlanes(options.store, o, options.signal);
    } finally {
      await source.close?.();
    }
  }
  if (recipe.given.length > 0) await options.store.commit({ put: recipe.given });
  for (let n = 0; n < recipe.steps.length; n++) {
    const { step, name, inputs } = recipe.steps[n];
    options.say?.(name);
    const objects = await options.store.list();
    const ids = Object.fromEntries(
      Object.entries(inputs).map(([role, names]) => [role, names.map((x) => findObject(objects, x).id)]),
    );
    await runStep({ step, name, inputs: ids, params: params[n] }, options.store, {
      signal: options.signal,
      runner: options.runner,
      onProgress: (part) => options.onProgress?.(part, name),
    });
  }
}
