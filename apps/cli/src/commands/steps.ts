import { readFile, realpath } from 'node:fs/promises';
import { basename, dirname, isAbsolute, resolve, sep } from 'node:path';
import {
  type AnyStep,
  allSteps,
  type EarthObject,
  findObject,
  type InputSpec,
  kindsOf,
  LithagonError,
  paramsSchema,
  parseRecipe,
  runRecipe,
  runStep,
  stepOf,
} from '@lithagon/core';
import { crsTable, fileSource } from '@lithagon/core/node';
import { lanes } from '../lanes.ts';
import { type Output, pairs, parameterValue, progressLine, table, UsageError } from '../output.ts';
import { withProject } from '../withProject.ts';

function describe(step: AnyStep) {
  const { id, version, stage, title, summary, source, reach, inputs, outputs } = step;
  return { id, version, stage, title, summary, source, reach, inputs, params: paramsSchema(step), outputs };
}

export function steps(id: string | undefined, json: boolean, output: Output): void {
  const chosen = id ? [stepOf(id)] : allSteps();
  if (!chosen[0])
    throw new LithagonError('step', `There is no step called “${id}”.`, { fix: '“lithagon steps” lists them.' });
  const described = (chosen as AnyStep[]).map(describe);
  if (json) output.out(JSON.stringify(id ? described[0] : described, null, 1));
  else
    for (const step of described) {
      output.out(`${step.id}  ${step.title}: ${step.summary}`);
      if (!id) continue;
      output.out(`  after ${step.source}`);
      for (const [role, spec] of Object.entries(step.inputs as Record<string, InputSpec>))
        output.out(`  --in ${role}=…  ${spec.title} (${[...(spec.quantity ?? []), kindsOf(spec)].join(' ')})`);
      const properties = step.params.properties as Record<
        string,
        { title?: string; unit?: string; default?: unknown; description?: string }
      >;
      output.out(
        table(
          Object.entries(properties).map(([key, p]) => [
            `  --set ${key}=${JSON.stringify(p.default)}`,
            p.unit ?? '',
            p.description ?? '',
          ]),
        ),
      );
    }
}

export interface DoOptions {
  project: string;
  in: string[];
  set: string[];
  name?: string;
}

export async function doStep(id: string, options: DoOptions, json: boolean, output: Output): Promise<void> {
  const inputs = (objects: EarthObject[]) => {
    const by: Record<string, string[]> = {};
    for (const text of options.in) {
      const at = text.indexOf('=');
      if (at < 1) throw new UsageError(`“${text}” should read role=NAME.`);
      const role = text.slice(0, at);
      by[role] ??= [];
      by[role].push(findObject(objects, text.slice(at + 1)).id);
    }
    return by;
  };
  const params = Object.fromEntries(Object.entries(pairs(options.set)).map(([k, v]) => [k, parameterValue(v)]));
  const onProgress = progressLine(output);
  const made = await withProject(options.project, { hold: `lithagon do ${id}` }, output, async (store) =>
    runStep({ step: id, inputs: inputs(await store.list()), params, name: options.name }, store, {
      runner: lanes,
      onProgress: (p) => onProgress(p, id),
    }),
  );
  if (json)
    return output.out(
      JSON.stringify(
        made.map(({ id, kind, name }) => ({ id, kind, name })),
        null,
        1,
      ),
    );
  output.out(table(made.map((o) => [o.kind, o.name])));
}

export interface RecipeOptions {
  project: string;
  files?: string;
  set: string[];
}

export async function run(path: string, options: RecipeOptions, output: Output): Promise<void> {
  const text = await readFile(path, 'utf8').catch(() => {
    throw new LithagonError('file', `There is no file ${path}.`, { object: path, fix: 'Check its path.' });
  });
  const recipe = parseRecipe(basename(path), text);
  const dir = resolve(options.files ?? dirname(resolve(path)));
  const set = Object.fromEntries(Object.entries(pairs(options.set)).map(([k, v]) => [k, parameterValue(v)]));
  await withProject(
    options.project,
    { name: recipe.title.slice(0, 200) || 'Project', hold: 'lithagon run' },
    output,
    (store) =>
      runRecipe(recipe, {
        store,
        crsTable,
        set,
        runner: lanes,
        open: async (file) => fileSource(await within(dir, file)),
        say: (what) => output.err(what),
      }),
  );
}

/** A file that a recipe names: one in the folder of its files, and nothing else, links included. */
async function within(dir: string, file: string): Promise<string> {
  const place = resolve(dir, file);
  const root = await realpath(dir).catch(() => dir);
  const real = await realpath(place).catch(() => place);
  const inside = place.startsWith(dir + sep) && (real.startsWith(root + sep) || real === place);
  if (isAbsolute(file) || !inside)
    throw new LithagonError('recipe', `The recipe asks for ${file}, which is not in the folder of its files.`, {
      object: file,
      fix: 'Nothing of it was read. Put the file into the folder, and its name into the recipe.',
    });
  return place;
}
