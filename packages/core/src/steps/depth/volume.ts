import { stopIf } from '../../earth/errors.ts';
import { toMap } from '../../earth/lattice.ts';
import { sincWidened } from '../../numerics/sinc.ts';
import { RunningStatistics } from '../../numerics/statistics.ts';
import { layeredEarth } from '../../project/layeredEarth.ts';
import { readInlines, shapeOf } from '../../storage/planes.ts';
import { volumeWriter } from '../../storage/volumes.ts';
import { defineStep } from '../define.ts';
import { modelInputs } from './modelInputs.ts';
import { depthsDown, stretchParams, timesDown } from './stretch.ts';

export const depthVolume = defineStep({
  id: 'depth.volume',
  version: 2,
  stage: 'depth',
  title: 'Volume to depth',
  summary: 'Stretches every trace from time to depth through the layers of a velocity model.',
  source: 'Windowed sinc: Kaiser & Schafer (1980), IEEE Trans. ASSP 28, 105–107; v0 + k·z: Slotnick (1936)',
  reach: 'trace',
  inputs: {
    volume: { kind: 'volume', title: 'Volume', domain: 'twt' },
    ...modelInputs,
  },
  params: stretchParams,
  outputs: { depth: { kind: 'volume', title: 'Depth' } },
  async run({ inputs, params: p, store, idFor, signal, progress }) {
    const { volume, model } = inputs;
    const earth = await layeredEarth(store, model, inputs.layers, inputs.seaBed);
    const [ni, nj, nk] = shapeOf(volume);
    const { first, step } = volume.vertical;
    const depths = depthsDown(model, p);
    const { count } = depths;
    const writer = await volumeWriter(store, idFor('depth'), [ni, nj, count]);
    const statistics = new RunningStatistics();
    for (let i0 = 0; i0 < ni; i0 += writer.slab) {
      stopIf(signal);
      const i1 = Math.min(ni, i0 + writer.slab);
      const lines = await readInlines(store, volume, i0, i1);
      const slab = new Float32Array(writer.slab * nj * count).fill(Number.NaN);
      for (let i = i0; i < i1; i++)
        for (let j = 0; j < nj; j++) {
          const column = earth.column(...toMap(volume.lattice, i, j));
          const trace = ((i - i0) * nj + j) * nk;
          const out = ((i - i0) * nj + j) * count;
          const t = timesDown(column, depths);
          for (let k = 0; k < count; k++)
            slab[out + k] = sincWidened(lines, trace, nk, (t[k] - first) / step, (t[k + 1] - t[k]) / step);
        }
      statistics.add(slab.subarray(0, (i1 - i0) * nj * count));
      await writer.write(i0, slab);
      progress((0.8 * i1) / ni);
    }
    await writer.finish();
    return {
      depth: {
        kind: 'volume',
        lattice: volume.lattice,
        domain: 'depth',
        quantity: volume.quantity,
        unit: volume.unit,
        polarity: volume.polarity,
        vertical: depths,
        layouts: writer.layouts,
        statistics: statistics.finish(),
        traces: volume.traces,
      },
    };
  },
});
