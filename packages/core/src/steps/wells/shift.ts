import { z } from 'zod';
import { resampled } from '../../wells/edit.ts';
import { number } from '../define.ts';
import { anyCurve, edited, heldValues, wellStep } from './perWell.ts';

export const shift = wellStep({
  id: 'wells.shift',
  purpose: 'Curves',
  title: 'Shift a curve in depth',
  output: 'Shifted logs',
  summary: 'Moves one curve down or up against the others.',
  formula: 'c′(z) = c(z − s).',
  avoid: 'Where the shift changes along the well: shift the parts one by one.',
  source: 'Theys (1999), Log Data Acquisition and Quality Control, 2nd edition: depth matching',
  params: z.object({
    curve: anyCurve,
    byM: number(
      { title: 'By', description: 'Added to the depths of the curve; positive moves it down.', unit: 'm' },
      { min: -50, max: 50, step: 0.1, initial: 0 },
    ),
  }),
  axis: (p) => [p.curve],
  async make(one, p) {
    const { held, values } = await heldValues(one, p.curve);
    const { firstM, stepM, count } = one.axis;
    const moved = resampled({ firstM: firstM + p.byM, stepM, values }, firstM, stepM, count);
    return [edited(held, moved, `moved by ${one.units.text(p.byM, 'm', 2)}`)];
  },
});
