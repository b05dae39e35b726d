import { z } from 'zod';
import {
  FREQUENCY_GIVES,
  FREQUENCY_METHODS,
  type FrequencySpec,
  frequencyAttribute,
  frequencyReach,
} from '../../attributes/frequency.ts';
import { LithagonError } from '../../earth/errors.ts';
import { type Quantity, SEISMIC_LIKE } from '../../earth/quantities.ts';
import { oneVolume } from '../../engine/local.ts';
import { choice, defineStep, number } from '../define.ts';

const hertz = (title: string, description: string, initial: number) =>
  number({ title, description, unit: 'Hz' }, { min: 1, max: 250, step: 0.5, initial });

/** What says which frequency is looked for, and how. */
export const frequencyParams = {
  gives: choice(
    {
      title: 'Gives',
      description: 'Of one frequency its magnitude or phase; of a band where magnitude peaks, or how high.',
    },
    [...FREQUENCY_GIVES],
    'magnitude',
  ),
  method: choice(
    {
      title: 'Method',
      description:
        'Short windows are the same at all frequencies; wavelets and the S-transform are shorter at high ones, and so part thin beds there.',
    },
    [...FREQUENCY_METHODS],
    'Morlet wavelet',
  ),
  hz: hertz('Frequency', 'That magnitude and phase are of.', 30),
  fromHz: hertz('Band from', 'Lowest frequency of the band that a peak is looked for in.', 8),
  toHz: hertz('Band to', 'Highest frequency of that band.', 80),
  windowMs: number(
    { title: 'Window', description: 'Whole length of short windows.', unit: 'ms' },
    { min: 12, max: 500, step: 4, initial: 100 },
  ),
  cycles: number(
    { title: 'Cycles', description: 'ω₀ of Morlet wavelets: more part frequencies, fewer part beds.' },
    { min: 3, max: 20, step: 0.5, initial: 6 },
  ),
};

const params = z.object(frequencyParams);
type Params = z.infer<typeof params>;

/** Steps of the band that a peak is looked for in. */
const EVERY_HZ = 3;

/** Frequencies that are looked for: one, or those of a band. @param step between samples, ms */
export function frequenciesOf(p: Params, step: number): number[] {
  const nyquist = 500 / step;
  if (p.gives === 'magnitude' || p.gives === 'phase') {
    if (p.hz >= nyquist) throw tooHigh(p.hz, nyquist);
    return [p.hz];
  }
  if (p.toHz <= p.fromHz)
    throw new LithagonError('params', `The band ends at ${p.toHz} Hz and begins at ${p.fromHz} Hz.`, {
      fix: 'Give an end above its beginning.',
    });
  if (p.fromHz >= nyquist) throw tooHigh(p.fromHz, nyquist);
  const top = Math.min(p.toHz, 0.98 * nyquist);
  const count = Math.max(2, Math.round((top - p.fromHz) / EVERY_HZ) + 1);
  return Array.from({ length: count }, (_, n) => p.fromHz + (n * (top - p.fromHz)) / (count - 1));
}

const tooHigh = (hz: number, nyquist: number) =>
  new LithagonError(
    'params',
    `${hz} Hz lies above ${nyquist.toFixed(1)} Hz, the highest frequency that these samples hold.`,
    {
      fix: 'Give a lower frequency.',
    },
  );

export const specOf = ({ method, windowMs, cycles }: Params): FrequencySpec => ({ method, windowMs, cycles });

/** What comes out of it. */
export const frequencyUnit = ({ gives }: Params): { quantity: Quantity; unit: string } =>
  gives === 'phase'
    ? { quantity: 'phase', unit: '°' }
    : gives === 'peak frequency'
      ? { quantity: 'frequency', unit: 'Hz' }
      : { quantity: 'envelope', unit: '' };

export const frequency = defineStep({
  id: 'attributes.frequency',
  version: 1,
  stage: 'attributes',
  purpose: 'Amplitude and frequency',
  title: 'Frequencies',
  summary:
    'What there is of a frequency at every sample: thin beds are bright at the frequency that they are tuned to.',
  formula: 'A(t, f) = |Σ_τ d(τ)·w(τ − t; f)·e^{−2πifτ}|, w a Hann window, or a Gaussian of ω₀/2πf or 1/f.',
  avoid: 'With long windows where beds lie close: their frequencies are those of all of them together.',
  source:
    'Partyka et al. (1999), The Leading Edge 18, 353–360; Sinha et al. (2005), Geophysics 70, P19–P25; Stockwell et al. (1996), IEEE Trans. Signal Processing 44, 998–1001',
  reach: 'local',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: SEISMIC_LIKE, domain: 'twt' },
  },
  params,
  outputs: { frequency: { kind: 'volume', title: 'Frequencies' } },
  local: oneVolume<Params>('seismic', 'frequency', {
    halo(p, { vertical: { step } }) {
      const reach = Math.max(...frequenciesOf(p, step).map((hz) => frequencyReach(specOf(p), hz, step)));
      return { inline: 0, crossline: 0, sample: reach };
    },
    evaluate(block, p) {
      const [mi, mj, mk] = block.size;
      const own = block.halo.sample;
      const made = frequencyAttribute(block.data, mk, block.stepMs, frequenciesOf(p, block.stepMs), specOf(p), p.gives);
      const nk = mk - 2 * own;
      const out = new Float32Array(mi * mj * nk);
      for (let t = 0; t < mi * mj; t++) out.set(made.subarray(t * mk + own, t * mk + own + nk), t * nk);
      return out;
    },
    outputOf: (_, p) => frequencyUnit(p),
  }),
});
