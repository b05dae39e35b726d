import { z } from 'zod';
import { agesOf, LEVELS, type Level } from '../../age/ages.ts';
import { misfitOf, riseDown } from '../../age/monotone.ts';
import { type AgeGiven, type AgeSurface, problemAt, type Thinning } from '../../age/problem.ts';
import { addToRegional, finishRegional, REGIONAL_REACH, regionalSums } from '../../attributes/regional.ts';
import { crosslineAt, inlineAt } from '../../earth/binGrid.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Fault, Horizon, Volume } from '../../earth/objects.ts';
import { type LocalStep, shapeOfGrid } from '../../engine/local.ts';
import { meshOfSticks } from '../../faults/surface.ts';
import { type Shape3, sizeOf } from '../../numerics/block.ts';
import { during } from '../../numerics/stop.ts';
import { onBinsOf } from '../../project/windows.ts';
import { readRegion } from '../../storage/regions.ts';
import type { Store } from '../../storage/store.ts';
import { choice, defineStep, number } from '../define.ts';

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

/** Cells of the dips, samples of a trace beyond which no dip is believed. */
const CELL: Shape3 = [2, 2, 4];
const STEEPEST = 4;
const SLAB = 32;

/** What was solved: ages and misfit on nodes. */
interface Ages {
  ages: Float32Array;
  misfit: Float32Array;
  thin: Thinning;
  nodes: Shape3;
  /** TWT or depth of the first sample, and from one to the next. */
  first: number;
  step: number;
  top: Float32Array | null;
  base: Float32Array | null;
  said: string[];
}

/** Dips of the whole volume, slab by slab. */
async function dipsOf(store: Store, seismic: Volume, signal?: AbortSignal) {
  const shape = shapeOfGrid(seismic);
  const sums = regionalSums(shape, CELL);
  for (let i = 0; i < shape[0]; i += SLAB) {
    stopIf(signal);
    const to = Math.min(shape[0], i + SLAB);
    const data = await readRegion(store, seismic, {
      i: [i - REGIONAL_REACH, to + REGIONAL_REACH],
      j: [0, shape[1]],
      k: [0, shape[2]],
    });
    during(signal, () => addToRegional(sums, data, i, to));
  }
  return finishRegional(sums, [1.2, 1.2, 1.5], STEEPEST);
}

/** Horizons with their ages: the mean of each, which has to rise from one to the next wherever both are. */
async function agedHorizons(store: Store, horizons: Horizon[], seismic: Volume): Promise<AgeSurface[]> {
  const all = [];
  for (const horizon of horizons) {
    const values = await onBinsOf(store, horizon, seismic.binGrid);
    let [sum, count] = [0, 0];
    for (const v of values)
      if (v === v) {
        sum += v;
        count++;
      }
    if (count === 0)
      throw new LithagonError('input', `${horizon.name} holds no bin of ${seismic.name}.`, {
        object: horizon.name,
        fix: 'Leave it out, or choose another volume. Nothing was changed.',
      });
    all.push({ name: horizon.name, values, age: sum / count });
  }
  all.sort((a, b) => a.age - b.age);
  const columns = seismic.binGrid.crossline.count;
  for (const [n, upper] of all.entries())
    for (const lower of all.slice(n + 1)) {
      let [crossed, worst, at] = [0, 0, 0];
      for (let m = 0; m < upper.values.length; m++) {
        const by = upper.values[m] - lower.values[m];
        if (!(by > 0)) continue;
        crossed++;
        if (by > worst) [worst, at] = [by, m];
      }
      if (crossed > 0)
        throw new LithagonError(
          'horizons',
          `${upper.name} lies below ${lower.name} in ${crossed} bins, by ${worst.toFixed(0)} ${seismic.domain === 'depth' ? 'm' : 'ms'} at inline ${inlineAt(seismic.binGrid, Math.floor(at / columns))}, crossline ${crosslineAt(seismic.binGrid, at % columns)}, and above it on the whole: they contradict each other.`,
          { object: upper.name, fix: 'Mend one of them there, or leave it out. Nothing was changed.' },
        );
    }
  return all;
}

/** Ages of the whole volume on nodes. */
async function solve(
  store: Store,
  seismic: Volume,
  given: { horizons: Horizon[]; unconformities: Horizon[]; faults: Fault[]; top?: Horizon; base?: Horizon },
  p: Params,
  signal?: AbortSignal,
): Promise<Ages> {
  for (const each of [...given.horizons, ...given.unconformities, ...given.faults, given.top, given.base])
    if (each && each.domain !== seismic.domain)
      throw new LithagonError('domain', `${each.name} and ${seismic.name} are not in one domain.`, {
        object: each.name,
        fix: 'Convert one of them, or leave it out. Nothing was changed.',
      });
  const { binGrid, vertical } = seismic;
  const shape = shapeOfGrid(seismic);
  const horizons = await agedHorizons(store, given.horizons, seismic);
  const unconformities: AgeSurface[] = [];
  for (const each of given.unconformities) unconformities.push({ values: await onBinsOf(store, each, binGrid) });
  const problem: AgeGiven = {
    binGrid,
    shape,
    first: vertical.first,
    step: vertical.step,
    regional: await dipsOf(store, seismic, signal),
    horizons,
    unconformities,
    faults: given.faults.map((f) => meshOfSticks(f.sticks, 24)),
  };
  const by = COARSER[p.level];
  const thin: Thinning = [p.thinInlines * by, p.thinCrosslines * by, p.thinSamples * by];
  return during(signal, () => {
    const solved = agesOf(problem, thin);
    const finest = problemAt(problem, thin);
    // ms, or m, from a trace to the next
    const each = finest.step / Math.max(thin[0], thin[1]);
    const misfit = misfitOf(solved.ages, finest).map((v) => v * each);
    const moved = riseDown(solved.ages, finest, 0.02 * finest.step);
    const said: string[] = [];
    if (solved.left > 0.01)
      said.push(
        `Ages were not solved to the end: ${(100 * solved.left).toPrecision(2)} % is left over after ${solved.rounds} rounds.`,
      );
    if (moved > 0)
      said.push(
        `${((100 * moved) / solved.ages.length).toPrecision(2)} % of ages had to be moved so that they rise downwards: horizons and dips disagree there.`,
      );
    const { first, step } = vertical;
    return { ages: solved.ages, misfit, thin, nodes: solved.nodes, first, step, top: null, base: null, said };
  });
}

/** A value on nodes at a sample, by straight lines between the eight around it. */
function between(
  values: Float32Array,
  [ni, nj, nk]: Shape3,
  thin: Thinning,
  i: number,
  j: number,
  k0: number,
  out: Float32Array,
  at: number,
  count: number,
): void {
  const place = (n: number, axis: number, nodes: number): [number, number] => {
    const x = n / thin[axis];
    const low = Math.max(0, Math.min(nodes - 2, Math.floor(x)));
    return [low, nodes > 1 ? x - low : 0];
  };
  const [a, fa] = place(i, 0, ni);
  const [b, fb] = place(j, 1, nj);
  const rows = [0, 1, 2, 3].map((n) => ({
    at: (Math.min(ni - 1, a + (n >> 1)) * nj + Math.min(nj - 1, b + (n & 1))) * nk,
    w: (n >> 1 ? fa : 1 - fa) * (n & 1 ? fb : 1 - fb),
  }));
  for (let k = 0; k < count; k++) {
    const [c, fc] = place(k0 + k, 2, nk);
    const next = Math.min(nk - 1, c + 1);
    let sum = 0;
    for (const { at: row, w } of rows) if (w !== 0) sum += w * ((1 - fc) * values[row + c] + fc * values[row + next]);
    out[at + k] = sum;
  }
}

const local: LocalStep<Params, Ages> = {
  volumes: ['seismic'],
  halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
  prepareRestsOn: ['level', 'thinInlines', 'thinCrosslines', 'thinSamples'],
  prepare: async (given, { store, signal, params: p }) => {
    const seismic = given.seismic as Volume;
    const many = (role: string) => [given[role] ?? []].flat();
    const solved = await solve(
      store,
      seismic,
      {
        horizons: many('horizons') as Horizon[],
        unconformities: many('unconformities') as Horizon[],
        faults: many('faults') as Fault[],
        top: given.top as Horizon | undefined,
        base: given.base as Horizon | undefined,
      },
      p,
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
        between(solved.ages, solved.nodes, solved.thin, gi, gj, from[2], out.age, at, nk);
        between(solved.misfit, solved.nodes, solved.thin, gi, gj, from[2], out.misfit, at, nk);
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
  version: 1,
  stage: 'interpret',
  purpose: 'Relative age',
  title: 'Relative age',
  summary:
    'An age for every sample from the dips of the seismic, chosen horizons and faults; unconformities part what is above and below them. Reverse faults repeat ages.',
  formula:
    'Least squares of w·(a(x + 1, t + p/2) − a(x, t − p/2)) along both counts, not across faults; a = aₕ on horizons; aₜₜ small; then made to rise down every trace.',
  avoid: 'Below the depth where reflections can be followed; the misfit says how well ages keep to the dips.',
  source:
    'Wu & Hale (2015), Geophysics 80, IM21–IM33; (2016), Geophysics 81, IM25–IM33; Ayer et al. (1955), Ann. Math. Stat. 26, 641–647',
  reach: 'global',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude', 'impedance'] },
    horizons: { kind: 'horizon', title: 'Horizons', many: true },
    faults: { kind: 'fault', title: 'Faults', many: true, optional: true, begins: true },
    unconformities: { kind: 'horizon', title: 'Unconformities', many: true, optional: true },
    top: { kind: 'horizon', title: 'Not above', optional: true },
    base: { kind: 'horizon', title: 'Not below', optional: true },
  },
  params,
  outputs: {
    age: { kind: 'volume', title: 'Relative age' },
    misfit: { kind: 'volume', title: 'Misfit of age to dips' },
  },
  local,
});
