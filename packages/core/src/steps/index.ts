import { variance } from './attributes/variance.ts';
import { registerStep } from './define.ts';
import { convert } from './depth/convert.ts';
import { layers } from './depth/layers.ts';
import { close } from './interpret/close.ts';
import { track } from './interpret/track.ts';
import { inPlace } from './volumes/inPlace.ts';

for (const step of [track, close, variance, layers, convert, inPlace]) registerStep(step);

export * from './define.ts';
export { tryLocal } from './localVolume.ts';
export { checkParams, type RunRequest, runStep, unfit } from './run.ts';
