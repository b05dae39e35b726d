import { z } from 'zod';
import type { Volume } from '../../earth/objects.ts';
import type { Quantity } from '../../earth/quantities.ts';
import type { LocalStep } from '../../engine/local.ts';
import { aligned, shiftsOf } from '../../inversion/align.ts';
import { sizeOf } from '../../numerics/block.ts';
import { anglesOf, stacksOf } from '../../project/stacks.ts';
import { defineStep, eachRole, number } from '../define.ts';
import { balanceTable } from './balance.ts';

const params = z.object({
  windowMs: number(
    {
      title: 'Window',
      description: 'Height over which stacks are matched; shifts change from one to the next.',
      unit: 'ms',
    },
    { min: 60, max: 2000, step: 20, initial: 240 },
  ),
  mostMs: number(
    { title: 'Largest shift', description: 'Nothing is moved further either way.', unit: 'ms' },
    { min: 0.5, max: 20, step: 0.5, initial: 6 },
  ),
  radius: number(
    { title: 'Traces around', description: 'To each side, that are matched together.', unit: 'bins' },
    { min: 0, max: 12, whole: true, initial: 5 },
  ),
});
type Params = z.infer<typeof params>;

interface Ready {
  /** Roles of the stacks by rising angle, with their ids; the first is the reference. */
  stacks: { role: string; id: string }[];
  angles: Map<string, Volume['angles']>;
}

/** Stacks of what a local step of many is given, by rising angle, refused where they are no set. */
export function readyStacks(volumes: Record<string, Volume>, least: number) {
  const own = Object.entries(volumes).filter(([role]) => role.startsWith('stacks/'));
  const order = stacksOf(
    own.map(([, v]) => v),
    least,
  );
  return order.map(({ volume, angle }) => ({
    role: own.find(([, v]) => v === volume)?.[0] as string,
    id: volume.id,
    volume,
    angle,
  }));
}

/** The input of stacks, which begins with the set that names and headers tell. */
export const stacksInput: {
  kind: 'volume';
  title: string;
  many: true;
  quantity: Quantity[];
  domain: 'twt';
  stacks: true;
} = { kind: 'volume', title: 'Stacks', many: true, quantity: ['amplitude'], domain: 'twt', stacks: true };

const local: LocalStep<Params, undefined, Ready> = {
  volumes: ['stacks'],
  heeds: true,
  halo: (p) => ({ inline: p.radius, crossline: p.radius, sample: Number.POSITIVE_INFINITY }),
  roles: ({ stacks }) => (stacks as Volume[]).map((v) => eachRole('aligned', v.id)),
  ready: (_, __, volumes) => {
    const stacks = readyStacks(volumes, 2);
    return {
      stacks: stacks.map(({ role, id }) => ({ role, id })),
      angles: new Map(
        stacks.map(({ id, volume }) => {
          const { middle, from, to } = anglesOf(volume) as NonNullable<ReturnType<typeof anglesOf>>;
          return [id, { middle, ...(from === undefined ? {} : { from, to }) }];
        }),
      ),
    };
  },
  outputOf: (_, __, ready, role) => ({ angles: role ? ready?.angles.get(role.split('/')[1]) : undefined }),
  evaluate(blocks, p, { stacks }, region) {
    const [ni, nj, nk] = sizeOf(region);
    const [{ role: first }] = stacks;
    const { stepMs } = blocks[first];
    const spec = { window: Math.round(p.windowMs / stepMs), most: p.mostMs / stepMs, radius: p.radius };
    const out: Record<string, Float32Array> = {};
    for (const [n, { role, id }] of stacks.entries()) {
      const other = blocks[role];
      if (n === 0) {
        const own = new Float32Array(ni * nj * nk);
        for (let t = 0; t < ni * nj; t++) {
          const from = ((Math.floor(t / nj) + p.radius) * other.size[1] + (t % nj) + p.radius) * nk;
          own.set(other.data.subarray(from, from + nk), t * nk);
        }
        out[eachRole('aligned', id)] = own;
        continue;
      }
      const { nodes, shifts } = shiftsOf(blocks[first], other, spec);
      out[eachRole('aligned', id)] = aligned(other, p.radius, nodes, shifts);
    }
    return out;
  },
};

export const align = defineStep({
  id: 'invert.align',
  version: 1,
  stage: 'invert',
  purpose: 'Stacks and fluids',
  title: 'Align stacks',
  summary:
    'Measures the time shifts that are left between angle stacks and takes them out, so that amplitudes at one time are of one bed; the stack of the smallest angle stays.',
  formula: 'd′(t) = d(t + τ), τ where Σ d₀(t)·d(t + τ) over a window is greatest.',
  avoid: 'Where polarity changes with angle: the match then takes the next event.',
  source: 'Yilmaz (2001), Seismic Data Analysis, SEG, ch. 3 and 11; cross-correlation over windows',
  reach: 'local',
  inputs: { stacks: stacksInput },
  params,
  outputs: {
    aligned: { kind: 'volume', title: 'Aligned', each: 'stacks' },
    table: { kind: 'result table', title: 'Stacks before and after' },
  },
  local,
  async run(context) {
    const stored = await context.stored();
    const stacks = stacksOf(context.inputs.stacks, 2);
    const after = stacks.map(({ volume, angle }) => ({
      volume: { ...volume, ...stored[eachRole('aligned', volume.id)] } as Volume,
      angle,
    }));
    return { ...stored, table: await balanceTable(context.store, stacks, after, context.params) };
  },
});
