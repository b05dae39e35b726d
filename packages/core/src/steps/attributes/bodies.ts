import { z } from 'zod';
import { type BodyFacts, bodiesOf, factsOfBodies, type Runs, runsCollector } from '../../attributes/bodies.ts';
import { type BodyEdge, edgeOf } from '../../attributes/bodyEdge.ts';
import { numberedRuns } from '../../attributes/bodySurface.ts';
import { toIndex, toMap } from '../../earth/binGrid.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Bodies, Horizon, QuantityMap, ResultTable, Volume } from '../../earth/objects.ts';
import { RunningStatistics } from '../../numerics/statistics.ts';
import { during } from '../../numerics/stop.ts';
import { onBinsOf } from '../../project/windows.ts';
import { writeWhole } from '../../storage/arrays.ts';
import { shapeOf } from '../../storage/planes.ts';
import { readRegion } from '../../storage/regions.ts';
import type { Store } from '../../storage/store.ts';
import { choice, type Draft, defineStep, number, placeParams } from '../define.ts';
import { keptMap } from '../mapStep.ts';

const params = z.object({
  test: choice(
    {
      title: 'Test by',
      description:
        'Values in the unit of the volume, or by how many of the samples between the surfaces are smaller, in percent.',
    },
    ['values', 'percentiles'],
    'values',
  ),
  from: number(
    { title: 'From', description: 'Lowest that belongs to a body; of classes the first.', among: 'volume' },
    { min: -1e9, max: 1e9, step: 0.5, initial: 0.5 },
  ),
  to: number(
    { title: 'To', description: 'Highest that does.', among: 'volume' },
    { min: -1e9, max: 1e9, step: 1, initial: 1e9 },
  ),
  above: number(
    { title: 'From above', description: 'Of the upper surface; negative is below it. ms, or m in depth.' },
    { min: -500, max: 500, step: 2, initial: 0 },
  ),
  below: number(
    {
      title: 'To below',
      description: 'The lower surface, or the upper one where no lower one is given; negative is above.',
    },
    { min: -500, max: 500, step: 2, initial: 0 },
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
  ...placeParams({ seed: 'the one at a place' }),
  velocity: number(
    { title: 'Velocity', description: 'By which time becomes thickness; not used in depth.', unit: 'm/s' },
    { min: 300, max: 8000, step: 50, initial: 2000 },
  ),
  strokes: z
    .array(
      z.object({
        does: z.enum(['takes out', 'puts in']).meta({ title: 'Does' }),
        x: z.number().meta({ title: 'X', unit: 'm' }),
        y: z.number().meta({ title: 'Y', unit: 'm' }),
        at: z.number().meta({ title: 'TWT or depth' }),
        wide: z.number().positive().meta({ title: 'Radius', unit: 'm' }),
        tall: z.number().positive().meta({ title: 'Half height' }),
      }),
    )
    .max(20000)
    .default([])
    .meta({
      title: 'Strokes',
      description: 'Of a brush, laid on again whenever bodies are made again; the later counts.',
      drawn: 'strokes',
    }),
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

type Surface = Horizon | QuantityMap;

/** Where a surface lies on the bins of a volume, moved down by so much. */
async function boundOf(store: Store, volume: Volume, surface: Surface, down: number): Promise<Float32Array> {
  const lies =
    surface.kind === 'horizon' ? surface.domain : surface.unit === 'ms' ? 'twt' : surface.unit === 'm' ? 'depth' : null;
  if (lies !== volume.domain)
    throw new LithagonError('domain', `${surface.name} and ${volume.name} are not both in one domain.`, {
      object: surface.name,
      fix: 'Choose a surface in the domain of the volume, or convert it.',
    });
  const values = await onBinsOf(store, surface, volume.binGrid);
  return values.map((v) => v + down);
}

/** What passes the test by its value: percentiles become values by a first look at all samples between the surfaces. */
async function rangeOf(
  store: Store,
  volume: Volume,
  between: Between,
  p: Params,
  work: { signal?: AbortSignal },
): Promise<[number, number]> {
  if (p.test === 'values') return [p.from, p.to];
  const statistics = new RunningStatistics();
  await eachSlab(store, volume, work, (data, t, from) => {
    const [k0, k1] = between(t);
    if (k1 > k0) statistics.add(data.subarray(from + k0, from + k1));
  });
  const at = (percent: number) =>
    percent <= 0
      ? Number.NEGATIVE_INFINITY
      : percent >= 100
        ? Number.POSITIVE_INFINITY
        : statistics.percentile(percent);
  return [at(p.from), at(p.to)];
}

/** Samples of a trace that lie between the surfaces: the first, and the one after the last. */
type Between = (trace: number) => [number, number];

/** Slab by slab, told the samples that are read, the trace and where its own begin. */
async function eachSlab(
  store: Store,
  volume: Volume,
  work: { signal?: AbortSignal; progress?(part: number): void },
  visit: (data: Float32Array, trace: number, from: number) => void,
): Promise<void> {
  const [ni, nj, nk] = shapeOf(volume);
  for (let i0 = 0; i0 < ni; i0 += SLAB) {
    stopIf(work.signal);
    const i1 = Math.min(ni, i0 + SLAB);
    const data = await readRegion(store, volume, { i: [i0, i1], j: [0, nj], k: [0, nk] });
    for (let t = i0 * nj; t < i1 * nj; t++) visit(data, t, (t - i0 * nj) * nk);
    work.progress?.(i1 / ni);
  }
}

/** What strokes of a brush do at a sample of a trace: put it in, take it out, or nothing. */
function brushOf(
  volume: Volume,
  strokes: Params['strokes'],
): (trace: number) => ((z: number) => boolean | null) | null {
  const { binGrid } = volume;
  const [ni, nj] = shapeOf(volume);
  const spacing = Math.min(Math.hypot(...binGrid.perInline), Math.hypot(...binGrid.perCrossline));
  const byTrace = new Map<number, { in: boolean; at: number; half: number }[]>();
  for (const { does, x, y, at, wide, tall } of strokes) {
    const [ci, cj] = toIndex(binGrid, x, y);
    const reach = Math.ceil(wide / spacing) + 1;
    for (let i = Math.max(0, Math.floor(ci) - reach); i <= Math.min(ni - 1, Math.ceil(ci) + reach); i++)
      for (let j = Math.max(0, Math.floor(cj) - reach); j <= Math.min(nj - 1, Math.ceil(cj) + reach); j++) {
        const [bx, by] = toMap(binGrid, i, j);
        const off = ((bx - x) ** 2 + (by - y) ** 2) / (wide * wide);
        if (off > 1) continue;
        const own = byTrace.get(i * nj + j) ?? [];
        own.push({ in: does === 'puts in', at, half: tall * Math.sqrt(1 - off) });
        byTrace.set(i * nj + j, own);
      }
  }
  return (trace) => {
    const own = byTrace.get(trace);
    return own ? (z) => own.findLast((b) => Math.abs(z - b.at) <= b.half)?.in ?? null : null;
  };
}

/** What lies between surfaces and passes the test, by slabs; runs are kept, and no sample. */
async function find(
  store: Store,
  volume: Volume,
  top: Surface | undefined,
  base: Surface | undefined,
  p: Params,
  work: { signal?: AbortSignal; progress?(part: number): void },
): Promise<Found> {
  if (p.from > p.to)
    throw new LithagonError('params', `No value lies from ${p.from} to ${p.to}.`, {
      fix: 'Give the lower value first.',
    });
  const [ni, nj, nk] = shapeOf(volume);
  const { first, step } = volume.vertical;
  const tops = top && (await boundOf(store, volume, top, -p.above));
  // without a lower surface a window goes down from the upper one
  const under = base ?? (p.below > 0 ? top : undefined);
  const bases = under && (await boundOf(store, volume, under, p.below));
  const between: Between = (t) => {
    // where a surface is missing nothing is between it and the other
    const low = tops ? Math.ceil((tops[t] - first) / step - 1e-6) : 0;
    const high = bases ? Math.floor((bases[t] - first) / step + 1e-6) : nk - 1;
    return Number.isNaN(low) || Number.isNaN(high) ? [0, 0] : [Math.max(0, low), Math.min(nk, high + 1)];
  };
  const [least, most] = await rangeOf(store, volume, between, p, work);
  const brush = brushOf(volume, p.strokes);
  const collect = runsCollector(ni, nj);
  await eachSlab(store, volume, work, (data, t, from) => {
    const [k0, k1] = between(t);
    const stroke = brush(t);
    const passes = (k: number) => k >= k0 && k < k1 && data[from + k] >= least && data[from + k] <= most;
    collect.add(0, nk, stroke ? (k) => stroke(first + k * step) ?? passes(k) : passes);
  });
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
    throw new LithagonError('empty', `No body of ${p.smallest} samples or more passes from ${p.from} to ${p.to}.`, {
      object: volume.name,
      fix: 'Widen the values, or let smaller bodies be. Nothing was changed.',
    });
  const turn = new Uint32Array(count);
  for (const [n, f] of facts.entries()) turn[f.body] = n + 1;
  return { runs, number: body.map((b) => turn[b]), facts };
}

const surfaces = (given: Record<string, unknown>) =>
  [given.top, given.base] as [Surface | undefined, Surface | undefined];

/** Most bodies whose edge is looked for. */
const EDGES = 20;

/** Down-dip edges of the largest bodies against a surface in depth. */
async function edgesOf(
  store: Store,
  volume: Volume,
  found: Found,
  depth: Horizon | undefined,
  signal?: AbortSignal,
): Promise<(BodyEdge | null)[]> {
  if (!depth) return [];
  const [ni, nj] = shapeOf(volume);
  const depths = await onBinsOf(store, depth, volume.binGrid);
  const { starts } = found.runs;
  return during(signal, () =>
    found.facts.slice(0, EDGES).map((_, n) => {
      const footprint = new Uint8Array(ni * nj);
      for (let t = 0; t < ni * nj; t++)
        for (let r = starts[t]; r < starts[t + 1]; r++) if (found.number[r] === n + 1) footprint[t] = 1;
      return edgeOf(footprint, depths, ni, nj);
    }),
  );
}

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
    top: { kind: 'horizon', or: 'map', title: 'Upper surface', optional: true },
    base: { kind: 'horizon', or: 'map', title: 'Lower surface', optional: true },
    depth: { kind: 'horizon', title: 'Edge against', domain: 'depth', optional: true },
  },
  params,
  outputs: {
    bodies: { kind: 'volume', title: 'Numbers of bodies' },
    thickness: { kind: 'map', title: 'Thickness of bodies' },
    table: { kind: 'result table', title: 'Table of bodies' },
    set: { kind: 'bodies', title: 'Bodies' },
  },
  local: {
    volumes: ['volume'],
    halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
    prepareRestsOn: [
      'test',
      'from',
      'to',
      'above',
      'below',
      'connected',
      'smallest',
      'most',
      'seed',
      'x',
      'y',
      'at',
      'strokes',
    ],
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
  async run({ inputs: { volume, depth }, params: p, store, idFor, stored, prepared, signal }) {
    const found = (await prepared()) as Found;
    const metres = volume.domain === 'depth' ? volume.vertical.step : (volume.vertical.step * p.velocity) / 2000;
    const [ni, nj] = shapeOf(volume);
    const thickness = new Float32Array(ni * nj).fill(Number.NaN);
    for (let t = 0; t < ni * nj; t++)
      for (let n = found.runs.starts[t]; n < found.runs.starts[t + 1]; n++)
        if (found.number[n] > 0) thickness[t] = (thickness[t] || 0) + metres * (found.runs.to[n] - found.runs.from[n]);
    stopIf(signal);
    const edges = await edgesOf(store, volume, found, depth, signal);
    return {
      ...(await stored()),
      thickness: await keptMap(
        { binGrid: volume.binGrid, values: thickness, quantity: 'thickness', unit: 'm' },
        store,
        idFor('thickness'),
      ),
      table: tableOf(volume, found, metres, edges),
      set: await setOf(store, volume, found, metres, edges, idFor('set')),
    };
  },
});

/** Area of a bin, m². */
function binArea({ binGrid }: Volume): number {
  const [a, b] = [binGrid.perInline, binGrid.perCrossline];
  return Math.abs(a[0] * b[1] - a[1] * b[0]);
}

/** Bodies as an object of their own: runs, and what there is to say of each. */
async function setOf(
  store: Store,
  volume: Volume,
  { runs, number: numbers, facts }: Found,
  metres: number,
  edges: (BodyEdge | null)[],
  id: string,
): Promise<Draft<Bodies>> {
  const kept = numberedRuns(runs, numbers, shapeOf(volume)[1]);
  const data = Float32Array.from(kept.flatMap((r) => [r.i, r.j, r.from, r.to, r.body]));
  const { binGrid, domain, vertical } = volume;
  return {
    kind: 'bodies',
    binGrid,
    domain,
    vertical,
    runs: await writeWhole(store, `${id}/runs`, [kept.length, 5], data, ['run', 'of']),
    bodies: facts.map(({ samples, bins, top, base }, n) => {
      const edge = edges[n];
      return {
        samples,
        bins,
        top,
        base,
        volumeM3: samples * binArea(volume) * metres,
        ...(edge ? { edgeM: edge.middle, lowestM: edge.lowest, spreadM: edge.spread } : {}),
        ...(edge && !Number.isNaN(edge.chance) ? { chance: edge.chance } : {}),
      };
    }),
  };
}

/** Bodies one by one: size, footprint, where they lie, and where they end. */
function tableOf(volume: Volume, { facts }: Found, metres: number, edges: (BodyEdge | null)[]): Draft<ResultTable> {
  const { binGrid, vertical, domain } = volume;
  const bin = binArea(volume);
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
      ...(edges.length > 0
        ? [
            { name: 'Edge', unit: 'm' },
            { name: 'Lowest of the edge', unit: 'm' },
            { name: 'Spread of the edge', unit: 'm' },
            { name: 'As flat by chance', unit: '1' },
          ]
        : []),
    ],
    rows: facts.map((f, n) => {
      const [x, y] = toMap(binGrid, f.middle[0], f.middle[1]);
      const at = (k: number) => vertical.first + k * vertical.step;
      const own = [
        n + 1,
        f.samples,
        f.samples * bin * metres,
        f.bins * bin,
        at(f.top),
        at(f.base),
        x,
        y,
        at(f.middle[2]),
      ];
      if (edges.length === 0) return own;
      const edge = edges[n];
      const told = (v: number | undefined) => (v === undefined || Number.isNaN(v) ? null : v);
      return [...own, told(edge?.middle), told(edge?.lowest), told(edge?.spread), told(edge?.chance)];
    }),
  };
}
