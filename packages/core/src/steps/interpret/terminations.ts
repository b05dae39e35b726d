import { z } from 'zod';
import { gatherJumps, jumpsOf, LAPS, lapOf, nearestJump } from '../../age/terminations.ts';
import { latticeTrace, type Regional } from '../../attributes/regional.ts';
import type { Volume } from '../../earth/objects.ts';
import { type LocalStep, shapeOfGrid } from '../../engine/local.ts';
import { sizeOf } from '../../numerics/block.ts';
import { extentOf } from '../../numerics/extent.ts';
import { during } from '../../numerics/stop.ts';
import { writeWhole } from '../../storage/arrays.ts';
import { type Draft, defineStep, eachRole, number } from '../define.ts';
import { bySlabs, regionalDips } from './regionalDips.ts';

/** Traces to each side over which a surface’s own slope is measured, and samples by which it may move from one to the other. */
const SLOPE = 3;
const MOVES = 8;
/** Most surfaces of a run. */
const MOST = 12;

const params = z.object({
  gap: number(
    {
      title: 'Ages jump by',
      description: 'Rise of age from a sample to the next that makes a surface: a hiatus, or beds drawn together.',
    },
    { min: 1, max: 1000, step: 1, initial: 12 },
  ),
  within: number(
    { title: 'Looked for within', description: 'Height above and below a surface; ms, or m in depth.' },
    { min: 4, max: 400, step: 4, initial: 40 },
  ),
  least: number(
    {
      title: 'Least angle',
      description: 'Between bed and surface, below which they go along; ms, or m in depth, from a trace to the next.',
    },
    { min: 0.05, max: 10, step: 0.05, initial: 0.4 },
  ),
  steep: number(
    { title: 'Cut from', description: 'Angle from which beds that end below a surface are cut by it: truncation.' },
    { min: 0.05, max: 20, step: 0.05, initial: 0.8 },
  ),
  smallest: number(
    { title: 'Smallest surface', description: 'Part of the bins that a proposed surface covers at least.' },
    { min: 0.01, max: 1, step: 0.01, initial: 0.2 },
  ),
});

type Params = z.infer<typeof params>;

interface Ready {
  dips: Regional;
  /** ms or m from a sample to the next. */
  step: number;
}

const local: LocalStep<Params, Regional, Ready> = {
  volumes: ['seismic', 'age'],
  prepareRestsOn: [],
  prepare: ({ seismic }, { store, signal }) => regionalDips(store, seismic as Volume, signal),
  ready: (dips, _, { seismic }) => ({ dips, step: seismic.vertical.step }),
  halo: () => ({ inline: SLOPE, crossline: SLOPE, sample: Number.POSITIVE_INFINITY }),
  outputs: { laps: { quantity: 'class', unit: '', classes: [...LAPS] }, angle: { quantity: 'attribute', unit: 'ms' } },
  evaluate({ age: { data, size, from, halo } }, p, { dips, step }, region) {
    const [ni, nj, nk] = sizeOf(region);
    const [, mj, down] = size;
    const out = {
      laps: new Float32Array(ni * nj * nk).fill(Number.NaN),
      angle: new Float32Array(ni * nj * nk).fill(Number.NaN),
    };
    const jumps: number[][] = [];
    for (let t = 0; t < size[0] * mj; t++) jumps.push(jumpsOf(data, t * down, down, p.gap));
    const [bp, bq] = [new Float32Array(down), new Float32Array(down)];
    const reach = Math.max(1, Math.round(p.within / step));
    for (let i = 0; i < ni; i++)
      for (let j = 0; j < nj; j++) {
        const t = (i + halo.inline) * mj + j + halo.crossline;
        if (jumps[t].length === 0) continue;
        latticeTrace(dips.p, dips, from[0] + i, from[1] + j, 0, bp);
        latticeTrace(dips.q, dips, from[0] + i, from[1] + j, 0, bq);
        for (const k of jumps[t]) {
          const slope = (stride: number) => {
            const [a, b] = [
              nearestJump(jumps[t - SLOPE * stride], k, MOVES),
              nearestJump(jumps[t + SLOPE * stride], k, MOVES),
            ];
            if (a === a && b === b) return (b - a) / (2 * SLOPE);
            return b === b ? (b - k) / SLOPE : (k - a) / SLOPE;
          };
          const surface: [number, number] = [slope(mj) * step, slope(1) * step];
          if (Number.isNaN(surface[0] + surface[1])) continue;
          for (let m = Math.max(region.k[0], Math.ceil(k - reach)); m < Math.min(region.k[1], k + reach); m++) {
            const bed: [number, number] = [bp[m] * step, bq[m] * step];
            const n = (i * nj + j) * nk + m - region.k[0];
            out.angle[n] = Math.hypot(bed[0] - surface[0], bed[1] - surface[1]);
            const lap = lapOf(bed, surface, m < k, p.least, p.steep);
            if (lap > 0) out.laps[n] = lap;
          }
        }
      }
    return out;
  },
};

export const terminations = defineStep({
  id: 'interpret.terminations',
  version: 1,
  stage: 'interpret',
  purpose: 'Relative age',
  title: 'How beds end',
  summary:
    'Onlap, downlap, toplap and truncation where ages jump, by the angle between the beds and the surface; the surfaces themselves are proposed as horizons, to be kept in the stratigraphic column or deleted.',
  formula:
    'Classes by |b − s| and by which way the bed meets the surface; b, s what bed and surface drop from trace to trace.',
  avoid: 'In shelves that fill evenly nothing ends: there only thickness by age tells.',
  source: 'Mitchum, Vail & Thompson (1977), AAPG Memoir 26, 117–133',
  reach: 'local',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude', 'impedance'] },
    age: {
      kind: 'volume',
      title: 'Relative age',
      quantity: ['relative age'],
      usual: { step: 'interpret.age', output: 'age' },
    },
  },
  params,
  outputs: {
    laps: { kind: 'volume', title: 'How beds end' },
    angle: { kind: 'volume', title: 'Angle to the surface' },
    boundary: { kind: 'horizon', title: 'Proposed boundary', several: MOST },
  },
  local,
  async run(context) {
    const { inputs, params: p, store, signal, idFor, warn } = context;
    const made = await context.stored();
    const { age } = inputs;
    const [ni, nj, nk] = shapeOfGrid(age);
    const jumps: number[][] = [];
    await bySlabs(store, age, 0, signal, (data, from, to) => {
      for (let t = 0; t < (to - from) * nj; t++) jumps.push(jumpsOf(data, t * nk, nk, p.gap));
    });
    const found = during(signal, () => gatherJumps(jumps, ni, nj, 3, Math.max(1, Math.round(p.smallest * ni * nj))));
    if (found.length === 0) warn('Nowhere do ages jump over an area large enough for a surface.');
    const out: Record<string, Draft> = { ...made };
    for (const [n, { at, bins }] of found.slice(0, MOST).entries()) {
      const role = eachRole('boundary', String(n + 1));
      const values = at.map((k) => age.vertical.first + k * age.vertical.step);
      const [low, high] = extentOf(values);
      out[role] = {
        kind: 'horizon',
        domain: age.domain,
        binGrid: age.binGrid,
        values: await writeWhole(store, `${idFor(role)}/values`, [ni, nj], values, ['inline', 'crossline']),
        range: [low, high],
        filled: bins / values.length,
      };
    }
    return out;
  },
});
