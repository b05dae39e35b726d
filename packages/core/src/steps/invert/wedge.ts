import { z } from 'zod';
import type { Corners } from '../../conditioning/filter.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { InversionOperator, Wavelet } from '../../earth/objects.ts';
import { type Wedge, wedgeOfReflections } from '../../inversion/wedge.ts';
import { wedgeOfBand } from '../../project/netPay.ts';
import { defineStep, number } from '../define.ts';

const impedance = (title: string, initial: number) =>
  number({ title, description: 'Impedance.', unit: 'kg/m²s' }, { min: 1e5, max: 3e7, step: 1e4, initial });

const params = z.object({
  mostM: number(
    { title: 'Thickest', description: 'Bed of the wedge.', unit: 'm' },
    { min: 1, max: 1000, step: 1, initial: 80 },
  ),
  stepM: number(
    { title: 'Step', description: 'From one thickness to the next.', unit: 'm' },
    { min: 0.1, max: 50, step: 0.1, initial: 1 },
  ),
  velocity: number(
    { title: 'Velocity', description: 'Of the bed.', unit: 'm/s' },
    { min: 300, max: 8000, step: 10, initial: 2500 },
  ),
  above: impedance('Above', 5.5e6),
  bed: impedance('Bed', 4.8e6),
  below: impedance('Below', 5.5e6),
});
export type WedgeParams = z.infer<typeof params>;

/** The wedge of a wavelet and three rocks, or of the band of an operator, as a step has it. */
export function wedgeFor(of: { wavelet?: Wavelet; operator?: InversionOperator }, p: WedgeParams): Wedge {
  const count = Math.max(1, Math.round(p.mostM / p.stepM));
  const thick = Array.from({ length: count }, (_, n) => (2000 * (n + 1) * p.stepM) / p.velocity);
  if (of.wavelet) {
    const { stepMs, firstMs, samples } = of.wavelet;
    const [top, base] = [(p.bed - p.above) / (p.bed + p.above), (p.below - p.bed) / (p.below + p.bed)];
    if (top === 0 && base === 0)
      throw new LithagonError('params', 'The three rocks have one impedance, so nothing is reflected.', {
        fix: 'Change one of them.',
      });
    return wedgeOfReflections({ stepMs, firstMs, samples: Float64Array.from(samples) }, top, base || -top, thick);
  }
  if (of.operator) return wedgeOfBand(of.operator.band as Corners, Math.ceil(thick[thick.length - 1]));
  throw new LithagonError('input', 'A wedge needs a wavelet, or an operator for relative impedance.', {
    fix: 'Choose one of them. Nothing was made.',
  });
}

export const wedge = defineStep({
  id: 'invert.wedge',
  version: 1,
  stage: 'invert',
  purpose: 'Thin beds',
  title: 'Wedge',
  summary:
    'How a bed that thins is seen through a wavelet, or through the band of relative impedance: its amplitude and apparent thickness by its true one, and the thickness at which it is tuned.',
  formula: 's(t) = r₁·w(t + T/2) + r₂·w(t − T/2); of relative impedance the band’s response to a block.',
  avoid: 'For beds whose neighbours are thin too: their reflections meet as well.',
  source: 'Widess (1973), Geophysics 38, 1176–1180; Kallweit & Wood (1982), Geophysics 47, 1035–1046',
  reach: 'global',
  inputs: {
    wavelet: { kind: 'wavelet', title: 'Wavelet', optional: true, begins: true },
    operator: { kind: 'operator', title: 'Or operator', optional: true },
  },
  params,
  outputs: { table: { kind: 'result table', title: 'Wedge' } },
  async run({ inputs, params: p, warn }) {
    const made = wedgeFor(inputs, p);
    let tuned = 0;
    for (let n = 1; n < made.greatest.length; n++) if (made.greatest[n] > made.greatest[tuned]) tuned = n;
    const metres = (ms: number) => (ms * p.velocity) / 2000;
    warn(`Tuned at ${metres(made.thicknessMs[tuned]).toFixed(1)} m (${made.thicknessMs[tuned].toFixed(1)} ms).`);
    return {
      table: {
        kind: 'result table',
        columns: [
          { name: 'Thickness', unit: 'm' },
          { name: 'Thickness in time', unit: 'ms' },
          { name: 'Apparent thickness', unit: 'ms' },
          { name: 'Greatest amplitude', unit: '' },
          { name: 'Mean amplitude', unit: '' },
        ],
        rows: made.thicknessMs.map((t, n) => [metres(t), t, made.apparentMs[n], made.greatest[n], made.average[n]]),
      },
    };
  },
});
