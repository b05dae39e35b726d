import type { EarthObject } from '../earth/objects.ts';
import { isByHand } from '../project/given.ts';
import { loadedRevision } from '../project/make.ts';
import { stepOf } from '../steps/define.ts';
import type { ProjectFacts } from '../storage/store.ts';
import { askedInputs, beneath } from './rebuild.ts';
import type { Recipe } from './recipe.ts';
import { runOf } from './runs.ts';

/** Whether a person changed the rows of a table that came from a file. */
const isChanged = (object: EarthObject): boolean =>
  object.madeBy.file !== undefined &&
  'rows' in object &&
  'well' in object &&
  object.revision === loadedRevision('rows', object.rows as never);

/** An object as a recipe gives it: it will find its well by name. */
const asGiven = (object: EarthObject): EarthObject =>
  'wellId' in object ? ({ ...object, wellId: undefined } as EarthObject) : object;

/**
 * The trail of an object as a recipe: the files that it comes from with what was declared of them, what people gave for
 * it, and the steps in order.
 */
export const recipeOf = (objects: EarthObject[], object: EarthObject): Recipe =>
  written(object.name, objects, beneath(objects, object.id));

/** A whole project as a recipe. */
export function projectRecipe(objects: EarthObject[], facts: ProjectFacts): Recipe {
  const { name, frame, curveClasses } = facts;
  // what was made first comes first, so that names are free when they are wanted
  const byAge = [...objects].sort((a, b) => a.madeBy.started.localeCompare(b.madeBy.started));
  const trail = new Map(byAge.flatMap((o) => beneath(objects, o.id)).map((o) => [o.id, o]));
  return {
    ...written(name, objects, [...trail.values()]),
    ...(frame ? { frame } : {}),
    ...(curveClasses ? { curveClasses } : {}),
  };
}

function written(title: string, objects: EarthObject[], trail: EarthObject[]): Recipe {
  const nameOf = (found: EarthObject): string =>
    objects.filter((o) => o.name === found.name).length > 1 ? `${found.kind}/${found.name}` : found.name;
  const nameIn = (id: string): string => {
    const found = objects.find((o) => o.id === id);
    return found ? nameOf(found) : id;
  };
  const files = new Map<string, Recipe['files'][number]>();
  const given: Recipe['given'] = [];
  const names: Recipe['names'] = [];
  const steps: Recipe['steps'] = [];
  const runs = new Set<string>();
  for (const each of trail) {
    const { file, step, called, params } = each.madeBy;
    if (file !== undefined) {
      files.set(file, { file, declare: params as Record<string, string> });
      if (isChanged(each)) given.push(asGiven(each));
      if (called !== undefined && called !== each.name) names.push({ kind: each.kind, from: called, to: each.name });
    } else if (stepOf(step)) {
      const run = runOf(objects, each);
      if (run && runs.has(run.id)) continue;
      if (run) runs.add(run.id);
      steps.push(stepIn(objects, each, run?.outputs ?? {}, `step${steps.length + 1}`, nameIn));
    } else if (isByHand(each.madeBy)) given.push(asGiven(each));
  }
  const active = trail
    .flatMap((o) => (o.kind === 'time-depth relation' && o.activated ? [{ name: nameOf(o), at: o.activated }] : []))
    .sort((a, b) => a.at.localeCompare(b.at));
  return {
    lithagon: 'recipe',
    version: 1,
    title,
    files: [...files.values()],
    given,
    names,
    steps,
    active: active.map((o) => o.name),
    looks: trail.flatMap((o) => {
      const { color, tags, note } = o;
      // what is given whole has them already
      if (given.some((g) => g.id === o.id) || !(color || tags?.length || note)) return [];
      return [
        {
          object: nameOf(o),
          ...(color ? { color } : {}),
          ...(tags?.length ? { tags } : {}),
          ...(note ? { note } : {}),
        },
      ];
    }),
  };
}

/** How a recipe calls what a run made: by its role, and the name of the object that it was made for. */
export function outputName(objects: EarthObject[], role: string): string {
  const [base, of] = role.split('/');
  return of === undefined ? base : `${base}/${objects.find((o) => o.id === of)?.name ?? of}`;
}

function stepIn(
  objects: EarthObject[],
  each: EarthObject,
  made: Record<string, string>,
  id: string,
  nameIn: (id: string) => string,
): Recipe['steps'][number] {
  const { step, params, output } = each.madeBy;
  const byId = new Map(objects.map((o) => [o.id, o]));
  const outputs = Object.fromEntries(
    Object.entries(made).flatMap(([role, object]) => {
      const found = byId.get(object);
      return found ? [[outputName(objects, role), found.name]] : [];
    }),
  );
  // what is made for each of several objects is named after them
  const of = output?.includes('/') ? byId.get(output.split('/')[1])?.name : undefined;
  const name = of && each.name.endsWith(` of ${of}`) ? each.name.slice(0, -` of ${of}`.length) : each.name;
  const inputs = Object.fromEntries(
    Object.entries(askedInputs(each)).map(([role, ids]) => [role, ids.map(nameIn)] as const),
  );
  const live = each.kind === 'volume' && !each.layouts;
  return {
    id,
    step,
    name,
    inputs,
    params,
    ...(Object.keys(outputs).length > 0 ? { outputs } : {}),
    ...(live ? { live } : {}),
  };
}
