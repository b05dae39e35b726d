import './browser';
import {
  type EarthObject,
  runStep,
  type Store,
  stepOf,
  type Tie,
  type TieParams,
  tieOf,
  type Volume,
  type Wavelet,
  type Well,
} from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { initialParams } from '../actions/initial';

/** The layered field with a wavelet, and what a tie of its well begins with. */
export interface Tied {
  store: Store;
  objects: EarthObject[];
  seismic: Volume;
  well: Well;
  wavelet: Wavelet;
  params: TieParams;
  tie(more?: Partial<TieParams>, around?: EarthObject[]): Promise<Tie>;
}

export async function tiedField(): Promise<Tied> {
  const { store, seismic, well } = await layeredField();
  const ricker = { method: 'Ricker', peakHz: 28 };
  const request = { step: 'tie.wavelet', inputs: { seismic: [seismic.id] }, params: ricker };
  const [wavelet] = (await runStep(request, store)) as Wavelet[];
  const objects = await store.list();
  const step = stepOf('tie.well');
  if (!step) throw new Error('there is no step tie.well');
  const params = { ...(initialParams(step) as TieParams), top: 'Top' };
  const tie: Tied['tie'] = (more, around = objects) =>
    tieOf(store, around, well, seismic, wavelet, { ...params, ...more }, 4);
  return { store, objects, seismic, well, wavelet, params, tie };
}
