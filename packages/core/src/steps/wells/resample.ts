import { z } from 'zod';
import { resampled } from '../../wells/edit.ts';
import { number } from '../define.ts';
import { anyCurve, edited, heldValues, Left, wellStep } from './perWell.ts';

export const resample = wellStep({
  id: 'wells.resample',
  purpose: 'Curves',
  title: 'Resample a curve',
  output: 'Resampled logs',
  summary: 'Brings a curve to another step: means where it gets coarser, straight lines where finer.',
  formula: 'c′ at even steps: means over a coarser step, straight lines between at a finer.',
  avoid: 'To a finer step before thin beds are counted: none are gained.',
  source: 'Crochiere & Rabiner (1983), Multirate Digital Signal Processing: averaged before it is thinned',
  params: z.object({
    curve: anyCurve,
    stepM: number(
      { title: 'Step', description: 'Distance between samples.', unit: 'm' },
      { min: 0.02, max: 5, step: 0.01, initial: 0.5 },
    ),
  }),
  axis: (p) => [p.curve],
  async make(one, p) {
    const { held, values } = await heldValues(one, p.curve);
    const { firstM, stepM, count } = one.axis;
    const first = Math.ceil(firstM / p.stepM) * p.stepM;
    const axis = {
      firstM: first,
      stepM: p.stepM,
      count: Math.floor((firstM + stepM * (count - 1) - first) / p.stepM) + 1,
    };
    if (axis.count < 2) throw new Left(`The ${p.curve} of ${one.well.name} is shorter than two steps`);
    const to = resampled({ firstM, stepM, values }, axis.firstM, axis.stepM, axis.count);
    return { axis, curves: [edited(held, to, `every ${one.units.text(p.stepM, 'm', 2)}`)] };
  },
});
