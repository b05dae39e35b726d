import { z } from 'zod';
import { agc as agcTraces, balance as balanceTraces, timeGain as timeGainTraces } from '../../conditioning/gain.ts';
import { number } from '../define.ts';
import { traceStep } from './traceStep.ts';

const SOURCE = 'Yilmaz (2001), Seismic Data Analysis, SEG, ch. 1';

export const agc = traceStep({
  id: 'data.agc',
  purpose: 'Amplitudes',
  title: 'Automatic gain',
  summary:
    'Divides each sample by the rms of a window around it. Amplitudes are no measure of reflection strength after it.',
  formula: 'd′(t) = d(t) / rms of d over the window about t.',
  avoid: 'Before anything that reads amplitudes: inversion, fluids, maps of amplitude. For looking and tracking only.',
  source: SOURCE,
  params: z.object({
    windowMs: number(
      { title: 'Window', description: 'Height of the window: shorter evens out more.', unit: 'ms' },
      { min: 20, max: 4000, step: 20, initial: 500 },
    ),
  }),
  apply: (data, p, { count, step, rms }) => {
    agcTraces(data, count, Math.max(1, Math.round(p.windowMs / step / 2)));
    // the level of the volume stays, so that colours do
    for (let n = 0; n < data.length; n++) data[n] *= rms;
  },
});

export const timeGain = traceStep({
  id: 'data.timeGain',
  purpose: 'Amplitudes',
  title: 'Gain with time',
  summary: 'Raises late samples by a power of time and by decibels a second, the same on every trace.',
  formula: 'd′(t) = d(t)·(t/t₀)ᵖ·10^(g(t − t₀)/20).',
  avoid: 'Where gain was recovered in processing already: it is applied twice.',
  source: SOURCE,
  params: z.object({
    power: number(
      { title: 'Power', description: 'Samples are multiplied by time to this power.' },
      { min: -4, max: 4, step: 0.1, initial: 1 },
    ),
    dbPerSecond: number(
      { title: 'Decibels a second', description: 'Gain beside the power of time.', unit: 'dB/s' },
      { min: -30, max: 30, step: 0.5, initial: 0 },
    ),
    referenceMs: number(
      { title: 'Reference', description: 'Time (or depth, m) at which nothing changes.', unit: 'ms' },
      { min: 1, max: 20000, step: 10, initial: 1000 },
    ),
  }),
  apply: (data, p, { count, first, step }) =>
    timeGainTraces(data, count, first, step, p.referenceMs, p.power, p.dbPerSecond),
});

export const balance = traceStep({
  id: 'data.balance',
  purpose: 'Amplitudes',
  title: 'Trace balancing',
  summary: 'Brings every trace to the rms of the volume within a window.',
  formula: 'd′ = d·(r̄ / r), r the rms of the trace in the window, r̄ that of the volume.',
  avoid: 'Where lateral change of strength is what is looked for: bright spots are dimmed.',
  source: SOURCE,
  params: z.object({
    fromMs: number(
      { title: 'From', description: 'Top of the window that is measured (m in depth).', unit: 'ms' },
      { min: 0, max: 20000, step: 4, initial: 0 },
    ),
    toMs: number(
      { title: 'To', description: 'Base of the window; beyond the last sample takes in all.', unit: 'ms' },
      { min: 0, max: 20000, step: 4, initial: 20000 },
    ),
  }),
  apply: (data, p, { count, first, step, rms }) => {
    const index = (ms: number) => Math.min(count, Math.max(0, Math.round((ms - first) / step)));
    balanceTraces(data, count, index(p.fromMs), Math.max(index(p.fromMs), index(p.toMs)), rms);
  },
});

export const scale = traceStep({
  id: 'data.scale',
  purpose: 'Amplitudes',
  title: 'Scale',
  summary: 'Multiplies every sample and adds a constant.',
  formula: 'd′ = a·d + b.',
  avoid: 'With a shift on amplitudes: they no longer swing about nought.',
  source: SOURCE,
  quantity: null,
  params: z.object({
    factor: number(
      { title: 'Factor', description: 'What samples are multiplied by.' },
      { min: -1e6, max: 1e6, step: 0.1, initial: 1 },
    ),
    shift: number({ title: 'Added', description: 'What is added after that.' }, { min: -1e9, max: 1e9, initial: 0 }),
  }),
  apply: (data, p) => {
    for (let n = 0; n < data.length; n++) data[n] = data[n] * p.factor + p.shift;
  },
});

export const flip = traceStep({
  id: 'data.flip',
  purpose: 'Amplitudes',
  title: 'Polarity flip',
  summary: 'Turns the sign of every sample round, and with it the polarity that was declared.',
  formula: 'd′ = −d; the declared polarity turns with it.',
  avoid: 'Where polarity is only declared wrongly: change the declaration, not the samples.',
  source: SOURCE,
  output: 'Flipped',
  params: z.object({}),
  apply: (data) => {
    for (let n = 0; n < data.length; n++) data[n] = -data[n];
  },
  polarity: (before) =>
    before === undefined ? undefined : before === 'harder-positive' ? 'harder-negative' : 'harder-positive',
});
