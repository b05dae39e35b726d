import { type EarthObject, exportFormats, type OutOptions, stepOf } from '@lithagon/core';
import * as Comlink from 'comlink';
import { toPng } from 'html-to-image';
import { toast } from 'sonner';
import { runJob } from '../compute/pool';
import { useProject } from '../state/project';
import { track } from '../state/runs';

/** Give a file to the browser to keep. */
function download(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  // what a file system would not take is left out of the name
  link.download = name.replace(/[\\/:*?"<>|]+/g, '-');
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

async function note(object: { id: string; name: string }, file: string): Promise<void> {
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

/** What a view shows, as a picture at twice its size. */
export async function savePicture(view: HTMLElement, name: string): Promise<void> {
  try {
    const ground = getComputedStyle(document.documentElement).getPropertyValue('--vellum');
    const url = await toPng(view, {
      pixelRatio: 2,
      backgroundColor: ground,
      // controls are for working, not for a report
      filter: (node) => !(node instanceof HTMLElement && node.dataset.controls !== undefined),
    });
    // a data address may be too long to save from
    const bytes = Uint8Array.from(atob(url.slice(url.indexOf(',') + 1)), (c) => c.charCodeAt(0));
    download(`${name}.png`, new Blob([bytes], { type: 'image/png' }));
  } catch {
    toast.error('The picture could not be made. Nothing was saved.');
  }
}
