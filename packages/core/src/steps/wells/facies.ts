import { z } from 'zod';
import { METHODS } from '../../facies/classifier.ts';
import { type FaciesSettings, faciesOf } from '../../project/wells/facies.ts';
import { choice, defineStep, eachRole, listed, number, text, wellsInput } from '../define.ts';
import { logsDraft } from './perWell.ts';

const params = z.object({
  method: choice(
    { title: 'Classifier', description: 'What learns the facies.' },
    [...METHODS],
    'Gaussian discriminant',
  ),
  curves: text(
    { title: 'Curves', description: 'The curves that are learned from.', names: 'curves' },
    'gamma ray, sonic, density, neutron, resistivity',
  ),
  from: text(
    {
      title: 'From the top',
      description: 'Where the interval begins; the whole log where empty.',
      names: 'top',
      optional: true,
    },
    '',
  ),
  to: text(
    {
      title: 'To the top',
      description: 'Where the interval ends; the whole log where empty.',
      names: 'top',
      optional: true,
    },
    '',
  ),
  prior: choice(
    { title: 'Priors', description: 'Facies as common as where they were described, or all alike.' },
    ['as seen', 'even'],
    'as seen',
  ),
  leastBedM: number(
    { title: 'Thinnest bed', description: 'No bed is thinner.', unit: 'm' },
    { min: 0, max: 20, step: 0.25, initial: 1 },
  ),
  seed: number(
    { title: 'Seed', description: 'Of what is drawn by chance in forest and network.' },
    { min: 1, max: 9999, whole: true, initial: 1 },
  ),
});

/** Settings from the parameters of a form. */
export function faciesSettings(p: z.infer<typeof params>): FaciesSettings {
  return { ...p, curves: listed(p.curves) };
}

const percent = (v: number) => Math.round(1000 * v) / 10;

export const facies = defineStep({
  id: 'wells.facies',
  purpose: 'Correlation',
  version: 1,
  stage: 'wells',
  title: 'Predict facies',
  summary:
    'Learns described facies from curves, says by blind wells how well they are known, and predicts them in others.',
  formula:
    'The class of greatest probability by the chosen classifier, learnt where facies are known; rock unlike that stays unnamed.',
  avoid: 'Where training wells lack a facies: it is never predicted.',
  source:
    'Hastie, Tibshirani & Friedman (2009), The Elements of Statistical Learning; Breiman (2001), Machine Learning 45, 5–32; Guo et al. (2017)',
  reach: 'global',
  inputs: {
    trained: {
      ...wellsInput(['logs', 'tops', 'facies', 'directional surveys'], { having: 'facies' }),
      title: 'Described wells',
    },
    wells: { ...wellsInput(['logs', 'tops', 'directional surveys']), title: 'Wells to predict' },
  },
  params,
  outputs: {
    facies: { kind: 'facies', title: 'Predicted facies', each: 'wells' },
    logs: { kind: 'logs', title: 'Facies probabilities', each: 'wells' },
    report: { kind: 'result table', title: 'Facies validation' },
  },
  async run({ inputs, around, params: p, store, signal, progress, warn, uses, idFor }) {
    const { trained, wells } = inputs;
    const found = await faciesOf(store, around, trained, wells, faciesSettings(p), { signal, progress });
    for (const note of found.notes) warn(note);
    for (const logs of found.used) uses(logs);
    const { validation: v, classes } = found;
    if (v)
      warn(
        `Blind wells: ${percent(v.accuracy)} % right, against ${percent(v.majority)} % by always guessing the commonest; probabilities are off by ${percent(v.calibrationError)} points on average.`,
      );
    const outputs: Record<string, unknown> = {};
    for (const well of found.predicted) {
      const id = wells.find((w) => w.name === well.well)?.id ?? '';
      outputs[eachRole('facies', id)] = {
        kind: 'facies',
        well: well.well,
        columns: [
          { name: 'From MD', unit: 'm' },
          { name: 'To MD', unit: 'm' },
          { name: 'Facies', unit: '' },
        ],
        rows: well.rows,
      };
      outputs[eachRole('logs', id)] = await logsDraft(store, idFor(eachRole('logs', id)), well.well, well.axis, [
        ...classes.map((name, c) => ({
          mnemonic: `P(${name})`,
          class: 'facies probability' as const,
          unit: '1',
          description: `Probability of ${name}`,
          values: well.probabilities[c],
        })),
        {
          mnemonic: 'FAR',
          class: 'distance to training' as const,
          unit: '1',
          description: `Distance to what was learned from; beyond ${found.limit.toFixed(1)} nothing is guessed`,
          values: well.distance,
        },
      ]);
    }
    if (v)
      outputs.report = {
        kind: 'result table',
        columns: [
          { name: 'Described as', unit: '' },
          ...classes.map((name) => ({ name: `taken for ${name}`, unit: '' })),
          { name: 'Found', unit: '%' },
        ],
        rows: [
          ...classes.map((name, c) => {
            const all = v.confusion[c].reduce((a, b) => a + b, 0);
            return [name, ...v.confusion[c], all > 0 ? percent(v.confusion[c][c] / all) : null];
          }),
          ...v.byWell.map((w) => [
            `Blind in ${w.well} (commonest ${percent(w.majority)} %)`,
            ...classes.map(() => null),
            percent(w.accuracy),
          ]),
          ...found.curves.map((name, n) => [
            `Loss without ${name}`,
            ...classes.map(() => null),
            percent(v.importance[n]),
          ]),
          ...v.reliability.map((t) => [
            `Said ${percent(t.said)} %, ${t.samples} samples`,
            ...classes.map(() => null),
            percent(t.right),
          ]),
        ],
        records: [{ ...v, classes, curves: found.curves, limit: found.limit }],
      };
    return outputs as never;
  },
});
