import { z } from 'zod';
import { varianceAlongDip, variance as varianceOf } from '../../attributes/variance.ts';
import { oneVolume } from '../../engine/local.ts';
import { choice, defineStep, number } from '../define.ts';

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
  along: choice(
    {
      title: 'Compared',
      description:
        'At the same time, or along the dip of the reflections, so that dipping beds are no variance. Slower.',
    },
    ['at one time', 'along dip'],
    'at one time',
  ),
  mostDipMs: number(
    { title: 'Steepest dip', description: 'That is followed along dip, from a trace to the next.', unit: 'ms/trace' },
    { min: 1, max: 40, step: 1, initial: 12 },
  ),
});

const halfOf = (windowMs: number, stepMs: number) => Math.max(1, Math.round(windowMs / stepMs / 2));

const mostOf = (p: z.infer<typeof params>, stepMs: number) => Math.max(1, Math.ceil(p.mostDipMs / stepMs));

const local = oneVolume<z.infer<typeof params>>('seismic', 'variance', {
  quantity: 'variance',
  unit: '',
  halo: (p, { vertical }) => {
    const half = halfOf(p.windowMs, vertical.step);
    // along dip neighbours are moved, and the dip has a window of its own
    const more = p.along === 'along dip' ? 2 * half + (2 * p.radius + 1) * mostOf(p, vertical.step) + 2 : 0;
    return { inline: p.radius, crossline: p.radius, sample: half + more };
  },
  evaluate: (block, p) => {
    const half = halfOf(p.windowMs, block.stepMs);
    return p.along === 'along dip' ? varianceAlongDip(block, half, mostOf(p, block.stepMs)) : varianceOf(block, half);
  },
});

export const variance = defineStep({
  id: 'attributes.variance',
  version: 3,
  stage: 'attributes',
  purpose: 'Structure',
  title: 'Variance',
  summary: 'Lateral change of the waveform; high at faults and channel edges.',
  formula: 'σ² = Σ_t Σ_j (d_j − d̄)² / Σ_t Σ_j d_j², over the window, at one time or along dip.',
  avoid: 'On noisy data without conditioning, and with windows longer than a fault is tall.',
  source: 'Marfurt et al. (1998), Geophysics 63, 1150–1165',
  reach: 'local',
  inputs: { seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude'] } },
  params,
  outputs: { variance: { kind: 'volume', title: 'Variance' } },
  local,
});
