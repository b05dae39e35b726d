import { z } from 'zod';
import { type AgeAxis, ageAxis, placesOfAges, REPEATS } from '../../age/flat.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { Horizon, Volume } from '../../earth/objects.ts';
import { quantityFacts } from '../../earth/quantities.ts';
import type { LocalStep } from '../../engine/local.ts';
import { sizeOf } from '../../numerics/block.ts';
import { sincAt, sincWidened } from '../../numerics/sinc.ts';
import { onBinsOf } from '../../project/windows.ts';
import { choice, defineStep, number } from '../define.ts';

/** Most ages of a flattened volume. */
const MOST_AGES = 20000;

/** Which ages something is drawn against, and what is a hiatus among them. */
export const axisParams = {
  from: number(
    {
      title: 'From age',
      description: 'Youngest; where it is not below the oldest, the whole range is taken.',
      among: 'age',
    },
    { min: -1e6, max: 1e6, step: 1, initial: 0 },
  ),
  to: number({ title: 'To age', description: 'Oldest.', among: 'age' }, { min: -1e6, max: 1e6, step: 1, initial: 0 }),
  step: number(
    { title: 'Interval of age', description: 'From one age to the next; ages are near ms, or m in depth.' },
    { min: 0.25, max: 100, step: 0.25, initial: 4 },
  ),
  gap: number(
    {
      title: 'Hiatus over',
      description: 'Ages that rise by more than this from a sample to the next leave out those between: a hiatus.',
    },
    { min: 1, max: 1000, step: 1, initial: 24 },
  ),
  repeat: choice(
    {
      title: 'Where beds repeat',
      description: 'Which of several places of one age is taken, above and below a reverse fault.',
    },
    [...REPEATS],
    'the upper',
  ),
};

const params = z.object(axisParams);

type Params = z.infer<typeof params>;

/** The ages asked for: those between the two, or all there are. */
export function axisFor(age: Volume, p: Pick<Params, 'from' | 'to' | 'step'>): AgeAxis {
  const { min, max } = age.statistics;
  const [from, to] = p.from < p.to ? [Math.max(min, p.from), Math.min(max, p.to)] : [min, max];
  const axis = ageAxis(from, to, p.step);
  return { ...axis, count: Math.min(MOST_AGES, axis.count) };
}

interface Ready {
  axis: AgeAxis;
  /** TWT or depth below which nothing is taken, on the bins; null where nothing limits it. */
  valid: Float32Array | null;
  volume: Volume;
  /** Samples of the ages' trace. */
  down: number;
  /** Samples of the volume at the first of the ages', and in one of them. */
  offset: number;
  scale: number;
}

const local: LocalStep<Params, Float32Array | null, Ready> = {
  volumes: ['volume', 'age'],
  own: ['age'],
  domain: 'age',
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  prepareRestsOn: [],
  prepare: async ({ volume, valid }, { store }) => {
    if (!valid) return null;
    const [surface, { binGrid, domain, name }] = [valid as Horizon, volume as Volume];
    if (surface.domain !== domain)
      throw new LithagonError('domain', `${surface.name} and ${name} are not in one domain.`, {
        object: surface.name,
        fix: 'Convert one of them, or leave it out. Nothing was changed.',
      });
    return onBinsOf(store, surface, binGrid);
  },
  ready: (valid, p, { volume, age }) => ({
    valid,
    axis: axisFor(age, p),
    volume,
    down: age.vertical.count,
    offset: (age.vertical.first - volume.vertical.first) / volume.vertical.step,
    scale: age.vertical.step / volume.vertical.step,
  }),
  grid: ({ binGrid }, _, { axis }) => ({ binGrid, domain: 'age', vertical: axis }),
  outputs: { flat: {} },
  evaluate({ volume: block, age }, p, { axis, volume, down, offset, scale, valid }, region) {
    const [ni, nj, nk] = sizeOf(region);
    const { count } = volume.vertical;
    const names = nearest(volume);
    const out = new Float32Array(ni * nj * nk);
    for (let t = 0; t < ni * nj; t++) {
      const at = placesOfAges(age.data, t * down, down, axis, p.repeat, p.gap);
      const bin = (region.i[0] + Math.floor(t / nj)) * volume.binGrid.crossline.count + region.j[0] + (t % nj);
      const deepest = valid ? (valid[bin] - volume.vertical.first) / volume.vertical.step : Number.POSITIVE_INFINITY;
      for (let n = 0; n < nk; n++) {
        const k = region.k[0] + n;
        const place = offset + scale * at[k];
        if (!(place <= deepest)) {
          out[t * nk + n] = Number.NaN;
          continue;
        }
        const near = k + 1 < axis.count && at[k + 1] === at[k + 1] ? at[k + 1] - at[k] : at[k] - at[k - 1];
        out[t * nk + n] = names
          ? (block.data[t * count + Math.round(place)] ?? Number.NaN)
          : sincWidened(block.data, t * count, count, place, near === near ? scale * near : 1);
      }
    }
    return { flat: out };
  },
};

export const flatten = defineStep({
  id: 'interpret.flatten',
  version: 1,
  stage: 'interpret',
  purpose: 'Relative age',
  title: 'Volume to age',
  summary:
    'Draws a volume against relative age instead of time or depth: beds are level, and what was not laid down, or was eroded, is left blank.',
  formula: 'd′(x, y, a) = d(x, y, z) where a(x, y, z) = a; blank where ages jump.',
  avoid: 'Below where ages are valid.',
  source: 'Wheeler (1958), AAPG Bulletin 42, 1047–1063; Stark (2004), The Leading Edge 23, 928–932',
  reach: 'trace',
  inputs: {
    volume: { kind: 'volume', title: 'Volume' },
    age: {
      kind: 'volume',
      title: 'Relative age',
      quantity: ['relative age'],
      usual: { step: 'interpret.age', output: 'age' },
    },
    valid: {
      kind: 'horizon',
      title: 'Not below',
      optional: true,
      usual: { step: 'interpret.ageValid', output: 'valid' },
    },
  },
  params,
  outputs: { flat: { kind: 'volume', title: 'By age' } },
  local,
});

/** Names and directions are not averaged: the nearest is taken. */
const nearest = ({ quantity }: Pick<Volume, 'quantity'>) => quantityFacts(quantity).scale !== 'continuous';

const back: LocalStep<Record<string, never>, { volume: Volume }> = {
  volumes: ['age', 'volume'],
  own: ['volume'],
  halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
  ready: (_, __, { volume }) => ({ volume }),
  outputOf(_, __, ready) {
    const { quantity, unit, polarity } = ready?.volume ?? {};
    return { quantity, unit, polarity };
  },
  evaluate({ age, volume }, _, { volume: { vertical: axis, ...facts } }) {
    const names = nearest(facts);
    const out = new Float32Array(age.data.length);
    const nk = age.size[2];
    for (let n = 0; n < out.length; n++) {
      const row = Math.floor(n / nk) * axis.count;
      const at = (age.data[n] - axis.first) / axis.step;
      out[n] = names ? (volume.data[row + Math.round(at)] ?? Number.NaN) : sincAt(volume.data, row, axis.count, at);
    }
    return { unflat: out };
  },
};

export const unflatten = defineStep({
  id: 'interpret.unflatten',
  version: 1,
  stage: 'interpret',
  purpose: 'Relative age',
  title: 'Volume back from age',
  summary: 'Takes what was made or picked in the age domain back to the time or depth of the ages.',
  formula: 'd(x, y, z) = d′(x, y, a(x, y, z)).',
  avoid: 'With other ages than those that it was drawn against.',
  source: 'Wheeler (1958), AAPG Bulletin 42, 1047–1063',
  reach: 'trace',
  inputs: {
    volume: { kind: 'volume', title: 'Volume by age', domain: 'age' },
    age: {
      kind: 'volume',
      title: 'Relative age',
      quantity: ['relative age'],
      usual: { step: 'interpret.age', output: 'age' },
    },
  },
  params: z.object({}),
  outputs: { unflat: { kind: 'volume', title: 'Back from age' } },
  local: back,
});
