import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import { curveOf } from '../../project/wells/curves.ts';
import { formulaUnits } from '../../project/wells/names.ts';
import { evaluateFormula, type Variable } from '../../wells/formula.ts';
import { text } from '../define.ts';
import { Left, wellStep } from './perWell.ts';

/** Words of a formula, each with the curve that it names in a well: by mnemonic, or by class with _ for blanks. */
const named = <H>(formula: string, held: (name: string) => H | null) =>
  [...new Set(formula.match(/[A-Za-z_][A-Za-z0-9_]*/g) ?? [])].flatMap((word) => {
    const found = held(word) ?? held(word.replace(/_/g, ' '));
    return found ? [{ word, found }] : [];
  });

const noCurve = (cause: unknown) => cause instanceof LithagonError && cause.code === 'curve';

export const formula = wellStep({
  id: 'wells.formula',
  purpose: 'Curves',
  title: 'Formula',
  output: 'Formula',
  summary: 'A curve from others by a formula in ordinary notation; units are checked.',
  formula: 'What you write, sample by sample; units are checked.',
  avoid: 'For what a step does: a step keeps its source and its reasons.',
  source:
    'Bureau International des Poids et Mesures (2019), The International System of Units: units go through a formula with its values',
  params: z.object({
    formula: text(
      {
        title: 'Formula',
        description:
          'Curves by class, with _ for blanks, or by mnemonic. + − * / ^, comparisons, test ? a : b, sqrt, exp, log, log10, abs, min, max, in(curve, "unit") for a plain value.',
        names: 'formula',
      },
      'in(density, "g/cm3") * in(1 / sonic, "m/s")',
      2000,
    ),
    result: text({ title: 'Called', description: 'Name of the new curve.' }, 'RESULT'),
    unit: text({ title: 'Unit', description: 'What the result is in; its SI unit where empty.' }, '', 20),
    over: text(
      { title: 'On the depths of', description: 'The curve whose depths the result has.', names: 'curve' },
      'sonic',
    ),
  }),
  axis: (p) => [p.over],
  async foresee({ inputs, objects, params: p }) {
    const wells = [inputs.wells ?? []].flat();
    let [unit, without] = ['', [] as string[]];
    for (const well of wells)
      try {
        const none = new Float32Array(0);
        // all that could be named, so that a refusal can say what there is
        const variables = [...formulaUnits(objects, [well.name])].map(([name, of]): [string, Variable] => [
          name,
          { values: none, unit: of },
        ]);
        for (const { word, found } of named(p.formula, (name) => curveOf(objects, well.name, name)))
          variables.push([word, { values: none, unit: found.curve.unit }]);
        unit = (await evaluateFormula(p.formula, new Map(variables), 0, p.unit)).unit;
      } catch (cause) {
        if (!noCurve(cause) || without.length === wells.length - 1) throw cause;
        without = [...without, well.name];
      }
    const left =
      without.length > 0 ? `; ${without.join(', ')} ${without.length > 1 ? 'lack' : 'lacks'} a curve of it` : '';
    return `${p.result} will be ${unit ? `in ${unit}` : 'a plain number'}${left}.`;
  },
  async make(one, p) {
    const variables = new Map<string, Variable>();
    for (const { word, found } of named(p.formula, one.held)) {
      const values = await one.get(found.curve.mnemonic === word ? word : found.curve.class);
      if (values) variables.set(word, { values, unit: found.curve.unit });
    }
    const [md, tvdss] = [one.md, one.tvdss].map((depth) =>
      Float32Array.from({ length: one.axis.count }, (_, n) => depth(n)),
    );
    variables.set('MD', { values: md, unit: 'm' });
    variables.set('TVDSS', { values: tvdss, unit: 'm' });
    const { values, unit } = await evaluateFormula(p.formula, variables, one.axis.count, p.unit).catch(
      (cause: unknown) => {
        if (noCurve(cause)) throw new Left(`${one.well.name}: ${(cause as Error).message.replace(/\.$/, '')}`);
        throw cause;
      },
    );
    return [{ mnemonic: p.result.slice(0, 60), class: 'other', unit, description: p.formula.slice(0, 190), values }];
  },
});
