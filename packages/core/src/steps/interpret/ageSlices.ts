import { z } from 'zod';
import { passesOf } from '../../age/slices.ts';
import { toIndex } from '../../earth/binGrid.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Volume } from '../../earth/objects.ts';
import { shapeOfGrid } from '../../engine/local.ts';
import { extentOf } from '../../numerics/extent.ts';
import { writeWhole } from '../../storage/arrays.ts';
import { readRegion } from '../../storage/regions.ts';
import type { Store } from '../../storage/store.ts';
import { choice, type Draft, defineStep, eachRole, number, placeParams } from '../define.ts';

/** Most slices of a run. */
const MOST = 60;
const SLAB = 32;

const params = z.object({
  take: choice(
    { title: 'Take', description: 'So many slices at even ages, or the one through a place.' },
    ['evenly', 'through a place'],
    'evenly',
  ),
  count: number(
    { title: 'How many', description: 'Slices between the two ages, both included.' },
    { min: 1, max: MOST, whole: true, initial: 9 },
  ),
  from: number(
    {
      title: 'From age',
      description: 'Youngest; where it is not below the oldest, the whole range is taken.',
      among: 'age',
    },
    { min: -1e6, max: 1e6, step: 1, initial: 0 },
  ),
  to: number({ title: 'To age', description: 'Oldest.', among: 'age' }, { min: -1e6, max: 1e6, step: 1, initial: 0 }),
  repeat: choice(
    {
      title: 'Where beds repeat',
      description: 'Which of several places of one age is taken, above and below a reverse fault.',
    },
    ['the upper', 'the lower'],
    'the upper',
  ),
  ...placeParams({ take: 'through a place' }),
});

type Params = z.infer<typeof params>;

/** The age at a place, between samples. */
async function ageAt(store: Store, volume: Volume, p: Params): Promise<number> {
  const [i, j] = toIndex(volume.binGrid, p.x, p.y).map(Math.round);
  const k = (p.at - volume.vertical.first) / volume.vertical.step;
  const [ni, nj, nk] = shapeOfGrid(volume);
  const low = Math.floor(k);
  const inside = i >= 0 && j >= 0 && i < ni && j < nj && low >= 0 && low + 1 < nk;
  const [a, b] = inside
    ? await readRegion(store, volume, { i: [i, i + 1], j: [j, j + 1], k: [low, low + 2] })
    : [Number.NaN, Number.NaN];
  const age = a + (k - low) * (b - a);
  if (Number.isNaN(age))
    throw new LithagonError('empty', `${volume.name} has no age at the place.`, {
      object: volume.name,
      fix: 'Choose a place inside it. Nothing was changed.',
    });
  return age;
}

/** Ages of the slices that are asked for. */
async function wantedAges(store: Store, volume: Volume, p: Params): Promise<number[]> {
  if (p.take === 'through a place') return [await ageAt(store, volume, p)];
  const { min, max } = volume.statistics;
  const [from, to] = p.from < p.to ? [p.from, p.to] : [min, max];
  if (p.count === 1) return [(from + to) / 2];
  // the two ends of the whole lie on its sides
  const [a, b] = p.from < p.to ? [0, p.count - 1] : [-0.5, p.count - 0.5];
  return Array.from({ length: p.count }, (_, n) => from + ((to - from) * (n - a)) / (b - a));
}

export const ageSlices = defineStep({
  id: 'interpret.ageSlices',
  version: 1,
  stage: 'interpret',
  purpose: 'Relative age',
  title: 'Age slices',
  summary: 'Horizons of one age each out of a volume of ages: any number at even ages, or the one through a place.',
  formula: 'z where a(x, y, z) = aₙ.',
  avoid: 'Where the misfit of ages to dips is high.',
  source: 'Wu & Hale (2015), Geophysics 80, IM21–IM33; stratal slices Zeng et al. (1998), Geophysics 63, 502–513',
  reach: 'global',
  inputs: { age: { kind: 'volume', title: 'Relative age', quantity: ['relative age'] } },
  params,
  outputs: { slice: { kind: 'horizon', title: 'Age slice', several: MOST } },
  async run({ inputs: { age: volume }, params: p, store, idFor, signal, progress }) {
    const ages = await wantedAges(store, volume, p);
    const [ni, nj, nk] = shapeOfGrid(volume);
    const { first, step } = volume.vertical;
    const slices = ages.map(() => new Float32Array(ni * nj).fill(Number.NaN));
    for (let i = 0; i < ni; i += SLAB) {
      stopIf(signal);
      const to = Math.min(ni, i + SLAB);
      const data = await readRegion(store, volume, { i: [i, to], j: [0, nj], k: [0, nk] });
      for (let t = 0; t < (to - i) * nj; t++)
        for (const [n, age] of ages.entries()) {
          const passes = passesOf(data, t * nk, nk, age);
          const at = p.repeat === 'the upper' ? passes[0] : passes[passes.length - 1];
          if (at !== undefined) slices[n][i * nj + t] = first + at * step;
        }
      progress(to / ni);
    }
    const out: Record<string, Draft> = {};
    for (const [n, values] of slices.entries()) {
      const [low, high] = extentOf(values);
      const filled = values.reduce((count, v) => (Number.isNaN(v) ? count : count + 1), 0);
      if (filled === 0) continue;
      const role = eachRole('slice', String(n + 1));
      out[role] = {
        kind: 'horizon',
        domain: volume.domain,
        binGrid: volume.binGrid,
        values: await writeWhole(store, `${idFor(role)}/values`, [ni, nj], values, ['inline', 'crossline']),
        range: [low, high],
        filled: filled / values.length,
      };
    }
    if (Object.keys(out).length === 0)
      throw new LithagonError('empty', `No sample of ${volume.name} is of the ages asked for.`, {
        object: volume.name,
        fix: `Ages run from ${volume.statistics.min.toFixed(0)} to ${volume.statistics.max.toFixed(0)}. Nothing was changed.`,
      });
    return out;
  },
});
