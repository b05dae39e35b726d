import { z } from 'zod';
import { bandPassGain, type Corners, filterTraces } from '../../conditioning/filter.ts';
import type { InversionOperator, Volume } from '../../earth/objects.ts';
import type { LocalStep } from '../../engine/local.ts';
import { applyOperator } from '../../inversion/operator.ts';
import { defineStep } from '../define.ts';

const params = z.object({});

interface Ready {
  operator: Pick<InversionOperator, 'hz' | 'gain' | 'phaseDeg' | 'band'>;
  count: number;
  step: number;
}

const local: LocalStep<Record<string, never>, Ready['operator'], Ready> = {
  volumes: ['seismic'],
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  prepare: async ({ operator }) => {
    const { hz, gain, phaseDeg, band } = operator as InversionOperator;
    return { hz, gain, phaseDeg, band };
  },
  ready: (operator, _, { seismic }) => ({ operator, count: seismic.vertical.count, step: seismic.vertical.step }),
  outputs: { impedance: { quantity: 'relative impedance', unit: '' } },
  outputOf: ({ quantity, unit, polarity }: Volume, _, __, role) =>
    role === 'residual' ? { quantity, unit, polarity } : {},
  evaluate({ seismic: { data } }, _, { operator, count, step }) {
    const impedance = data.slice();
    applyOperator(impedance, count, step, operator);
    // what the band leaves out of the seismic
    const residual = data.slice();
    filterTraces(residual, count, step, (f) => 1 - bandPassGain(operator.band as Corners, f));
    return { impedance, residual };
  },
};

export const coloured = defineStep({
  id: 'invert.coloured',
  version: 1,
  stage: 'invert',
  purpose: 'Relative impedance',
  title: 'Coloured inversion',
  summary:
    'Applies an operator that was designed and looked at: reflections become layers of relative impedance, with the spectrum that logs have. Of intercept and gradient it makes their impedances.',
  formula: 'z′ = O ∗ d; residual d − B ∗ d: what lies outside the band.',
  avoid: 'As absolute impedance: its low frequencies are missing, and thick layers sag to nothing.',
  source: 'Fast-track coloured inversion (2000), 70th SEG Annual Meeting, 1572–1575',
  reach: 'trace',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude', 'intercept', 'gradient'], domain: 'twt' },
    operator: { kind: 'operator', title: 'Operator', usual: { step: 'invert.operator', output: 'operator' } },
  },
  params,
  outputs: {
    impedance: { kind: 'volume', title: 'Relative impedance' },
    residual: { kind: 'volume', title: 'Outside the band' },
  },
  local,
});
