import { z } from 'zod';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import { during } from '../../numerics/stop.ts';
import { boundariesOn, nodesFor, seaBedOn } from '../../project/boundaries.ts';
import { fitLaw } from '../../velocity/fit.ts';
import { LAW_FORMS, type Law, type LawForm } from '../../velocity/law.ts';
import type { VelocityCube } from '../../velocity/model.ts';
import { trendsOf } from '../../velocity/spread.ts';
import { choice, defineStep, number, wellsInput } from '../define.ts';
import {
  boundaryInputs,
  cubeFor,
  keptModel,
  noVelocity,
  overburdenOf,
  samplesParam,
  seaBedFrom,
  topsOfBoundaries,
  waterParam,
} from './earth.ts';
import { inWell, type MadeLayer, madeLayer, velocityTable, type WellInLayer, wellsIn } from './layerWells.ts';

const speed = (title: string, initial: number) =>
  z.number().min(100).max(9000).default(initial).meta({ title, unit: 'm/s' });

const params = z.object({
  law: choice(
    {
      title: 'Velocity of layers',
      description:
        'How velocity runs down each layer, fitted to the wells. Where there is nothing else to go by: a velocity volume if one is chosen, else v0 + k·z from the datum.',
    },
    ['by what there is', ...LAW_FORMS],
    'by what there is',
  ),
  layers: z
    .array(
      z.object({
        base: z.string().min(1).meta({ title: 'Base', names: 'horizon' }),
        law: z.enum(LAW_FORMS).default('v0 + k·z from the datum').meta({ title: 'Velocity' }),
        use: z.enum(['typed', 'fitted to wells']).default('typed').meta({ title: 'Numbers' }),
        v0: speed('v0, or at the top', 2000),
        k: z.number().min(-2000).max(5000).default(0).meta({ title: 'k' }),
        vBase: speed('At the base', 2500),
      }),
    )
    .default([])
    .meta({
      title: 'Layers of their own',
      description:
        'Layers, by the horizon at their base, that go another way than the others: by typed numbers, or by another law that is fitted to wells. What is typed stays while a fit is used.',
      drawn: 'layers',
    }),
  waterVelocity: waterParam,
  mostK: number(
    {
      title: 'Maximum gradient',
      description: 'Largest k that a fit may give a layer; few wells say little about it.',
      unit: '1/s',
    },
    { min: 0, max: 3, step: 0.05, initial: 1.2 },
  ),
  samples: samplesParam,
});

export const layers = defineStep({
  id: 'depth.layers',
  version: 6,
  stage: 'depth',
  title: 'Layer velocities',
  summary:
    'Makes a velocity model of layers between boundaries, each constant, rising with depth or time, from top to base, or by a velocity volume; fitted to wells or typed. Over a survey or along a 2D line.',
  formula:
    'v = v₀; v₀ + k·z from the datum or the layer’s top; v₀ + k·t; evenly from top to base; or a factor of a velocity volume.',
  avoid: 'Where layers have no well: the velocity there is carried from afar.',
  source: 'Slotnick (1936), Geophysics 1, 9–22',
  reach: 'global',
  inputs: {
    ...boundaryInputs,
    wells: wellsInput(['directional surveys', 'tops', 'checkshots', 'time-depth relation'], { optional: true }),
  },
  params,
  outputs: {
    model: { kind: 'velocity model', title: 'Velocity model' },
    table: { kind: 'result table', title: 'Velocities of wells' },
  },
  async run({ inputs, around, params: p, store, signal, idFor, warn }) {
    const above = await overburdenOf(store, p.waterVelocity);
    const nodes = nodesFor(await store.list(), inputs.horizons, inputs.line);
    const sea = await seaBedOn(store, inputs.seaBed, nodes, warn);
    const seaBed = await seaBedFrom(store, sea ? inputs.seaBed : undefined);
    const boundaries = await boundariesOn(store, inputs.horizons, nodes, { above, seaBed: sea, signal, say: warn });
    const volume = await cubeFor(store, inputs.velocity, p.samples, { signal, warn });
    const tops = topsOfBoundaries(boundaries);
    const rows = new Map(p.layers.map((row) => [row.base, row]));
    for (const base of rows.keys())
      if (!boundaries.some(({ of }) => of.name === base))
        warn(`No boundary is called “${base}”: what was said of that layer is not used.`);
    const usual: LawForm =
      p.law !== 'by what there is' ? p.law : volume ? 'velocity volume' : 'v0 + k·z from the datum';
    const layers: MadeLayer[] = [];
    for (const [n, { of, times }] of boundaries.entries()) {
      stopIf(signal);
      const wells = wellsIn(around, inputs.wells, n > 0 ? tops[n - 1] : null, tops[n], above, seaBed);
      const row = rows.get(of.name);
      const form = row?.law ?? usual;
      if (form === 'velocity volume' && !volume)
        throw new LithagonError(
          'velocity',
          `The layer down to ${of.name} is to go by a velocity volume, and none was chosen.`,
          {
            object: of.name,
            fix: 'Choose a velocity volume, or another law for the layer. Nothing was changed.',
          },
        );
      const fit =
        row && row.use === 'typed' && form !== 'velocity volume'
          ? typedLaw(row)
          : during(signal, () => fitted(form, wells, volume?.cube, p.mostK));
      if (row?.use === 'fitted to wells' && !fit)
        warn(`No well tells of the layer down to ${of.name}: its typed numbers stand.`);
      const before = layers.at(-1);
      const law = fit?.law ?? (row ? typedLaw(row).law : before && lawOf(before));
      if (!law) throw noVelocity(tops[n]);
      if (!fit && !row)
        warn(`No well has a top “${tops[n]}” with a time; the velocity of the layer above was carried down.`);
      if (fit?.atBound)
        warn(
          `Down to ${of.name} the gradient is ${law.k === 0 && law.vBase === undefined ? 'least, 0' : 'at its bound'}: the wells would have it beyond, or do not tell it. Trust the layer at their depths only, or type it.`,
        );
      layers.push(madeLayer({ base: of.name, top: tops[n] }, law, times, wells, fit?.typed === false, volume?.cube));
    }
    const byVolume = layers.some((l) => l.form === 'velocity volume') ? volume : null;
    if (volume && !byVolume) warn(`No layer goes by ${volume.name}.`);
    const model = await keptModel(store, idFor('model'), { above, nodes, seaBed: sea, layers, cube: byVolume });
    return { model, table: velocityTable(model.layers) };
  },
});

/** The law of a layer as it was made. */
const lawOf = ({ form = 'constant', v0, k, vBase }: MadeLayer): Law => ({ form, v0, k, vBase });

interface Fitted {
  law: Law;
  typed: boolean;
  atBound: boolean;
}

/** The law of a row as it is typed. */
function typedLaw({ law: form, v0, k, vBase }: z.infer<typeof params>['layers'][number]): Fitted {
  if (form === 'velocity volume') return { law: { form, v0: 1, k: 0 }, typed: true, atBound: false };
  const law = { form, v0, k: form.startsWith('v0') ? k : 0, ...(form === 'from top to base' ? { vBase } : {}) };
  return { law, typed: true, atBound: false };
}

/** The law of a form that wells have; null where none tells. */
function fitted(form: LawForm, wells: WellInLayer[], cube: VelocityCube | undefined, mostK: number): Fitted | null {
  if (form === 'velocity volume') {
    const [trend] = trendsOf([wells.map((w) => inWell(w, cube))], 'velocity volume').trends;
    // where no well tells, the volume stands as it is
    return { law: { form, v0: trend?.anisotropy?.factor ?? 1, k: 0 }, typed: false, atBound: false };
  }
  const fit = fitLaw(form, wells, mostK);
  return fit && { law: fit.law, typed: false, atBound: fit.atBound && mostK > 0 };
}
