import { z } from 'zod';
import { bridged, despiked } from '../../wells/edit.ts';
import { number } from '../define.ts';
import { anyCurve, edited, heldValues, wellStep } from './perWell.ts';

export const despike = wellStep({
  id: 'wells.despike',
  purpose: 'Curves',
  title: 'Despike a curve',
  output: 'Despiked logs',
  summary: 'Takes out samples far from the running median, and bridges short gaps by straight lines.',
  formula: 'v is a spike where |v − median| > k·1.4826·MAD over the window.',
  avoid: 'On thin hard beds whose thickness is that of the window: they look like spikes.',
  source: 'Hampel (1974), Journal of the American Statistical Association 69, 383–393',
  params: z.object({
    curve: anyCurve,
    windowM: number(
      { title: 'Window', description: 'Height over which the running median is taken.', unit: 'm' },
      { min: 0.5, max: 30, step: 0.5, initial: 3 },
    ),
    deviations: number(
      { title: 'Deviations', description: 'How many scaled median deviations a sample may be away.' },
      { min: 2, max: 12, step: 0.5, initial: 4 },
    ),
    bridgeM: number(
      { title: 'Bridge gaps to', description: 'Longest gap that is closed by a straight line.', unit: 'm' },
      { min: 0, max: 50, step: 0.5, initial: 1.5 },
    ),
  }),
  axis: (p) => [p.curve],
  async make(one, p) {
    const { held, values } = await heldValues(one, p.curve);
    const { stepM } = one.axis;
    const clean = despiked(values, Math.max(2, Math.round(p.windowM / 2 / stepM)), p.deviations);
    const whole = bridged(clean.values, Math.round(p.bridgeM / stepM));
    one.warn(`${clean.spikes} spikes were taken out of ${held.curve.mnemonic}, ${whole.filled} samples bridged.`);
    return [edited(held, whole.values, 'despiked')];
  },
});
