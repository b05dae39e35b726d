import { z } from 'zod';
import { COHERENCE_MEASURES, coherence as coherenceOf } from '../../attributes/coherence.ts';
import { SEISMIC_LIKE } from '../../earth/quantities.ts';
import type { Halo } from '../../numerics/block.ts';
import { choice, defineStep, number } from '../define.ts';
import { dipHalo, dipParams, movedBy, plus, slopesIn, steeringInputs, steeringOf, wider } from './steering.ts';

const params = z.object({
  measure: choice(
    {
      title: 'Measure',
      description:
        'Semblance and variance tell change of shape and of strength; eigenstructure change of shape alone; chaos how far reflections are from layers.',
    },
    [...COHERENCE_MEASURES, 'chaos'],
    'semblance',
  ),
  radius: number(
    { title: 'Radius', description: 'Neighbouring traces and lines on each side.', unit: 'traces' },
    { min: 1, max: 3, whole: true, initial: 1 },
  ),
  windowMs: number(
    {
      title: 'Window',
      description: 'Height of the window along dip: longer is smoother, shorter is sharper.',
      unit: 'ms',
    },
    { min: 4, max: 200, step: 4, initial: 36 },
  ),
  ...dipParams,
});

type Params = z.infer<typeof params>;

const NONE: Halo = { inline: 0, crossline: 0, sample: 0 };
const halfOf = (p: Params, step: number) => Math.max(1, Math.round(p.windowMs / step / 2));

export const coherence = defineStep({
  id: 'attributes.coherence',
  version: 1,
  stage: 'attributes',
  purpose: 'Structure',
  title: 'Coherence',
  summary: 'How alike neighbouring traces are along the dip of reflections; low at faults and channel edges.',
  formula:
    'S = Σ_t (Σ_j d_j)² / (J Σ_t Σ_j d_j²), or λ₁ / Σλ of the covariance of the traces, over the window along dip.',
  avoid: 'With a window longer than a fault is tall, or shorter than a period where noise is strong.',
  source:
    'Marfurt et al. (1998), Geophysics 63, 1150–1165; Gersztenkorn & Marfurt (1999), Geophysics 64, 1468–1479; chaos Randen et al. (2000), SEG Expanded Abstracts 19, 649–652',
  reach: 'local',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: SEISMIC_LIKE },
    ...steeringInputs,
  },
  params,
  outputs: { coherence: { kind: 'volume', title: 'Coherence' } },
  local: {
    volumes: ['seismic', 'inlineDip', 'crosslineDip'],
    halo(p, volume) {
      const { step } = volume.vertical;
      if (p.measure === 'chaos') return dipHalo(p, volume);
      const half = halfOf(p, step);
      return wider(plus(dipHalo(p, volume), { ...NONE, sample: half }), {
        inline: p.radius,
        crossline: p.radius,
        sample: half + movedBy(p, step, p.radius),
      });
    },
    ready: (_, __, volumes) => steeringOf(volumes),
    evaluate(blocks, p, steering) {
      if (p.measure === 'chaos') return { coherence: slopesIn(blocks, p, steering, NONE, true).chaos };
      const half = halfOf(p, blocks.seismic.stepMs);
      const slopes = slopesIn(blocks, p, steering, { ...NONE, sample: half });
      return { coherence: coherenceOf(blocks.seismic, slopes, p.radius, half, p.measure) };
    },
    outputOf: (_, p) => ({
      quantity: p.measure === 'chaos' || p.measure === 'variance' ? p.measure : 'coherence',
      unit: '',
    }),
  },
});
