import { z } from 'zod';
import { countOf, type PointSet, randomOf, squareTo } from '../../classes/kinds.ts';
import { kMeans } from '../../classes/kMeans.ts';
import { fitMixture, type Mixture, membership } from '../../classes/mixture.ts';
import { orderOfCentres } from '../../classes/order.ts';
import { type Principal, principal, projected } from '../../classes/principal.ts';
import { selfOrganizingMap } from '../../classes/selfOrganizing.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Horizon, ResultTable, Volume } from '../../earth/objects.ts';
import { during } from '../../numerics/stop.ts';
import { onBinsOf } from '../../project/windows.ts';
import { shapeOf } from '../../storage/planes.ts';
import { readRegion } from '../../storage/regions.ts';
import type { Store } from '../../storage/store.ts';
import { choice, type Draft, defineStep, number } from '../define.ts';

const ROLES = ['A', 'B', 'C', 'D', 'E', 'F'] as const;

const params = z.object({
  classes: number({ title: 'Classes', description: 'How many.' }, { min: 2, max: 24, whole: true, initial: 6 }),
  way: choice(
    {
      title: 'Classes by',
      description:
        'A mixture tells the probability of its classes; the others how near a sample lies to the centre of its own.',
    },
    ['mixture', 'k-means', 'self-organizing map'],
    'mixture',
  ),
  components: number(
    {
      title: 'Components',
      description: 'Principal components that classes are told by; as many as attributes are all of them.',
    },
    { min: 1, max: 6, whole: true, initial: 6 },
  ),
  trainOn: number(
    { title: 'Trained on', description: 'Samples that classes are found from, spread at random.', unit: 'samples' },
    { min: 200, max: 50000, step: 100, whole: true, initial: 4000 },
  ),
  seed: number(
    { title: 'Seed', description: 'Another gives another draw.' },
    { min: 1, max: 9999, whole: true, initial: 1 },
  ),
});

type Params = z.infer<typeof params>;

/** What classes are told by: how attributes are made alike in scale, their components, and the classes in these. */
interface Trained {
  roles: string[];
  mean: number[];
  spread: number[];
  components: Principal;
  mixture: Mixture | null;
  centres: Float64Array;
  /** Square of the distance within which half of the training samples of each class lie. */
  reach: number[];
  /** Part of the variance of each attribute that the classes tell. */
  told: number[];
}

/** Samples of all volumes at places drawn at random between surfaces, where each of them has one. */
async function samplesOf(
  store: Store,
  volumes: Volume[],
  top: Horizon | undefined,
  base: Horizon | undefined,
  p: Params,
  signal?: AbortSignal,
): Promise<PointSet> {
  const [first] = volumes;
  const [ni, nj, nk] = shapeOf(first);
  const tops = top && (await onBinsOf(store, top, first.binGrid));
  const bases = base && (await onBinsOf(store, base, first.binGrid));
  const random = randomOf(p.seed);
  // lines are read whole, a few spread over the survey, and some samples of each are taken
  const lines = Math.min(ni, 24);
  const each = Math.ceil(p.trainOn / lines);
  const values: number[] = [];
  for (let n = 0; n < lines; n++) {
    stopIf(signal);
    const i = Math.min(ni - 1, Math.floor(((n + random()) * ni) / lines));
    const data = await Promise.all(volumes.map((v) => readRegion(store, v, { i: [i, i + 1], j: [0, nj], k: [0, nk] })));
    for (let taken = 0, tries = 0; taken < each && tries < 40 * each; tries++) {
      const j = Math.floor(random() * nj);
      const bin = i * nj + j;
      const low = tops ? (tops[bin] - first.vertical.first) / first.vertical.step : 0;
      const high = bases ? (bases[bin] - first.vertical.first) / first.vertical.step : nk - 1;
      if (!(high >= low)) continue;
      const k = Math.round(low + random() * (high - low));
      const row = data.map((d) => d[j * nk + k]);
      if (row.some((v) => v === undefined || Number.isNaN(v))) continue;
      values.push(...row);
      taken++;
    }
  }
  if (values.length < 20 * p.classes * volumes.length)
    throw new LithagonError('empty', 'Too few samples of all of the attributes lie there to tell classes by.', {
      fix: 'Choose attributes that cover the same part, or other surfaces. Nothing was changed.',
    });
  return { values: Float32Array.from(values), dimensions: volumes.length };
}

function trained(samples: PointSet, roles: string[], p: Params): Trained {
  const { values, dimensions: d } = samples;
  const n = countOf(samples);
  const [mean, spread] = [new Array<number>(d).fill(0), new Array<number>(d).fill(0)];
  for (let s = 0; s < n; s++) for (let c = 0; c < d; c++) mean[c] += values[s * d + c] / n;
  for (let s = 0; s < n; s++) for (let c = 0; c < d; c++) spread[c] += (values[s * d + c] - mean[c]) ** 2 / n;
  for (let c = 0; c < d; c++) spread[c] = Math.sqrt(spread[c]) || 1;
  const alike: PointSet = {
    values: values.map((v, at) => (v - mean[at % d]) / spread[at % d]),
    dimensions: d,
  };
  const components = principal(alike, Math.min(p.components, d));
  const points = projected(alike, components);
  const k = points.dimensions;
  const fitted = p.way === 'mixture' ? fitMixture(points, p.classes, p.seed) : null;
  const found =
    fitted?.centres ??
    (p.way === 'k-means' ? kMeans(points, p.classes, p.seed).centres : selfOrganizingMap(points, p.classes).centres);
  const order = orderOfCentres(found, k);
  const turned = (a: Float64Array, width: number) =>
    Float64Array.from(order.flatMap((c) => [...a.subarray(c * width, (c + 1) * width)]));
  const mixture = fitted && {
    ...fitted,
    weights: turned(fitted.weights, 1),
    centres: turned(fitted.centres, k),
    variances: turned(fitted.variances, k),
  };
  const centres = turned(found, k);
  const of = classesOf(points, { mixture, centres });
  const far = Array.from({ length: p.classes }, () => [] as number[]);
  const [sums, counts] = [new Float64Array(p.classes * d), new Float64Array(p.classes)];
  for (let s = 0; s < n; s++) {
    far[of[s]].push(squareTo(points.values, s * k, centres, of[s] * k, k));
    counts[of[s]]++;
    for (let c = 0; c < d; c++) sums[of[s] * d + c] += alike.values[s * d + c];
  }
  return {
    roles,
    mean,
    spread,
    components,
    mixture,
    centres,
    reach: far.map((list) => list.sort((a, b) => a - b)[list.length >> 1] || 1),
    // of unit variance: what lies between the means of the classes
    told: Array.from({ length: d }, (_, c) =>
      counts.reduce((s, m, cls) => s + (m > 0 ? sums[cls * d + c] ** 2 / m / n : 0), 0),
    ),
  };
}

/** The class of every point. */
function classesOf(points: PointSet, { mixture, centres }: Pick<Trained, 'mixture' | 'centres'>): Uint16Array {
  const n = countOf(points);
  const d = points.dimensions;
  const out = new Uint16Array(n);
  const count = centres.length / d;
  const share = mixture && membership(points, mixture);
  for (let p = 0; p < n; p++) {
    let best = Number.NEGATIVE_INFINITY;
    for (let c = 0; c < count; c++) {
      const v = share ? share[p * count + c] : -squareTo(points.values, p * d, centres, c * d, d);
      if (v > best) [best, out[p]] = [v, c];
    }
  }
  return out;
}

const volumesOf = (given: Record<string, unknown>) =>
  ROLES.flatMap((role): [string, Volume][] => (given[role] ? [[role, given[role] as Volume]] : []));

export const cluster = defineStep({
  id: 'attributes.cluster',
  version: 1,
  stage: 'attributes',
  purpose: 'Classes and bodies',
  title: 'Classes of attributes',
  summary:
    'Parts samples into classes by several attributes together, without training, and says what each attribute adds.',
  formula: 'x = (a − ā)/σ, its principal components, and classes that make Σ log Σ_c π_c N(x; μ_c, σ_c) greatest.',
  avoid: 'With attributes that say the same: they count twice. The table tells which do.',
  source:
    'Principal components Pearson (1901), Philosophical Magazine 2, 559–572; mixtures Dempster et al. (1977), J. Royal Statistical Society B 39, 1–38',
  reach: 'global',
  inputs: {
    A: { kind: 'volume', title: 'First attribute' },
    B: { kind: 'volume', title: 'Second attribute' },
    C: { kind: 'volume', title: 'Third attribute', optional: true },
    D: { kind: 'volume', title: 'Fourth attribute', optional: true },
    E: { kind: 'volume', title: 'Fifth attribute', optional: true },
    F: { kind: 'volume', title: 'Sixth attribute', optional: true },
    top: { kind: 'horizon', title: 'Trained below', optional: true },
    base: { kind: 'horizon', title: 'Trained above', optional: true },
  },
  params,
  outputs: {
    classes: { kind: 'volume', title: 'Classes' },
    sure: { kind: 'volume', title: 'Sureness of classes' },
    table: { kind: 'result table', title: 'What attributes add' },
  },
  local: {
    volumes: [...ROLES],
    halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
    prepareRestsOn: ['classes', 'way', 'components', 'trainOn', 'seed'],
    async prepare(given, { store, signal, params: p }): Promise<Trained> {
      const named = volumesOf(given);
      const samples = await samplesOf(
        store,
        named.map(([, v]) => v),
        given.top as Horizon | undefined,
        given.base as Horizon | undefined,
        p,
        signal,
      );
      const roles = named.map(([role]) => role);
      return during(signal, () => trained(samples, roles, p));
    },
    evaluate(blocks, _, t: Trained) {
      const d = t.roles.length;
      const n = blocks.A.data.length;
      const alike: PointSet = { values: new Float32Array(n * d), dimensions: d };
      for (const [c, role] of t.roles.entries()) {
        const { data } = blocks[role];
        for (let s = 0; s < n; s++) alike.values[s * d + c] = (data[s] - t.mean[c]) / t.spread[c];
      }
      const points = projected(alike, t.components);
      const of = classesOf(points, t);
      const k = points.dimensions;
      const share = t.mixture && membership(points, t.mixture);
      const [classes, sure] = [new Float32Array(n), new Float32Array(n)];
      for (let s = 0; s < n; s++) {
        const known = points.values[s * k] === points.values[s * k];
        classes[s] = known ? of[s] + 1 : Number.NaN;
        sure[s] = !known
          ? Number.NaN
          : share
            ? share[s * (t.centres.length / k) + of[s]]
            : // a half where half of the training samples lie nearer
              2 ** -(squareTo(points.values, s * k, t.centres, of[s] * k, k) / t.reach[of[s]]);
      }
      return { classes, sure };
    },
    outputs: { classes: { quantity: 'class', unit: '' }, sure: { quantity: 'probability', unit: '1' } },
  },
  async run(context) {
    const t = (await context.prepared()) as Trained;
    const names = new Map(volumesOf(context.inputs as Record<string, unknown>).map(([role, v]) => [role, v.name]));
    return { ...(await context.stored()), table: addsTable(t, names) };
  },
});

/** What classes tell of each attribute, and how much of each the components hold. */
function addsTable(t: Trained, names: Map<string, string>): Draft<ResultTable> {
  const d = t.roles.length;
  const k = t.components.variances.length;
  return {
    kind: 'result table',
    columns: [
      { name: 'Attribute', unit: '' },
      { name: 'Told by the classes', unit: '%' },
      ...Array.from({ length: k }, (_, c) => ({
        name: `Component ${c + 1} (${((100 * t.components.variances[c]) / t.components.total).toFixed(0)} %)`,
        unit: '',
      })),
    ],
    rows: t.roles.map((role, a) => [
      names.get(role) ?? role,
      100 * t.told[a],
      ...Array.from({ length: k }, (_, c) => t.components.vectors[c * d + a]),
    ]),
  };
}
