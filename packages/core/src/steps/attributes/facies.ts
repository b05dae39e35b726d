import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { Horizon, Polygon, ResultTable, Volume, Well } from '../../earth/objects.ts';
import {
  METHODS,
  type Novelty,
  noveltyOf,
  type TrainOptions,
  tempered,
  train,
  type Validation,
  validate,
  winners,
} from '../../facies/classifier.ts';
import type { Classifier, Samples } from '../../facies/samples.ts';
import { during, heed } from '../../numerics/stop.ts';
import { trainingSamples } from '../../project/trainingSamples.ts';
import { choice, type Draft, defineStep, number, text } from '../define.ts';

const ROLES = ['A', 'B', 'C', 'D', 'E', 'F'] as const;

/** Samples that are classed at once. */
const TOGETHER = 4096;

const params = z.object({
  method: choice(
    { title: 'Classifier', description: 'What learns the facies.' },
    [...METHODS],
    'Gaussian discriminant',
  ),
  prior: choice(
    { title: 'Priors', description: 'Facies as common as where they are known, or all alike.' },
    ['as seen', 'even'],
    'even',
  ),
  probabilityOf: text(
    {
      title: 'Probability of',
      description: 'Facies whose probability is kept as a volume; of the first where empty.',
      optional: true,
    },
    '',
  ),
  unlike: choice(
    {
      title: 'What is unlike',
      description: 'Samples unlike all that was learned from get no class, or that of the nearest.',
    },
    ['no class', 'the nearest'],
    'no class',
  ),
  seed: number(
    { title: 'Seed', description: 'Of what is drawn by chance.' },
    { min: 1, max: 9999, whole: true, initial: 1 },
  ),
});

/** What a classifier learns from, and how it did where it was tried blind. It crosses between threads, and so holds no function. */
interface Trained {
  roles: string[];
  names: string[];
  training: Samples;
  options: TrainOptions;
  validation: Validation | null;
  /** Samples of each class. */
  counts: number[];
  groups: string[];
  notes: string[];
  temper: number;
}

const learned = new WeakMap<Trained, { classify: Classifier; novelty: Novelty }>();

/** The classifier of a thread, trained when it is first asked. */
function learnedFrom(t: Trained): { classify: Classifier; novelty: Novelty } {
  const known = learned.get(t) ?? { classify: train(t.training, t.options), novelty: noveltyOf(t.training) };
  learned.set(t, known);
  return known;
}

const volumesOf = (given: Record<string, unknown>) =>
  ROLES.flatMap((role): [string, Volume][] => (given[role] ? [[role, given[role] as Volume]] : []));

export const volumeFacies = defineStep({
  id: 'attributes.facies',
  version: 1,
  stage: 'attributes',
  purpose: 'Classes and bodies',
  title: 'Facies of volumes',
  summary:
    'Learns facies from several volumes along described wells or inside painted areas, tries itself blind, and classes every sample.',
  formula:
    'The class of greatest probability by the chosen classifier; probabilities as blind wells show them to be worth.',
  avoid: 'With one described well: nothing can be tried blind, and the table says so.',
  source:
    'Hastie, Tibshirani & Friedman (2009), The Elements of Statistical Learning; Breiman (2001), Machine Learning 45, 5–32; Guo et al. (2017)',
  reach: 'global',
  inputs: {
    A: { kind: 'volume', title: 'First attribute' },
    B: { kind: 'volume', title: 'Second attribute', optional: true },
    C: { kind: 'volume', title: 'Third attribute', optional: true },
    D: { kind: 'volume', title: 'Fourth attribute', optional: true },
    E: { kind: 'volume', title: 'Fifth attribute', optional: true },
    F: { kind: 'volume', title: 'Sixth attribute', optional: true },
    wells: {
      kind: 'well',
      title: 'Described wells',
      many: true,
      optional: true,
      companions: ['facies', 'directional surveys', 'checkshots', 'time-depth relation'],
      having: 'facies',
    },
    areas: { kind: 'polygon', title: 'Painted areas', many: true, optional: true },
    top: { kind: 'horizon', title: 'Areas below', optional: true },
    base: { kind: 'horizon', title: 'Areas above', optional: true },
  },
  params,
  outputs: {
    classes: { kind: 'volume', title: 'Facies' },
    sure: { kind: 'volume', title: 'Probability of the facies found' },
    probability: { kind: 'volume', title: 'Probability of a facies' },
    table: { kind: 'result table', title: 'Facies tried blind' },
  },
  local: {
    volumes: [...ROLES],
    halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
    prepareRestsOn: ['method', 'prior', 'seed'],
    async prepare(given, { store, signal, params: p }): Promise<Trained> {
      const named = volumesOf(given);
      const training = await trainingSamples(
        store,
        named.map(([, v]) => v),
        {
          wells: (given.wells as Well[] | undefined) ?? [],
          areas: ((given.areas as Polygon[] | undefined) ?? []).filter((a) => a.closed),
          top: given.top as Horizon | undefined,
          base: given.base as Horizon | undefined,
          seed: p.seed,
        },
        signal,
      );
      if (training.classes < 2)
        throw new LithagonError(
          'empty',
          `There ${training.classes === 1 ? 'is one class' : 'are no classes'} to learn from. ${training.notes.join(' ')}`.trim(),
          {
            fix: 'Choose wells with described facies that cross the volumes, or areas of two kinds. Nothing was changed.',
          },
        );
      const options = { method: p.method, prior: p.prior, seed: p.seed };
      return during(signal, () => {
        const validation = new Set(training.groups).size > 1 ? validate(training, training.groups, options) : null;
        const counts = training.names.map((_, c) => training.labels.reduce((sum, l) => sum + (l === c ? 1 : 0), 0));
        return {
          roles: named.map(([role]) => role),
          names: training.names,
          training: {
            features: training.features,
            count: training.count,
            width: training.width,
            labels: training.labels,
            classes: training.classes,
          },
          options,
          validation,
          counts,
          groups: [...new Set(training.groups)],
          notes: training.notes,
          temper: validation?.temper ?? 1,
        };
      });
    },
    evaluate(blocks, p, t: Trained) {
      const d = t.roles.length;
      const n = blocks.A.data.length;
      const known: number[] = [];
      for (let s = 0; s < n; s++) if (t.roles.every((role) => !Number.isNaN(blocks[role].data[s]))) known.push(s);
      const classes = t.names.length;
      const { classify, novelty } = learnedFrom(t);
      const wanted = Math.max(0, t.names.indexOf(p.probabilityOf));
      const made = () => new Float32Array(n).fill(Number.NaN);
      const [out, sure, probability] = [made(), made(), made()];
      // a part at a time, so that a cancel is heard between them
      for (let from = 0; from < known.length; from += TOGETHER) {
        heed();
        const some = known.slice(from, from + TOGETHER);
        const features = new Float64Array(some.length * d);
        for (const [k, s] of some.entries())
          for (let c = 0; c < d; c++) features[k * d + c] = blocks[t.roles[c]].data[s];
        const probabilities = tempered(classify(features, some.length), classes, t.temper);
        const won = winners(probabilities, classes);
        const far = p.unlike === 'no class' ? novelty.distance(features, some.length) : null;
        for (const [k, s] of some.entries()) {
          const unlike = far !== null && far[k] > novelty.limit;
          out[s] = unlike ? 0 : won[k] + 1;
          sure[s] = unlike ? 0 : probabilities[k * classes + won[k]];
          probability[s] = unlike ? 0 : probabilities[k * classes + wanted];
        }
      }
      return { classes: out, sure, probability };
    },
    outputs: {
      classes: { quantity: 'class', unit: '' },
      sure: { quantity: 'probability', unit: '1' },
      probability: { quantity: 'probability', unit: '1' },
    },
  },
  async run(context) {
    const t = (await context.prepared()) as Trained;
    const { probabilityOf } = context.params;
    if (probabilityOf && !t.names.includes(probabilityOf))
      throw new LithagonError('params', `There is no facies “${probabilityOf}” among those that are learned.`, {
        fix: `They are ${t.names.join(', ')}.`,
      });
    for (const note of t.notes) context.warn(note);
    const v = t.validation;
    if (!v) context.warn('All samples come from one well: nothing could be tried blind.');
    else
      context.warn(
        `Blind: ${(100 * v.accuracy).toFixed(1)} % right, against ${(100 * v.majority).toFixed(1)} % by always guessing the commonest.`,
      );
    const names = volumesOf(context.inputs as Record<string, unknown>).map(([, volume]) => volume.name);
    return { ...(await context.stored()), table: tableOf(t, names) };
  },
});

/** Classes by number, what each was taken for blind, how each well did, and what each attribute adds. */
function tableOf(t: Trained, attributes: string[]): Draft<ResultTable> {
  const v = t.validation;
  const none = t.names.map(() => null);
  const percent = (x: number) => Math.round(1000 * x) / 10;
  return {
    kind: 'result table',
    columns: [
      { name: 'Facies', unit: '' },
      { name: 'Class', unit: '' },
      { name: 'Samples', unit: '' },
      ...t.names.map((name) => ({ name: `taken for ${name}`, unit: '' })),
      { name: 'Right', unit: '%' },
    ],
    rows: [
      ...t.names.map((name, c) => {
        const all = v?.confusion[c].reduce((a, b) => a + b, 0) ?? 0;
        return [
          name,
          c + 1,
          t.counts[c],
          ...(v?.confusion[c] ?? none),
          v && all > 0 ? percent(v.confusion[c][c] / all) : null,
        ];
      }),
      ...(v?.byWell.map((w) => [`Blind: ${w.well}`, null, w.samples, ...none, percent(w.accuracy)]) ?? []),
      ...(v?.importance.map((lost, a) => [`Lost without ${attributes[a]}`, null, null, ...none, percent(lost)]) ?? []),
    ],
  };
}
