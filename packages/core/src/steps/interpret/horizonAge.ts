import { z } from 'zod';
import { passesOf } from '../../age/slices.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import { shapeOfGrid } from '../../engine/local.ts';
import { extentOf } from '../../numerics/extent.ts';
import { onBinsOf } from '../../project/windows.ts';
import { writeWhole } from '../../storage/arrays.ts';
import { choice, defineStep } from '../define.ts';
import { bySlabs } from './regionalDips.ts';

const params = z.object({
  repeat: choice(
    {
      title: 'Where beds repeat',
      description: 'On the way back: which of several places of one age is taken, above and below a reverse fault.',
    },
    ['the upper', 'the lower'],
    'the upper',
  ),
});

export const horizonAge = defineStep({
  id: 'interpret.horizonAge',
  version: 1,
  stage: 'interpret',
  purpose: 'Relative age',
  title: 'Horizon to age, or back',
  summary:
    'The age of a horizon bin by bin, as a horizon in the age domain; one that is in the age domain comes back to time or depth.',
  avoid: 'Below where ages are valid, and across what they were solved without.',
  formula: 'a(x, y, z(x, y)); z where a(x, y, z) is the age of the horizon.',
  source: 'Wheeler (1958), AAPG Bulletin 42, 1047–1063',
  reach: 'global',
  inputs: {
    horizon: { kind: 'horizon', title: 'Horizon' },
    age: {
      kind: 'volume',
      title: 'Relative age',
      quantity: ['relative age'],
      usual: { step: 'interpret.age', output: 'age' },
    },
  },
  params,
  outputs: { turned: { kind: 'horizon', title: 'By age' } },
  async run({ inputs: { horizon, age }, params: p, store, idFor, signal, progress }) {
    const back = horizon.domain === 'age';
    if (!back && horizon.domain !== age.domain)
      throw new LithagonError('domain', `${horizon.name} and ${age.name} are not in one domain.`, {
        object: horizon.name,
        fix: 'Convert one of them. Nothing was changed.',
      });
    const [ni, nj, nk] = shapeOfGrid(age);
    const { first, step } = age.vertical;
    const from = await onBinsOf(store, horizon, age.binGrid);
    const values = new Float32Array(ni * nj).fill(Number.NaN);
    await bySlabs(store, age, 0, signal, (data, i0, i1) => {
      stopIf(signal);
      for (let t = 0; t < (i1 - i0) * nj; t++) {
        const own = from[i0 * nj + t];
        if (own !== own) continue;
        if (back) {
          const passes = passesOf(data, t * nk, nk, own);
          const k = p.repeat === 'the upper' ? passes[0] : passes[passes.length - 1];
          if (k !== undefined) values[i0 * nj + t] = first + k * step;
          continue;
        }
        const k = (own - first) / step;
        const low = Math.min(nk - 2, Math.floor(k));
        if (low < 0 || k > nk - 1) continue;
        const [a, b] = [data[t * nk + low], data[t * nk + low + 1]];
        values[i0 * nj + t] = k === low ? a : a + (k - low) * (b - a);
      }
      progress(i1 / ni);
    });
    const filled = values.reduce((count, v) => (Number.isNaN(v) ? count : count + 1), 0);
    if (filled === 0)
      throw new LithagonError('empty', `${horizon.name} lies nowhere among the ages of ${age.name}.`, {
        object: horizon.name,
        fix: 'Choose the ages of the same survey. Nothing was changed.',
      });
    const [low, high] = extentOf(values);
    return {
      turned: {
        kind: 'horizon' as const,
        domain: back ? age.domain : ('age' as const),
        binGrid: age.binGrid,
        values: await writeWhole(store, `${idFor('turned')}/values`, [ni, nj], values, ['inline', 'crossline']),
        range: [low, high] as [number, number],
        filled: filled / values.length,
      },
    };
  },
});
