import { z } from 'zod';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { VelocityModel } from '../../earth/objects.ts';
import { gridAt } from '../../horizons/grid.ts';
import { during } from '../../numerics/stop.ts';
import { layerPoints, topInDepth, topOfHorizon } from '../../project/layers.ts';
import { toSi } from '../../project/redeclare.ts';
import { readWhole, writeWhole } from '../../storage/arrays.ts';
import { readInlines, shapeOf } from '../../storage/planes.ts';
import { GUIDE_SAMPLES, guidedV0, guideOf } from '../../velocity/guide.ts';
import { fitLayer, misfitOf } from '../../velocity/layer.ts';
import { choice, defineStep, number, wellsInput } from '../define.ts';

const params = z.object({
  waterVelocity: number(
    { title: 'Water', description: 'Velocity of sea water.', unit: 'm/s' },
    { min: 1400, max: 1600, step: 1, initial: 1500 },
  ),
  mostK: number(
    {
      title: 'Maximum gradient',
      description: 'Largest k that a layer may be given; few wells say little about it.',
      unit: '1/s',
    },
    { min: 0, max: 3, step: 0.05, initial: 1.2 },
  ),
  typed: z
    .array(
      z.object({
        base: z.string().min(1).meta({ title: 'Base', names: 'horizon' }),
        v0: z.number().min(300).max(9000).meta({ title: 'v0', unit: 'm/s' }),
        k: z.number().min(-2).max(5).meta({ title: 'k', unit: '1/s' }),
      }),
    )
    .default([])
    .meta({
      title: 'Typed layers',
      description: 'Layers, by the horizon at their base, whose v0 and k are typed and not fitted.',
    }),
  guideSamples: choice(
    {
      title: 'A sample of the guide is',
      description:
        'What a sample of the velocity volume stands for: the mean of an interval beside its time, or a point.',
    },
    [...GUIDE_SAMPLES],
    'the interval below it',
  ),
  rangeM: number(
    {
      title: 'Range of the wells',
      description: 'Distance at which a well no longer corrects the guide by itself, but only with the others.',
      unit: 'm',
    },
    { min: 500, max: 20000, step: 250, initial: 4000 },
  ),
});

type VelocityModelDraft = Pick<
  VelocityModel,
  'kind' | 'waterVelocity' | 'datumM' | 'replacementVelocity' | 'layers' | 'binGrid'
>;

export const layers = defineStep({
  id: 'depth.layers',
  version: 5,
  stage: 'depth',
  title: 'Layer velocities',
  summary:
    'Fits v0 + k·z to the wells in each layer between horizons, z from the datum; a velocity volume may guide v0 sideways.',
  formula: 'v = v₀ + k·z in each layer, fitted to wells; between wells by the guide or by kriging.',
  avoid: 'Where layers have no well: the velocity there is carried from afar.',
  source: 'Slotnick (1936), Geophysics 1, 9–22',
  reach: 'global',
  inputs: {
    horizons: { kind: 'horizon', title: 'Horizons, as the wells name them', many: true, domain: 'twt' },
    seaBed: { kind: 'horizon', title: 'Sea bed or ground', domain: 'depth', optional: true },
    guide: {
      kind: 'volume',
      title: 'Guided sideways by',
      quantity: ['interval velocity'],
      domain: 'twt',
      optional: true,
    },
    wells: wellsInput(['directional surveys', 'tops', 'checkshots', 'time-depth relation']),
  },
  params,
  outputs: { model: { kind: 'velocity model', title: 'Velocity model' } },
  async run({ inputs, around, params: p, store, signal, idFor, warn }) {
    const ordered = [...inputs.horizons].sort((a, b) => a.range[0] + a.range[1] - b.range[0] - b.range[1]);
    const { frame } = await store.facts();
    const overburden = {
      waterVelocity: p.waterVelocity,
      datumM: frame?.datumM ?? 0,
      replacementVelocity: frame?.replacementVelocity ?? 1500,
    };
    const seaBed = inputs.seaBed && {
      values: await readWhole(store, inputs.seaBed.values),
      binGrid: inputs.seaBed.binGrid,
    };
    const seaBedAt = seaBed && ((x: number, y: number) => gridAt(seaBed.values, seaBed.binGrid, x, y));
    const made: VelocityModel['layers'] = [];
    let above: string | null = null;
    for (const horizon of ordered) {
      stopIf(signal);
      const top = topOfHorizon(horizon);
      const wells = inputs.wells.flatMap((w) => {
        stopIf(signal);
        return layerPoints(around, w, above, top, overburden, seaBedAt) ?? [];
      });
      const typed = p.typed.find((t) => t.base === horizon.name);
      if (typed) {
        const rms = misfitOf(typed, wells);
        made.push({ base: horizon.name, v0: typed.v0, k: typed.k, rms, points: 0 });
        above = top;
        continue;
      }
      const fit = during(signal, () => fitLayer(wells, { lowK: 0, highK: p.mostK }));
      if (!fit) {
        const before = made.at(-1);
        if (!before)
          throw new LithagonError(
            'velocity',
            `No well has a top “${top}” with times below where the layers begin, so the first layer has no velocity.`,
            {
              object: horizon.name,
              fix: 'Name horizons as the wells name their tops, and load checkshots.',
            },
          );
        warn(`No well has a top “${top}” with a time; the velocity of the layer above was carried down.`);
        made.push({ ...before, base: horizon.name, rms: 0, points: 0 });
      } else {
        if (fit.atBound && p.mostK > 0)
          warn(
            `Down to ${horizon.name} k is ${fit.k === 0 ? 'least, 0' : `at its bound, ${fit.k}`} 1/s: the wells would have it beyond, or do not tell it. Trust the layer at their depths only, or type its k.`,
          );
        made.push({
          base: horizon.name,
          v0: fit.v0,
          k: fit.k,
          rms: fit.rms,
          points: wells.reduce((n, w) => n + w.points.length, 0),
        });
      }
      above = top;
    }
    const model: VelocityModelDraft = { kind: 'velocity model', ...overburden, layers: made };
    if (!inputs.guide) return { model };
    if (!seaBed)
      throw new LithagonError('velocity', 'A guide needs the sea bed too, since layers are counted from there.', {
        object: inputs.guide.name,
        fix: 'Choose the sea bed, or leave the guide out.',
      });
    const { binGrid } = ordered[0];
    const [ni, nj, nk] = shapeOf(inputs.guide);
    const volume = await readInlines(store, inputs.guide, 0, ni);
    const scale = toSi(inputs.guide.quantity, inputs.guide.unit);
    if (scale !== 1) for (let n = 0; n < volume.length; n++) volume[n] *= scale;
    if (volume.length !== ni * nj * nk) throw new Error('a guide is read whole');
    stopIf(signal);
    const { guide } = inputs;
    const layered = await Promise.all(
      ordered.map(async (horizon, n) => ({
        ...made[n],
        typed: p.typed.some((t) => t.base === horizon.name),
        values: await readWhole(store, horizon.values),
        binGrid: horizon.binGrid,
        wells: inputs.wells.flatMap((w) => {
          const upper = n === 0 ? null : topOfHorizon(ordered[n - 1]);
          const points = layerPoints(around, w, upper, topOfHorizon(horizon), overburden, seaBedAt);
          const at = topInDepth(around, w, topOfHorizon(horizon));
          return points && at ? [{ x: at.x, y: at.y, points }] : [];
        }),
      })),
    );
    const maps = during(signal, () =>
      guidedV0({
        binGrid,
        guide: guideOf(volume, guide.binGrid, guide.vertical, p.guideSamples),
        seaBed,
        above: overburden,
        layers: layered,
        rangeM: p.rangeM,
      }),
    );
    const id = idFor('model');
    const shape = [binGrid.inline.count, binGrid.crossline.count];
    model.binGrid = binGrid;
    for (let n = 0; n < made.length; n++)
      made[n].v0Map = await writeWhole(store, `${id}/v0-${n}`, shape, maps[n], ['inline', 'crossline']);
    return { model };
  },
});
