import { z } from 'zod';
import { toMap } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, Volume } from '../../earth/objects.ts';
import type { Given, LocalStep } from '../../engine/local.ts';
import { averageWeights, smoothNoise, whiteTrace } from '../../inversion/realizations.ts';
import { between, conditioner, meanIn } from '../../inversion/traceInversion.ts';
import { carried } from '../../inversion/wellError.ts';
import { sizeOf } from '../../numerics/block.ts';
import { extentOf } from '../../numerics/extent.ts';
import { shapeOf } from '../../storage/planes.ts';
import { readRegion } from '../../storage/regions.ts';
import type { Store } from '../../storage/store.ts';
import { defineStep, eachRole, number } from '../define.ts';
import { respondImpedance, toldOfImpedance } from './impedance.ts';
import type { inversionParams } from './invertTraces.ts';
import { type Known, knownFor } from './known.ts';
import { respondAtAngle, toldOfPrestack } from './prestack.ts';

/** Most realizations of a run. */
const MOST = 100;
const SLAB = 24;

const params = z.object({
  count: number(
    { title: 'How many', description: 'Draws, each as good as another.' },
    { min: 1, max: MOST, whole: true, initial: 20 },
  ),
  seed: number(
    { title: 'Seed', description: 'Another gives other draws.' },
    { min: 1, max: 9999, whole: true, initial: 1 },
  ),
  fromMs: number(
    { title: 'From', description: 'Top of what is kept of each.', unit: 'ms' },
    { min: 0, max: 20000, step: 4, initial: 0 },
  ),
  toMs: number(
    { title: 'To', description: 'Its base; beyond the last sample keeps all.', unit: 'ms' },
    { min: 0, max: 20000, step: 4, initial: 20000 },
  ),
});
type Params = z.infer<typeof params>;

interface Prepared {
  known: Known;
  /** Which of the unknowns is drawn. */
  kind: number;
  /** How unsure the model is at each bin. */
  background: Float32Array;
}

interface Ready extends Prepared {
  of: Volume;
  along: Float64Array;
  across: Float64Array;
  /** What each draw has where the wells are, `[realization][well]`. */
  atWells: Float64Array[][];
  /** First sample that is kept, and samples. */
  first: number;
  samples: number;
}

const KINDS = ['vp', 'vs', 'density'];

/** What an inversion was made from, read back from its trail. */
async function givenOf(store: Store, volume: Volume): Promise<Given> {
  const given: Given = {};
  for (const [role, references] of Object.entries(volume.madeBy.inputs)) {
    if (role.includes('.')) continue;
    const objects: EarthObject[] = [];
    for (const reference of references) {
      const object = await store.get(reference.split('@')[0]);
      if (!object)
        throw new LithagonError('input', `What ${volume.name} was inverted from is not in the project any more.`, {
          object: volume.name,
          fix: 'Undo the removal, or invert again. Nothing was changed.',
        });
      objects.push(object);
    }
    given[role] = role === 'wells' || role === 'stacks' || role === 'wavelets' ? objects : objects[0];
  }
  return given;
}

async function prepareDraws(
  given: Given,
  { store, signal }: { store: Store; signal?: AbortSignal },
): Promise<Prepared> {
  const of = given.of as Volume;
  const { step, params: p, output } = of.madeBy;
  const kind = step === 'invert.impedance' ? 0 : KINDS.indexOf(output ?? '');
  if (!((step === 'invert.impedance' && output === 'impedance') || (step === 'invert.prestack' && kind >= 0)))
    throw new LithagonError('input', `${of.name} is no inversion with a spread, so nothing can be drawn from it.`, {
      object: of.name,
      fix: 'Choose what “Impedance with its spread” or “Velocities and density from stacks” has made. Nothing was changed.',
    });
  const own = await givenOf(store, of);
  const [told, respond] =
    step === 'invert.impedance' ? [toldOfImpedance(own), respondImpedance] : [toldOfPrestack(own), respondAtAngle];
  const settings = p as { [K in keyof typeof inversionParams]: never };
  const known = await knownFor(told, settings, respond, { store, signal, factors: true });
  const [ni, nj, nk] = shapeOf(of);
  const background = new Float32Array(ni * nj).fill((p.deviation as number) ?? 0);
  const { deviation } = told.models[0];
  if (deviation)
    for (let i = 0; i < ni; i += SLAB) {
      const to = Math.min(ni, i + SLAB);
      const data = await readRegion(store, deviation, { i: [i, to], j: [0, nj], k: [0, nk] });
      for (let t = 0; t < (to - i) * nj; t++) background[i * nj + t] = meanIn(data, known.k0, known.count, t * nk);
    }
  return { known, kind, background };
}

/** What independent draws of a trace come to: the rows of a factor that are wanted. */
function drawn(
  factor: Float32Array,
  unknowns: number,
  from: number,
  rows: number,
  noise: ArrayLike<number>,
  at: number,
  scale: number,
  out: Float64Array,
): void {
  for (let r = 0; r < rows; r++) {
    const u = from + r;
    const o = u * unknowns;
    let [a, b] = [0, 0];
    let k = 0;
    for (; k + 1 <= u; k += 2) {
      a += factor[o + k] * noise[at + k];
      b += factor[o + k + 1] * noise[at + k + 1];
    }
    if (k === u) a += factor[o + k] * noise[at + k];
    out[r] += scale * (a + b);
  }
}

const local: LocalStep<Params, Prepared, Ready> = {
  volumes: ['of'],
  // noise is made for many traces around each: for a few it costs as much as for many
  heeds: true,
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  roles: (_, p) => Array.from({ length: p.count }, (_, n) => eachRole('realization', String(n + 1))),
  longPrepared: true,
  prepareRestsOn: [],
  prepare: prepareDraws,
  ready: (prepared, p, { of }) => {
    const { known } = prepared;
    const { binGrid, vertical } = of;
    const weights = (bin: [number, number]) => averageWeights(known.rangeM / Math.hypot(...bin));
    const [along, across] = [weights(binGrid.perInline), weights(binGrid.perCrossline)];
    const index = (ms: number) => Math.round((ms - vertical.first) / vertical.step);
    const first = Math.max(known.k0, Math.min(known.k0 + known.count - 1, index(p.fromMs)));
    const samples = Math.max(1, Math.min(known.k0 + known.count, index(p.toMs) + 1) - first);
    const unknowns = known.kinds * known.count;
    const [rows, columns] = [binGrid.inline.count, binGrid.crossline.count];
    const white = new Float64Array(unknowns);
    const atWells = Array.from({ length: p.count }, (_, r) =>
      known.wells.map((well, w) => {
        const [low, high] = [0, 1].map((axis) => extentOf(well.bins.map((bin) => bin[axis])));
        const noise = smoothNoise(p.seed, r, [low[0], low[1] + 1], [high[0], high[1] + 1], unknowns, along, across);
        const draws = new Map<number, Float64Array>();
        const drawAt = ([i, j]: [number, number]) => {
          const trace = (i - low[0]) * (high[1] - high[0] + 1) + j - high[0];
          let own = draws.get(trace);
          if (!own) {
            own = new Float64Array(unknowns);
            const [ci, cj] = [i, j].map((v, axis) => Math.max(0, Math.min(axis === 0 ? rows - 1 : columns - 1, v)));
            addDraw(known, prepared.background[ci * columns + cj], noise, trace * unknowns, 0, own);
            draws.set(trace, own);
          }
          return own;
        };
        // logs are off by an error of their own, which each draw has anew
        whiteTrace(p.seed, r, -1 - w, -1 - w, white);
        const drawn = Float64Array.from(
          well.logged,
          (u) => drawAt(well.bins[u % known.count])[u] + known.logError * white[u],
        );
        return carried(well, drawn);
      }),
    );
    return { ...prepared, of, along, across, atWells, first, samples };
  },
  grid: ({ binGrid, domain, vertical }, _, { first, samples }) => ({
    binGrid,
    domain,
    vertical: { first: vertical.first + first * vertical.step, step: vertical.step, count: samples },
  }),
  outputOf: ({ quantity, unit }) => ({ quantity, unit }),
  evaluate({ of: block }, p, ready, region) {
    const { known, kind, along, across, atWells, first, samples, of, background } = ready;
    const { count, wells } = known;
    const [ni, nj] = sizeOf(region);
    const nk = of.vertical.count;
    const columns = of.binGrid.crossline.count;
    const around = wells.length > 0 ? conditioner(wells, known.rangeM) : null;
    const lead = first - known.k0;
    // a sample of a draw rests on the noise above it alone
    const needed = kind * count + lead + samples;
    const draw = new Float64Array(samples);
    const out: Record<string, Float32Array> = {};
    for (let r = 0; r < p.count; r++) {
      const values = new Float32Array(ni * nj * samples);
      const noise = smoothNoise(p.seed, r, region.i, region.j, needed, along, across);
      const own = (n: number) => atWells[r][n];
      for (let t = 0; t < ni * nj; t++) {
        const [i, j] = [region.i[0] + Math.floor(t / nj), region.j[0] + (t % nj)];
        draw.fill(0);
        addDraw(known, background[i * columns + j], noise, t * needed, kind * count + lead, draw);
        if (around) around.to(toMap(of.binGrid, i, j));
        for (let k = 0; k < samples; k++) {
          const beside = around ? around.sum(own, kind * count + lead + k) : 0;
          values[t * samples + k] = block.data[t * nk + first + k] * Math.exp(draw[k] - beside);
        }
      }
      out[eachRole('realization', String(r + 1))] = values;
    }
    return out;
  },
};

/** Adds a draw of the posterior at a place whose model is so unsure: as many unknowns as there is room for, from one on. */
function addDraw(
  known: Known,
  background: number,
  noise: ArrayLike<number>,
  at: number,
  from: number,
  out: Float64Array,
): void {
  const { levels, count, kinds } = known;
  const [n, f] = between(levels, background);
  const scales: [number, number][] =
    f > 0
      ? [
          [n, 1 - f],
          [n + 1, f],
        ]
      : [[n, 1]];
  for (const [level, scale] of scales)
    drawn(levels[level].factor as Float32Array, kinds * count, from, out.length, noise, at, scale, out);
}

export const realizations = defineStep({
  id: 'invert.realizations',
  version: 1,
  stage: 'invert',
  purpose: 'Absolute impedance',
  title: 'Draw realizations',
  summary:
    'Draws from what an inversion leaves open: each agrees with seismic, model and wells as well as the next, and looks like rock instead of its mean. They are paged through like a film.',
  formula:
    'ln Zᵣ = μ + L·wᵣ, LLᵀ the posterior covariance, wᵣ white down the trace and Gaussian of the range sideways; at wells the logs.',
  avoid: 'One of them as an answer: what they share is known, what differs is not.',
  source:
    'Buland & Omre (2003), Geophysics 68, 185–198; moving averages Le Ravalec et al. (2000), Mathematical Geology 32, 701–723',
  reach: 'trace',
  inputs: {
    of: {
      kind: 'volume',
      title: 'Inversion',
      quantity: ['impedance', 'interval velocity', 'S velocity', 'density'],
      domain: 'twt',
      usual: { step: 'invert.impedance', output: 'impedance' },
    },
  },
  params,
  outputs: { realization: { kind: 'volume', title: 'Realization', several: MOST } },
  local,
});
