import { z } from 'zod';
import { diffusionAlong, edgePreserving, medianAlong } from '../../attributes/alongStructure.ts';
import { SEISMIC_LIKE } from '../../earth/quantities.ts';
import type { Halo } from '../../numerics/block.ts';
import { choice, defineStep, number } from '../define.ts';
import { dipHalo, dipParams, movedBy, plus, slopesIn, steeringInputs, steeringOf, wider } from './steering.ts';

const params = z.object({
  way: choice(
    {
      title: 'Filter',
      description:
        'The median takes single bad traces out; the edge-preserving mean noise on both sides of an edge; diffusion smooths along reflections and stops at disorder.',
    },
    ['median', 'edge-preserving mean', 'diffusion'],
    'edge-preserving mean',
  ),
  radius: number(
    { title: 'Radius', description: 'Traces on each side, of median and mean.', unit: 'traces' },
    { min: 1, max: 3, whole: true, initial: 2 },
  ),
  turns: number(
    { title: 'Turns', description: 'How often diffusion smooths: its reach is a trace for each.' },
    { min: 1, max: 8, whole: true, initial: 4 },
  ),
  hold: number(
    {
      title: 'Stop at disorder',
      description: 'The power of order by which diffusion is held back; none smooths all alike.',
    },
    { min: 0, max: 16, step: 1, initial: 4 },
  ),
  ...dipParams,
});

type Params = z.infer<typeof params>;

const NONE: Halo = { inline: 0, crossline: 0, sample: 0 };
const aTurn = (p: Params, step: number) => movedBy(p, step, 1);

/** How far slopes reach beyond what is wanted. */
const beyond = (p: Params, step: number): Halo =>
  p.way === 'diffusion'
    ? { inline: p.turns - 1, crossline: p.turns - 1, sample: (p.turns - 1) * aTurn(p, step) }
    : NONE;

export const smooth = defineStep({
  id: 'attributes.smooth',
  version: 1,
  stage: 'attributes',
  purpose: 'Structure',
  title: 'Smooth along structure',
  summary: 'Takes noise out along the dip of reflections and leaves edges as they are.',
  formula:
    'Median of neighbours; mean of the calmest window that holds the sample; or u ← u + Σ_j τ·(u_j − u)/9, τ the trust.',
  avoid: 'Before thin channels are looked for with a radius as wide as they are: they go with the noise.',
  source:
    'Fehmers & Höcker (2003), Geophysics 68, 1286–1293; Luo et al. (2002), The Leading Edge 21, 136–158; median Tukey (1977), Exploratory Data Analysis',
  reach: 'local',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: SEISMIC_LIKE },
    ...steeringInputs,
  },
  params,
  outputs: { smoothed: { kind: 'volume', title: 'Smoothed' } },
  local: {
    volumes: ['seismic', 'inlineDip', 'crosslineDip'],
    halo(p, volume) {
      const { step } = volume.vertical;
      const own: Halo =
        p.way === 'diffusion'
          ? { inline: p.turns, crossline: p.turns, sample: p.turns * aTurn(p, step) }
          : { inline: p.radius, crossline: p.radius, sample: movedBy(p, step, p.radius) };
      return wider(plus(dipHalo(p, volume), beyond(p, step)), own);
    },
    ready: (_, __, volumes) => steeringOf(volumes),
    evaluate(blocks, p, steering) {
      const { seismic } = blocks;
      const slopes = slopesIn(blocks, p, steering, beyond(p, seismic.stepMs), p.way === 'diffusion');
      if (p.way === 'median') return { smoothed: medianAlong(seismic, slopes, p.radius) };
      if (p.way === 'diffusion')
        return { smoothed: diffusionAlong(seismic, slopes, p.turns, p.hold, aTurn(p, seismic.stepMs)) };
      return { smoothed: edgePreserving(seismic, slopes, p.radius) };
    },
  },
});
