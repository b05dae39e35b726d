import { z } from 'zod';
import { quantile } from '../../wells/petrophysics.ts';
import { choice, number } from '../define.ts';
import { curveChoice, edited, heldValues, Left, wellStep } from './perWell.ts';

export const rescale = wellStep({
  id: 'wells.rescale',
  purpose: 'Curves',
  title: 'Rescale a curve',
  output: 'Rescaled logs',
  summary: 'Brings a curve to others: by a factor and a constant, or by two percentiles that all wells are to share.',
  formula: 'c′ = a·c + b; by percentiles, a and b bring two of them to those of all wells.',
  avoid: 'Where wells truly differ, as across a facies change: the difference is taken away.',
  source: 'Two-point normalisation of logs, as in Shier (2004), Petrophysics 45, 268–280',
  params: z.object({
    curve: curveChoice({ title: 'Curve', description: 'The class of curve that is rescaled.' }, 'gamma ray'),
    by: choice(
      { title: 'By', description: 'A factor and a constant, or percentiles.' },
      ['factor and constant', 'percentiles'],
      'percentiles',
    ),
    factor: number(
      { title: 'Factor', description: 'Multiplies each value.' },
      { min: -100, max: 100, step: 0.01, initial: 1 },
    ),
    constant: number(
      { title: 'Constant', description: 'Added after the factor, in the unit that the curve is kept in.' },
      { min: -1e4, max: 1e4, step: 1, initial: 0 },
    ),
    low: number(
      { title: 'Value at 5 %', description: 'What the 5th percentile of each well becomes.' },
      { min: -1e4, max: 1e4, step: 1, initial: 30 },
    ),
    high: number(
      { title: 'Value at 95 %', description: 'What the 95th percentile of each well becomes.' },
      { min: -1e4, max: 1e4, step: 1, initial: 110 },
    ),
  }),
  axis: (p) => [p.curve],
  async make(one, p) {
    const { held, values } = await heldValues(one, p.curve);
    let [factor, constant] = [p.factor, p.constant];
    if (p.by === 'percentiles') {
      const [a, b] = [quantile(values, 0.05), quantile(values, 0.95)];
      if (!(b > a)) throw new Left(`The ${p.curve} of ${one.well.name} is the same everywhere`);
      factor = (p.high - p.low) / (b - a);
      constant = p.low - factor * a;
      one.warn(
        `${held.curve.mnemonic} was multiplied by ${factor.toPrecision(4)} and ${constant.toPrecision(4)} added.`,
      );
    }
    return [
      edited(
        held,
        values.map((v) => factor * v + constant),
        'rescaled',
      ),
    ];
  },
});
