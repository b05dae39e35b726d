import type { z } from 'zod';
import { toMap } from '../../earth/binGrid.ts';
import type { Horizon, VelocityModel, Volume } from '../../earth/objects.ts';
import type { LocalStep } from '../../engine/local.ts';
import { sizeOf } from '../../numerics/block.ts';
import { sincWidened } from '../../numerics/sinc.ts';
import { type EarthParts, earthOf, earthParts, type LayeredEarth } from '../../project/layeredEarth.ts';
import { defineStep } from '../define.ts';
import { modelInputs } from './modelInputs.ts';
import { depthsDown, stretchParams, timesDown } from './stretch.ts';

interface Ready {
  earth: LayeredEarth;
  volume: Volume;
  depths: ReturnType<typeof depthsDown>;
}

const local: LocalStep<z.infer<typeof stretchParams>, EarthParts, Ready> = {
  volumes: ['volume'],
  outputs: { depth: {} },
  domain: 'depth',
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  prepare: ({ model, layers, seaBed }, { store }) =>
    earthParts(store, model as VelocityModel, layers as Horizon[], seaBed as Horizon | undefined),
  ready: (parts, p, { volume }) => ({ earth: earthOf(parts), volume, depths: depthsDown(parts.model, p) }),
  grid: ({ binGrid }, _, { depths }) => ({ binGrid, domain: 'depth', vertical: depths }),
  evaluate({ volume: block }, _, { earth, volume, depths }, region) {
    const [ni, nj, nk] = sizeOf(region);
    const { first, step, count } = volume.vertical;
    const out = new Float32Array(ni * nj * nk);
    for (let i = 0; i < ni; i++)
      for (let j = 0; j < nj; j++) {
        const column = earth.column(...toMap(volume.binGrid, region.i[0] + i, region.j[0] + j));
        const trace = (i * nj + j) * count;
        const t = timesDown(column, depths);
        for (let n = 0; n < nk; n++) {
          const k = region.k[0] + n;
          out[(i * nj + j) * nk + n] = sincWidened(
            block.data,
            trace,
            count,
            (t[k] - first) / step,
            (t[k + 1] - t[k]) / step,
          );
        }
      }
    return { depth: out };
  },
};

export const depthVolume = defineStep({
  id: 'depth.volume',
  version: 2,
  stage: 'depth',
  title: 'Volume to depth',
  summary: 'Stretches every trace from time to depth through the layers of a velocity model.',
  formula: 'd′(z) = d(t(z)), sample by sample through the velocity model.',
  avoid: 'Before amplitudes are measured per time: thicknesses change with velocity.',
  source: 'Windowed sinc: Kaiser & Schafer (1980), IEEE Trans. ASSP 28, 105–107; v0 + k·z: Slotnick (1936)',
  reach: 'trace',
  inputs: {
    volume: { kind: 'volume', title: 'Volume', domain: 'twt' },
    ...modelInputs,
  },
  params: stretchParams,
  outputs: { depth: { kind: 'volume', title: 'Depth' } },
  local,
});
