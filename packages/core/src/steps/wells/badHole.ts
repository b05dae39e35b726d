import { z } from 'zod';
import { washouts } from '../../wells/edit.ts';
import { quantile } from '../../wells/petrophysics.ts';
import { number } from '../define.ts';
import { wellStep } from './perWell.ts';

export const badHole = wellStep({
  id: 'wells.badHole',
  purpose: 'Curves',
  title: 'Flag washouts',
  output: 'Bad-hole flag',
  summary: 'Marks where caliper or density correction say that the density cannot be trusted.',
  formula: 'Washed out where caliper − bit > limit, or the density correction is large.',
  avoid:
    'Where all of the hole is washed out and no bit size is typed: the caliper’s tenth percentile stands for the bit.',
  source: 'Theys (1999), Log Data Acquisition and Quality Control, 2nd edition',
  params: z.object({
    bitIn: number(
      { title: 'Bit', description: 'Size of the bit; 0 takes the caliper’s own 10th percentile.', unit: 'in' },
      { min: 0, max: 36, step: 0.125, initial: 0 },
    ),
    openIn: number(
      { title: 'Open by', description: 'How much wider than the bit the hole may be.', unit: 'in' },
      { min: 0.1, max: 10, step: 0.1, initial: 1 },
    ),
    correction: number(
      { title: 'Density correction', description: 'Greatest correction that is trusted.', unit: 'kg/m³' },
      { min: 10, max: 500, step: 5, initial: 100 },
    ),
  }),
  axis: () => ['caliper', 'density correction'],
  async make(one, p) {
    const [caliper, correction] = [await one.get('caliper'), await one.get('density correction')];
    const bit = p.bitIn > 0 ? p.bitIn * 0.0254 : caliper ? quantile(caliper, 0.1) : 0;
    const values = washouts(caliper, correction, bit, p.openIn * 0.0254, p.correction);
    one.warn(
      `${((100 * values.filter((v) => v === 1).length) / values.length).toFixed(1)} % of the hole is bad (bit ${(bit / 0.0254).toFixed(2)} in).`,
    );
    return [
      { mnemonic: 'BADHOLE', class: 'bad hole', unit: '1', description: '1 where the hole is washed out', values },
    ];
  },
});
