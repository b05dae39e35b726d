import { variance } from './attributes/variance.ts';
import { registerStep } from './define.ts';

for (const step of [variance]) registerStep(step);

export * from './define.ts';
export { tryLocal } from './localVolume.ts';
export { checkParams, type RunRequest, runStep, unfit } from './run.ts';
