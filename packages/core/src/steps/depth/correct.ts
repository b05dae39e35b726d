import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, ModelLayer, VelocityModel, Well } from '../../earth/objects.ts';
import { during } from '../../numerics/stop.ts';
import { topInDepth } from '../../project/layers.ts';
import { modelParts } from '../../project/velocityModel.ts';
import { copyWhole } from '../../storage/arrays.ts';
import { corrected, correctionsFor, FAR, leftOut, residualsOf, type Tie } from '../../velocity/correct.ts';
import { choice, defineStep, number, wellsInput } from '../define.ts';

const params = z.object({
  rangeM: number(
    {
      title: 'Range of the wells',
      description:
        'Distance at which a correction has faded to 5 %. Of a model that velocities of wells are in already it is errors of picks that are left over, which hang together less far than velocities.',
      unit: 'm',
    },
    { min: 500, max: 50000, step: 250, initial: 2000 },
  ),
  far: choice(
    {
      title: 'Far from wells',
      description:
        'What holds beyond their range: what they say on the mean, or the model as it was; by how it was made, the mean where a layer was not fitted to wells.',
    },
    [...FAR],
    'by how it was made',
  ),
});

/** Names of a model's boundaries as wells have them; null of the last where nothing bounds it. */
export const topsOfModel = (model: VelocityModel): (string | null)[] =>
  model.layers.map(({ base, top }) => (top ?? base) || null);

/** Tops of wells at the boundaries of a model. */
export function tiesOf(around: EarthObject[], wells: Well[], tops: (string | null)[]): Tie[] {
  return wells.flatMap((well) =>
    tops.flatMap((top, layer): Tie[] => {
      const at = top === null ? null : topInDepth(around, well, top);
      return at ? [{ well: well.name, layer, x: at.x, y: at.y, z: at.tvdss }] : [];
    }),
  );
}

export const correct = defineStep({
  id: 'depth.correct',
  version: 1,
  stage: 'depth',
  title: 'Correct at wells',
  summary:
    'Makes a velocity model honour the tops of wells. The velocities of its layers take the correction, spread by kriging, so that nothing is bent between boundaries. Each well is left out in turn, to see what the model is worth where there is none.',
  formula: 'v′ = v·exp(m + kriged(ln f − m)), f such that each layer is as thick at each well as its tops have it.',
  avoid: 'Where a top is not the horizon: its error goes into the velocities around the well.',
  source: 'Chilès & Delfiner (2012), Geostatistics, chapter 3',
  reach: 'global',
  inputs: {
    model: { kind: 'velocity model', title: 'Velocity model' },
    wells: wellsInput(['directional surveys', 'tops']),
  },
  params,
  outputs: {
    model: { kind: 'velocity model', title: 'Velocity model' },
    residuals: { kind: 'result table', title: 'Residuals' },
  },
  async run({ inputs, around, params: p, store, signal, idFor, warn }) {
    const { model } = inputs;
    const parts = await modelParts(store, model, { signal });
    const tops = topsOfModel(model);
    const all = tiesOf(around, inputs.wells, tops);
    const before = residualsOf(parts, all);
    for (const { well, layer, made } of before)
      if (Number.isNaN(made)) warn(`${well}: the model does not reach to where it meets ${model.layers[layer].base}.`);
    const ties = all.filter((_, n) => !Number.isNaN(before[n].made));
    if (ties.length === 0)
      throw new LithagonError(
        'velocity',
        `No chosen well has a top at a boundary of ${model.name}: ${model.layers.map((l) => `“${l.base}”`).join(', ')}.`,
        {
          object: model.name,
          fix: 'Name horizons as the wells name their tops, or give them that top. Nothing was changed.',
        },
      );
    const { corrections, without } = during(signal, () => correctionsFor(parts, ties, p));
    for (const tie of without)
      warn(
        `${tie.well}: the model has no layer down to ${model.layers[tie.layer].base} there, and the well has: that top is not honoured.`,
      );
    const after = residualsOf(corrected(parts, corrections), all);
    const out = during(signal, () => leftOut(parts, ties, p));
    const ofSame = (tie: Tie) => out.find((r) => r.well === tie.well && r.layer === tie.layer)?.made ?? Number.NaN;
    for (const [n, r] of after.entries())
      if (Math.abs(r.made - r.z) > 0.1 && !without.some((t) => t.well === r.well && t.layer === r.layer))
        warn(
          `${r.well}: ${(r.z - r.made).toFixed(1)} m are left over at ${model.layers[all[n].layer].base}: another well meets it at the same place, or it would take a factor beyond 2.`,
        );
    for (const correction of corrections)
      for (const { well, value } of correction?.points ?? [])
        if (Math.abs(value) > STRANGE)
          warn(
            `${well} makes a layer ${Math.round(100 * (Math.exp(value) - 1))} % ${value > 0 ? 'faster' : 'slower'} than the model has it: look at its tops and at the horizon there.`,
          );
    const id = idFor('model');
    const kept = await copied(store, model, id);
    const layers: ModelLayer[] = kept.layers.map((layer, n) => {
      const own = corrections[n];
      return own ? { ...layer, corrections: [...(layer.corrections ?? []), own] } : layer;
    });
    return {
      model: { ...kept, layers },
      residuals: {
        kind: 'result table',
        columns: [
          { name: 'Well', unit: '' },
          { name: 'Top', unit: '' },
          { name: 'Residual before', unit: 'm' },
          { name: 'Residual after', unit: 'm' },
          { name: 'Residual with the well left out', unit: 'm' },
          { name: 'Depth in well', unit: 'm TVDSS' },
          { name: 'By the model', unit: 'm TVDSS' },
          { name: 'X', unit: 'm' },
          { name: 'Y', unit: 'm' },
        ],
        rows: all.map((tie, n) => [
          tie.well,
          tops[tie.layer] ?? '',
          known(tie.z - before[n].made),
          known(tie.z - after[n].made),
          known(tie.z - ofSame(tie)),
          tie.z,
          known(before[n].made),
          tie.x,
          tie.y,
        ]),
      },
    };
  },
});

/** What has no number shows none. */
const known = (v: number): number | null => (Number.isNaN(v) ? null : v);

/** Logarithm of a factor that is worth a look. */
const STRANGE = Math.log(1.15);

/** What a model holds, kept once more for another model: none rests on the arrays of another. */
export async function copied(store: Parameters<typeof copyWhole>[0], model: VelocityModel, id: string) {
  const { kind, binGrid, path, waterVelocity, datumM, replacementVelocity, seaBed, layers, volume } = model;
  const copy = (ref: NonNullable<typeof seaBed>, name: string) => copyWhole(store, ref, `${id}/${name}`);
  const made: ModelLayer[] = [];
  for (const [n, layer] of layers.entries())
    made.push({
      ...layer,
      ...(layer.times ? { times: await copy(layer.times, `times-${n}`) } : {}),
      ...(layer.v0Map ? { v0Map: await copy(layer.v0Map, `v0-${n}`) } : {}),
    });
  return {
    kind,
    ...(binGrid ? { binGrid } : {}),
    ...(path ? { path } : {}),
    waterVelocity,
    ...(datumM === undefined ? {} : { datumM }),
    ...(replacementVelocity === undefined ? {} : { replacementVelocity }),
    ...(seaBed ? { seaBed: await copy(seaBed, 'sea-bed') } : {}),
    layers: made,
    ...(volume ? { volume: { ...volume, values: await copy(volume.values, 'velocities') } } : {}),
  };
}
