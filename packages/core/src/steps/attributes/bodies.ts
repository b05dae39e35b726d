import { z } from 'zod';
import { type BodyFacts, bodiesOf, factsOfBodies, type Runs, runsCollector } from '../../attributes/bodies.ts';
import { toIndex, toMap } from '../../earth/binGrid.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Horizon, ResultTable, Volume } from '../../earth/objects.ts';
import { during } from '../../numerics/stop.ts';
import { onBinsOf } from '../../project/windows.ts';
import { shapeOf } from '../../storage/planes.ts';
import { readRegion } from '../../storage/regions.ts';
import type { Store } from '../../storage/store.ts';
import { choice, type Draft, defineStep, number } from '../define.ts';
import { keptMap } from '../mapStep.ts';

const params = z.object({
  from: number(
    { title: 'Values from', description: 'Lowest value that belongs to a body, in the unit of the volume.' },
    { min: -1e9, max: 1e9, step: 1, initial: 0 },
  ),
  to: number(
    { title: 'Values to', description: 'Highest value that does.' },
    { min: -1e9, max: 1e9, step: 1, initial: 1e9 },
  ),
  connected: choice(
    { title: 'Connected', description: 'Through faces of samples, or through their edges and corners too.' },
    ['through faces', 'through corners too'],
    'through faces',
  ),
  smallest: number(
    { title: 'Smallest', description: 'Bodies of fewer samples are left out.', unit: 'samples' },
    { min: 1, max: 1e7, step: 10, whole: true, initial: 100 },
  ),
  most: number(
    { title: 'At most', description: 'So many of the largest are kept.' },
    { min: 1, max: 10000, whole: true, initial: 200 },
  ),
  seed: choice(
    { title: 'Take', description: 'All bodies, or the one that holds the place given below.' },
    ['all', 'the one at a place'],
    'all',
  ),
  x: number(
    { title: 'X of the place', description: 'Map coordinate.', unit: 'm' },
    { min: -1e8, max: 1e8, step: 1, initial: 0 },
  ),
  y: number(
    { title: 'Y of the place', description: 'Map coordinate.', unit: 'm' },
    { min: -1e8, max: 1e8, step: 1, initial: 0 },
  ),
  at: number(
    { title: 'TWT or depth of the place', description: 'In ms, or m in depth.' },
    { min: -1e5, max: 1e5, step: 1, initial: 0 },
  ),
  velocity: number(
    { title: 'Velocity', description: 'By which time becomes thickness; not used in depth.', unit: 'm/s' },
    { min: 300, max: 8000, step: 50, initial: 2000 },
  ),
});

type Params = z.infer<typeof params>;

/** Runs of samples, the number of the body of each (nought where it was left out), and what there is to say of them. */
interface Found {
  runs: Runs;
  number: Uint32Array;
  facts: BodyFacts[];
}

/** Lines of a slab that are looked at in one go. */
const SLAB = 8;

/** What lies between surfaces and passes the test, by slabs; runs are kept, and no sample. */
async function find(
  store: Store,
  volume: Volume,
  top: Horizon | undefined,
  base: Horizon | undefined,
  p: Params,
  work: { signal?: AbortSignal; progress?(part: number): void },
): Promise<Found> {
  for (const h of [top, base])
    if (h && h.domain !== volume.domain)
      throw new LithagonError('domain', `${h.name} and ${volume.name} are not both in one domain.`, {
        object: h.name,
        fix: 'Choose a horizon in the domain of the volume, or convert it.',
      });
  if (p.from > p.to)
    throw new LithagonError('params', `No value lies from ${p.from} to ${p.to}.`, {
      fix: 'Give the lower value first.',
    });
  const [ni, nj, nk] = shapeOf(volume);
  const { first, step } = volume.vertical;
  const tops = top && (await onBinsOf(store, top, volume.binGrid));
  const bases = base && (await onBinsOf(store, base, volume.binGrid));
  const collect = runsCollector(ni, nj);
  for (let i0 = 0; i0 < ni; i0 += SLAB) {
    stopIf(work.signal);
    const i1 = Math.min(ni, i0 + SLAB);
    const data = await readRegion(store, volume, { i: [i0, i1], j: [0, nj], k: [0, nk] });
    for (let t = i0 * nj; t < i1 * nj; t++) {
      const from = (t - i0 * nj) * nk;
      // where a surface is missing nothing is between it and the other
      const low = tops ? tops[t] : Number.NEGATIVE_INFINITY;
      const high = bases ? bases[t] : Number.POSITIVE_INFINITY;
      collect.add(0, nk, (k) => {
        const v = data[from + k];
        const z = first + k * step;
        return v >= p.from && v <= p.to && z >= low && z <= high;
      });
    }
    work.progress?.(i1 / ni);
  }
  const runs = collect.finish();
  const { body, count } = during(work.signal, () => bodiesOf(runs, ni, nj, p.connected === 'through faces' ? 6 : 26));
  let facts = during(work.signal, () => factsOfBodies(runs, ni, nj, body, count)).filter(
    (f) => f.samples >= p.smallest,
  );
  if (p.seed === 'the one at a place') {
    const [i, j] = toIndex(volume.binGrid, p.x, p.y).map(Math.round);
    const k = Math.round((p.at - first) / step);
    const held =
      i >= 0 && j >= 0 && i < ni && j < nj
        ? [...runs.from.subarray(runs.starts[i * nj + j], runs.starts[i * nj + j + 1]).keys()].find((n) => {
            const r = runs.starts[i * nj + j] + n;
            return k >= runs.from[r] && k < runs.to[r];
          })
        : undefined;
    const wanted = held === undefined ? -1 : body[runs.starts[i * nj + j] + held];
    facts = facts.filter((f) => f.body === wanted);
    if (facts.length === 0)
      throw new LithagonError('empty', 'The place lies in no body that is large enough.', {
        fix: 'Choose a place inside one, widen the values, or let smaller bodies be. Nothing was changed.',
      });
  }
  facts = facts.slice(0, p.most);
  if (facts.length === 0)
    throw new LithagonError('empty', `No body of ${p.smallest} samples or more lies from ${p.from} to ${p.to}.`, {
      object: volume.name,
      fix: 'Widen the values, or let smaller bodies be. Nothing was changed.',
    });
  const turn = new Uint32Array(count);
  for (const [n, f] of facts.entries()) turn[f.body] = n + 1;
  return { runs, number: body.map((b) => turn[b]), facts };
}

const surfaces = (given: Record<string, unknown>) =>
  [given.top, given.base] as [Horizon | undefined, Horizon | undefined];

export const bodies = defineStep({
  id: 'attributes.bodies',
  version: 1,
  stage: 'attributes',
  purpose: 'Classes and bodies',
  title: 'Bodies',
  summary:
    'Connected samples whose values pass a test, between surfaces: the small dropped, the rest sorted by size and counted.',
  formula: 'Samples with v₁ ≤ d ≤ v₂ between z₁ and z₂, joined where they touch; V = Σ A·Δz.',
  avoid: 'On an attribute of long windows: bodies smear up and down by half of the window.',
  source: 'Union–find Tarjan (1975), J. ACM 22, 215–225',
  reach: 'global',
  inputs: {
    volume: { kind: 'volume', title: 'Volume' },
    top: { kind: 'horizon', title: 'Below', optional: true },
    base: { kind: 'horizon', title: 'Above', optional: true },
  },
  params,
  outputs: {
    bodies: { kind: 'volume', title: 'Bodies' },
    thickness: { kind: 'map', title: 'Thickness of bodies' },
    table: { kind: 'result table', title: 'Table of bodies' },
  },
  local: {
    volumes: ['volume'],
    halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
    prepareRestsOn: ['from', 'to', 'connected', 'smallest', 'most', 'seed', 'x', 'y', 'at'],
    prepare: (given, { store, signal, params: p }) =>
      find(store, given.volume as Volume, ...surfaces(given), p, { signal }),
    evaluate({ volume: { from, shape } }, _, { runs, number: numbers }: Found, region) {
      const [ni, nj, nk] = [region.i[1] - region.i[0], region.j[1] - region.j[0], region.k[1] - region.k[0]];
      const out = new Float32Array(ni * nj * nk);
      for (let i = 0; i < ni; i++)
        for (let j = 0; j < nj; j++) {
          const t = (from[0] + i) * shape[1] + from[1] + j;
          const to = (i * nj + j) * nk;
          for (let n = runs.starts[t]; n < runs.starts[t + 1]; n++) {
            if (numbers[n] === 0) continue;
            const [a, b] = [Math.max(0, runs.from[n] - from[2]), Math.min(nk, runs.to[n] - from[2])];
            if (b > a) out.fill(numbers[n], to + a, to + b);
          }
        }
      return { bodies: out };
    },
    outputs: { bodies: { quantity: 'class', unit: '' } },
  },
  async run({ inputs: { volume }, params: p, store, idFor, stored, prepared }) {
    const found = (await prepared()) as Found;
    const metres = volume.domain === 'depth' ? volume.vertical.step : (volume.vertical.step * p.velocity) / 2000;
    const [ni, nj] = shapeOf(volume);
    const thickness = new Float32Array(ni * nj).fill(Number.NaN);
    for (let t = 0; t < ni * nj; t++)
      for (let n = found.runs.starts[t]; n < found.runs.starts[t + 1]; n++)
        if (found.number[n] > 0) thickness[t] = (thickness[t] || 0) + metres * (found.runs.to[n] - found.runs.from[n]);
    return {
      ...(await stored()),
      thickness: await keptMap(
        { binGrid: volume.binGrid, values: thickness, quantity: 'thickness', unit: 'm' },
        store,
        idFor('thickness'),
      ),
      table: tableOf(volume, found, metres),
    };
  },
});

/** Bodies one by one: size, footprint, where they lie. */
function tableOf(volume: Volume, { facts }: Found, metres: number): Draft<ResultTable> {
  const { binGrid, vertical, domain } = volume;
  const [a, b] = [binGrid.perInline, binGrid.perCrossline];
  const bin = Math.abs(a[0] * b[1] - a[1] * b[0]);
  const unit = domain === 'depth' ? 'm' : 'ms';
  return {
    kind: 'result table',
    columns: [
      { name: 'Body', unit: '' },
      { name: 'Samples', unit: '' },
      { name: 'Volume', unit: 'm3' },
      { name: 'Footprint', unit: 'm2' },
      { name: 'Top', unit },
      { name: 'Base', unit },
      { name: 'Middle X', unit: 'm' },
      { name: 'Middle Y', unit: 'm' },
      { name: 'Middle', unit },
    ],
    rows: facts.map((f, n) => {
      const [x, y] = toMap(binGrid, f.middle[0], f.middle[1]);
      const at = (k: number) => vertical.first + k * vertical.step;
      return [n + 1, f.samples, f.samples * bin * metres, f.bins * bin, at(f.top), at(f.base), x, y, at(f.middle[2])];
    }),
  };
}
