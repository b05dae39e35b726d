import { openAsBlob } from 'node:fs';
import { rename, rm, writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import {
  type EarthObject,
  exportParts,
  extensionOf,
  findObject,
  LithagonError,
  type OutOptions,
  readParcel,
  rebuild,
  recipeOf,
  writeParcel,
} from '@lithagon/core';
import { folderStore } from '@lithagon/core/node';
import { type Output, progressLine } from '../output.ts';

/** Make again what is out of date, in order. */
export async function rebuildProject(name: string | undefined, project: string, output: Output): Promise<void> {
  const store = await folderStore(project);
  const only = name ? findObject(await store.list(), name).id : undefined;
  const onProgress = progressLine(output);
  let now = '';
  const made = await rebuild(store, only, {
    say: (what) => {
      now = what;
    },
    onProgress: (part) => onProgress(part, now),
  });
  output.out(made.length === 0 ? 'Everything is up to date.' : made.map((m) => `made again: ${m}`).join('\n'));
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
  const store = await folderStore(project);
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
    object = findObject(objects, name);
    await keep(
      path,
      extension === 'json'
        ? new TextEncoder().encode(`${JSON.stringify(recipeOf(objects, object), null, 2)}\n`)
        : exportParts(store, object, extension, facts.frame, options),
    );
  }
  const at = new Date().toISOString();
  await store.commit({
    ledger: [
      { at, what: 'out', object: object?.id ?? facts.id, name: object?.name ?? facts.name, note: basename(path) },
    ],
  });
  output.out(path);
}

/** Open a parcel as a new project. */
export async function unpack(path: string, project: string, output: Output): Promise<void> {
  const onProgress = progressLine(output);
  const blob = await openAsBlob(path).catch(() => {
    throw new LithagonError('file', `There is no file ${path}.`, { object: path, fix: 'Check its path.' });
  });
  const facts = await readParcel(
    basename(path),
    blob,
    async ({ name }) => {
      const store = await folderStore(project, { name });
      if ((await store.list()).length > 0)
        throw new LithagonError('project', `${project} holds a project already.`, {
          object: project,
          fix: 'Give a folder that does not exist yet. Nothing was changed.',
        });
      return store;
    },
    { onProgress: (part) => onProgress(part, basename(path)) },
  );
  output.out(`${facts.name}, in ${project}`);
}
