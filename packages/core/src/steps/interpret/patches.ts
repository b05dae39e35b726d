import { z } from 'zod';
import { sameBins, toMap } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { Horizon } from '../../earth/objects.ts';
import { gridAt } from '../../horizons/grid.ts';
import { insideRings } from '../../numerics/rings.ts';
import { readWhole, writeWhole } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';
import { type Draft, defineStep, number } from '../define.ts';

/** A horizon with other values on the bins of one that there is. */
async function like(horizon: Horizon, values: Float32Array, store: Store, id: string): Promise<Draft<Horizon>> {
  let [low, high, filled] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, 0];
  for (const v of values) {
    if (Number.isNaN(v)) continue;
    filled++;
    if (v < low) low = v;
    if (v > high) high = v;
  }
  return {
    kind: 'horizon',
    domain: horizon.domain,
    binGrid: horizon.binGrid,
    values: await writeWhole(store, `${id}/values`, horizon.values.shape, values, ['inline', 'crossline']),
    range: filled > 0 ? [low, high] : [0, 0],
    filled: filled / values.length,
  };
}

export const split = defineStep({
  id: 'interpret.split',
  version: 1,
  stage: 'interpret',
  title: 'Split a horizon',
  summary: 'Parts a horizon along an area into two patches, each of which can be edited and put together again.',
  formula: 'Inside: z where the bin lies in the area. Outside: z where it does not.',
  avoid: 'To hide a part for a while: erase it, or hide the horizon in the view.',
  source: 'Shimrat (1962), Communications of the ACM 5, 434, for what lies inside a ring',
  reach: 'global',
  inputs: {
    horizon: { kind: 'horizon', title: 'Horizon' },
    area: { kind: 'polygon', title: 'Along the area' },
  },
  params: z.object({}),
  outputs: {
    inside: { kind: 'horizon', title: 'Inside' },
    outside: { kind: 'horizon', title: 'Outside' },
  },
  async run({ inputs: { horizon, area }, store, idFor }) {
    const values = await readWhole(store, horizon.values);
    const within = insideRings(area.rings);
    const columns = horizon.binGrid.crossline.count;
    const parts = [values.slice(), values.slice()];
    let met = 0;
    for (let n = 0; n < values.length; n++) {
      const inside = within(...toMap(horizon.binGrid, Math.floor(n / columns), n % columns));
      if (inside && !Number.isNaN(values[n])) met++;
      parts[inside ? 1 : 0][n] = Number.NaN;
    }
    if (met === 0)
      throw new LithagonError('area', `${area.name} holds no bin of ${horizon.name}, so there is nothing to part.`, {
        object: area.name,
        fix: 'Choose another area, or draw one over the horizon.',
      });
    return {
      inside: await like(horizon, parts[0], store, idFor('inside')),
      outside: await like(horizon, parts[1], store, idFor('outside')),
    };
  },
});

export const merge = defineStep({
  id: 'interpret.merge',
  version: 1,
  stage: 'interpret',
  title: 'Merge horizons',
  summary: 'Puts patches together to one horizon: where several have a value, the one that comes first holds.',
  formula: 'z = the first of z₁, z₂, z₃ that there is, on the bins of the first.',
  avoid: 'Across a reverse fault, where one place has two values: keep the patches apart.',
  source:
    'Order of precedence; on bins of another grid by bilinear interpolation, Press et al. (2007), Numerical Recipes, 132–133',
  reach: 'global',
  inputs: {
    first: { kind: 'horizon', title: 'First' },
    second: { kind: 'horizon', title: 'Second' },
    third: { kind: 'horizon', title: 'Third', optional: true },
  },
  params: z.object({
    apart: number(
      {
        title: 'Warn beyond',
        description: 'Where patches overlap and differ by more than this, it is told: ms or m as the horizons are in.',
      },
      { min: 0, max: 200, step: 1, initial: 10 },
    ),
  }),
  outputs: { merged: { kind: 'horizon', title: 'Merged' } },
  async run({ inputs: { first, second, third }, params: { apart }, store, idFor, warn }) {
    const others = third ? [second, third] : [second];
    const wrong = others.find((h) => h.domain !== first.domain);
    if (wrong)
      throw new LithagonError('domain', `${wrong.name} and ${first.name} are not both in one domain.`, {
        object: wrong.name,
        fix: 'Convert one of them first.',
      });
    const values = (await readWhole(store, first.values)).slice();
    const columns = first.binGrid.crossline.count;
    for (const other of others) {
      const held = await readWhole(store, other.values);
      const alike = sameBins(first.binGrid, other.binGrid);
      let [overlap, differ] = [0, 0];
      for (let n = 0; n < values.length; n++) {
        const v = alike
          ? held[n]
          : gridAt(held, other.binGrid, ...toMap(first.binGrid, Math.floor(n / columns), n % columns));
        if (Number.isNaN(v)) continue;
        if (Number.isNaN(values[n])) values[n] = v;
        else {
          overlap++;
          if (Math.abs(values[n] - v) > apart) differ++;
        }
      }
      if (differ > 0)
        warn(
          `${other.name} lies over what came before it in ${overlap} bins, and differs there by more than ${apart} in ${differ}: the earlier holds.`,
        );
    }
    return { merged: await like(first, values, store, idFor('merged')) };
  },
});
