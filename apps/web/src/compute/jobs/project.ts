import {
  cutPlanes,
  damagesOf,
  type EarthObject,
  exportParts,
  LithagonError,
  type OutOptions,
  type Preview,
  type RunRequest,
  readParcel,
  rebuild,
  recipeOf,
  runStep,
  sweep,
  writeParcel,
} from '@lithagon/core';
import { createProject, idbStore } from '../../storage/idbStore';
import { making, touchProject } from '../../storage/projects';
import { lanes } from '../lanes';
import { breathe, outcome, type Progress, storeOf, withCancel, yielding } from './task';

/** What changes a project or takes it out: runs, rebuilding, exports, parcels. */
export const projectJobs = {
  /** Cut a volume for the planes that it has no copy for; false where it is gone. */
  cut: (task: number, projectId: string, id: string, progress: (part: number) => void) =>
    withCancel(task, async (signal) => {
      const store = yielding(await storeOf(projectId));
      const volume = await store.get(id);
      return volume?.kind === 'volume' && (await cutPlanes(store, volume, signal, progress)) !== null;
    }),

  run: (task: number, projectId: string, request: RunRequest, progress: Progress, preview: (map: Preview) => void) =>
    withCancel(task, async (signal) => {
      const store = yielding(await storeOf(projectId));
      const made = await runStep(request, store, {
        signal,
        runner: lanes(),
        onProgress: (part) => progress(part, ''),
        onPreview: (map) => preview(map),
      });
      return made.map((o) => o.id);
    }),

  /** What of an object's data is missing or damaged, in sentences. */
  check: (task: number, projectId: string, id: string) =>
    withCancel(task, async (signal) => {
      const store = await storeOf(projectId);
      const object = await store.get(id);
      return object ? (await damagesOf(store, object, signal)).map((each) => each.sentence) : [];
    }),

  /** Make again what is out of date, or what one object rests on. */
  rebuild: (task: number, projectId: string, only: string | undefined, progress: Progress) =>
    withCancel(task, async (signal) => {
      const store = yielding(await storeOf(projectId));
      let now = '';
      return rebuild(store, only, {
        signal,
        runner: lanes(),
        say: (name) => {
          now = name;
        },
        onProgress: (part) => progress(part, now),
      });
    }),

  /** One object in an open format, part by part, or its trail as a recipe. */
  export: (task: number, projectId: string, id: string, extension: string, options: OutOptions) =>
    withCancel(task, async (signal) => {
      const store = await storeOf(projectId);
      const [object, objects, facts] = await Promise.all([store.get(id), store.list(), store.facts()]);
      if (!object) throw new LithagonError('export', 'The object is gone.', { fix: 'Nothing was written.' });
      if (extension === 'json') return new Blob([`${JSON.stringify(recipeOf(objects, object), null, 2)}\n`]);
      const parts: Blob[] = [];
      // a blob lets the browser put parts aside on its disk
      for await (const part of exportParts(store, object, extension, facts.frame, options, signal)) {
        parts.push(new Blob([part as BlobPart]));
        await breathe();
      }
      return new Blob(parts);
    }),

  /** The whole project as a parcel. */
  parcel: (task: number, projectId: string, progress: Progress) =>
    withCancel(task, async (signal) =>
      writeParcel(await storeOf(projectId), { signal, onProgress: (part) => progress(part, '') }),
    ),

  /** A parcel as a new project of this browser, whole or not at all. */
  openParcel: (task: number, parcel: File, progress: Progress) =>
    withCancel(task, async (signal) => {
      const id = crypto.randomUUID();
      return making(id, async () => {
        const from = await readParcel(
          parcel.name,
          parcel,
          async (from) => {
            await createProject({ ...from, id }, []);
            return yielding(await idbStore(id));
          },
          { signal, onProgress: (part) => progress(part, '') },
        );
        const facts = { ...from, id };
        await touchProject(facts);
        return facts;
      });
    }),

  sweep: (projectId: string, kept: EarthObject[]) => outcome(async () => sweep(await storeOf(projectId), kept)),
};
