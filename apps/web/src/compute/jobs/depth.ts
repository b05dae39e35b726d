import {
  type Horizon,
  LithagonError,
  type ModelParts,
  modelOf,
  modelParts,
  readWhole,
  toMap,
  turnerOf,
} from '@lithagon/core';
import * as Comlink from 'comlink';
import { outcome, storeOf } from './task';

/** The velocities that were read last: views ask for many things by one of them. */
let held: { key: string; parts: ModelParts } | null = null;

async function partsOf(projectId: string, id: string): Promise<ModelParts> {
  const store = await storeOf(projectId);
  const source = await store.get(id);
  if (source?.kind !== 'velocity model' && source?.kind !== 'volume')
    throw new LithagonError('input', 'The velocity model is not there any more.', { fix: 'Choose another.' });
  const key = `${projectId} ${id}@${source.revision}`;
  if (held?.key !== key) held = { key, parts: await modelParts(store, source) };
  return held.parts;
}

/** What turns time into depth and back for views. */
export const depthJobs = {
  /** A velocity model, or a velocity volume, with all that it rests on. */
  modelParts: (projectId: string, id: string) => outcome(() => partsOf(projectId, id)),

  /** Values of a horizon in the other domain. */
  turnedHorizon: (projectId: string, horizon: Horizon, id: string, to: 'twt' | 'depth') =>
    outcome(async () => {
      const turn = turnerOf(modelOf(await partsOf(projectId, id)), to);
      const values = await readWhole(await storeOf(projectId), horizon.values);
      const columns = horizon.binGrid.crossline.count;
      const out = values.map((v, n) => turn(...toMap(horizon.binGrid, Math.floor(n / columns), n % columns), v));
      return Comlink.transfer(out, [out.buffer]);
    }),
};
