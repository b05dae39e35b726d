import { type EarthObject, exportFormats, type OutOptions, stepOf } from '@lithagon/core';
import * as Comlink from 'comlink';
import { runJob } from '../../compute/pool';
import { useProject } from '../../state/project';
import { track } from '../../state/runs';
import { download } from '../../ui/download';

async function note(object: { id: string; name: string }, file: string): Promise<void> {
  // a tab that only looks may save, but writes nothing down
  if (!useProject.getState().writer) return;
  const at = new Date().toISOString();
  await useProject
    .getState()
    .store?.commit({ ledger: [{ at, what: 'out', object: object.id, name: object.name, note: file }] });
}

/** Formats that an object can be saved in; everything that was made or drawn can leave as a recipe too. */
export function saveFormats(object: EarthObject): Record<string, string> {
  return { ...exportFormats(object), ...(stepOf(object.madeBy.step) ? { json: 'Recipe of its trail' } : {}) };
}

export async function saveObject(object: EarthObject, extension: string, options: OutOptions = {}): Promise<void> {
  const file = extension === 'json' ? `${object.name}.recipe.json` : `${object.name}.${extension}`;
  await track(`Save ${file}`, object.stage, async (signal) => {
    const { id } = useProject.getState();
    const blob = await runJob((remote, task) => remote.export(task, id, object.id, extension, options), signal);
    download(file, blob);
    await note(object, file);
  });
}

/** The whole project in one file. */
export async function saveParcel(): Promise<void> {
  const { id, facts } = useProject.getState();
  const file = `${facts?.name ?? 'project'}.parcel`;
  const blob = await track('Pack a parcel', 'data', (signal, progress) =>
    runJob(
      (remote, task) =>
        remote.parcel(
          task,
          id,
          Comlink.proxy((part: number) => progress(part)),
        ),
      signal,
    ),
  );
  if (!blob) return;
  download(file, blob);
  await note({ id, name: facts?.name ?? '' }, file);
}
