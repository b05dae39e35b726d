import { z } from 'zod';
import { variance as varianceOf } from '../../attributes/variance.ts';
import { defineStep, type LocalVolume, number } from '../define.ts';
import { runLocal } from '../localVolume.ts';

const params = z.object({
  windowMs: number(
    {
      title: 'Window',
      description: 'Height of the vertical window: longer is smoother, shorter is sharper.',
      unit: 'ms',
    },
    { min: 4, max: 200, step: 4, initial: 36 },
  ),
  radius: number(
    { title: 'Radius', description: 'Neighbouring traces and lines on each side.', unit: 'traces' },
    { min: 1, max: 4, whole: true, initial: 1 },
  ),
});

const halfOf = (windowMs: number, stepMs: number) => Math.max(1, Math.round(windowMs / stepMs / 2));

const local: LocalVolume<z.infer<typeof params>> = {
  input: 'seismic',
  quantity: 'variance',
  unit: '',
  halo: (p, volume) => ({ inline: p.radius, crossline: p.radius, sample: halfOf(p.windowMs, volume.vertical.step) }),
  evaluate: (block, p) => varianceOf(block, halfOf(p.windowMs, block.stepMs)),
};

export const variance = defineStep({
  id: 'attributes.variance',
  version: 1,
  stage: 'attributes',
  title: 'Variance',
  summary: 'Lateral change of the waveform; high at faults and channel edges.',
  source: 'Marfurt et al. (1998), Geophysics 63, 1150–1165',
  reach: 'local',
  inputs: { seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude'] } },
  params,
  outputs: { variance: { kind: 'volume', title: 'Variance' } },
  local,
  run: async (context) => ({ variance: await runLocal(context, local, context.inputs.seismic, 'variance') }),
});
