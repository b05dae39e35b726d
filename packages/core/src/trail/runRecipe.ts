import { LithagonError } from '../earth/errors.ts';
import type { EarthObject } from '../earth/objects.ts';
import type { JobRunner } from '../engine/runner.ts';
import { type LoadContext, loadFile } from '../files/load.ts';
import type { ByteSource } from '../formats/source.ts';
import { findObject } from '../project/catalogue/find.ts';
import { stepOf } from '../steps/define.ts';
import { checkParams } from '../steps/params.ts';
import { runStep } from '../steps/run.ts';
import type { Store } from '../storage/store.ts';
import { cutPlanes } from '../storage/volumes.ts';
import type { Recipe } from './recipe.ts';
import { renamed } from './rename.ts';
import { outputName } from './writeRecipe.ts';

export interface RunRecipeOptions extends LoadContext {
  open: (file: string) => Promise<ByteSource>;
  /** Parameters by `step.param`, over those of the recipe. */
  set?: Record<string, unknown>;
  say?: (what: string) => void;
  /** Where local steps are worked on. */
  runner?: JobRunner;
}

/** Parameters of the steps, those that were set anew among them; all are checked before anything is run. */
function paramsOf(recipe: Recipe, set: Record<string, unknown> = {}): Record<string, unknown>[] {
  const params = recipe.steps.map((s) => ({ ...s.params }));
  for (const [key, value] of Object.entries(set)) {
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
  return params;
}

/** Load a recipe's files and run its steps, in order. Everything is checked that can be before the first is run. */
export async function runRecipe(recipe: Recipe, options: RunRecipeOptions): Promise<void> {
  const { store } = options;
  const params = paramsOf(recipe, options.set);
  const { frame, curveClasses } = recipe;
  if (frame || curveClasses)
    await store.commit({ facts: { ...(frame ? { frame } : {}), ...(curveClasses ? { curveClasses } : {}) } });
  for (const { file, declare } of recipe.files) {
    options.say?.(`Loading ${file}`);
    const source = await options.open(file);
    try {
      const { objects } = await loadFile(source, declare, options);
      for (const o of objects) if (o.kind === 'volume') await cutPlanes(store, o, options.signal);
    } finally {
      await source.close?.();
    }
  }
  for (const { kind, from, to } of recipe.names) {
    const objects = await store.list();
    const object = objects.find((o) => o.kind === kind && o.name === from);
    if (object) await store.commit({ put: renamed(objects, object, to) });
  }
  if (recipe.given.length > 0) await give(store, recipe.given);
  for (let n = 0; n < recipe.steps.length; n++) {
    const { step, name, inputs, outputs, live } = recipe.steps[n];
    options.say?.(name);
    const objects = await store.list();
    const ids = Object.fromEntries(
      Object.entries(inputs).map(([role, names]) => [role, names.map((x) => findObject(objects, x).id)]),
    );
    const made = await runStep({ step, name, inputs: ids, params: params[n], live }, store, {
      signal: options.signal,
      runner: options.runner,
      onProgress: (part) => options.onProgress?.(part, name),
    });
    if (outputs) await settle(store, objects, made, outputs);
  }
  await look(store, recipe);
}

/** What people gave; a table that they changed takes the place of the one that was loaded. */
async function give(store: Store, given: EarthObject[]): Promise<void> {
  const objects = await store.list();
  const instead = (object: EarthObject) =>
    object.madeBy.file === undefined || !('well' in object)
      ? undefined
      : objects.find((o) => o.kind === object.kind && 'well' in o && o.well === object.well && o.name === object.name);
  await store.commit({ put: given.map((o) => ({ ...o, id: instead(o)?.id ?? o.id })) });
}

/** Name what a run made as the recipe has it, and let go of what it has not. */
async function settle(
  store: Store,
  objects: EarthObject[],
  made: EarthObject[],
  outputs: Record<string, string>,
): Promise<void> {
  const called = made.map((object) => ({ object, name: outputs[outputName(objects, object.madeBy.output ?? '')] }));
  // outputs of another version of the step may have other roles: then all stay
  if (!called.some(({ name }) => name !== undefined)) return;
  const put = called.flatMap(({ object, name }) => (name && name !== object.name ? [{ ...object, name }] : []));
  const remove = called.filter(({ name }) => name === undefined).map(({ object }) => object.id);
  if (put.length + remove.length > 0) await store.commit({ put, remove });
  for (const id of remove) await store.removeArrays(`${id}/`);
}

/** Active ties, colours, tags and notes. */
async function look(store: Store, { active, looks }: Recipe): Promise<void> {
  const now = Date.now();
  for (const [n, name] of active.entries()) {
    const tie = findObject(await store.list(), name);
    if (tie.kind === 'time-depth relation')
      await store.commit({ put: [{ ...tie, activated: new Date(now + n).toISOString() }] });
  }
  for (const { object, ...more } of looks) {
    const found = findObject(await store.list(), object);
    await store.commit({ put: [{ ...found, ...more } as EarthObject] });
  }
}
