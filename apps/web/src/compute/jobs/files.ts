import {
  blobSource,
  type Declarations,
  type FileReport,
  type HeaderTable,
  headerTable,
  inspectFile,
  loadFile,
} from '@lithagon/core';
import { type Outcome, type Progress, storeOf, withCancel, yielding } from './task';

async function crsTable() {
  const url = (await import('@lithagon/core/crs-table.json?url')).default;
  return (await fetch(url)).json();
}

/** What is asked of files: what they hold, and to take them in. */
export const filesJobs = {
  /** @param beside further parts of the same volume, or companions of a shapefile */
  inspect: (
    task: number,
    projectId: string,
    file: File,
    beside: File[],
    declare: Declarations,
  ): Promise<Outcome<FileReport>> =>
    withCancel(task, async (signal) => {
      const store = await storeOf(projectId);
      const [objects, { frame }] = await Promise.all([store.list(), store.facts()]);
      return inspectFile(blobSource(file.name, file), declare, {
        around: { objects, frame, crsTable },
        beside: beside.map((f) => blobSource(f.name, f)),
        signal,
      });
    }),

  /** A page of a SEG-Y file's trace headers. */
  headers: (task: number, file: File, from: number, count: number): Promise<Outcome<HeaderTable>> =>
    withCancel(task, () => headerTable(blobSource(file.name, file), from, count)),

  load: (task: number, projectId: string, file: File, beside: File[], declare: Declarations, progress: Progress) =>
    withCancel(task, async (signal) => {
      const store = yielding(await storeOf(projectId));
      const loaded = await loadFile(
        blobSource(file.name, file),
        declare,
        { store, crsTable, signal, onProgress: progress },
        beside.map((f) => blobSource(f.name, f)),
      );
      return { ids: loaded.objects.map((o) => o.id), warnings: loaded.warnings };
    }),
};
