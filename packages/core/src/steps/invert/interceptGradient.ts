import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { InversionOperator } from '../../earth/objects.ts';
import type { LocalStep } from '../../engine/local.ts';
import { type AngleFit, angleFit, covarianceOf, fitAngles } from '../../inversion/interceptGradient.ts';
import { applyOperator } from '../../inversion/operator.ts';
import { choice, defineStep, number } from '../define.ts';
import { readyStacks, stacksInput } from './align.ts';

const params = z.object({
  terms: choice(
    {
      title: 'Terms',
      description: 'Intercept and gradient, or curvature too, which three stacks and far angles tell.',
    },
    ['two', 'three'],
    'two',
  ),
  windowMs: number(
    {
      title: 'Noise over',
      description: 'Height of the window in which the misfit of the fit is taken for noise.',
      unit: 'ms',
    },
    { min: 20, max: 1000, step: 20, initial: 160 },
  ),
});
type Params = z.infer<typeof params>;

type Applied = Pick<InversionOperator, 'hz' | 'gain' | 'phaseDeg'>;

const TWO = ['intercept', 'gradient'];

interface Ready {
  /** That makes impedances of both, where one was chosen. */
  operator: Applied | null;
  roles: string[];
  fit: AngleFit;
  angles: number[];
}

const local: LocalStep<Params, Applied | null, Ready> = {
  volumes: ['stacks'],
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  // errors are those of amplitudes: an operator carries them along the trace
  roles: ({ operator }) => [...TWO, ...(operator ? [] : ['interceptError', 'gradientError'])],
  prepare: async ({ operator }) => {
    if (!operator) return null;
    const { hz, gain, phaseDeg } = operator as InversionOperator;
    return { hz, gain, phaseDeg };
  },
  ready: (operator, p, volumes) => {
    const terms = p.terms === 'two' ? 2 : 3;
    const stacks = readyStacks(volumes, terms);
    const angles = stacks.map((s) => s.angle);
    const fit = angleFit(angles, terms);
    if (!covarianceOf(fit))
      throw new LithagonError('stacks', `Stacks of ${angles.join('°, ')}° do not tell ${p.terms} terms apart.`, {
        fix: 'Choose stacks of angles further apart, or fewer terms. Nothing was changed.',
      });
    return { operator, roles: stacks.map((s) => s.role), fit, angles };
  },
  outputs: {
    intercept: { quantity: 'intercept', unit: '' },
    gradient: { quantity: 'gradient', unit: '' },
    interceptError: { quantity: 'envelope', unit: '' },
    gradientError: { quantity: 'envelope', unit: '' },
  },
  outputOf: ({ polarity }, _, ready, role) => {
    if (role && !TWO.includes(role)) return {};
    return ready?.operator ? { quantity: 'relative impedance', unit: '' } : { polarity };
  },
  evaluate(blocks, p, { operator, roles, fit }) {
    const { size, stepMs } = blocks[roles[0]];
    const half = Math.max(1, Math.round(p.windowMs / stepMs / 2));
    const found = fitAngles(
      fit,
      roles.map((role) => blocks[role].data),
      size[2],
      half,
    );
    if (!operator) return { ...found };
    const { intercept, gradient } = found;
    for (const data of [intercept, gradient]) applyOperator(data, size[2], stepMs, operator);
    return { intercept, gradient };
  },
  says: ({ fit, angles }) => {
    const cov = covarianceOf(fit) as number[][];
    const r = cov[0][1] / Math.sqrt(cov[0][0] * cov[1][1]);
    return [
      `By stacks of ${angles.join('°, ')}° an error of one in each makes ${Math.sqrt(cov[0][0]).toFixed(2)} in the intercept and ${Math.sqrt(cov[1][1]).toFixed(2)} in the gradient, with a correlation of ${r.toFixed(2)} between the two: noise alone spreads pairs along a line of that slope.`,
      ...(angles.length === fit.terms
        ? ['There are as many terms as stacks, so nothing is left over to tell their errors by: there are none.']
        : []),
    ];
  },
};

export const interceptGradient = defineStep({
  id: 'invert.interceptGradient',
  version: 1,
  stage: 'invert',
  purpose: 'Stacks and fluids',
  title: 'Intercept and gradient',
  summary:
    'Fits amplitude against angle at every sample: what reflects at normal incidence, and how that changes outward, each with its standard error; with an operator the relative impedances of both.',
  formula: 'd(θ) = A + B·sin²θ (+ C·(tan²θ − sin²θ)); misfits beyond 1.345 σ count less.',
  avoid: 'On stacks that are not aligned or balanced: a shift of a few ms makes a gradient of its own.',
  source:
    'Shuey (1985), Geophysics 50, 609–614; robust weights Huber (1964), Annals of Mathematical Statistics 35, 73–101',
  reach: 'trace',
  inputs: {
    stacks: stacksInput,
    operator: {
      kind: 'operator',
      title: 'As impedances, by the operator',
      optional: true,
      begins: true,
      usual: { step: 'invert.operator', output: 'operator' },
    },
  },
  params,
  outputs: {
    intercept: { kind: 'volume', title: 'Intercept' },
    gradient: { kind: 'volume', title: 'Gradient' },
    interceptError: { kind: 'volume', title: 'Error of intercept' },
    gradientError: { kind: 'volume', title: 'Error of gradient' },
  },
  local,
});
