import { toMap } from '../../earth/binGrid.ts';
import type { VelocityModel, Volume } from '../../earth/objects.ts';
import type { LocalStep } from '../../engine/local.ts';
import { sizeOf } from '../../numerics/block.ts';
import { sincDown } from '../../numerics/sinc.ts';
import { modelParts } from '../../project/velocityModel.ts';
import { downColumn } from '../../velocity/column.ts';
import { columnsOver, type Even, evenIn, type Stretching } from '../../velocity/even.ts';
import { type Model, type ModelParts, modelOf } from '../../velocity/model.ts';
import { defineStep } from '../define.ts';
import { modelInput } from './earth.ts';
import { otherDomain } from './otherDomain.ts';
import { stretchParams } from './stretch.ts';

interface Prepared {
  parts: ModelParts;
  notes: string[];
}

interface Ready {
  model: Model;
  volume: Volume;
  even: Even;
  /** Domain of what comes out. */
  domain: 'twt' | 'depth';
  notes: string[];
}

/** Bins of a volume that velocities do not reach. */
function outside({ model, volume: { binGrid } }: Ready): number {
  let count = 0;
  for (let i = 0; i < binGrid.inline.count; i++)
    for (let j = 0; j < binGrid.crossline.count; j++) if (!model.reaches(...toMap(binGrid, i, j))) count++;
  return count;
}

const local: LocalStep<Stretching, Prepared, Ready> = {
  volumes: ['volume'],
  outputs: { converted: {} },
  domain: 'the other',
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  prepare: async ({ model }, { store, signal }) => {
    const notes: string[] = [];
    const parts = await modelParts(store, model as VelocityModel | Volume, { signal, say: (s) => notes.push(s) });
    return { parts, notes };
  },
  ready: ({ parts, notes }, p, { volume }) => {
    const model = modelOf(parts);
    const columns = columnsOver(model, volume.binGrid);
    return {
      model,
      volume,
      notes,
      domain: otherDomain(volume),
      even: evenIn(volume, columns, parts.above.datumM ?? 0, p),
    };
  },
  grid: ({ binGrid }, _, { even, domain }) => ({ binGrid, domain, vertical: even }),
  evaluate({ volume: block }, _, { model, volume, even, domain }, region) {
    const [ni, nj, nk] = sizeOf(region);
    const { first, step, count } = volume.vertical;
    const out = new Float32Array(ni * nj * nk).fill(Number.NaN);
    const from = even.first + even.step * region.k[0];
    // one beyond the last: how far apart they are tells how samples are drawn together
    const places = new Float64Array(nk + 1);
    for (let i = 0; i < ni; i++)
      for (let j = 0; j < nj; j++) {
        const column = model.column(...toMap(volume.binGrid, region.i[0] + i, region.j[0] + j));
        if (!column) continue;
        downColumn(column, domain === 'depth' ? 'twt' : 'depth', from, even.step, places);
        for (let k = 0; k <= nk; k++) places[k] = (places[k] - first) / step;
        sincDown(block.data, (i * nj + j) * count, count, places, out, (i * nj + j) * nk);
      }
    return { converted: out };
  },
  says: (ready) => {
    const without = outside(ready);
    return [
      ...ready.notes,
      ...(without > 0
        ? [
            `${without} of ${ready.volume.binGrid.inline.count * ready.volume.binGrid.crossline.count} traces lie where there is no velocity: they are empty.`,
          ]
        : []),
    ];
  },
};

export const depthVolume = defineStep({
  id: 'depth.volume',
  version: 3,
  stage: 'depth',
  title: 'Volume to depth or time',
  summary: 'Stretches every trace from time to depth, or back, through a velocity model or by a velocity volume alone.',
  formula: 'd′(z) = d(t(z)), or d′(t) = d(z(t)), sample by sample.',
  avoid: 'Before amplitudes are measured per time: thicknesses change with velocity.',
  source: 'Windowed sinc: Kaiser & Schafer (1980), IEEE Trans. ASSP 28, 105–107; v0 + k·z: Slotnick (1936)',
  reach: 'trace',
  inputs: {
    volume: { kind: 'volume', title: 'Volume' },
    model: modelInput,
  },
  params: stretchParams,
  outputs: { converted: { kind: 'volume', title: 'Converted' } },
  local,
});
