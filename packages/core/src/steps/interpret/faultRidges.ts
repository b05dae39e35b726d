import { z } from 'zod';
import type { BinGrid } from '../../earth/binGrid.ts';
import { ridgesOf } from '../../faults/ridges.ts';
import { defineStep, number } from '../define.ts';

const params = z.object({
  least: number(
    { title: 'Minimum strength', description: 'Ridges below this are left out.', among: 'strength' },
    { min: 0, max: 1, step: 0.01, initial: 0.2 },
  ),
});

export const faultRidges = defineStep({
  id: 'interpret.faultRidges',
  version: 1,
  stage: 'interpret',
  purpose: 'Faults found',
  title: 'Fault ridges',
  summary:
    'Fault strength thinned to where it is greatest across each fault: a sheet one bin thick, nothing beside it.',
  formula: 'r = s where s is at least both strengths one bin away along the azimuth of the best plane; 0 elsewhere.',
  avoid: 'With a minimum so low that the ridges of noise hide those of faults.',
  source: 'Hale (2013), Geophysics 78, O33–O43',
  reach: 'local',
  inputs: {
    strength: {
      kind: 'volume',
      title: 'Fault strength',
      quantity: ['fault strength'],
      usual: { step: 'interpret.faultStrength', output: 'strength' },
    },
    azimuth: {
      kind: 'volume',
      title: 'Azimuth of the best plane',
      quantity: ['azimuth'],
      usual: { step: 'interpret.faultStrength', output: 'azimuth' },
    },
  },
  params,
  outputs: { ridges: { kind: 'volume', title: 'Fault ridges' } },
  local: {
    volumes: ['strength', 'azimuth'],
    halo: () => ({ inline: 1, crossline: 1, sample: 0 }),
    ready: (_, __, volumes) => volumes.strength.binGrid,
    evaluate({ strength, azimuth }, p, grid: BinGrid) {
      return { ridges: ridgesOf(strength.data, azimuth.data, strength.size, 1, grid, p.least) };
    },
    outputs: { ridges: { quantity: 'fault strength', unit: '' } },
  },
});
