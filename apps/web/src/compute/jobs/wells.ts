import {
  carrySettings,
  checkParams,
  LithagonError,
  notThereYet,
  type PlotRequest,
  type PlotWindow,
  proposeTops,
  shownUnits,
  stepOf,
  type TieParams,
  tieOf,
  type Well,
} from '@lithagon/core';
import * as Comlink from 'comlink';
import { gatherPlot, overlapOf, type Ranges, rasterOf, selectPlot } from '../plots';
import { outcome, storeOf, withCancel } from './task';

/** What views of wells ask for as they are worked in: crossplots, carried tops, ties. */
export const wellsJobs = {
  /** Gather the points of a crossplot; they stay here under a key. */
  plotGather: (projectId: string, request: PlotRequest) =>
    outcome(async () => {
      const store = await storeOf(projectId);
      return gatherPlot(store, await store.list(), request);
    }),

  /** How many points lie in each cell of a window, and what colours them. */
  plotRaster: (key: string, window: PlotWindow, ranges: Ranges, width: number, height: number) =>
    outcome(async () => {
      const made = rasterOf(key, window, ranges, width, height);
      return (
        made &&
        Comlink.transfer(made, [
          made.counts.buffer,
          ...[made.means, made.classes].flatMap((a) => (a ? [a.buffer] : [])),
        ])
      );
    }),

  /** Where the points in a ring are: intervals of wells, or bins. */
  plotSelect: (key: string, ring: [number, number][], ranges: Ranges) =>
    outcome(async () => selectPlot(key, ring, ranges)),

  /** How many points lie in several rings at once. */
  plotOverlap: (key: string, rings: [number, number][][]) => outcome(async () => overlapOf(key, rings)),

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
};
