import { z } from 'zod';
import { bandPassGain, type Corners, filterTraces, whiten as whitenTraces } from '../../conditioning/filter.ts';
import { LithagonError } from '../../earth/errors.ts';
import { number } from '../define.ts';
import { traceStep } from './traceStep.ts';

const corner = (title: string, description: string, initial: number) =>
  number({ title, description, unit: 'Hz' }, { min: 0, max: 500, step: 0.5, initial });

const corners = {
  lowCutHz: corner('Low cut', 'Below it nothing passes.', 4),
  lowPassHz: corner('Low pass', 'From it on everything passes; between the two a cosine ramp.', 8),
  highPassHz: corner('High pass', 'Up to it everything passes.', 60),
  highCutHz: corner('High cut', 'Above it nothing passes.', 80),
};

type CornerParams = Record<keyof typeof corners, number>;

function cornersOf(p: CornerParams): Corners {
  const list: Corners = [p.lowCutHz, p.lowPassHz, p.highPassHz, p.highCutHz];
  for (let n = 1; n < 4; n++)
    if (list[n] < list[n - 1])
      throw new LithagonError('params', `The corners ${list.join(', ')} Hz do not rise.`, {
        fix: 'Give low cut, low pass, high pass and high cut in rising order.',
      });
  return list;
}

export const bandPass = traceStep({
  id: 'data.bandPass',
  purpose: 'Frequencies',
  title: 'Band-pass',
  summary: 'Keeps the frequencies between four corners, without shifting phase.',
  formula: 'D′(f) = D(f)·H(f), H cosine-shaped between the four corners, phase zero.',
  avoid: 'Before amplitudes are compared with wells, unless the wells are filtered alike; narrow bands ring.',
  source: 'Yilmaz (2001), Seismic Data Analysis, SEG, ch. 1',
  params: z.object(corners),
  apply: (data, p, { count, step }) => {
    const list = cornersOf(p);
    filterTraces(data, count, step, (hz) => bandPassGain(list, hz));
  },
  response: (p, hz) => bandPassGain([p.lowCutHz, p.lowPassHz, p.highPassHz, p.highCutHz], hz),
});

export const phase = traceStep({
  id: 'data.phase',
  purpose: 'Frequencies',
  title: 'Phase rotation',
  summary: 'Turns the phase of every frequency by the same angle.',
  formula: 'D′(f) = D(f)·e^{iφ}: d′ = d·cos φ − H(d)·sin φ, H the Hilbert transform.',
  avoid: 'Where phase changes with frequency or time: one angle cannot mend it.',
  source: 'Yilmaz (2001), Seismic Data Analysis, SEG, ch. 1',
  params: z.object({
    phaseDeg: number(
      { title: 'Phase', description: 'Added to every frequency; 180 turns the sign round.', unit: '°' },
      { min: -180, max: 180, step: 1, initial: 90 },
    ),
  }),
  apply: (data, p, { count, step }) => filterTraces(data, count, step, () => 1, p.phaseDeg),
});

export const whiten = traceStep({
  id: 'data.whiten',
  purpose: 'Frequencies',
  title: 'Spectral whitening',
  summary: 'Brings the frequencies of a band to one level, within bounds, so that weak ones are seen.',
  formula: 'D′(f) = D(f)·min(g, Ā/A(f)), A the smoothed amplitude spectrum, within the band.',
  avoid: 'Where signal is below noise: noise is raised as much.',
  source: 'Yilmaz (2001), Seismic Data Analysis, SEG, ch. 2',
  params: z.object({
    ...corners,
    smoothHz: number(
      { title: 'Smoothing', description: 'Width over which the spectrum is smoothed: wider changes less.', unit: 'Hz' },
      { min: 1, max: 40, step: 1, initial: 8 },
    ),
    mostDb: number(
      { title: 'Maximum change', description: 'How far a frequency is raised or lowered.', unit: 'dB' },
      { min: 1, max: 40, step: 1, initial: 12 },
    ),
  }),
  apply: (data, p, { count, step }) => whitenTraces(data, count, step, cornersOf(p), p.smoothHz, p.mostDb),
});
