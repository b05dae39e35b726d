import { z } from 'zod';
import { mute as muteTrace } from '../../conditioning/gain.ts';
import { LithagonError } from '../../earth/errors.ts';
import { toMap } from '../../earth/lattice.ts';
import type { Horizon, Volume } from '../../earth/objects.ts';
import { gridAt } from '../../horizons/grid.ts';
import { readWhole } from '../../storage/arrays.ts';
import { choice, defineStep, type LocalVolume, number } from '../define.ts';
import { runLocal } from '../localVolume.ts';

const params = z.object({
  side: choice({ title: 'Mute', description: 'Which side is taken out.' }, ['above', 'below'], 'above'),
  at: number(
    {
      title: 'At',
      description: 'Time (or depth, m) where no horizon is given; added to the horizon where one is.',
      unit: 'ms',
    },
    { min: -20000, max: 20000, step: 4, initial: 0 },
  ),
  taper: number(
    { title: 'Ramp', description: 'Height over which samples come back, on the side that is kept.', unit: 'ms' },
    { min: 0, max: 1000, step: 4, initial: 40 },
  ),
});

interface Places {
  /** Sample (fractional) of the mute per bin; NaN where the horizon is missing and the trace is kept. */
  at: Float32Array;
  crosslines: number;
  step: number;
}

const local: LocalVolume<z.infer<typeof params>, Places> = {
  input: 'seismic',
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  async prepare(given, volume, p, store) {
    const { lattice, vertical } = volume;
    const [ni, nj] = [lattice.inline.count, lattice.crossline.count];
    const horizon = given.horizon as Horizon | undefined;
    const at = new Float32Array(ni * nj);
    if (!horizon) at.fill((p.at - vertical.first) / vertical.step);
    else {
      if (horizon.domain !== volume.domain)
        throw new LithagonError('input', `${horizon.name} and ${volume.name} are not in the same domain.`, {
          object: horizon.name,
          fix: 'Choose a horizon in the domain of the volume.',
        });
      const values = await readWhole(store, horizon.values);
      for (let i = 0; i < ni; i++)
        for (let j = 0; j < nj; j++) {
          const value = gridAt(values, horizon.lattice, ...toMap(lattice, i, j));
          at[i * nj + j] = (value + p.at - vertical.first) / vertical.step;
        }
    }
    return { at, crosslines: nj, step: vertical.step };
  },
  evaluate(block, p, { at, crosslines, step }) {
    const data = block.data.slice();
    const [lines, traces, count] = block.size;
    for (let i = 0; i < lines; i++)
      for (let j = 0; j < traces; j++) {
        const place = at[(block.from[0] + i) * crosslines + block.from[1] + j];
        if (!Number.isNaN(place)) muteTrace(data, (i * traces + j) * count, count, place, p.side, p.taper / step);
      }
    return data;
  },
};

export const mute = defineStep({
  id: 'data.mute',
  version: 1,
  stage: 'data',
  title: 'Mute',
  summary: 'Takes out what lies above or below a horizon or a time, with a ramp.',
  source: 'Yilmaz (2001), Seismic Data Analysis, SEG, ch. 1',
  reach: 'trace',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic' },
    horizon: { kind: 'horizon', title: 'Horizon', optional: true },
  },
  params,
  outputs: { muted: { kind: 'volume', title: 'Muted' } },
  local,
  run: async (context) => ({
    muted: await runLocal(
      context as unknown as Parameters<typeof runLocal<z.infer<typeof params>, Places>>[0],
      local,
      context.inputs.seismic as Volume,
      'muted',
    ),
  }),
});
