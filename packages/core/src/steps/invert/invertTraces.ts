import { toMap } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { QuantityMap, Volume } from '../../earth/objects.ts';
import { between, conditioner, meanIn, meanOf, seen } from '../../inversion/traceInversion.ts';
import type { Block, Region } from '../../numerics/block.ts';
import { sizeOf } from '../../numerics/block.ts';
import { shapeOf } from '../../storage/planes.ts';
import { readRegion } from '../../storage/regions.ts';
import type { Store } from '../../storage/store.ts';
import { choice, type Draft, number } from '../define.ts';
import { keptMap } from '../mapStep.ts';
import type { Known } from './known.ts';

/** Parameters that inversions of traces share. */
export const inversionParams = {
  fromMs: number(
    { title: 'From', description: 'Top of what is inverted.', unit: 'ms' },
    { min: 0, max: 20000, step: 4, initial: 0 },
  ),
  toMs: number(
    { title: 'To', description: 'Its base; beyond the last sample takes in all.', unit: 'ms' },
    { min: 0, max: 20000, step: 4, initial: 20000 },
  ),
  wells: choice(
    {
      title: 'Wells are',
      description: 'Honoured: logs stand where they are, and count around. Left blind: they only tell how rock varies.',
    },
    ['honoured', 'left blind'],
    'honoured',
  ),
  rangeM: number(
    {
      title: 'Range sideways',
      description: 'Distance at which rock that seismic does not see is alike no more.',
      unit: 'm',
    },
    { min: 10, max: 20000, step: 10, initial: 500 },
  ),
  deviation: number(
    { title: 'Deviation of the model', description: 'Where the model has none of its own: as a part.' },
    { min: 0.001, max: 1, step: 0.005, initial: 0.05 },
  ),
};
export const KNOWN_RESTS_ON = ['fromMs', 'toMs', 'wells', 'rangeM', 'deviation'] as const;

export interface Inverted {
  /** Median of each unknown, and standard deviation of its logarithm. */
  values: Float32Array[];
  spreads: Float32Array[];
  /** Of each stack. */
  synthetics: Float32Array[];
  residuals: Float32Array[];
}

/**
 * Invert whole traces of a region; samples outside the window are none.
 * @param stacks, models blocks of whole traces without a halo
 */
export function invertRegion(
  known: Known,
  stacks: Block[],
  models: Block[],
  deviation: Block | undefined,
  typed: number,
  volume: Volume,
  region: Region,
): Inverted {
  const { kinds, k0, count, signs, levels, responses, wells } = known;
  const [ni, nj, nk] = sizeOf(region);
  const made = () => new Float32Array(ni * nj * nk).fill(Number.NaN);
  const out: Inverted = {
    values: models.map(made),
    spreads: models.map(made),
    synthetics: stacks.map(made),
    residuals: stacks.map(made),
  };
  const [model, mean] = [new Float64Array(kinds * count), new Float64Array(kinds * count)];
  const [synthetic, residual] = [new Float64Array(signs.length * count), new Float64Array(signs.length * count)];
  const around = wells.length > 0 ? conditioner(wells, known.rangeM) : null;
  const valuesOf = (n: number) => wells[n].values;
  for (let t = 0; t < ni * nj; t++) {
    const o = t * nk + k0;
    for (let u = 0; u < kinds; u++)
      for (let k = 0; k < count; k++) model[u * count + k] = Math.log(models[u].data[o + k]);
    if (Number.isNaN(model[0] + model[count - 1])) continue;
    seen(responses, model, count, synthetic);
    for (let s = 0; s < signs.length; s++)
      // what is not there says nothing
      for (let k = 0; k < count; k++)
        residual[s * count + k] =
          signs[s] * (stacks[s].data[o + k] || 0) -
          (stacks[s].data[o + k] === stacks[s].data[o + k] ? synthetic[s * count + k] : 0);
    const background = deviation ? meanIn(deviation.data, k0, count, t * nk) : typed;
    meanOf(levels, model, residual, background, mean);
    const [n, f] = between(levels, background);
    if (around) around.to(toMap(volume.binGrid, region.i[0] + Math.floor(t / nj), region.j[0] + (t % nj)));
    for (let u = 0; u < kinds; u++)
      for (let k = 0; k < count; k++) {
        const q = u * count + k;
        let spread = levels[n].deviation[q];
        if (f > 0) spread += f * (levels[n + 1].deviation[q] - spread);
        if (around) {
          mean[q] += around.sum(valuesOf, q);
          spread *= Math.sqrt(around.left(q));
        }
        out.values[u][o + k] = Math.exp(mean[q]);
        out.spreads[u][o + k] = spread;
      }
    seen(responses, mean, count, synthetic);
    for (let s = 0; s < signs.length; s++)
      for (let k = 0; k < count; k++) {
        out.synthetics[s][o + k] = signs[s] * synthetic[s * count + k];
        out.residuals[s][o + k] = stacks[s].data[o + k] - signs[s] * synthetic[s * count + k];
      }
  }
  return out;
}

/** What an inversion found out, in sentences. */
export function saysOf(known: Known): string[] {
  const { noise, details, wells, notes, levels } = known;
  return [
    ...notes,
    `Noise is ${noise.level.map((v) => v.toPrecision(3)).join(', ')} rms, ${(100 * noise.white).toFixed(0)} % of its power white: what makes the traces most likely.`,
    `Logs vary by ${details.map((d) => `${(100 * d).toFixed(1)} %`).join(', ')} beyond the model, which is itself unsure by ${(100 * levels[0].background).toFixed(1)} to ${(100 * levels[levels.length - 1].background).toFixed(1)} %.`,
    ...(wells.length > 0
      ? [
          `${wells.map((w) => w.well).join(', ')} ${wells.length === 1 ? 'is' : 'are'} honoured: logs are off by ${(100 * known.logError).toFixed(1)} % beside a trace, which is what makes them most likely.`,
        ]
      : []),
  ];
}

const SLAB = 24;

/** rms of what is left of stacks, as a part of the noise that was estimated, trace by trace. */
export async function misfitMap(
  store: Store,
  residuals: Volume[],
  known: Known,
  id: string,
): Promise<Draft<QuantityMap>> {
  const [first] = residuals;
  const [ni, nj, nk] = shapeOf(first);
  const values = new Float32Array(ni * nj).fill(Number.NaN);
  for (let i = 0; i < ni; i += SLAB) {
    const to = Math.min(ni, i + SLAB);
    const blocks = await Promise.all(
      residuals.map((r) => readRegion(store, r, { i: [i, to], j: [0, nj], k: [0, nk] })),
    );
    for (let t = 0; t < (to - i) * nj; t++) {
      let [sum, n] = [0, 0];
      for (const [s, data] of blocks.entries())
        for (let k = 0; k < nk; k++) {
          const v = data[t * nk + k] / known.noise.all[s];
          if (v !== v) continue;
          sum += v * v;
          n++;
        }
      if (n > 0) values[i * nj + t] = Math.sqrt(sum / n);
    }
  }
  return keptMap({ binGrid: first.binGrid, values, quantity: 'attribute', unit: '1' }, store, id);
}

/** A model that cannot be inverted with: an unknown kind or a value that has no logarithm. */
export function checkModel({ name, statistics }: Volume): void {
  if (!(statistics.min > 0))
    throw new LithagonError('input', `${name} has values of nothing or less, which have no logarithm.`, {
      object: name,
      fix: 'Choose an absolute model. Nothing was changed.',
    });
}
