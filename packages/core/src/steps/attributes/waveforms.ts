import { z } from 'zod';
import { countOf, nearestCentres, type PointSet, randomOf } from '../../classes/kinds.ts';
import { kMeans } from '../../classes/kMeans.ts';
import { fitMixture } from '../../classes/mixture.ts';
import { orderOfCentres } from '../../classes/order.ts';
import { selfOrganizingMap } from '../../classes/selfOrganizing.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { Horizon, ResultTable, Volume } from '../../earth/objects.ts';
import { during } from '../../numerics/stop.ts';
import { eachWindow, type Windows, windowsOf } from '../../project/windows.ts';
import type { Store } from '../../storage/store.ts';
import { choice, type Draft, defineStep, listed, number } from '../define.ts';
import { keptMap, type MadeMap } from '../mapStep.ts';

const params = z.object({
  above: number(
    { title: 'From above', description: 'Of the horizon; negative is below it. ms, or m in depth.' },
    { min: -500, max: 500, step: 2, initial: 20 },
  ),
  below: number(
    { title: 'To below', description: 'The horizon, or the base where one is given; negative is above.' },
    { min: -500, max: 500, step: 2, initial: 40 },
  ),
  classes: number(
    { title: 'Classes', description: 'How many; the table of gains tells what one more would tell apart.' },
    { min: 2, max: 24, whole: true, initial: 8 },
  ),
  way: choice(
    {
      title: 'Classes by',
      description: 'A self-organizing map orders its classes by itself; k-means and mixtures are ordered afterwards.',
    },
    ['self-organizing map', 'k-means', 'mixture'],
    'self-organizing map',
  ),
  shape: choice(
    {
      title: 'Waveforms',
      description: 'As they are, so that strength tells too, or each at unit strength, so that shape alone does.',
    },
    ['as they are', 'shape alone'],
    'as they are',
  ),
  groups: z
    .array(
      z.object({
        name: z.string().min(1).max(80).meta({ title: 'Name' }),
        classes: z.string().max(80).meta({ title: 'Classes' }),
      }),
    )
    .max(24)
    .default([])
    .meta({
      title: 'Merged and named',
      description: 'Classes by number with commas between become one of that name; the rest follow, each by itself.',
    }),
  trainOn: number(
    { title: 'Trained on', description: 'Traces that classes are found from, spread at random.', unit: 'traces' },
    { min: 100, max: 20000, step: 100, whole: true, initial: 2000 },
  ),
  seed: number(
    { title: 'Seed', description: 'Another gives another draw.' },
    { min: 1, max: 9999, whole: true, initial: 1 },
  ),
});

type Params = z.infer<typeof params>;

/** Waveforms of bins, one after the other, and which bin each is of. */
interface Waveforms extends PointSet {
  bins: Uint32Array;
  /** Sample interval, ms or m, or a part of the interval between two horizons. */
  windows: Windows;
}

/** Every waveform of a window; between two horizons each is read at as many even places as the median has samples. */
async function waveformsOf(
  store: Store,
  volume: Volume,
  horizon: Horizon,
  base: Horizon | undefined,
  p: Params,
  work: { signal?: AbortSignal; progress?(part: number): void },
): Promise<Waveforms> {
  if (volume.domain !== horizon.domain)
    throw new LithagonError('domain', `${volume.name} and ${horizon.name} are not both in one domain.`, {
      object: horizon.name,
      fix: 'Choose a horizon in the domain of the volume, or convert it.',
    });
  const windows = await windowsOf(store, horizon, base, p.above, p.below);
  const { step } = volume.vertical;
  const lengths: number[] = [];
  for (let n = 0; n < windows.top.length; n++)
    if (!Number.isNaN(windows.base[n])) lengths.push(windows.base[n] - windows.top[n]);
  lengths.sort((a, b) => a - b);
  const dimensions = lengths.length > 0 ? Math.floor(lengths[lengths.length >> 1] / step + 1e-6) + 1 : 0;
  if (dimensions < 3)
    throw new LithagonError('params', `The window holds ${dimensions} samples, and a waveform needs three.`, {
      fix: 'Make the window longer.',
    });
  const values = new Float32Array(windows.top.length * dimensions);
  const bins = new Uint32Array(windows.top.length);
  let count = 0;
  await eachWindow(
    store,
    volume,
    windows,
    (bin, samples) => {
      const at = count * dimensions;
      for (let m = 0; m < dimensions; m++) {
        const x = samples.length === dimensions ? m : (m * (samples.length - 1)) / (dimensions - 1);
        const k = Math.min(samples.length - 2, Math.floor(x));
        values[at + m] =
          samples.length < 2 ? Number.NaN : k === x ? samples[k] : samples[k] + (x - k) * (samples[k + 1] - samples[k]);
      }
      for (let m = 0; m < dimensions; m++) if (Number.isNaN(values[at + m])) return;
      if (p.shape === 'shape alone') toUnit(values, at, dimensions);
      bins[count++] = bin;
    },
    work,
  );
  return { values: values.slice(0, count * dimensions), dimensions, bins: bins.slice(0, count), windows };
}

function toUnit(values: Float32Array, at: number, d: number): void {
  let square = 0;
  for (let m = 0; m < d; m++) square += values[at + m] ** 2;
  const scale = square > 0 ? 1 / Math.sqrt(square / d) : 0;
  for (let m = 0; m < d; m++) values[at + m] *= scale;
}

/** Some of the waveforms, drawn without putting back. */
function drawn(waves: PointSet, most: number, seed: number): PointSet {
  const n = countOf(waves);
  if (n <= most) return waves;
  const random = randomOf(seed);
  const order = Uint32Array.from({ length: n }, (_, k) => k);
  const d = waves.dimensions;
  const values = new Float32Array(most * d);
  for (let k = 0; k < most; k++) {
    const other = k + Math.floor(random() * (n - k));
    [order[k], order[other]] = [order[other], order[k]];
    values.set(waves.values.subarray(order[k] * d, (order[k] + 1) * d), k * d);
  }
  return { values, dimensions: d };
}

/** Turns of a training between two looks at it. */
const LOOK_EVERY = 5;

/** @param seen told the centres every few turns, where they settle in turns that mean something to an onlooker */
function centresOf(train: PointSet, p: Params, seen: (centres: Float64Array) => void = () => undefined): Float64Array {
  let turns = 0;
  const found =
    p.way === 'k-means'
      ? kMeans(train, p.classes, p.seed).centres
      : p.way === 'mixture'
        ? fitMixture(train, p.classes, p.seed).centres
        : selfOrganizingMap(train, p.classes, (_, centres) => {
            if (turns++ % LOOK_EVERY === 0) seen(centres);
          }).centres;
  const d = train.dimensions;
  const order = orderOfCentres(found, d);
  return Float64Array.from(order.flatMap((c) => [...found.subarray(c * d, (c + 1) * d)]));
}

/** Correlation of a waveform with a centre. */
function likeness(values: Float32Array, at: number, centres: Float64Array, from: number, d: number): number {
  let [ab, aa, bb] = [0, 0, 0];
  for (let m = 0; m < d; m++) {
    ab += values[at + m] * centres[from + m];
    aa += values[at + m] ** 2;
    bb += centres[from + m] ** 2;
  }
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : 0;
}

/** What each class becomes, by its number, and the names of those that there are then. */
export function mergedClasses(count: number, groups: Params['groups']): { becomes: number[]; names: string[] } {
  const becomes = new Array<number>(count + 1).fill(0);
  const names = groups.map((g) => g.name);
  for (const [n, { name, classes }] of groups.entries())
    for (const said of listed(classes)) {
      const c = Number(said);
      if (!Number.isInteger(c) || c < 1 || c > count)
        throw new LithagonError('params', `“${name}” takes in class ${said}, and there are classes 1 to ${count}.`, {
          fix: 'Give numbers of classes with commas between.',
        });
      if (becomes[c] > 0)
        throw new LithagonError('params', `Class ${c} is in “${names[becomes[c] - 1]}” and in “${name}”.`, {
          fix: 'Give each class to one of them.',
        });
      becomes[c] = n + 1;
    }
  for (let c = 1; c <= count; c++)
    if (becomes[c] === 0) {
      names.push(`Class ${c}`);
      becomes[c] = names.length;
    }
  return { becomes, names };
}

/** Class, match and second-best class of every bin by given centres. */
function classified(
  waves: Waveforms,
  centres: Float64Array,
  groups: Params['groups'],
): Record<'classes' | 'match' | 'second', MadeMap> {
  const { binGrid } = waves.windows;
  const d = waves.dimensions;
  const { first, second } = nearestCentres(waves, centres);
  const { becomes } = mergedClasses(centres.length / d, groups);
  const made = () => new Float32Array(binGrid.inline.count * binGrid.crossline.count).fill(Number.NaN);
  const [classes, match, other] = [made(), made(), made()];
  for (const [n, bin] of waves.bins.entries()) {
    classes[bin] = becomes[first[n] + 1];
    other[bin] = becomes[second[n] + 1];
    match[bin] = Math.max(0, likeness(waves.values, n * d, centres, first[n] * d, d));
  }
  return {
    classes: { binGrid, values: classes, quantity: 'class', unit: '' },
    match: { binGrid, values: match, quantity: 'confidence', unit: '' },
    second: { binGrid, values: other, quantity: 'class', unit: '' },
  };
}

/** Centres as a table: the time of each sample from the top of the window, and its value in every class. */
function centresTable(centres: Float64Array, d: number, volume: Volume): Draft<ResultTable> {
  const k = centres.length / d;
  return {
    kind: 'result table',
    columns: [
      { name: 'From the top', unit: volume.domain === 'depth' ? 'm' : 'ms' },
      ...Array.from({ length: k }, (_, c) => ({ name: `Class ${c + 1}`, unit: volume.unit })),
    ],
    rows: Array.from({ length: d }, (_, m) => [
      m * volume.vertical.step,
      ...Array.from({ length: k }, (__, c) => centres[c * d + m]),
    ]),
  };
}

/** Centres that were kept, as they stand in their table. */
function centresFrom(table: ResultTable, waves: Waveforms): Float64Array {
  const d = waves.dimensions;
  if (!table.columns[0]?.name.startsWith('From the top') || table.rows.length !== d)
    throw new LithagonError('input', `${table.name} holds no class centres of ${d} samples.`, {
      object: table.name,
      fix: 'Choose the centres of a run with the same window, and samples of the same step.',
    });
  const k = table.columns.length - 1;
  return Float64Array.from({ length: k * d }, (_, n) => Number(table.rows[n % d][1 + Math.floor(n / d)]));
}

/** Numbers of classes that their gain is told for. */
const MOST_GAINS = 15;

/** What part of the variance classes tell, by their number, and what one more adds. */
function gainsTable(train: PointSet, p: Params): Draft<ResultTable> {
  const within: number[] = [];
  for (let k = 1; k <= Math.min(MOST_GAINS, countOf(train)); k++) {
    within.push(kMeans(train, k, p.seed).within);
  }
  const told = within.map((w) => (within[0] > 0 ? 1 - w / within[0] : 0));
  return {
    kind: 'result table',
    columns: [
      { name: 'Classes', unit: '' },
      { name: 'Variance told', unit: '%' },
      { name: 'Gain of the last', unit: '%' },
    ],
    rows: told.map((v, n) => [n + 1, 100 * v, n > 0 ? 100 * (v - told[n - 1]) : null]),
  };
}

export const waveforms = defineStep({
  id: 'attributes.waveforms',
  version: 1,
  stage: 'attributes',
  purpose: 'Classes and bodies',
  title: 'Waveform classes',
  summary:
    'Parts the waveforms around a horizon, or between two, into classes without training; each bin with its match and second best.',
  formula: 'Centres c that make Σ min_c |w − c|² least, ordered so that neighbours look alike; match w·c / |w||c|.',
  avoid: 'With a horizon that skips a cycle: classes then map the skip.',
  source:
    'Self-organizing maps Kohonen (1982), Biological Cybernetics 43, 59–69; k-means++ Arthur & Vassilvitskii (2007), Proc. SODA, 1027–1035; mixtures Dempster et al. (1977), J. Royal Statistical Society B 39, 1–38',
  reach: 'global',
  inputs: {
    volume: { kind: 'volume', title: 'Volume' },
    horizon: { kind: 'horizon', title: 'Horizon' },
    base: { kind: 'horizon', title: 'Base', optional: true },
    like: { kind: 'result table', title: 'Classes of', optional: true },
  },
  params,
  outputs: {
    classes: { kind: 'map', title: 'Waveform classes' },
    match: { kind: 'map', title: 'Match of waveform classes' },
    second: { kind: 'map', title: 'Second-best class' },
    centres: { kind: 'result table', title: 'Class centres' },
    gains: { kind: 'result table', title: 'Gain of classes' },
  },
  async maps({ inputs: { volume, horizon, base, like }, params: p, store, signal, progress }) {
    const waves = await waveformsOf(store, volume, horizon, base, p, { signal, progress });
    return during(signal, () =>
      classified(waves, like ? centresFrom(like, waves) : centresOf(drawn(waves, p.trainOn, p.seed), p), p.groups),
    );
  },
  async run({ inputs: { volume, horizon, base, like }, params: p, store, signal, progress, idFor, warn, preview }) {
    const waves = await waveformsOf(store, volume, horizon, base, p, {
      signal,
      progress: (part) => progress(0.6 * part),
    });
    if (countOf(waves) < 10 * p.classes)
      warn(`${countOf(waves)} waveforms are few for ${p.classes} classes: choose fewer.`);
    const train = drawn(waves, p.trainOn, p.seed);
    // classes as they settle, for whoever looks on
    const seen = (now: Float64Array) => {
      const { classes } = classified(waves, now, []);
      preview({ binGrid: classes.binGrid, values: classes.values });
    };
    const centres = like ? centresFrom(like, waves) : during(signal, () => centresOf(train, p, seen));
    progress(0.8);
    const out: Record<string, Draft> = {
      centres: centresTable(centres, waves.dimensions, volume),
      gains: during(signal, () => gainsTable(train, p)),
    };
    const { names } = mergedClasses(centres.length / waves.dimensions, p.groups);
    for (const [role, map] of Object.entries(classified(waves, centres, p.groups))) {
      const kept = await keptMap(map, store, idFor(role));
      out[role] = role === 'match' ? kept : { ...kept, classes: names };
    }
    return out;
  },
});
