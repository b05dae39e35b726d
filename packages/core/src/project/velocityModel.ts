import { type BinGrid, toMap } from '../earth/binGrid.ts';
import { LithagonError, stopIf } from '../earth/errors.ts';
import type { VelocityModel, Volume } from '../earth/objects.ts';
import { readWhole } from '../storage/arrays.ts';
import { readInlines, shapeOf, slabOf } from '../storage/planes.ts';
import type { Store } from '../storage/store.ts';
import type { VelocitySamples } from '../velocity/column.ts';
import { bridged, intervalFromMean, MEAN_OF, type MeanKind } from '../velocity/interval.ts';
import { type Model, type ModelParts, modelOf, type VelocityCube } from '../velocity/model.ts';
import { toSi } from './redeclare.ts';

/** Quantities by which something is taken to depth. */
export const VELOCITIES = ['interval velocity', 'RMS velocity', 'average velocity', 'stacking velocity'] as const;

/** Most samples of a velocity volume that a model holds: one with more is held by the means of squares of its bins. */
const MOST_HELD = 8e6;
/** Bounds that what is made of means is held to, m/s. */
const BOUNDS = { least: 300, most: 9000 };

/** What had to be done to a velocity volume before it could be used. */
export interface CubeNotes {
  /** Parts of its samples that were nothing, less, or not there. */
  bad: number;
  /** Traces without any velocity. */
  empty: number;
  /** Bins of which one is a mean, along each side. */
  every: number;
}

/** A velocity volume of any kind as interval velocities in m/s, whole. */
export async function cubeOf(
  store: Store,
  volume: Volume,
  samples: VelocitySamples,
  signal?: AbortSignal,
): Promise<{ cube: VelocityCube; notes: CubeNotes }> {
  if (volume.domain === 'age')
    throw new LithagonError('domain', `${volume.name} is by age, and velocities are needed by time or depth.`, {
      object: volume.name,
      fix: 'Choose another volume. Nothing was changed.',
    });
  const { quantity, unit, vertical, domain } = volume;
  const mean = quantity in MEAN_OF ? MEAN_OF[quantity as MeanKind] : null;
  if (mean && domain === 'depth')
    throw new LithagonError('domain', `${volume.name} holds ${quantity} by depth, and means are counted by time.`, {
      object: volume.name,
      fix: 'Use interval velocities, or the volume by time. Nothing was changed.',
    });
  const scale = toSi(quantity, unit);
  const [ni, nj, nk] = shapeOf(volume);
  const every = Math.max(1, Math.ceil(Math.sqrt((ni * nj * nk) / MOST_HELD)));
  const [mi, mj] = [Math.ceil(ni / every), Math.ceil(nj / every)];
  const sums = new Float32Array(mi * mj * nk);
  const counts = new Uint16Array(mi * mj);
  let [bad, empty] = [0, 0];
  const slab = slabOf(volume);
  for (let i0 = 0; i0 < ni; i0 += slab) {
    stopIf(signal);
    const i1 = Math.min(ni, i0 + slab);
    const data = await readInlines(store, volume, i0, i1);
    for (let i = i0; i < i1; i++)
      for (let j = 0; j < nj; j++) {
        const o = ((i - i0) * nj + j) * nk;
        const trace = data.subarray(o, o + nk);
        for (const v of trace) if (!(v > 0)) bad++;
        const known = bridged(trace);
        if (!known) {
          empty++;
          continue;
        }
        for (let k = 0; k < nk; k++) known[k] *= scale;
        const intervals = mean
          ? intervalFromMean(known, vertical.first, vertical.step, mean, { ...BOUNDS, smooth: 0 })
          : known;
        const to = Math.floor(i / every) * mj + Math.floor(j / every);
        counts[to]++;
        for (let k = 0; k < nk; k++) sums[to * nk + k] += intervals[k];
      }
  }
  if (empty === ni * nj)
    throw new LithagonError('velocity', `${volume.name} holds no velocity above nothing.`, {
      object: volume.name,
      fix: 'Look at its samples, and declare what they are. Nothing was changed.',
    });
  for (let n = 0; n < mi * mj; n++)
    for (let k = 0; k < nk; k++) sums[n * nk + k] = counts[n] > 0 ? sums[n * nk + k] / counts[n] : Number.NaN;
  const { binGrid } = volume;
  const middle = 0.5 * (every - 1);
  const times = (v: [number, number]): [number, number] => [v[0] * every, v[1] * every];
  const held: BinGrid =
    every === 1
      ? binGrid
      : {
          inline: { first: binGrid.inline.first, step: binGrid.inline.step * every, count: mi },
          crossline: { first: binGrid.crossline.first, step: binGrid.crossline.step * every, count: mj },
          origin: toMap(binGrid, middle, middle),
          perInline: times(binGrid.perInline),
          perCrossline: times(binGrid.perCrossline),
        };
  return {
    cube: {
      binGrid: held,
      domain,
      first: vertical.first,
      step: vertical.step,
      count: nk,
      // means are made of intervals that end at their samples
      samples: mean ? 'the interval above it' : samples,
      values: sums,
    },
    notes: { bad: bad / (ni * nj * nk), empty, every },
  };
}

/** Notes on a velocity volume in sentences. */
export function saidOf(name: string, { bad, empty, every }: CubeNotes): string[] {
  return [
    ...(bad > 0
      ? [
          `${(100 * bad).toFixed(bad < 0.01 ? 2 : 0)} % of the samples of ${name} are nothing, less or not there; they were told by those above and below them${empty > 0 ? `, and ${empty} traces without any by their neighbours` : ''}.`,
        ]
      : []),
    ...(every > 1 ? [`Of ${name} the means of ${every} × ${every} bins were kept.`] : []),
  ];
}

const NOTHING_ABOVE = { waterVelocity: 1500 };

/** What turns time into depth, read whole: a velocity model, or a velocity volume by itself from time nought down. */
export async function modelParts(
  store: Store,
  source: VelocityModel | Volume,
  options: { samples?: VelocitySamples; signal?: AbortSignal; say?(sentence: string): void } = {},
): Promise<ModelParts> {
  if (source.kind === 'volume') {
    const { frame } = await store.facts();
    const { cube, notes } = await cubeOf(store, source, options.samples ?? 'the interval below it', options.signal);
    for (const sentence of saidOf(source.name, notes)) options.say?.(sentence);
    return {
      above: {
        ...NOTHING_ABOVE,
        datumM: frame?.datumM ?? 0,
        replacementVelocity: frame?.replacementVelocity ?? 1500,
      },
      nodes: null,
      seaBed: null,
      layers: [{ base: '', law: { form: 'velocity volume', v0: 1, k: 0 }, times: null, v0Map: null, corrections: [] }],
      cube,
    };
  }
  const { waterVelocity, datumM, replacementVelocity, seaBed, binGrid, path, volume } = source;
  for (const { base, times } of source.layers)
    if (base && !times)
      throw new LithagonError('velocity', `${source.name} does not hold the times of its boundaries.`, {
        object: source.name,
        fix: 'It was made by an earlier version: make it again. Nothing was changed.',
      });
  return {
    above: { waterVelocity, datumM, replacementVelocity },
    nodes: binGrid ? { binGrid } : path ? { path } : null,
    seaBed: seaBed ? await readWhole(store, seaBed) : null,
    layers: await Promise.all(
      source.layers.map(
        async ({ base, form = 'v0 + k·z from the datum', v0, k, vBase, times, v0Map, corrections = [], points }) => ({
          base,
          law: { form, v0, k, ...(vBase === undefined ? {} : { vBase }) },
          times: times ? await readWhole(store, times) : null,
          v0Map: v0Map ? await readWhole(store, v0Map) : null,
          corrections,
          byWells: points > 0 || corrections.length > 0,
        }),
      ),
    ),
    cube: volume
      ? {
          binGrid: volume.binGrid,
          domain: volume.domain,
          first: volume.first,
          step: volume.step,
          count: volume.values.shape[2],
          samples: volume.samples,
          values: await readWhole(store, volume.values),
        }
      : null,
  };
}

/** The same, ready to be asked. */
export const readModel = async (...given: Parameters<typeof modelParts>): Promise<Model> =>
  modelOf(await modelParts(...given));
