import { LithagonError } from '../../earth/errors.ts';
import type { Horizon, ModelLayer, VelocityModel, Volume } from '../../earth/objects.ts';
import { gridAt } from '../../horizons/grid.ts';
import type { Boundary } from '../../project/boundaries.ts';
import { type SeaBed, topOfHorizon } from '../../project/layers.ts';
import { cubeOf, saidOf, VELOCITIES } from '../../project/velocityModel.ts';
import { readWhole, writeWhole } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';
import { type Above, VELOCITY_SAMPLES, type VelocitySamples } from '../../velocity/column.ts';
import type { VelocityCube } from '../../velocity/model.ts';
import type { Nodes } from '../../velocity/nodes.ts';
import { choice, number } from '../define.ts';

/** What lies above the first layer, as a form asks for it. */
export const waterParam = number(
  { title: 'Water', description: 'Velocity of sea water.', unit: 'm/s' },
  { min: 1400, max: 1600, step: 1, initial: 1500 },
);

/** What samples of a velocity volume stand for, as a form asks for it. */
export const samplesParam = choice(
  {
    title: 'A sample of the volume is',
    description: 'What a sample of an interval velocity stands for: the mean of an interval beside it, or a point.',
  },
  [...VELOCITY_SAMPLES],
  'the interval below it',
);

export const boundaryInputs = {
  horizons: { kind: 'horizon', or: 'picks', title: 'Boundaries, from the top down', many: true, domain: 'twt' },
  line: { kind: 'seismic line', title: 'Along the 2D line', domain: 'twt', optional: true },
  seaBed: {
    kind: 'horizon',
    title: 'Sea bed or ground',
    domain: 'depth',
    optional: true,
    begins: true,
    shallowest: true,
  },
  velocity: { kind: 'volume', title: 'Velocity volume', quantity: [...VELOCITIES], optional: true },
} as const;

/** What turns one domain into the other: asked for wherever something is converted. */
export const modelInput = {
  kind: 'velocity model',
  or: 'volume',
  title: 'Velocity model or velocity volume',
  quantity: [...VELOCITIES],
} as const;

/** Water, datum and replacement of a project. */
export async function overburdenOf(store: Store, waterVelocity: number): Promise<Above> {
  const { frame } = await store.facts();
  return { waterVelocity, datumM: frame?.datumM ?? 0, replacementVelocity: frame?.replacementVelocity ?? 1500 };
}

export async function seaBedFrom(store: Store, seaBed: Horizon | undefined): Promise<SeaBed | undefined> {
  if (!seaBed) return undefined;
  const values = await readWhole(store, seaBed.values);
  return { top: topOfHorizon(seaBed), at: (x, y) => gridAt(values, seaBed.binGrid, x, y) };
}

type Draft = Omit<VelocityModel, 'id' | 'revision' | 'madeBy' | 'stage' | 'name'>;

const DIMENSIONS = { binGrid: ['inline', 'crossline'], path: ['trace'] };

/** Keep what a model holds under its id. */
export async function keptModel(
  store: Store,
  id: string,
  given: {
    above: Above;
    nodes: Nodes | null;
    seaBed: Float32Array | null;
    layers: (Omit<ModelLayer, 'times' | 'v0Map'> & { times: Float32Array | null; v0Map: Float32Array | null })[];
    cube: { name: string; cube: VelocityCube } | null;
  },
): Promise<Draft> {
  const { above, nodes, cube } = given;
  const shape = !nodes
    ? []
    : 'path' in nodes
      ? [nodes.path.length]
      : [nodes.binGrid.inline.count, nodes.binGrid.crossline.count];
  const keep = (name: string, values: Float32Array) =>
    writeWhole(store, `${id}/${name}`, shape, values, nodes && 'path' in nodes ? DIMENSIONS.path : DIMENSIONS.binGrid);
  const layers: ModelLayer[] = [];
  for (const [n, { times, v0Map, ...layer }] of given.layers.entries())
    layers.push({
      ...layer,
      ...(times ? { times: await keep(`times-${n}`, times) } : {}),
      ...(v0Map ? { v0Map: await keep(`v0-${n}`, v0Map) } : {}),
    });
  return {
    kind: 'velocity model',
    ...(nodes ?? {}),
    waterVelocity: above.waterVelocity,
    ...(above.datumM === undefined ? {} : { datumM: above.datumM }),
    ...(above.replacementVelocity === undefined ? {} : { replacementVelocity: above.replacementVelocity }),
    ...(given.seaBed ? { seaBed: await keep('sea-bed', given.seaBed) } : {}),
    layers,
    ...(cube ? { volume: await keptCube(store, id, cube.name, cube.cube) } : {}),
  };
}

async function keptCube(store: Store, id: string, name: string, cube: VelocityCube) {
  const { values, count, ...rest } = cube;
  const shape = [cube.binGrid.inline.count, cube.binGrid.crossline.count, count];
  return {
    name,
    ...rest,
    values: await writeWhole(store, `${id}/velocities`, shape, values, ['inline', 'crossline', 'sample']),
  };
}

/** The velocity volume that layers go by, with what is to be said of it. */
export async function cubeFor(
  store: Store,
  volume: Volume | undefined,
  samples: VelocitySamples,
  { signal, warn }: { signal?: AbortSignal; warn(sentence: string): void },
): Promise<{ name: string; cube: VelocityCube } | null> {
  if (!volume) return null;
  const { cube, notes } = await cubeOf(store, volume, samples, signal);
  for (const sentence of saidOf(volume.name, notes)) warn(sentence);
  return { name: volume.name, cube };
}

/** Names of boundaries as wells have them. */
export const topsOfBoundaries = (boundaries: Boundary[]): string[] =>
  boundaries.map(({ of }) => (of.kind === 'horizon' ? topOfHorizon(of) : of.name));

/** Nothing chosen that a layer could be made of. */
export const noVelocity = (base: string): LithagonError =>
  new LithagonError(
    'velocity',
    `No well has a top “${base}” with times below where its layer begins, so it has no velocity.`,
    {
      object: base,
      fix: 'Name horizons as the wells name their tops, and load checkshots; or give the layer a typed velocity.',
    },
  );
