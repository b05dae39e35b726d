import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { Volume } from '../../earth/objects.ts';
import type { Quantity } from '../../earth/quantities.ts';
import type { LocalStep } from '../../engine/local.ts';
import { toSi } from '../../project/redeclare.ts';
import { intervalFromMean, MEAN_OF, type MeanKind, meanFromInterval, withoutSpikes } from '../../velocity/interval.ts';
import { choice, defineStep, number } from '../define.ts';

const KINDS = ['interval velocity', 'RMS velocity', 'average velocity', 'stacking velocity'] as const;

const params = z.object({
  gives: choice(
    { title: 'Gives', description: 'The kind of velocity that comes out.' },
    ['interval velocity', 'RMS velocity', 'average velocity'],
    'interval velocity',
  ),
  slowest: number(
    { title: 'Slowest', description: 'Interval velocities are held above it.', unit: 'm/s' },
    { min: 300, max: 9000, step: 50, initial: 1400 },
  ),
  fastest: number(
    { title: 'Fastest', description: 'And below it.', unit: 'm/s' },
    { min: 300, max: 9000, step: 50, initial: 7000 },
  ),
  smoothMs: number(
    {
      title: 'Smoothing',
      description: 'Changes over shorter times are smoothed away; with none it is Dix’s formula within the bounds.',
      unit: 'ms',
    },
    { min: 0, max: 4000, step: 20, initial: 0 },
  ),
  spikes: number(
    {
      title: 'Spikes',
      description: 'Traces to each side whose median takes the place of what sticks out; none leaves spikes.',
      unit: 'bins',
    },
    { min: 0, max: 6, whole: true, initial: 2 },
  ),
});
type Params = z.infer<typeof params>;

interface Ready {
  kind: (typeof KINDS)[number];
  /** By which samples become m/s. */
  scale: number;
  first: number;
  least: number;
}

const isMean = (kind: string): kind is MeanKind => kind in MEAN_OF;

const local: LocalStep<Params, undefined, Ready> = {
  volumes: ['velocity'],
  fills: true,
  halo: (p) => ({ inline: p.spikes, crossline: p.spikes, sample: Number.POSITIVE_INFINITY }),
  ready: (_, p, { velocity }) => {
    if (p.slowest >= p.fastest)
      throw new LithagonError(
        'params',
        `The slowest velocity, ${p.slowest} m/s, is not below the fastest, ${p.fastest} m/s.`,
        {
          fix: 'Give them in rising order. Nothing was changed.',
        },
      );
    const { quantity, unit, vertical, statistics } = velocity;
    return {
      kind: quantity as Ready['kind'],
      scale: toSi(quantity, unit),
      first: vertical.first,
      least: statistics.min,
    };
  },
  outputOf: (_: Volume, p) => ({ quantity: p.gives as Quantity, unit: 'm/s' }),
  evaluate({ velocity: block }, p, { kind, scale, first }) {
    const nk = block.size[2];
    const { stepMs: step } = block;
    const data = withoutSpikes(block.data, block.size, p.spikes);
    const spec = { least: p.slowest, most: p.fastest, smooth: p.smoothMs / step };
    for (let o = 0; o < data.length; o += nk) {
      const trace = Float64Array.from(data.subarray(o, o + nk), (v) => v * scale);
      // an interval velocity is smoothed and bounded as the mean that it makes
      const [means, power] = isMean(kind)
        ? [trace, MEAN_OF[kind]]
        : [meanFromInterval(trace, first, step, 1), 1 as const];
      const intervals = intervalFromMean(means, first, step, power, spec);
      data.set(
        p.gives === 'interval velocity'
          ? intervals
          : meanFromInterval(intervals, first, step, p.gives === 'RMS velocity' ? 2 : 1),
        o,
      );
    }
    return { velocity: data };
  },
  says: ({ least }) =>
    least > 0 ? [] : ['Some velocities are nothing or less; they were told by those above and below them.'],
};

export const interval = defineStep({
  id: 'depth.interval',
  version: 1,
  stage: 'depth',
  title: 'Kinds of velocity',
  summary:
    'Makes interval, RMS or average velocities of any kind of velocity volume: spikes taken out, bounded, and as smooth as is asked. What it changes is seen on the line before it is stored.',
  formula:
    'vᵢ² = (V²(tᵢ)·tᵢ − V²(tᵢ₋₁)·tᵢ₋₁) / (tᵢ − tᵢ₋₁), as least squares with bounds; a sample is of the interval that ends at its time.',
  avoid:
    'On stacking velocities of steep beds or far offsets: they are no RMS velocities, and intervals come out too fast.',
  source:
    'Dix (1955), Geophysics 20, 68–86; Whittaker (1923), Proceedings of the Edinburgh Mathematical Society 41, 63–75',
  reach: 'trace',
  inputs: { velocity: { kind: 'volume', title: 'Velocity', quantity: [...KINDS], domain: 'twt' } },
  params,
  outputs: { velocity: { kind: 'volume', title: 'Interval velocity' } },
  local,
});
