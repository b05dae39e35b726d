import { z } from 'zod';
import { filledBy, regression } from '../../wells/edit.ts';
import { listed, number, text } from '../define.ts';
import { curveChoice, edited, heldValues, Left, wellStep } from './perWell.ts';

export const fill = wellStep({
  id: 'wells.fill',
  purpose: 'Curves',
  title: 'Fill a curve from others',
  output: 'Filled logs',
  summary: 'Fits a curve by others of the same well and fills its gaps, with the spread of the fit.',
  formula: 'c = β₀ + Σ βᵢ·xᵢ by least squares where both are there; the misfit is told.',
  avoid: 'Over gaps longer than the part that it learnt from, or in rock that it has not seen.',
  source: 'Least squares, as in Draper & Smith (1998), Applied Regression Analysis, 3rd edition',
  params: z.object({
    curve: curveChoice({ title: 'Curve', description: 'The curve whose gaps are filled.' }, 'density'),
    from: text({ title: 'From', description: 'The curves that it is fitted by.', names: 'curves' }, 'sonic, gamma ray'),
    leastR2: number(
      {
        title: 'Minimum fit',
        description: 'Part of the variance that the fit must explain; below it nothing is filled.',
      },
      { min: 0, max: 1, step: 0.05, initial: 0.4 },
    ),
  }),
  axis: (p) => [p.curve],
  async make(one, p) {
    const { held, values } = await heldValues(one, p.curve);
    const names = listed(p.from);
    const others = await Promise.all(names.map((n) => one.need(n)));
    const fit = regression(values, others);
    if (!fit)
      throw new Left(`${one.well.name} has too few depths at which ${p.curve}, ${names.join(', ')} are all known`);
    if (fit.r2 < p.leastR2)
      throw new Left(
        `In ${one.well.name} ${names.join(' and ')} explain only ${(100 * fit.r2).toFixed(0)} % of ${p.curve}`,
      );
    const whole = filledBy(values, others, fit);
    one.warn(
      `${whole.filled} samples of ${held.curve.mnemonic} were filled; the fit explains ${(100 * fit.r2).toFixed(0)} % and leaves ${fit.spread.toPrecision(3)} ${held.curve.unit} rms.`,
    );
    return [edited(held, whole.values, `filled from ${names.join(', ')}`)];
  },
});
