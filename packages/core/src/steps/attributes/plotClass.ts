import { z } from 'zod';
import { classify, IN_SEVERAL, type Plotted, plotted } from '../../classes/plotted.ts';
import { sameBins, toMap } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, Horizon, PlotClass, QuantityMap } from '../../earth/objects.ts';
import type { Given } from '../../engine/local.ts';
import { gridAt } from '../../horizons/grid.ts';
import { readWhole } from '../../storage/arrays.ts';
import { choice, defineStep, number } from '../define.ts';
import { mapStep } from '../mapStep.ts';

const limit = (title: string, description: string, initial: number) =>
  number({ title, description }, { min: -1e12, max: 1e12, step: 1, initial });

const params = z.object({
  thirdFrom: limit('Third from', 'Lowest value of the third volume that any class takes in.', -1e12),
  thirdTo: limit('Third to', 'Highest value that it does.', 1e12),
  fourthFrom: limit('Fourth from', 'Lowest value of the fourth volume that any class takes in.', -1e12),
  fourthTo: limit('Fourth to', 'Highest value that it does.', 1e12),
  several: choice(
    { title: 'In several classes', description: 'What a sample gets that lies in more than one of them.' },
    [...IN_SEVERAL],
    'the first of them',
  ),
});

type Params = z.infer<typeof params>;

/** Values of the third and fourth where they lie within the ranges of the run; elsewhere none, so that no class takes them in. */
function allowed(values: (Float32Array | undefined)[], p: Params): (n: number) => boolean {
  const ranges = [
    [p.thirdFrom, p.thirdTo],
    [p.fourthFrom, p.fourthTo],
  ];
  return (n) => values.every((v, m) => !v || (v[n] >= ranges[m][0] && v[n] <= ranges[m][1]));
}

/** Classes of places, none where the third or fourth lies out of the ranges of the run. */
function classesOf(
  ready: Plotted,
  x: Float32Array,
  y: Float32Array,
  further: (Float32Array | undefined)[],
  p: Params,
): Float32Array {
  const out = classify(ready, x, y, further, p.several);
  const may = allowed(further, p);
  for (let n = 0; n < out.length; n++) if (out[n] > 0 && !may(n)) out[n] = 0;
  return out;
}

const readyOf = (given: Given, further: (EarthObject | undefined)[]) =>
  plotted(
    given.classes as PlotClass[],
    further.map((o) => o?.id ?? ''),
    (id) => further.find((o) => o?.id === id)?.name ?? id,
  );

export const plotClass = defineStep({
  id: 'attributes.plotClass',
  version: 1,
  stage: 'attributes',
  purpose: 'Classes and bodies',
  title: 'Crossplot classes',
  summary:
    'Gives every sample the class whose polygon in a crossplot of two volumes it lies in, within ranges of a third and fourth.',
  formula: 'n where (x, y) lies in polygon n and v₁ ≤ z ≤ v₂, on linear or logarithmic axes as they were drawn.',
  avoid: 'With two axes where two kinds of rock overlap: limit a third, by which they part.',
  source: 'Points in polygons Shimrat (1962), Communications of the ACM 5, 434',
  reach: 'local',
  inputs: {
    x: { kind: 'volume', title: 'Along x' },
    y: { kind: 'volume', title: 'Along y' },
    third: { kind: 'volume', title: 'Third', optional: true },
    fourth: { kind: 'volume', title: 'Fourth', optional: true },
    classes: { kind: 'crossplot class', title: 'Classes', many: true },
  },
  params,
  outputs: { classes: { kind: 'volume', title: 'Crossplot classes' } },
  local: {
    volumes: ['x', 'y', 'third', 'fourth'],
    halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
    prepare: async (given) => readyOf(given, [given.third, given.fourth] as (EarthObject | undefined)[]),
    evaluate: ({ x, y, third, fourth }, p, ready: Plotted) => ({
      classes: classesOf(ready, x.data, y.data, [third?.data, fourth?.data], p),
    }),
    outputs: { classes: { quantity: 'class', unit: '' } },
  },
});

const grid = (title: string) => ({ kind: 'map', or: 'horizon', title }) as const;

export const plotClassMap = mapStep({
  id: 'attributes.plotClassMap',
  version: 1,
  stage: 'attributes',
  purpose: 'Classes and bodies',
  title: 'Crossplot classes of maps',
  summary:
    'Gives every bin the class whose polygon in a crossplot of two maps it lies in, within ranges of a third and fourth.',
  formula: 'n where (x, y) lies in polygon n and v₁ ≤ z ≤ v₂, on linear or logarithmic axes as they were drawn.',
  avoid: 'With two axes where two kinds of rock overlap: limit a third, by which they part.',
  source: 'Points in polygons Shimrat (1962), Communications of the ACM 5, 434',
  reach: 'global',
  inputs: {
    x: grid('Along x'),
    y: grid('Along y'),
    third: { ...grid('Third'), optional: true },
    fourth: { ...grid('Fourth'), optional: true },
    classes: { kind: 'crossplot class', title: 'Classes', many: true },
  },
  params,
  outputs: { classes: { kind: 'map', title: 'Crossplot classes' } },
  async maps({ inputs, params: p, store }) {
    const { x, y, third, fourth } = inputs as unknown as Record<string, QuantityMap | Horizon | undefined>;
    if (!x || !y) throw new LithagonError('input', 'Two maps or horizons are needed.');
    const { binGrid } = x;
    const columns = binGrid.crossline.count;
    // others are read where the bins of the first are, between theirs
    const on = async (of: typeof third) => {
      if (!of) return undefined;
      const values = await readWhole(store, of.values);
      if (sameBins(of.binGrid, binGrid)) return values;
      return Float32Array.from({ length: binGrid.inline.count * columns }, (_, n) =>
        gridAt(values, of.binGrid, ...toMap(binGrid, Math.floor(n / columns), n % columns)),
      );
    };
    const [a, b, c, d] = await Promise.all([x, y, third, fourth].map(on));
    const ready = readyOf(inputs as unknown as Given, [third, fourth]);
    const values = classesOf(ready, a as Float32Array, b as Float32Array, [c, d], p);
    return { classes: { binGrid, values, quantity: 'class', unit: '' } };
  },
});
