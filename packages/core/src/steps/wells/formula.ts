import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import { evaluateFormula, type Variable } from '../../wells/formula.ts';
import { text } from '../define.ts';
import { Left, wellStep } from './perWell.ts';

export const formula = wellStep({
  id: 'wells.formula',
  title: 'Formula',
  output: 'Formula',
  summary: 'A curve from others by a formula in ordinary notation; units are checked.',
  source:
    'Bureau International des Poids et Mesures (2019), The International System of Units: units go through a formula with its values',
  params: z.object({
    formula: z.string().min(1).max(2000).default('in(RHOB, "g/cm3") * in(1 / DT, "m/s")').meta({
      title: 'Formula',
      description:
        'Curves by mnemonic, or by class with _ for blanks (gamma_ray). + − * / ^, comparisons, test ? a : b, sqrt, exp, log, log10, abs, min, max, in(curve, "unit") for a plain value.',
    }),
    result: text({ title: 'Called', description: 'Name of the new curve.' }, 'RESULT'),
    unit: z
      .string()
      .max(20)
      .default('')
      .meta({ title: 'Unit', description: 'What the result is in; empty for a plain number.' }),
    over: text(
      { title: 'On the depths of', description: 'A class or name of curve whose depths the result has.' },
      'sonic',
    ),
  }),
  axis: (p) => [p.over],
  async make(one, p) {
    const variables = new Map<string, Variable>();
    const words = new Set(p.formula.match(/[A-Za-z_][A-Za-z0-9_]*/g) ?? []);
    for (const word of words) {
      const held = one.held(word) ?? one.held(word.replace(/_/g, ' '));
      const values = held && (await one.get(held.curve.mnemonic === word ? word : held.curve.class));
      if (held && values) variables.set(word, { values, unit: held.curve.unit });
    }
    variables.set('MD', { values: Float32Array.from({ length: one.axis.count }, (_, n) => one.md(n)), unit: 'm' });
    variables.set('TVDSS', {
      values: Float32Array.from({ length: one.axis.count }, (_, n) => one.tvdss(n)),
      unit: 'm',
    });
    const values = await evaluateFormula(p.formula, variables, one.axis.count, p.unit).catch((cause: unknown) => {
      if (cause instanceof LithagonError && /There is no curve/.test(cause.message))
        throw new Left(`${one.well.name}: ${cause.message.replace(/\.$/, '')}`);
      throw cause;
    });
    return [
      { mnemonic: p.result.slice(0, 60), class: 'other', unit: p.unit, description: p.formula.slice(0, 190), values },
    ];
  },
});
