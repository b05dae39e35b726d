import { existsSync, openAsBlob } from 'node:fs';
import { rename, rm, rmdir, stat, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import {
  asLithagonError,
  type EarthObject,
  exportParts,
  extensionOf,
  findObject,
  LithagonError,
  type OutOptions,
  projectRecipe,
  type Recipe,
  readParcel,
  rebuild,
  recipeOf,
  type Store,
  writeParcel,
} from '@lithagon/core';
import { folderStore } from '@lithagon/core/node';
import { lanes } from '../lanes.ts';
import { type Output, progressLine } from '../output.ts';
import { withProject } from '../withProject.ts';

/** Make again what is out of date, in order; one that is named also where its data are damaged. */
export async function rebuildProject(name: string | undefined, project: string, output: Output): Promise<void> {
  await withProject(project, { hold: 'lithagon rebuild' }, output, async (store) => {
    const only = name ? findObject(await store.list(), name).id : undefined;
    const onProgress = progressLine(output);
    let now = '';
    const made = await rebuild(store, only, {
      runner: lanes,
      say: (what) => {
        now = what;
      },
      onProgress: (part) => onProgress(part, now),
    });
    output.out(made.length === 0 ? 'Everything is up to date.' : made.map((m) => `made again: ${m}`).join('\n'));
  });
}

/** What could not be read of a project: listed, written out as it is, or thrown away. */
export async function asideOf(
  project: string,
  { out, discard }: { out?: string; discard?: boolean },
  json: boolean,
  output: Output,
): Promise<void> {
  const store = await folderStore(project, discard ? { hold: 'lithagon aside' } : {});
  try {
    const aside = await store.aside();
    if (out) await keep(out, new TextEncoder().encode(`${JSON.stringify(aside, null, 1)}\n`));
    if (discard) await store.commit({ discard: aside.map(({ key }) => key) });
    if (json) output.out(JSON.stringify(aside, null, 1));
    else if (aside.length === 0) output.out('Everything in the project can be read.');
    else for (const { name, why } of aside) output.out(`${name}: ${why}${discard ? ' (thrown away)' : ''}`);
  } finally {
    await store.close?.();
  }
}

/** Write bytes whole or not at all. */
async function keep(path: string, bytes: Uint8Array | Blob | AsyncIterable<Uint8Array>): Promise<void> {
  const part = `${path}.${process.pid}.part`;
  try {
    await writeFile(part, bytes instanceof Blob ? Readable.fromWeb(bytes.stream() as ReadableStream) : bytes);
    await rename(part, path);
  } catch (cause) {
    await rm(part, { force: true });
    throw cause;
  }
}

const CHOICES: Record<keyof OutOptions, string[]> = { format: ['ieee', 'ibm', 'compact'], revision: ['1', '2'] };

/** Choices such as `format=ibm`; refuses what no format knows. */
export function outOptions(set: string[]): OutOptions {
  const out: Record<string, string> = {};
  for (const each of set) {
    const [key, value = ''] = each.split('=');
    if (!Object.hasOwn(CHOICES, key) || !CHOICES[key as keyof OutOptions].includes(value))
      throw new LithagonError('export', `“${each}” is no choice of a format.`, {
        fix: `There are ${Object.entries(CHOICES)
          .map(([k, values]) => `${k}=${values.join(' or ')}`)
          .join(', ')}.`,
      });
    out[key] = value;
  }
  return out as OutOptions;
}

/** One object in the format that the file's extension names; “.” with `.parcel` is the whole project. */
export async function exportTo(
  name: string,
  path: string,
  project: string,
  options: OutOptions,
  output: Output,
): Promise<void> {
  await withProject(project, {}, output, async (store) => {
    const facts = await store.facts();
    const extension = extensionOf(path);
    let object: EarthObject | null = null;
    if (extension === 'parcel') {
      if (name !== '.')
        throw new LithagonError('export', 'A parcel holds a whole project.', {
          object: name,
          fix: 'Write “.” in place of the name.',
        });
      const onProgress = progressLine(output);
      await keep(path, await writeParcel(store, { onProgress: (part) => onProgress(part, basename(path)) }));
    } else {
      const objects = await store.list();
      const text = (recipe: Recipe) => new TextEncoder().encode(`${JSON.stringify(recipe, null, 2)}\n`);
      if (name === '.' && extension === 'json') await keep(path, text(projectRecipe(objects, facts)));
      else {
        object = findObject(objects, name);
        await keep(
          path,
          extension === 'json'
            ? text(recipeOf(objects, object))
            : exportParts(store, object, extension, facts.frame, options),
        );
      }
    }
    output.out(path);
    const at = new Date().toISOString();
    const [id, own] = [object?.id ?? facts.id, object?.name ?? facts.name];
    try {
      await store.commit({ ledger: [{ at, what: 'out', object: id, name: own, note: basename(path) }] });
    } catch (cause) {
      output.err(`${path} is written, but the project’s ledger does not say so: ${asLithagonError(cause).message}`);
    }
  });
}

/**
 * Open a parcel as a new project; where it cannot be opened, no folder is left. One that holds nothing yet, as a call that
 * was killed may leave it, is filled.
 */
export async function unpack(path: string, project: string, output: Output): Promise<void> {
  const onProgress = progressLine(output);
  if (!(await stat(path).catch(() => null))?.isFile())
    throw new LithagonError('file', `There is no file ${path}.`, { object: path, fix: 'Check its path.' });
  const blob = await openAsBlob(path);
  const folder = existsSync(project);
  let store: Store | null = null;
  // what this call has made, and nobody else: known once the project is held
  let ours = false;
  try {
    const facts = await readParcel(
      basename(path),
      blob,
      async ({ name }) => {
        store = await folderStore(project, { name, hold: 'lithagon load' });
        if ((await store.list()).length > 0 || (await store.aside()).length > 0)
          throw new LithagonError('project', `${project} holds a project already.`, {
            object: project,
            fix: 'Give a folder that does not exist yet. Nothing was changed.',
          });
        ours = (await store.ledger()).length === 0;
        return store;
      },
      { onProgress: (part) => onProgress(part, basename(path)) },
    );
    output.out(`${facts.name}, in ${project}`);
  } catch (cause) {
    if (ours)
      for (const part of folder ? ['project.json', 'arrays'].map((each) => join(project, each)) : [project])
        await rm(part, { recursive: true, force: true });
    // a folder in which no project could be begun
    if (!store && !folder) await rmdir(project).catch(() => undefined);
    throw cause;
  } finally {
    await (store as Store | null)?.close?.();
  }
}
