import {
  checkParams,
  eachRole,
  type FrequencySpec,
  frequencyGather,
  givenOf,
  type Horizon,
  meanSpectrum,
  type Plane,
  type Polygon,
  readAlong,
  readCoarseCube,
  readCoarsePlane,
  readPlane,
  readWhole,
  spectraOf,
  stepOf,
  stopIf,
  tryMaps,
  tryOn,
  type Volume,
  valuesOn,
} from '@lithagon/core';
import * as Comlink from 'comlink';
import type { Asked } from '../../views/spectrum/useSpectra';
import { breathe, outcome, storeOf, withCancel } from './task';

/** What views draw: planes of volumes, traces along a path, arrays, trials. */
export const planesJobs = {
  /** One plane of a stored volume. */
  plane: (projectId: string, volume: Volume, plane: Plane, index: number) =>
    outcome(async () => {
      const data = await readPlane(await storeOf(projectId), volume, plane, index);
      return Comlink.transfer(data, [data.buffer]);
    }),

  /** A first look at a plane of a large volume; null where it has none. */
  coarsePlane: (projectId: string, volume: Volume, plane: Plane, index: number) =>
    outcome(async () => {
      const data = await readCoarsePlane(await storeOf(projectId), volume, plane, index);
      return data && Comlink.transfer(data, [data.buffer]);
    }),

  /** A volume thinned to be looked through. */
  cube: (task: number, projectId: string, volume: Volume, most: [number, number, number], signed: boolean) =>
    withCancel(task, async (signal) => {
      const cube = await readCoarseCube(await storeOf(projectId), volume, most, signed, signal);
      return Comlink.transfer(cube, [cube.data.buffer]);
    }),

  /** Traces of a volume at places on the map, whole. */
  along: (projectId: string, volume: Volume, points: [number, number][]) =>
    outcome(async () => {
      const data = await readAlong(await storeOf(projectId), volume, points);
      return Comlink.transfer(data, [data.buffer]);
    }),

  /** The values of an array that is one chunk: a horizon or a curve. */
  array: (projectId: string, ref: Parameters<typeof readWhole>[1]) =>
    outcome(async () => {
      const data = await readWhole(await storeOf(projectId), ref);
      const own = data.slice();
      return Comlink.transfer(own, [own.buffer]);
    }),

  /** A volume on the bins of a horizon. */
  onHorizon: (projectId: string, volume: Volume, horizon: Horizon) =>
    outcome(async () => {
      const data = await valuesOn(await storeOf(projectId), volume, horizon);
      return Comlink.transfer(data, [data.buffer]);
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

  /** Amplitude of data and noise in a part of a volume. */
  spectra: (task: number, projectId: string, volume: Volume, asked: Asked) =>
    withCancel(task, async (signal) => {
      const store = await storeOf(projectId);
      const around =
        'horizon' in asked.around
          ? { ...asked.around, horizon: (await store.get(asked.around.horizon)) as Horizon }
          : asked.around;
      const outline = asked.outline ? ((await store.get(asked.outline)) as Polygon) : undefined;
      await breathe();
      return spectraOf(store, volume, { line: asked.line, outline, around }, { signal });
    }),

  /** Magnitudes of the trace at a place, `[frequency][sample]`. */
  frequencies: (projectId: string, volume: Volume, place: [number, number], hz: number[], spec: FrequencySpec) =>
    outcome(async () => {
      const data = await frequencyGather(await storeOf(projectId), volume, place, hz, spec);
      return Comlink.transfer(data, [data.buffer]);
    }),

  /** One plane of what a step would give there, and how long it took, for an estimate of the whole. */
  trial: (
    task: number,
    projectId: string,
    step: string,
    params: Record<string, unknown>,
    inputs: Record<string, string[]>,
    volume: Volume,
    plane: Plane,
    index: number,
  ) =>
    withCancel(task, async (signal) => {
      const known = stepOf(step);
      if (!known?.local) throw new Error(`${step} has no trial`);
      const store = await storeOf(projectId);
      // a later trial may have come while this one waited
      await breathe();
      stopIf(signal);
      const started = performance.now();
      const found = await givenOf(known, inputs, store);
      const [first] = known.local.volumes;
      const given = Array.isArray(found[first]) ? found : { ...found, [first]: volume };
      const values = await tryOn(known, given, checkParams(known, params), store, plane, index, signal);
      // of results that are given for each of several the one of what is shown
      const [role] = Object.keys(known.outputs);
      const data = values[role] ?? values[eachRole(role, volume.id)] ?? Object.values(values)[0];
      const timed = { data, evaluateMs: performance.now() - started };
      return Comlink.transfer(timed, [data.buffer]);
    }),

  /** The first map of those that a step would give, and how long it took. */
  trialMap: (
    task: number,
    projectId: string,
    step: string,
    params: Record<string, unknown>,
    inputs: Record<string, string[]>,
  ) =>
    withCancel(task, async (signal) => {
      const known = stepOf(step);
      if (!known?.maps) throw new Error(`${step} has no maps to try`);
      const store = await storeOf(projectId);
      await breathe();
      stopIf(signal);
      const started = performance.now();
      const maps = await tryMaps(known, await givenOf(known, inputs, store), checkParams(known, params), store, signal);
      const map = Object.values(maps)[0];
      return Comlink.transfer({ map, evaluateMs: performance.now() - started }, [map.values.buffer]);
    }),
};
