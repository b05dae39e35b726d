import { z } from 'zod';
import { toIndex, toMap } from '../../earth/binGrid.ts';
import { stopIf } from '../../earth/errors.ts';
import type { ResultTable } from '../../earth/objects.ts';
import { layeredEarth } from '../../project/layeredEarth.ts';
import { topInDepth, topOfHorizon } from '../../project/layers.ts';
import { writeWhole } from '../../storage/arrays.ts';
import { atOnePlace, krige } from '../../velocity/kriging.ts';
import { choice, defineStep, number, wellsInput } from '../define.ts';
import { modelInputs } from './modelInputs.ts';

const params = z.object({
  correction: choice(
    { title: 'Wells', description: 'Whether the depth honours the tops: by kriging what is left over at them.' },
    ['kriged', 'none'],
    'kriged',
  ),
  rangeM: number(
    { title: 'Range', description: 'Distance at which a well’s correction has faded away.', unit: 'm' },
    { min: 500, max: 20000, step: 250, initial: 4000 },
  ),
});

export const convert = defineStep({
  id: 'depth.convert',
  version: 3,
  stage: 'depth',
  title: 'Horizon to depth',
  summary: 'Takes a horizon from time to depth through the layers above it, and corrects it at the wells.',
  formula: 'z₂ = (z₁ + v₀/k)·e^{kΔt/2} − v₀/k through each layer; what is left over at wells is spread by kriging.',
  avoid: 'Beyond the layers’ horizons: they are held at their edge.',
  source: 'Closed form for v0 + k·z: Slotnick (1936), Geophysics 1, 9–22; kriging: Chilès & Delfiner (2012)',
  reach: 'global',
  inputs: {
    horizon: { kind: 'horizon', title: 'Horizon', domain: 'twt' },
    ...modelInputs,
    wells: wellsInput(['directional surveys', 'tops'], { optional: true }),
  },
  params,
  outputs: { depth: { kind: 'horizon', title: 'Depth' }, residuals: { kind: 'result table', title: 'Residuals' } },
  async run({ inputs, around, params: p, store, signal, idFor, warn }) {
    const { horizon, model, seaBed } = inputs;
    const { binGrid } = horizon;
    const [rows, columns] = horizon.values.shape;
    const others = inputs.layers.filter((h) => h.id !== horizon.id);
    const earth = await layeredEarth(store, model, [horizon, ...others], seaBed, horizon.name);
    const depthAt = (i: number, j: number): number => earth.column(...toMap(binGrid, i, j)).z[earth.bases.length];
    const left = inputs.wells.flatMap((well) => {
      const top = topInDepth(around, well, topOfHorizon(horizon));
      if (!top) return [];
      const [i, j] = toIndex(binGrid, top.x, top.y);
      const made = depthAt(i, j);
      if (Number.isNaN(made)) {
        warn(`${well.name}: the horizon has no value where the well meets ${horizon.name}.`);
        return [];
      }
      return [{ well: well.name, x: top.x, y: top.y, top: top.tvdss, made, value: top.tvdss - made }];
    });
    for (const group of atOnePlace(left).filter((g) => g.length > 1))
      warn(
        `${group.map((r) => r.well).join(' and ')} meet the horizon at one place: the mean of what is left over at them, ${group.map((r) => r.value.toFixed(1)).join(' and ')} m, was taken.`,
      );
    const correction = p.correction === 'kriged' ? krige(left, p.rangeM) : () => 0;
    const out = new Float32Array(rows * columns);
    let [low, high, filled] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, 0];
    for (let i = 0; i < rows; i++) {
      stopIf(signal);
      for (let j = 0; j < columns; j++) {
        const z = depthAt(i, j) + correction(...toMap(binGrid, i, j));
        out[i * columns + j] = z;
        if (Number.isNaN(z)) continue;
        filled++;
        low = Math.min(low, z);
        high = Math.max(high, z);
      }
    }
    const id = idFor('depth');
    const residuals: Pick<ResultTable, 'kind' | 'columns' | 'rows'> = {
      kind: 'result table',
      columns: [
        { name: 'Well', unit: '' },
        { name: 'Top', unit: '' },
        { name: 'Depth in well', unit: 'm TVDSS' },
        { name: 'Converted', unit: 'm TVDSS' },
        { name: 'Residual', unit: 'm' },
      ],
      rows: left.map((r) => [r.well, topOfHorizon(horizon), r.top, r.made, r.value]),
    };
    return {
      depth: {
        kind: 'horizon',
        domain: 'depth',
        binGrid,
        values: await writeWhole(store, `${id}/values`, [rows, columns], out, ['inline', 'crossline']),
        range: [low, high],
        filled: filled / out.length,
      },
      residuals,
    };
  },
});
