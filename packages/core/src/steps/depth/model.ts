import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { ModelLayer, VelocityModel } from '../../earth/objects.ts';
import { modelParts, VELOCITIES } from '../../project/velocityModel.ts';
import { scaled } from '../../velocity/law.ts';
import { onNodes } from '../../velocity/nodes.ts';
import { defineStep } from '../define.ts';
import { cubeFor, keptModel, samplesParam } from './earth.ts';
import type { MadeLayer } from './layerWells.ts';

const params = z.object({
  zones: z
    .array(
      z.object({
        base: z.string().meta({ title: 'Base', names: 'horizon' }),
        from: z.string().default('').meta({ title: 'From' }),
        factor: z.number().min(0.2).max(5).default(1).meta({ title: 'Times' }),
      }),
    )
    .default([])
    .meta({
      title: 'Zones',
      description:
        'Zones, by the horizon at their base (nothing of what lies below all of them), that do not come from the first model as they are: the name of another model that has a layer down to that horizon, “volume” for the velocity volume, or nothing for the first; and what velocities are multiplied by.',
    }),
  samples: samplesParam,
});

/** What a zone is said to come from where it is the velocity volume. */
const VOLUME = 'volume';

export const depthModel = defineStep({
  id: 'depth.model',
  version: 1,
  stage: 'depth',
  title: 'Mix velocity models',
  summary:
    'One velocity model of several: each zone between horizons from a model of layers, from velocities of wells, or from a velocity volume, with a factor where that is wanted.',
  formula: 'v(z) of the source of each zone, times its factor.',
  avoid: 'Of models with other boundaries: they are taken from the first.',
  source: 'Slotnick (1936), Geophysics 1, 9–22',
  reach: 'global',
  inputs: {
    models: { kind: 'velocity model', title: 'Models, the first gives the boundaries', many: true },
    velocity: {
      kind: 'volume',
      title: 'Velocity volume',
      quantity: [...VELOCITIES],
      optional: true,
    },
  },
  params,
  outputs: { model: { kind: 'velocity model', title: 'Velocity model' } },
  async run({ inputs, params: p, store, signal, idFor, warn }) {
    const [first, ...others] = inputs.models;
    const parts = await modelParts(store, first, { signal });
    const named = new Map(inputs.models.map((m) => [m.name, m]));
    for (const { base } of p.zones)
      if (!first.layers.some((l) => l.base === base))
        throw new LithagonError(
          'params',
          `${first.name} has no zone down to “${base}”; it has ${first.layers.map((l) => `“${l.base}”`).join(', ')}.`,
          {
            object: base,
            fix: 'Name one of its horizons. Nothing was changed.',
          },
        );
    const chosen = await cubeFor(store, inputs.velocity, p.samples, { signal, warn });
    const layers: MadeLayer[] = [];
    /** What a model of which layers are taken goes by, where it goes by a volume. */
    let held: VelocityModel | null = null;
    let byChosen = false;
    for (const [n, own] of first.layers.entries()) {
      const zone = p.zones.find((z) => z.base === own.base);
      const factor = zone?.factor ?? 1;
      const { times } = parts.layers[n];
      if (zone?.from === VOLUME) {
        if (!chosen)
          throw new LithagonError(
            'velocity',
            `The zone down to ${own.base} is to come from a velocity volume, and none was chosen.`,
            {
              object: own.base,
              fix: 'Choose a velocity volume. Nothing was changed.',
            },
          );
        byChosen = true;
        layers.push({
          base: own.base,
          form: 'velocity volume',
          v0: factor,
          k: 0,
          times,
          v0Map: null,
          rms: 0,
          points: 0,
        });
        continue;
      }
      const source = zone?.from ? named.get(zone.from) : first;
      const found = source?.layers.find((l) => l.base === own.base);
      if (!source || !found)
        throw new LithagonError(
          'params',
          source ? `${source.name} has no layer down to ${own.base}.` : `No model called “${zone?.from}” was chosen.`,
          {
            object: own.base,
            fix: `Name one of ${[...named.keys(), VOLUME].map((name) => `“${name}”`).join(', ')}. Nothing was changed.`,
          },
        );
      if (found.form === 'velocity volume') {
        if (held && held !== source)
          throw new LithagonError(
            'velocity',
            `${held.name} and ${source.name} go by velocity volumes of their own, and a model holds one.`,
            {
              object: source.name,
              fix: 'Take zones that go by a volume from one of them. Nothing was changed.',
            },
          );
        held = source;
      }
      layers.push(await takenFrom(source, found, times, factor));
    }
    if (held && byChosen)
      throw new LithagonError('velocity', `${held.name} goes by a velocity volume of its own, and a model holds one.`, {
        object: held.name,
        fix: 'Take its zones and those “volume” from one. Nothing was changed.',
      });
    const unused = others.filter((m) => !p.zones.some((z) => z.from === m.name));
    for (const model of unused) warn(`No zone comes from ${model.name}.`);
    const cube = held
      ? {
          name: held.volume?.name ?? held.name,
          cube: (await modelParts(store, held, { signal })).cube as NonNullable<typeof parts.cube>,
        }
      : byChosen
        ? chosen
        : null;
    const model = await keptModel(store, idFor('model'), {
      above: parts.above,
      nodes: parts.nodes,
      seaBed: parts.seaBed,
      layers,
      cube,
    });
    return { model };

    /** A layer of a model between the boundaries of the first. */
    async function takenFrom(
      source: VelocityModel,
      found: ModelLayer,
      times: Float32Array | null,
      factor: number,
    ): Promise<MadeLayer> {
      const index = source.layers.indexOf(found);
      const from = source === first ? parts : await modelParts(store, source, { signal });
      const own = from.layers[index].v0Map;
      // its map may lie on other nodes
      const v0Map = own && parts.nodes && from.nodes ? onNodes(own, from.nodes, parts.nodes) : null;
      const { times: _, v0Map: __, ...layer } = found;
      const law = scaled(from.layers[index].law, factor);
      return { ...layer, ...law, times, v0Map: v0Map ? v0Map.map((v) => v * factor) : null };
    }
  },
});
