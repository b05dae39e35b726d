import { LithagonError, stopIf } from '../../earth/errors.ts';
import { chunkOfLine } from '../../files/segy/line.ts';
import { sincWidened } from '../../numerics/sinc.ts';
import { RunningStatistics } from '../../numerics/statistics.ts';
import { layeredEarth } from '../../project/layeredEarth.ts';
import { pathOfLine } from '../../project/lines.ts';
import { createArray, readWhole, writeChunk } from '../../storage/arrays.ts';
import { defineStep } from '../define.ts';
import { modelInputs } from './modelInputs.ts';
import { depthsDown, stretchParams, timesDown } from './stretch.ts';

export const depthLine = defineStep({
  id: 'depth.line',
  version: 2,
  stage: 'depth',
  title: '2D line to depth',
  summary: 'Stretches every trace of a 2D line from time to depth through the layers of a velocity model.',
  formula: 'd′(z) = d(t(z)) along the 2D line.',
  avoid: 'Where the line leaves the model: there is nothing there.',
  source: 'Windowed sinc: Kaiser & Schafer (1980), IEEE Trans. ASSP 28, 105–107; v0 + k·z: Slotnick (1936)',
  reach: 'trace',
  inputs: {
    line: { kind: 'seismic line', title: '2D line', domain: 'twt' },
    ...modelInputs,
  },
  params: stretchParams,
  outputs: { depth: { kind: 'seismic line', title: 'Depth' } },
  async run({ inputs, params: p, store, idFor, signal, progress, warn }) {
    const { line, model } = inputs;
    const path = pathOfLine(await store.list(), line);
    if (!path)
      throw new LithagonError('input', `${line.name} has no positions yet.`, {
        object: line.name,
        fix: 'Load its navigation first. Nothing was changed.',
      });
    const earth = await layeredEarth(store, model, inputs.layers, inputs.seaBed);
    const data = await readWhole(store, line.samples);
    const { first, step, count: nk } = line.vertical;
    const depths = depthsDown(model, p);
    const { count } = depths;
    const thick = chunkOfLine(path.length, count);
    const samples = await createArray(
      store,
      { key: `${idFor('depth')}/samples`, shape: [path.length, count], chunk: [thick, count] },
      ['trace', 'sample'],
    );
    const statistics = new RunningStatistics();
    let outside = 0;
    for (let t0 = 0; t0 < path.length; t0 += thick) {
      stopIf(signal);
      const held = new Float32Array(thick * count).fill(Number.NaN);
      const last = Math.min(path.length, t0 + thick);
      for (let t = t0; t < last; t++) {
        const column = earth.column(...path[t]);
        // beyond the horizons of the model there is no time to stretch to
        if (!column.t.every(Number.isFinite)) {
          outside++;
          continue;
        }
        const times = timesDown(column, depths);
        for (let k = 0; k < count; k++)
          held[(t - t0) * count + k] = sincWidened(
            data,
            t * nk,
            nk,
            (times[k] - first) / step,
            (times[k + 1] - times[k]) / step,
          );
      }
      statistics.add(held.subarray(0, (last - t0) * count));
      await writeChunk(store, samples, [t0 / thick, 0], held);
      progress(last / path.length);
    }
    if (outside > 0) warn(`${outside} of ${path.length} traces lie outside the horizons of the model and are empty.`);
    return {
      depth: {
        kind: 'seismic line',
        domain: 'depth',
        quantity: line.quantity,
        unit: line.unit,
        polarity: line.polarity,
        vertical: depths,
        path,
        cdps: line.cdps,
        shotpoints: line.shotpoints,
        samples,
        statistics: statistics.finish(),
      },
    };
  },
});
