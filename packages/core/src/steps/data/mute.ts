import { z } from 'zod';
import { mute as muteTrace } from '../../conditioning/gain.ts';
import { toMap } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { Horizon, Volume } from '../../earth/objects.ts';
import { oneVolume } from '../../engine/local.ts';
import { gridAt } from '../../horizons/grid.ts';
import { readWhole } from '../../storage/arrays.ts';
import { choice, defineStep, number } from '../define.ts';

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

/** Time (or depth) of the horizon per bin; NaN where it is missing and the trace is kept. Null where there is no horizon. */
type Places = Float32Array | null;

const local = oneVolume<z.infer<typeof params>, Places, { places: Places; volume: Volume }>('seismic', 'muted', {
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  async prepare(given, { store }) {
    const [horizon, volume] = [given.horizon as Horizon | undefined, given.seismic as Volume];
    if (!horizon) return null;
    if (horizon.domain !== volume.domain)
      throw new LithagonError('input', `${horizon.name} and ${volume.name} are not in the same domain.`, {
        object: horizon.name,
        fix: 'Choose a horizon in the domain of the volume.',
      });
    const values = await readWhole(store, horizon.values);
    const { binGrid } = volume;
    const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
    const places = new Float32Array(ni * nj);
    for (let i = 0; i < ni; i++)
      for (let j = 0; j < nj; j++) places[i * nj + j] = gridAt(values, horizon.binGrid, ...toMap(binGrid, i, j));
    return places;
  },
  ready: (places, _, { seismic }) => ({ places, volume: seismic }),
  evaluate(block, p, { places, volume: { vertical, binGrid } }) {
    const data = block.data.slice();
    const [lines, traces, count] = block.size;
    for (let i = 0; i < lines; i++)
      for (let j = 0; j < traces; j++) {
        const bin = (block.from[0] + i) * binGrid.crossline.count + block.from[1] + j;
        const at = ((places ? places[bin] : 0) + p.at - vertical.first) / vertical.step;
        if (!Number.isNaN(at)) muteTrace(data, (i * traces + j) * count, count, at, p.side, p.taper / vertical.step);
      }
    return data;
  },
});

export const mute = defineStep({
  id: 'data.mute',
  purpose: 'Extent',
  version: 1,
  stage: 'data',
  title: 'Mute',
  summary: 'Takes out what lies above or below a horizon or a time, with a ramp.',
  formula: 'd′(t) = d(t)·w(t − t₀), w rising from 0 to 1 along the taper.',
  avoid: 'Over a target that comes close to the mute: the taper changes its amplitudes.',
  source: 'Yilmaz (2001), Seismic Data Analysis, SEG, ch. 1',
  reach: 'trace',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic' },
    horizon: { kind: 'horizon', title: 'Horizon', optional: true },
  },
  params,
  outputs: { muted: { kind: 'volume', title: 'Muted' } },
  local,
});
