import { z } from 'zod';
import { TRACE_ATTRIBUTES, type TraceAttribute, traceAttribute } from '../../attributes/complexTrace.ts';
import { SEISMIC_LIKE } from '../../earth/quantities.ts';
import { oneVolume } from '../../engine/local.ts';
import { choice, defineStep, number } from '../define.ts';

const params = z.object({
  kind: choice(
    {
      title: 'Attribute',
      description:
        'Of the complex trace (envelope to quadrature), the running sum of the trace, or a statistic of a window of it.',
    },
    [...TRACE_ATTRIBUTES],
    'envelope',
  ),
  windowMs: number(
    {
      title: 'Window',
      description:
        'Height over which frequency and statistics are taken, and the mean that relative impedance is freed of.',
      unit: 'ms',
    },
    { min: 4, max: 500, step: 4, initial: 40 },
  ),
});

const QUANTITY: Partial<Record<TraceAttribute, 'envelope' | 'phase' | 'frequency' | 'amplitude'>> = {
  envelope: 'envelope',
  rms: 'envelope',
  'mean of absolutes': 'envelope',
  phase: 'phase',
  frequency: 'frequency',
  quadrature: 'amplitude',
};

export const trace = defineStep({
  id: 'attributes.trace',
  version: 1,
  stage: 'attributes',
  purpose: 'Amplitude and frequency',
  title: 'Trace attributes',
  summary: 'Envelope, phase, frequency and the like of every trace, or statistics of a window that slides along it.',
  formula: 'z(t) = d(t) + i·H(d)(t): envelope |z|, phase arg z, frequency the rate of phase, sweetness |z|/√f.',
  avoid: 'As measures of rock by themselves: noise and tuning change them as much.',
  source:
    'Taner, Koehler & Sheriff (1979), Geophysics 44, 1041–1063; sweetness Hart (2008), The Leading Edge 27, 22–29',
  reach: 'trace',
  inputs: { seismic: { kind: 'volume', title: 'Seismic', quantity: SEISMIC_LIKE } },
  params,
  outputs: { attribute: { kind: 'volume', title: 'Attribute' } },
  local: oneVolume<z.infer<typeof params>>('seismic', 'attribute', {
    halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
    evaluate: (block, p) =>
      traceAttribute(
        block.data,
        block.size[2],
        block.stepMs,
        p.kind,
        Math.max(1, Math.round(p.windowMs / block.stepMs / 2)),
      ),
    outputOf: (volume, p) => {
      const quantity = QUANTITY[p.kind] ?? 'attribute';
      const unit = p.kind === 'phase' ? '°' : p.kind === 'frequency' ? (volume.domain === 'depth' ? '1/km' : 'Hz') : '';
      return { quantity, unit, ...(p.kind === 'quadrature' ? { polarity: volume.polarity } : {}) };
    },
  }),
});
