import { z } from 'zod';
import type { Volume, Wavelet, Well } from '../../earth/objects.ts';
import type { Given, LocalStep } from '../../engine/local.ts';
import { impedanceResponse } from '../../inversion/posterior.ts';
import { defineStep, wellsInput } from '../define.ts';
import { checkModel, inversionParams, invertRegion, KNOWN_RESTS_ON, misfitMap, saysOf } from './invertTraces.ts';
import { type Known, knownFor, type Told } from './known.ts';

const params = z.object(inversionParams);
type Params = z.infer<typeof params>;

/** What this inversion was told. */
export function toldOfImpedance(given: Given): Told {
  const model = given.background as Volume;
  checkModel(model);
  return {
    stacks: [{ volume: given.seismic as Volume, wavelet: given.wavelet as Wavelet, angle: 0 }],
    models: [{ volume: model, deviation: given.deviation as Volume | undefined, curve: 'P impedance' }],
    wells: given.wells as Well[],
  };
}

export const respondImpedance = ({ wavelet }: { wavelet: Parameters<typeof impedanceResponse>[0] }) =>
  impedanceResponse(wavelet);

interface Ready {
  known: Known;
  volume: Volume;
}

const local: LocalStep<Params, Known, Ready> = {
  volumes: ['seismic', 'background', 'deviation'],
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  longPrepared: true,
  prepareRestsOn: [...KNOWN_RESTS_ON],
  prepare: (given, { store, signal, params: p }) =>
    knownFor(toldOfImpedance(given), p, respondImpedance, { store, signal }),
  ready: (known, _, { seismic }) => ({ known, volume: seismic }),
  outputs: {
    impedance: { quantity: 'impedance', unit: 'kg/m²s' },
    spread: { quantity: 'spread', unit: '1' },
    synthetic: {},
    residual: {},
  },
  evaluate({ seismic, background, deviation }, p, { known, volume }, region) {
    const made = invertRegion(known, [seismic], [background], deviation, p.deviation, volume, region);
    return {
      impedance: made.values[0],
      spread: made.spreads[0],
      synthetic: made.synthetics[0],
      residual: made.residuals[0],
    };
  },
  says: ({ known }) => saysOf(known),
};

export const impedance = defineStep({
  id: 'invert.impedance',
  version: 1,
  stage: 'invert',
  purpose: 'Absolute impedance',
  title: 'Impedance with its spread',
  summary:
    'The impedance that seismic, a low-frequency model and wells make most likely, and how far it may be off: in closed form, with the noise found from the data. The synthetic and what is left lie beside it.',
  formula: 'ln Z | d: μ + ΣGᵀ(GΣGᵀ + Σₑ)⁻¹(d − Gμ), with covariance Σ − ΣGᵀ(GΣGᵀ + Σₑ)⁻¹GΣ; Σₑ where p(d) is greatest.',
  avoid: 'With a wavelet whose scale is not that of the data: estimate it from tied wells.',
  source:
    'Buland & Omre (2003), Geophysics 68, 185–198; noise by marginal likelihood MacKay (1992), Neural Computation 4, 415–447',
  reach: 'trace',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude', 'intercept'], domain: 'twt' },
    wavelet: { kind: 'wavelet', title: 'Wavelet', usual: { step: 'tie.estimate', output: 'wavelet' } },
    background: {
      kind: 'volume',
      title: 'Low-frequency model',
      quantity: ['impedance'],
      domain: 'twt',
      usual: { step: 'invert.background', output: 'background' },
    },
    deviation: {
      kind: 'volume',
      title: 'Its deviation',
      quantity: ['spread'],
      domain: 'twt',
      optional: true,
      begins: true,
      usual: { step: 'invert.background', output: 'deviation' },
    },
    wells: wellsInput(['directional surveys', 'logs', 'checkshots', 'time-depth relation']),
  },
  params,
  outputs: {
    impedance: { kind: 'volume', title: 'Impedance' },
    spread: { kind: 'volume', title: 'Spread of impedance' },
    synthetic: { kind: 'volume', title: 'Synthetic' },
    residual: { kind: 'volume', title: 'Left of the seismic' },
    misfit: { kind: 'map', title: 'Misfit' },
  },
  local,
  async run(context) {
    const stored = await context.stored();
    const known = (await context.prepared()) as Known;
    const misfit = await misfitMap(
      context.store,
      [stored.residual as unknown as Volume],
      known,
      context.idFor('misfit'),
    );
    return { ...stored, misfit };
  },
});
