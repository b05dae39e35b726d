import {
  asLithagonError,
  blobSource,
  carrySettings,
  checkParams,
  cutPlanes,
  type Declarations,
  type EarthObject,
  exportParts,
  type FileReport,
  givenOf,
  type HeaderTable,
  headerTable,
  inspectFile,
  LithagonError,
  loadFile,
  meanSpectrum,
  notThereYet,
  type OutOptions,
  type Plane,
  type PlotRequest,
  type PlotWindow,
  type Preview,
  proposeTops,
  type RunRequest,
  readAlong,
  readCoarsePlane,
  readParcel,
  readPlane,
  readWhole,
  rebuild,
  recipeOf,
  runStep,
  type Store,
  shownUnits,
  stepOf,
  sweep,
  type TieParams,
  tieOf,
  tryLocal,
  type Volume,
  type Well,
  writeParcel,
} from '@lithagon/core';
import * as Comlink from 'comlink';
import { createProject, idbStore, removeDatabase } from '../storage/idbStore';
import { gatherPlot, rasterOf, selectPlot } from './plots';

/** An error as it crosses from a worker to the page. */
export interface PlainError {
  code: string;
  message: string;
  object?: string;
  fix?: string;
}

export type Outcome<T> = { ok: true; value: T } | { ok: false; error: PlainError };

const stores = new Map<string, Promise<Store>>();
const running = new Map<number, AbortController>();

function storeOf(projectId: string): Promise<Store> {
  let store = stores.get(projectId);
  if (!store) {
    store = idbStore(projectId);
    stores.set(projectId, store);
  }
  return store;
}

async function outcome<T>(work: () => Promise<T>): Promise<Outcome<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (cause) {
    const { code, message, object, fix } = asLithagonError(cause);
    return { ok: false, error: { code, message, object, fix } };
  }
}

/** Let messages in between two chunks of work, so that a cancel is heard. */
const breathe = () =>
  new Promise<void>((resolve) => {
    // a timer would wait four milliseconds each time
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

function withCancel<T>(task: number, work: (signal: AbortSignal) => Promise<T>): Promise<Outcome<T>> {
  const controller = new AbortController();
  running.set(task, controller);
  return outcome(() => work(controller.signal)).finally(() => running.delete(task));
}

/** A store whose writes give way to messages, so that a cancel reaches a run at every chunk. */
function yielding(store: Store): Store {
  return {
    ...store,
    writeBytes: async (key, bytes) => {
      await store.writeBytes(key, bytes);
      await breathe();
    },
  };
}

async function crsTable() {
  const url = (await import('@lithagon/core/crs-table.json?url')).default;
  return (await fetch(url)).json();
}

type Progress = (part: number, what: string) => void;

const api = {
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
        onProgress: (part) => progress(part, ''),
        onPreview: (map) => preview(map),
      });
      return made.map((o) => o.id);
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
      try {
        const facts = await readParcel(
          parcel.name,
          parcel,
          async (from) => {
            await createProject({ ...from, id }, []);
            return yielding(await idbStore(id));
          },
          { signal, onProgress: (part) => progress(part, '') },
        );
        return { ...facts, id };
      } catch (cause) {
        await removeDatabase(id);
        throw cause;
      }
    }),

  /** Make again what is out of date, or what one object rests on. */
  rebuild: (task: number, projectId: string, only: string | undefined, progress: Progress) =>
    withCancel(task, async (signal) => {
      const store = yielding(await storeOf(projectId));
      let now = '';
      return rebuild(store, only, {
        signal,
        say: (name) => {
          now = name;
        },
        onProgress: (part) => progress(part, now),
      });
    }),

  /** Gather the points of a crossplot; they stay here under a key. */
  plotGather: (projectId: string, request: PlotRequest) =>
    outcome(async () => {
      const store = await storeOf(projectId);
      return gatherPlot(store, await store.list(), request);
    }),

  /** How many points lie in each cell of a window, and what colours them. */
  plotRaster: (key: string, window: PlotWindow, width: number, height: number) =>
    outcome(async () => {
      const made = rasterOf(key, window, width, height);
      return (
        made &&
        Comlink.transfer(made, [
          made.counts.buffer,
          ...[made.means, made.classes].flatMap((a) => (a ? [a.buffer] : [])),
        ])
      );
    }),

  /** Where the points in a ring are: intervals of wells, or bins. */
  plotSelect: (key: string, ring: [number, number][]) => outcome(async () => selectPlot(key, ring)),

  /** Tops of trusted wells proposed in others; nothing is kept. */
  carry: (
    task: number,
    projectId: string,
    trusted: string[],
    wells: string[],
    params: Record<string, unknown>,
    progress: (part: number) => void,
  ) =>
    withCancel(task, async (signal) => {
      const step = stepOf('wells.carry');
      if (!step) throw new Error('there is no step wells.carry');
      const store = await storeOf(projectId);
      const objects = await store.list();
      const of = (ids: string[]) => objects.filter((o): o is Well => o.kind === 'well' && ids.includes(o.id));
      const settings = carrySettings(checkParams(step, params) as never);
      const { proposals, notes } = await proposeTops(store, objects, of(trusted), of(wells), settings, {
        signal,
        progress,
      });
      // what a well has already is not proposed to it again
      const fresh = notThereYet(objects, proposals, await shownUnits(store));
      return { proposals: fresh.proposals, notes: [...notes, ...fresh.notes] };
    }),

  /** A tie as its parameters stand, with the seismic beside the well; nothing is kept. */
  tie: (
    projectId: string,
    wellId: string,
    volumeId: string,
    waveletId: string,
    likeId: string | null,
    params: TieParams,
    beside: number,
  ) =>
    outcome(async () => {
      const store = await storeOf(projectId);
      const [well, volume, wavelet, objects] = await Promise.all([
        store.get(wellId),
        store.get(volumeId),
        store.get(waveletId),
        store.list(),
      ]);
      if (well?.kind !== 'well' || volume?.kind !== 'volume' || wavelet?.kind !== 'wavelet')
        throw new LithagonError('tie', 'A tie needs a well, a volume and a wavelet.', {
          fix: 'Choose all three in the Sheet.',
        });
      const like = objects.find((o): o is Well => o.id === likeId && o.kind === 'well');
      return tieOf(store, objects, well, volume, wavelet, params, beside, like);
    }),

  cancel: (task: number): void => running.get(task)?.abort(),

  /** One plane of a stored volume. */
  plane: (projectId: string, volume: Volume, plane: Plane, index: number) =>
    outcome(async () => {
      const data = await readPlane(await storeOf(projectId), volume, plane, index);
      return Comlink.transfer(data, [data.buffer]);
    }),

  /** Traces of a volume at places on the map, whole. */
  along: (projectId: string, volume: Volume, points: [number, number][]) =>
    outcome(async () => {
      const data = await readAlong(await storeOf(projectId), volume, points);
      return Comlink.transfer(data, [data.buffer]);
    }),

  /** A first look at a plane of a large volume; null where it has none. */
  coarsePlane: (projectId: string, volume: Volume, plane: Plane, index: number) =>
    outcome(async () => {
      const data = await readCoarsePlane(await storeOf(projectId), volume, plane, index);
      return data && Comlink.transfer(data, [data.buffer]);
    }),

  /** One plane of what a step would give there, and how long it took, for an estimate of the whole. */
  trial: (
    projectId: string,
    step: string,
    params: Record<string, unknown>,
    inputs: Record<string, string[]>,
    volume: Volume,
    plane: Plane,
    index: number,
  ) =>
    outcome(async () => {
      const known = stepOf(step);
      const local = known?.local ?? known?.trial;
      if (!known || !local) throw new Error(`${step} has no trial`);
      const store = await storeOf(projectId);
      const started = performance.now();
      const given = await givenOf(known, inputs, store);
      const data = await tryLocal(local, checkParams(known, params), store, volume, plane, index, given);
      const timed = { data, evaluateMs: performance.now() - started };
      return Comlink.transfer(timed, [data.buffer]);
    }),

  /** Mean amplitude spectrum of the traces of a plane. */
  spectrum: (projectId: string, volume: Volume, plane: Plane, index: number) =>
    outcome(async () =>
      meanSpectrum(
        await readPlane(await storeOf(projectId), volume, plane, index),
        volume.vertical.count,
        volume.vertical.step,
      ),
    ),

  /** The values of an array that is one chunk: a horizon or a curve. */
  array: (projectId: string, ref: Parameters<typeof readWhole>[1]) =>
    outcome(async () => {
      const data = await readWhole(await storeOf(projectId), ref);
      const own = data.slice();
      return Comlink.transfer(own, [own.buffer]);
    }),

  sweep: (projectId: string, kept: EarthObject[]) => outcome(async () => sweep(await storeOf(projectId), kept)),
};

export type WorkerApi = typeof api;

Comlink.expose(api);
