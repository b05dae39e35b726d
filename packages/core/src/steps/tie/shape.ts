import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { Wavelet } from '../../earth/objects.ts';
import { wellsBehind } from '../../project/wells/tieWell.ts';
import { averageWavelet, extended, rotate, type WaveletShape } from '../../tie/wavelet.ts';
import { defineStep, number } from '../define.ts';

const shapeOf = (w: Wavelet): WaveletShape => ({
  stepMs: w.stepMs,
  firstMs: w.firstMs,
  samples: Float64Array.from(w.samples),
});

/** Turn a wavelet's phase, give it another length, or take the mean of several. */
export const shape = defineStep({
  id: 'tie.shape',
  purpose: 'Wavelets',
  version: 1,
  stage: 'tie',
  title: 'Turn, extend or average wavelets',
  summary: 'One wavelet turned by a constant phase and brought to a length, or the mean of several at unit energy.',
  formula: 'Phase turned, length changed, or the mean of several in the frequency domain.',
  avoid: 'To average wavelets of opposite polarity: they cancel.',
  source: 'Constant phase rotation by the Hilbert transform, as in Taner et al. (1979), Geophysics 44, 1041–1063',
  reach: 'global',
  inputs: { wavelets: { kind: 'wavelet', title: 'Wavelets', many: true } },
  params: z.object({
    phaseDeg: number(
      { title: 'Turn by', description: 'Constant phase added.', unit: '°' },
      { min: -180, max: 180, step: 1, initial: 0 },
    ),
    lengthMs: number(
      { title: 'Length', description: 'Whole length of the result; 0 keeps the longest.', unit: 'ms' },
      { min: 0, max: 600, step: 4, initial: 0 },
    ),
  }),
  outputs: { wavelet: { kind: 'wavelet', title: 'Wavelet' } },
  async run({ inputs, params: p }) {
    const { wavelets } = inputs;
    if (wavelets.length === 0)
      throw new LithagonError('wavelet', 'No wavelet was chosen.', { fix: 'Choose one, or several to average.' });
    if (new Set(wavelets.map((w) => w.stepMs)).size > 1)
      throw new LithagonError('wavelet', 'Wavelets of different sample intervals cannot be averaged.', {
        fix: 'Choose wavelets of one interval.',
      });
    const one = wavelets.length === 1 ? shapeOf(wavelets[0]) : averageWavelet(wavelets.map(shapeOf));
    const long = p.lengthMs > 0 ? extended(one, p.lengthMs) : one;
    const made = p.phaseDeg === 0 ? long : rotate(long, p.phaseDeg);
    const wells = [...new Set(wavelets.flatMap(wellsBehind))];
    return {
      wavelet: {
        kind: 'wavelet',
        ...(wells.length > 0 ? { wells } : {}),
        stepMs: made.stepMs,
        firstMs: made.firstMs,
        samples: Array.from(made.samples),
        method: wavelets.length > 1 ? 'average' : 'turned',
        phaseDeg: p.phaseDeg + (wavelets.length === 1 ? wavelets[0].phaseDeg : 0),
      },
    };
  },
});
