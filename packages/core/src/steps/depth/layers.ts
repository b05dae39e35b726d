import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { VelocityModel } from '../../earth/objects.ts';
import { layerPoints } from '../../project/layers.ts';
import { fitLayer } from '../../velocity/layer.ts';
import { defineStep, number, wellsInput } from '../define.ts';

const params = z.object({
  waterVelocity: number(
    { title: 'Water', description: 'Velocity of sea water.', unit: 'm/s' },
    { min: 1400, max: 1600, step: 1, initial: 1490 },
  ),
  mostK: number(
    {
      title: 'Largest gradient',
      description: 'Largest k that a layer may be given; few wells say little about it.',
      unit: '1/s',
    },
    { min: 0, max: 3, step: 0.05, initial: 1.2 },
  ),
}); // prettier-ignore

export const layers = defineStep({
  id: 'depth.layers',
  version: 2,
  stage: 'depth',
  title: 'Layer velocities',
  summary: 'Fits v0 + k·z to the wells in each layer between horizons; z is measured from the datum.',
  source: 'Slotnick (1936), Geophysics 1, 9–22',
  reach: 'global',
  inputs: {
    horizons: { kind: 'horizon', title: 'Horizons, as the wells name them', many: true, domain: 'twt' },
    wells: wellsInput(['directional surveys', 'tops', 'checkshots', 'time-depth relation']),
  },
  params,
  outputs: { model: { kind: 'velocity model', title: 'Velocity model' } },
  async run({ inputs, around, params: p, warn }) {
    const ordered = [...inputs.horizons].sort((a, b) => a.range[0] + a.range[1] - b.range[0] - b.range[1]);
    const made: VelocityModel['layers'] = [];
    let above: string | null = null;
    for (const horizon of ordered) {
      const wells = inputs.wells.flatMap((w) => layerPoints(around, w, above, horizon.name, p.waterVelocity) ?? []);
      const fit = fitLayer(wells, { lowK: 0, highK: p.mostK });
      if (!fit) {
        const before = made.at(-1);
        if (!before)
          throw new LithagonError(
            'velocity',
            `No well has both a sea bed and a top “${horizon.name}” with times, so the first layer has no velocity.`,
            {
              object: horizon.name,
              fix: 'Name horizons as the wells name their tops, and load checkshots.',
            },
          );
        warn(`No well has a top “${horizon.name}” with a time; the velocity of the layer above was carried down.`);
        made.push({ ...before, base: horizon.name, rms: 0, points: 0 });
      } else
        made.push({
          base: horizon.name,
          v0: fit.v0,
          k: fit.k,
          rms: fit.rms,
          points: wells.reduce((n, w) => n + w.points.length, 0),
        });
      above = horizon.name;
    }
    return { model: { kind: 'velocity model', waterVelocity: p.waterVelocity, layers: made } };
  },
});
