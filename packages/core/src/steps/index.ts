import { variance } from './attributes/variance.ts';
import { bandPass, phase, whiten } from './data/filters.ts';
import { footprint } from './data/footprint.ts';
import { agc, balance, flip, scale, timeGain } from './data/gains.ts';
import { mute } from './data/mute.ts';
import { crop, decimate, resample } from './data/regrid.ts';
import { registerStep } from './define.ts';
import { convert } from './depth/convert.ts';
import { layers } from './depth/layers.ts';
import { depthLine } from './depth/line.ts';
import { depthVolume } from './depth/volume.ts';
import { close } from './interpret/close.ts';
import { track } from './interpret/track.ts';
import { wavelet } from './tie/wavelet.ts';
import { tieWell } from './tie/well.ts';
import { contacts } from './volumes/contacts.ts';
import { inPlace } from './volumes/inPlace.ts';

const conditioning = [
  crop,
  decimate,
  resample,
  mute,
  bandPass,
  agc,
  timeGain,
  scale,
  flip,
  phase,
  balance,
  whiten,
  footprint,
];
for (const step of [
  ...conditioning,
  wavelet,
  tieWell,
  track,
  close,
  variance,
  layers,
  convert,
  depthVolume,
  depthLine,
  contacts,
  inPlace,
])
  registerStep(step);

export { meanSpectrum } from '../conditioning/filter.ts';
export * from './define.ts';
export { describeStep, type StepDescription } from './describe.ts';
export { tryLocal } from './localVolume.ts';
export { checkParams, givenOf, type RunRequest, runStep, unfit } from './run.ts';
export { type Tie, type TieParams, tieOf } from './tie/well.ts';
