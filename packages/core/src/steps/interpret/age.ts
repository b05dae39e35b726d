import { z } from 'zod';
import { LEVELS, type Level } from '../../age/ages.ts';
import { betweenNodes } from '../../age/between.ts';
import type { Fault, FaultThrow, Horizon, Volume } from '../../earth/objects.ts';
import type { LocalStep } from '../../engine/local.ts';
import { sizeOf } from '../../numerics/block.ts';
import { onBinsOf } from '../../project/windows.ts';
import { choice, defineStep, number } from '../define.ts';
import { type Ages, solveFor } from './ageSolve.ts';

const params = z.object({
  level: choice(
    {
      title: 'Level',
      description: 'Each is a finer level of one solve: low for a first look, full at the thinning below.',
    },
    [...LEVELS],
    'medium',
  ),
  thinInlines: number(
    { title: 'Every so many inlines', description: 'Nodes of the full level; between them ages are interpolated.' },
    { min: 1, max: 8, whole: true, initial: 2 },
  ),
  thinCrosslines: number(
    { title: 'Every so many crosslines', description: 'The same along crosslines.' },
    { min: 1, max: 8, whole: true, initial: 2 },
  ),
  thinSamples: number(
    { title: 'Every so many samples', description: 'The same down traces.' },
    { min: 1, max: 8, whole: true, initial: 2 },
  ),
  from: number(
    { title: 'From', description: 'Ages above this TWT or depth are left out; not used where a top is given.' },
    { min: -1000, max: 20000, step: 4, initial: -1000 },
  ),
  to: number(
    { title: 'To', description: 'Ages below this TWT or depth are left out; not used where a base is given.' },
    { min: -1000, max: 20000, step: 4, initial: 20000 },
  ),
});

type Params = z.infer<typeof params>;

/** How much coarser than the full level the others are. */
const COARSER: Record<Level, number> = { low: 4, medium: 2, full: 1 };

/** What regions need: what was solved, and the limits. */
interface Ready extends Ages {
  top: Float32Array | null;
  base: Float32Array | null;
}

const local: LocalStep<Params, Ready> = {
  volumes: ['seismic'],
  halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
  prepareRestsOn: ['level', 'thinInlines', 'thinCrosslines', 'thinSamples'],
  prepare: async (given, { store, signal, params: p }) => {
    const seismic = given.seismic as Volume;
    const many = (role: string) => [given[role] ?? []].flat();
    const by = COARSER[p.level];
    const solved = await solveFor(
      store,
      {
        seismic,
        horizons: many('horizons') as Horizon[],
        unconformities: many('unconformities') as Horizon[],
        faults: many('faults') as Fault[],
        throws: many('throws') as FaultThrow[],
        before: given.before as Volume | undefined,
        beneath: given.beneath as Horizon | undefined,
      },
      [p.thinInlines * by, p.thinCrosslines * by, p.thinSamples * by],
      [given.top as Horizon | undefined, given.base as Horizon | undefined],
      signal,
    );
    const bound = async (surface: unknown) =>
      surface ? await onBinsOf(store, surface as Horizon, seismic.binGrid) : null;
    return { ...solved, top: await bound(given.top), base: await bound(given.base) };
  },
  says: (ready) => ready.said,
  evaluate({ seismic: { from, shape } }, p, solved, region) {
    const [ni, nj, nk] = sizeOf(region);
    const out = { age: new Float32Array(ni * nj * nk), misfit: new Float32Array(ni * nj * nk) };
    const columns = shape[1];
    for (let i = 0; i < ni; i++)
      for (let j = 0; j < nj; j++) {
        const at = (i * nj + j) * nk;
        const [gi, gj] = [from[0] + i, from[1] + j];
        betweenNodes(solved.ages, solved.parted, gi, gj, from[2], out.age, at, nk);
        betweenNodes(solved.misfit, solved.parted, gi, gj, from[2], out.misfit, at, nk);
        const top = solved.top ? solved.top[gi * columns + gj] : p.from;
        const base = solved.base ? solved.base[gi * columns + gj] : p.to;
        for (let k = 0; k < nk; k++) {
          const level = solved.first + (from[2] + k) * solved.step;
          if (level >= top && level <= base) continue;
          out.age[at + k] = Number.NaN;
          out.misfit[at + k] = Number.NaN;
        }
      }
    return out;
  },
  outputs: {
    age: { quantity: 'relative age', unit: '' },
    misfit: { quantity: 'attribute', unit: 'ms' },
  },
};

export const age = defineStep({
  id: 'interpret.age',
  version: 2,
  stage: 'interpret',
  purpose: 'Relative age',
  title: 'Relative age',
  summary:
    'An age for every sample from the dips of the seismic, chosen horizons and faults; unconformities part what is above and below them. Reverse faults repeat ages. Throws tie the two sides of a fault; ages so far may stay down to a surface.',
  formula:
    'Least squares of w·(a(x + 1, t + p/2) − a(x, t − p/2)) along both counts, not across faults, but a(foot, t − T/2) = a(hanging, t + T/2) where a throw T is given; a = aₕ on horizons; aₜₜ small; then made to rise down every trace.',
  avoid: 'Below the depth where reflections can be followed; the misfit says how well ages keep to the dips.',
  source:
    'Wu & Hale (2015), Geophysics 80, IM21–IM33; (2016), Geophysics 81, IM25–IM33; Ayer et al. (1955), Ann. Math. Stat. 26, 641–647',
  reach: 'global',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude', 'impedance'] },
    horizons: { kind: 'horizon', title: 'Horizons', many: true },
    faults: { kind: 'fault', title: 'Faults', many: true, optional: true, begins: true },
    unconformities: { kind: 'horizon', title: 'Unconformities', many: true, optional: true, begins: false },
    throws: { kind: 'fault throw', title: 'Throws', many: true, optional: true, begins: false },
    top: { kind: 'horizon', title: 'Not above', optional: true },
    base: { kind: 'horizon', title: 'Not below', optional: true },
    before: { kind: 'volume', title: 'Ages so far', quantity: ['relative age'], optional: true },
    beneath: { kind: 'horizon', title: 'Solve again below', optional: true },
  },
  params,
  outputs: {
    age: { kind: 'volume', title: 'Relative age' },
    misfit: { kind: 'volume', title: 'Misfit of age to dips' },
  },
  local,
});
