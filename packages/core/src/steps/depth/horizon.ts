import { z } from 'zod';
import { toMap } from '../../earth/binGrid.ts';
import { stopIf } from '../../earth/errors.ts';
import type { ResultTable } from '../../earth/objects.ts';
import { gridAt } from '../../horizons/grid.ts';
import { topInDepth, topOfHorizon } from '../../project/layers.ts';
import { readModel } from '../../project/velocityModel.ts';
import { readWhole, writeWhole } from '../../storage/arrays.ts';
import { turnerOf } from '../../velocity/turn.ts';
import { defineStep, wellsInput } from '../define.ts';
import { modelInput } from './earth.ts';
import { otherDomain } from './otherDomain.ts';

export const depthHorizon = defineStep({
  id: 'depth.horizon',
  version: 1,
  stage: 'depth',
  title: 'Horizon to depth or time',
  summary:
    'Takes a horizon from time to depth, or back, through a velocity model or a velocity volume, and tells what is left over at the tops of wells.',
  formula: 'z = z(t) or t = t(z) at every bin.',
  avoid: 'Before the model honours the wells: correct it first.',
  source: 'Closed form for v0 + k·z: Slotnick (1936), Geophysics 1, 9–22',
  reach: 'global',
  inputs: {
    horizon: { kind: 'horizon', title: 'Horizon' },
    model: modelInput,
    wells: wellsInput(['directional surveys', 'tops'], { optional: true }),
  },
  params: z.object({}),
  outputs: {
    converted: { kind: 'horizon', title: 'Converted' },
    residuals: { kind: 'result table', title: 'Residuals' },
  },
  async run({ inputs, around, store, signal, idFor, warn }) {
    const { horizon } = inputs;
    const { binGrid } = horizon;
    const domain = otherDomain(horizon);
    const [rows, columns] = horizon.values.shape;
    const model = await readModel(store, inputs.model, { signal, say: warn });
    const turn = turnerOf(model, domain);
    const values = await readWhole(store, horizon.values);
    const out = new Float32Array(rows * columns);
    let [low, high, filled, lost] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, 0, 0];
    for (let i = 0; i < rows; i++) {
      stopIf(signal);
      for (let j = 0; j < columns; j++) {
        const n = i * columns + j;
        const [x, y] = toMap(binGrid, i, j);
        out[n] = turn(x, y, values[n]);
        if (Number.isNaN(out[n])) {
          if (!Number.isNaN(values[n])) lost++;
          continue;
        }
        filled++;
        low = Math.min(low, out[n]);
        high = Math.max(high, out[n]);
      }
    }
    if (lost > 0) warn(`${lost} bins of ${horizon.name} lie where there is no velocity: they are empty.`);
    const id = idFor('converted');
    const top = topOfHorizon(horizon);
    const depths = domain === 'depth' ? out : values;
    const residuals: Pick<ResultTable, 'kind' | 'columns' | 'rows'> = {
      kind: 'result table',
      columns: [
        { name: 'Well', unit: '' },
        { name: 'Top', unit: '' },
        { name: 'Depth in well', unit: 'm TVDSS' },
        { name: 'Converted', unit: 'm TVDSS' },
        { name: 'Residual', unit: 'm' },
      ],
      rows: inputs.wells.flatMap((well) => {
        const at = topInDepth(around, well, top);
        if (!at) return [];
        // between bins the time is turned, not depths averaged
        const made =
          domain === 'depth'
            ? turn(at.x, at.y, gridAt(values, binGrid, at.x, at.y))
            : gridAt(depths, binGrid, at.x, at.y);
        if (Number.isNaN(made)) {
          warn(`${well.name}: the horizon has no value where the well meets ${horizon.name}.`);
          return [];
        }
        return [[well.name, top, at.tvdss, made, at.tvdss - made]];
      }),
    };
    return {
      converted: {
        kind: 'horizon',
        top,
        domain,
        binGrid,
        values: await writeWhole(store, `${id}/values`, [rows, columns], out, ['inline', 'crossline']),
        range: filled > 0 ? [low, high] : [0, 0],
        filled: filled / out.length,
      },
      residuals,
    };
  },
});
