import { variance } from './attributes/variance.ts';
import { registerStep } from './define.ts';
import { convert } from './depth/convert.ts';
import { layers } from './depth/layers.ts';
import { depthVolume } from './depth/volume.ts';
import { close } from './interpret/close.ts';
import { track } from './interpret/track.ts';
import { wavelet } from './tie/wavelet.ts';
import { tieWell } from './tie/well.ts';
import { contacts } from './volumes/contacts.ts';
import { inPlace } from './volumes/inPlace.ts';

for (const step of [wavelet, tieWell, track, close, variance, layers, convert, depthVolume, contacts, inPlace])
  registerStep(step);

export * from './define.ts';
export { describeStep, type StepDescription } from './describe.ts';
export { tryLocal } from './localVolume.ts';
export { checkParams, type RunRequest, runStep, unfit } from './run.ts';
export { type Tie, type TieParams, tieOf } from './tie/well.ts';
