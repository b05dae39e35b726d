import { z } from 'zod';
import { sameSamples } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { TurnedPair, Volume } from '../../earth/objects.ts';
import type { Quantity } from '../../earth/quantities.ts';
import type { LocalStep } from '../../engine/local.ts';
import { lowPassed } from '../../inversion/background.ts';
import { angleCurve, backgroundOf, momentsOf, turned } from '../../inversion/rotation.ts';
import { binsAlong, samplesAlong, spreadTraces } from '../../project/traces.ts';
import { atSamples, timedLog } from '../../project/wells/timedLogs.ts';
import { defineStep, listed, number, text, wellsInput } from '../define.ts';

const PAIR: Quantity[] = ['intercept', 'gradient', 'relative impedance'];

const inputs = {
  intercept: {
    kind: 'volume',
    title: 'Intercept, or its impedance',
    quantity: PAIR,
    usual: { step: 'invert.interceptGradient', output: 'intercept' },
  },
  gradient: {
    kind: 'volume',
    title: 'Gradient, or its impedance',
    quantity: PAIR,
    usual: { step: 'invert.interceptGradient', output: 'gradient' },
  },
} as const;

const angleDeg = number(
  { title: 'Angle', description: '0° is the intercept, 90° the gradient.', unit: '°' },
  { min: -90, max: 90, step: 1, initial: 0 },
);

const params = z.object({ angleDeg });

const local: LocalStep<z.infer<typeof params>> = {
  volumes: ['intercept', 'gradient'],
  halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
  outputOf: ({ quantity, unit, polarity }: Volume) => ({
    quantity: quantity === 'intercept' ? 'attribute' : quantity,
    unit,
    polarity,
  }),
  evaluate: ({ intercept, gradient }, p) => ({
    turned: turned(intercept.data, gradient.data, p.angleDeg, new Float32Array(intercept.data.length)),
  }),
};

export const rotate = defineStep({
  id: 'invert.rotate',
  version: 1,
  stage: 'invert',
  purpose: 'Stacks and fluids',
  title: 'Turn and store',
  summary:
    'Stores intercept and gradient turned by an angle: one washes fluids out, another the background. The angle is found by a turned pair.',
  formula: 'E(χ) = A·cos χ + B·sin χ.',
  avoid: 'With gradients whose noise is not shown: near 90° the result is mostly noise.',
  source: 'Extended elastic impedance (2002), Geophysics 67, 63–67',
  reach: 'local',
  inputs,
  params,
  outputs: { turned: { kind: 'volume', title: 'Turned' } },
  local,
});

/** Pairs that are kept to be drawn. */
const MOST_PAIRS = 1500;

export const turning = defineStep({
  id: 'invert.turning',
  version: 1,
  stage: 'invert',
  purpose: 'Stacks and fluids',
  title: 'Turn a pair',
  summary:
    'Brings intercept and gradient together so that their angle is turned while one looks: the trend of the background is fitted, and correlation with logs is worked out for every angle.',
  formula: 'E(χ) = A·cos χ + B·sin χ; corr(E(χ), log) by χ; background B = s·A, least at χ = arctan s + 90°.',
  avoid: 'Where intercept and gradient are coupled by noise alone: the trend is then that of the noise.',
  source:
    'Extended elastic impedance (2002), Geophysics 67, 63–67; Castagna, Swan & Foster (1998), Geophysics 63, 948–956',
  reach: 'global',
  inputs: {
    ...inputs,
    wells: wellsInput(['directional surveys', 'logs', 'checkshots', 'time-depth relation'], { optional: true }),
  },
  params: z.object({
    angleDeg: number(
      { title: 'Angle', description: 'It begins with; the slider turns it.', unit: '°' },
      { min: -90, max: 90, step: 1, initial: 0 },
    ),
    logs: text(
      { title: 'Logs', description: 'That the turned pair is held against, with commas between.', names: 'logs' },
      'P impedance, shale volume, water saturation',
    ),
    fromMs: number(
      { title: 'From', description: 'Top of what is looked at.', unit: 'ms' },
      { min: 0, max: 20000, step: 4, initial: 300 },
    ),
    toMs: number(
      { title: 'To', description: 'Its base.', unit: 'ms' },
      { min: 0, max: 20000, step: 4, initial: 20000 },
    ),
    highHz: number(
      {
        title: 'Logs up to',
        description: 'Frequencies of logs that are compared; higher ones are taken out.',
        unit: 'Hz',
      },
      { min: 5, max: 120, step: 1, initial: 50 },
    ),
    lowHz: number(
      { title: 'Logs from', description: 'Lower frequencies are taken out too.', unit: 'Hz' },
      { min: 1, max: 40, step: 1, initial: 8 },
    ),
  }),
  outputs: { pair: { kind: 'turned pair', title: 'Turned pair' } },
  async run({ inputs: { intercept, gradient, wells }, around, params: p, store, warn, progress }) {
    if (intercept.domain !== gradient.domain || !sameSamples(intercept, gradient))
      throw new LithagonError(
        'input',
        `${gradient.name} and ${intercept.name} do not lie on the same bins and samples.`,
        {
          object: gradient.name,
          fix: 'Choose two of one fit. Nothing was made.',
        },
      );
    const { first, step, count } = intercept.vertical;
    const range = [p.fromMs, p.toMs].map((ms) => Math.max(0, Math.min(count, Math.round((ms - first) / step))));
    const taken = async (volume: Volume) => {
      const { data } = await spreadTraces(store, volume, 16, 16);
      const out: number[] = [];
      for (let o = 0; o < data.length; o += count) for (let k = range[0]; k < range[1]; k++) out.push(data[o + k]);
      return Float32Array.from(out);
    };
    const [a, b] = [await taken(intercept), await taken(gradient)];
    progress(0.5);
    const background = a.length === b.length ? backgroundOf(a, b) : null;
    if (!background)
      throw new LithagonError(
        'empty',
        `${intercept.name} and ${gradient.name} have too few samples between ${p.fromMs} and ${p.toMs} ms.`,
        {
          object: intercept.name,
          fix: 'Widen the range. Nothing was made.',
        },
      );
    const curves: TurnedPair['curves'] = [];
    for (const well of wells ?? [])
      for (const name of listed(p.logs)) {
        const log = await timedLog(store, around, well, name);
        if (typeof log === 'string') {
          warn(`${log}, so nothing is held against that.`);
          continue;
        }
        const bins = binsAlong(intercept, log.place);
        const positive = /impedance|velocity|density/.test(name);
        const fine = positive ? { ...log, values: log.values.map(Math.log) } : log;
        // the band of the seismic: what is above it and below it is taken out
        const high = { ...fine, values: lowPassed(fine.values, fine.stepMs, p.highHz) };
        const low = lowPassed(fine.values, fine.stepMs, p.lowHz);
        const banded = atSamples({ ...high, values: high.values.map((v, n) => v - low[n]) }, intercept.vertical);
        for (let k = 0; k < count; k++) if (k < range[0] || k >= range[1]) banded[k] = Number.NaN;
        const [own, other] = [await samplesAlong(store, intercept, bins), await samplesAlong(store, gradient, bins)];
        const known = banded.reduce((n, v, k) => (v === v && own[k] === own[k] ? n + 1 : n), 0);
        // as many samples are independent as the band has room for
        const found = angleCurve(own, other, banded, Math.max(4, (2 * known * step * (p.highHz - p.lowHz)) / 1000));
        if (!found) warn(`${well.name} has too little ${name} beside the volumes.`);
        else curves.push({ well: well.name, log: name, ...found });
      }
    const { aa, bb } = momentsOf(a, b);
    const every = Math.ceil(a.length / MOST_PAIRS);
    const pairs: [number, number][] = [];
    for (let n = 0; n < a.length && pairs.length < MOST_PAIRS; n += every) pairs.push([a[n], b[n]]);
    return {
      pair: {
        kind: 'turned pair',
        domain: intercept.domain,
        angleDeg: p.angleDeg,
        background,
        pairs,
        rms: [Math.sqrt(aa), Math.sqrt(bb)],
        curves,
      },
    };
  },
});
