import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { Volume, Wavelet, Well } from '../../earth/objects.ts';
import type { Given, LocalStep } from '../../engine/local.ts';
import { angleResponse } from '../../inversion/posterior.ts';
import { stacksOf, waveletsOf } from '../../project/stacks.ts';
import { defineStep, wellsInput } from '../define.ts';
import { stacksInput } from './align.ts';
import { checkModel, inversionParams, invertRegion, KNOWN_RESTS_ON, misfitMap, saysOf } from './invertTraces.ts';
import { type Known, knownFor, type Respond, type Told } from './known.ts';

const params = z.object(inversionParams);
type Params = z.infer<typeof params>;

/** What this inversion was told: stacks by rising angle, each with the wavelet of its angle. */
export function toldOfPrestack(given: Given): Told {
  const stacks = stacksOf(given.stacks as Volume[], 3);
  const wavelets = waveletsOf(stacks, given.wavelets as Wavelet[]);
  for (const [n, wavelet] of wavelets.entries())
    if (!wavelet)
      throw new LithagonError('wavelet', `No wavelet of ${stacks[n].angle}° is there for ${stacks[n].volume.name}.`, {
        object: stacks[n].volume.name,
        fix: 'Estimate one from tied wells at that angle. Nothing was changed.',
      });
  const models = (
    [
      ['vp', 'P velocity'],
      ['vs', 'S velocity'],
      ['density', 'density'],
    ] as const
  ).map(([role, curve]) => ({
    volume: given[role] as Volume,
    deviation: given.deviation as Volume | undefined,
    curve,
  }));
  for (const m of models) checkModel(m.volume);
  return {
    stacks: stacks.map((s, n) => ({ ...s, wavelet: wavelets[n] as Wavelet })),
    models,
    wells: given.wells as Well[],
  };
}

export const respondAtAngle: Respond = ({ wavelet, angle }, ratio) => angleResponse(wavelet, angle, ratio);

interface Ready {
  known: Known;
  /** Roles of the stacks by rising angle. */
  roles: string[];
  volume: Volume;
}

const local: LocalStep<Params, Known, Ready> = {
  volumes: ['stacks', 'vp', 'vs', 'density', 'deviation'],
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  longPrepared: true,
  prepareRestsOn: [...KNOWN_RESTS_ON],
  prepare: (given, { store, signal, params: p }) =>
    knownFor(toldOfPrestack(given), p, respondAtAngle, { store, signal }),
  ready: (known, _, volumes) => {
    const own = Object.entries(volumes).filter(([role]) => role.startsWith('stacks/'));
    const order = stacksOf(
      own.map(([, v]) => v),
      3,
    );
    return {
      known,
      volume: volumes['stacks/0'],
      roles: order.map((s) => own.find(([, v]) => v === s.volume)?.[0] as string),
    };
  },
  outputs: {
    vp: { quantity: 'interval velocity', unit: 'm/s' },
    vs: { quantity: 'S velocity', unit: 'm/s' },
    density: { quantity: 'density', unit: 'kg/m3' },
    vpSpread: { quantity: 'spread', unit: '1' },
    vsSpread: { quantity: 'spread', unit: '1' },
    densitySpread: { quantity: 'spread', unit: '1' },
    residual: {},
  },
  evaluate(blocks, p, { known, roles, volume }, region) {
    const made = invertRegion(
      known,
      roles.map((role) => blocks[role]),
      [blocks.vp, blocks.vs, blocks.density],
      blocks.deviation,
      p.deviation,
      volume,
      region,
    );
    const [vp, vs, density] = made.values;
    const [vpSpread, vsSpread, densitySpread] = made.spreads;
    // of all stacks together: the root of the mean square
    const residual = made.residuals[0].map((_, n) =>
      Math.sqrt(made.residuals.reduce((s, r, q) => s + (r[n] / known.noise.all[q]) ** 2, 0) / made.residuals.length),
    );
    return { vp, vs, density, vpSpread, vsSpread, densitySpread, residual };
  },
  says: ({ known }) => saysOf(known),
};

export const prestack = defineStep({
  id: 'invert.prestack',
  version: 1,
  stage: 'invert',
  purpose: 'Absolute impedance',
  title: 'Velocities and density from stacks',
  summary:
    'P velocity, S velocity and density that angle stacks, models of all three and wells make most likely together, each with its spread.',
  formula: 'r(θ) = ½(1 + tan²θ)·Δln α − 4γ²sin²θ·Δln β + ½(1 − 4γ²sin²θ)·Δln ρ, and as for impedance.',
  avoid: 'For density from angles below 30°: its spread tells that it comes from the wells.',
  source: 'Buland & Omre (2003), Geophysics 68, 185–198; Aki & Richards (2002), Quantitative Seismology, 148',
  reach: 'trace',
  inputs: {
    stacks: stacksInput,
    wavelets: { kind: 'wavelet', title: 'Wavelets', many: true },
    vp: { kind: 'volume', title: 'Model of P velocity', quantity: ['interval velocity'], domain: 'twt' },
    vs: { kind: 'volume', title: 'Model of S velocity', quantity: ['S velocity'], domain: 'twt' },
    density: { kind: 'volume', title: 'Model of density', quantity: ['density'], domain: 'twt' },
    deviation: { kind: 'volume', title: 'Deviation of the first', quantity: ['spread'], domain: 'twt', optional: true },
    wells: wellsInput(['directional surveys', 'logs', 'checkshots', 'time-depth relation']),
  },
  params,
  outputs: {
    vp: { kind: 'volume', title: 'P velocity' },
    vs: { kind: 'volume', title: 'S velocity' },
    density: { kind: 'volume', title: 'Density' },
    vpSpread: { kind: 'volume', title: 'Spread of P velocity' },
    vsSpread: { kind: 'volume', title: 'Spread of S velocity' },
    densitySpread: { kind: 'volume', title: 'Spread of density' },
    residual: { kind: 'volume', title: 'Left of the stacks' },
    misfit: { kind: 'map', title: 'Misfit' },
  },
  local,
  async run(context) {
    const stored = await context.stored();
    const known = (await context.prepared()) as Known;
    // it is a part of the noise already
    const unit = { ...known, noise: { ...known.noise, all: [1] } };
    return {
      ...stored,
      misfit: await misfitMap(context.store, [stored.residual as unknown as Volume], unit, context.idFor('misfit')),
    };
  },
});
