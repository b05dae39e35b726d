import { LithagonError, stopIf } from '../../earth/errors.ts';
import { chunkOfLine } from '../../files/segy/line.ts';
import { sincDown } from '../../numerics/sinc.ts';
import { RunningStatistics } from '../../numerics/statistics.ts';
import { pathOfLine } from '../../project/lines.ts';
import { readModel } from '../../project/velocityModel.ts';
import { createArray, readWhole, writeChunk } from '../../storage/arrays.ts';
import { downColumn } from '../../velocity/column.ts';
import { columnsAlong, evenIn } from '../../velocity/even.ts';
import { defineStep } from '../define.ts';
import { modelInput } from './earth.ts';
import { otherDomain } from './otherDomain.ts';
import { stretchParams } from './stretch.ts';

export const depthLine = defineStep({
  id: 'depth.line',
  version: 3,
  stage: 'depth',
  title: '2D line to depth or time',
  summary:
    'Stretches every trace of a 2D line from time to depth, or back, through a velocity model or a velocity volume.',
  formula: 'd′(z) = d(t(z)), or d′(t) = d(z(t)), along the 2D line.',
  avoid: 'Where the line leaves the model: there is nothing there.',
  source: 'Windowed sinc: Kaiser & Schafer (1980), IEEE Trans. ASSP 28, 105–107; v0 + k·z: Slotnick (1936)',
  reach: 'trace',
  inputs: {
    line: { kind: 'seismic line', title: '2D line' },
    model: modelInput,
  },
  params: stretchParams,
  outputs: { converted: { kind: 'seismic line', title: 'Converted' } },
  async run({ inputs, params: p, store, idFor, signal, progress, warn }) {
    const { line } = inputs;
    const domain = otherDomain(line);
    const path = pathOfLine(await store.list(), line);
    if (!path)
      throw new LithagonError('input', `${line.name} has no positions yet.`, {
        object: line.name,
        fix: 'Load its navigation first. Nothing was changed.',
      });
    const model = await readModel(store, inputs.model, { signal, say: warn });
    const even = evenIn(line, columnsAlong(model, path), model.parts.above.datumM ?? 0, p);
    const data = await readWhole(store, line.samples);
    const { first, step, count: nk } = line.vertical;
    const { count } = even;
    const thick = chunkOfLine(path.length, count);
    const samples = await createArray(
      store,
      { key: `${idFor('converted')}/samples`, shape: [path.length, count], chunk: [thick, count] },
      ['trace', 'sample'],
    );
    const statistics = new RunningStatistics();
    const places = new Float64Array(count + 1);
    let outside = 0;
    for (let t0 = 0; t0 < path.length; t0 += thick) {
      stopIf(signal);
      const held = new Float32Array(thick * count).fill(Number.NaN);
      const last = Math.min(path.length, t0 + thick);
      for (let t = t0; t < last; t++) {
        const column = model.column(...path[t]);
        if (!column) {
          outside++;
          continue;
        }
        downColumn(column, domain === 'depth' ? 'twt' : 'depth', even.first, even.step, places);
        for (let k = 0; k <= count; k++) places[k] = (places[k] - first) / step;
        sincDown(data, t * nk, nk, places, held, (t - t0) * count);
      }
      statistics.add(held.subarray(0, (last - t0) * count));
      await writeChunk(store, samples, [t0 / thick, 0], held);
      progress(last / path.length);
    }
    if (outside > 0) warn(`${outside} of ${path.length} traces lie where there is no velocity: they are empty.`);
    return {
      converted: {
        kind: 'seismic line',
        domain,
        quantity: line.quantity,
        unit: line.unit,
        polarity: line.polarity,
        vertical: even,
        path,
        cdps: line.cdps,
        shotpoints: line.shotpoints,
        samples,
        statistics: statistics.finish(),
      },
    };
  },
});
