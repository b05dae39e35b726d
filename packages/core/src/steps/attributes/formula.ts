import { z } from 'zod';
import { toMap } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import { quantityFacts } from '../../earth/quantities.ts';
import { gridAt } from '../../horizons/grid.ts';
import { readWhole } from '../../storage/arrays.ts';
import { type ParsedFormula, parseFormula, type Variable, workOutFormula } from '../../wells/formula.ts';
import { defineStep, type InputSpec, text } from '../define.ts';
import { mapStep } from '../mapStep.ts';

const SAYS =
  '+ − * / ^, comparisons, test ? a : b, sqrt, exp, log, log10, abs, min, max, in(A, "unit") for a plain value.';

const unit = text({ title: 'Unit', description: 'What the result is in; its SI unit where empty.' }, '', 20);

const ROLES = ['A', 'B', 'C', 'D'] as const;

const volumeParams = z.object({
  formula: text({ title: 'Formula', description: `Volumes are A, B, C and D as they are chosen. ${SAYS}` }, 'A', 2000),
  unit,
});

type VolumeParams = z.infer<typeof volumeParams>;

export const formula = defineStep({
  id: 'attributes.formula',
  version: 1,
  stage: 'attributes',
  purpose: 'Arithmetic',
  title: 'Formula of volumes',
  summary: 'A volume from up to four by a formula in ordinary notation; units are checked.',
  formula: 'What you write, sample by sample; units go through it.',
  avoid: 'For what a step does: a step keeps its source and its reasons.',
  source:
    'Bureau International des Poids et Mesures (2019), The International System of Units: units go through a formula with its values',
  reach: 'local',
  inputs: {
    A: { kind: 'volume', title: 'A' },
    B: { kind: 'volume', title: 'B', optional: true },
    C: { kind: 'volume', title: 'C', optional: true },
    D: { kind: 'volume', title: 'D', optional: true },
  },
  params: volumeParams,
  outputs: { result: { kind: 'volume', title: 'Formula' } },
  async foresee({ inputs, params: p }) {
    const none = new Float32Array(0);
    const variables = new Map<string, Variable>();
    for (const role of ROLES) {
      const given = [inputs[role] ?? []].flat()[0];
      if (given?.kind === 'volume') variables.set(role, { values: none, unit: given.unit });
    }
    const made = workOutFormula(await parseFormula(p.formula), variables, 0, p.unit);
    return `The result will be ${made.unit ? `in ${made.unit}` : 'a plain number'}.`;
  },
  local: {
    volumes: [...ROLES],
    halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
    prepareRestsOn: ['formula'],
    prepare: (_, { params }) => parseFormula(params.formula),
    ready(parsed: ParsedFormula, p: VolumeParams, volumes) {
      const units = Object.fromEntries(ROLES.flatMap((role) => (volumes[role] ? [[role, volumes[role].unit]] : [])));
      // what cannot be worked out is said before anything is
      const none = new Float32Array(0);
      const variables = new Map(Object.entries(units).map(([role, of]) => [role, { values: none, unit: of }]));
      return { parsed, units, unit: workOutFormula(parsed, variables, 0, p.unit).unit };
    },
    evaluate(blocks, p, ready: { parsed: ParsedFormula; units: Record<string, string> }) {
      const variables = new Map(
        Object.entries(ready.units).map(([role, of]) => [role, { values: blocks[role].data, unit: of }]),
      );
      return { result: workOutFormula(ready.parsed, variables, blocks.A.data.length, p.unit).values };
    },
    outputOf: (volume, p, ready) =>
      /^\s*A\s*$/.test(p.formula) && !p.unit
        ? {}
        : {
            quantity: quantityFacts(volume.quantity).symmetric ? 'amplitude' : 'attribute',
            unit: ready?.unit ?? p.unit,
          },
  },
});

/** The word for an object in a formula: its name with _ for what is neither letter nor digit. */
export const wordFor = (name: string): string => name.replace(/[^A-Za-z0-9]+/g, '_').replace(/^(?=\d)/, '_');

const many = (kind: 'map' | 'horizon', title: string) =>
  ({ kind, title, many: true, optional: true }) as const satisfies InputSpec;

export const mapFormula = mapStep({
  id: 'attributes.mapFormula',
  version: 1,
  stage: 'attributes',
  purpose: 'Arithmetic',
  title: 'Formula of maps',
  summary: 'A map from horizons and maps by a formula in ordinary notation; units are checked.',
  formula: 'What you write, bin by bin, on the bins of the first; units go through it.',
  avoid: 'Between a horizon in time and one in depth: convert one first.',
  source:
    'Bureau International des Poids et Mesures (2019), The International System of Units; between bins bilinear, Press et al. (2007), Numerical Recipes, 132–133',
  reach: 'global',
  inputs: { horizons: many('horizon', 'Horizons'), maps: many('map', 'Maps') },
  params: z.object({
    formula: text(
      { title: 'Formula', description: `Horizons and maps by name, with _ for blanks. ${SAYS}` },
      'Base - Top',
      2000,
    ),
    unit,
  }),
  outputs: { map: { kind: 'map', title: 'Formula' } },
  async maps({ inputs: { horizons, maps }, params: p, store }) {
    const all = [...horizons, ...maps];
    if (all.length === 0)
      throw new LithagonError('input', 'A formula needs horizons or maps.', { fix: 'Choose those that it names.' });
    const parsed = await parseFormula(p.formula);
    const { binGrid } = all[0];
    const columns = binGrid.crossline.count;
    const bins = binGrid.inline.count * columns;
    const variables = new Map<string, Variable>();
    for (const of of all) {
      const values = await readWhole(store, of.values);
      const alike = JSON.stringify(of.binGrid) === JSON.stringify(binGrid);
      variables.set(wordFor(of.name), {
        values: alike
          ? values
          : Float32Array.from({ length: bins }, (_, n) =>
              gridAt(values, of.binGrid, ...toMap(binGrid, Math.floor(n / columns), n % columns)),
            ),
        unit: of.kind === 'map' ? of.unit : of.domain === 'depth' ? 'm' : 'ms',
      });
    }
    const made = workOutFormula(parsed, variables, bins, p.unit);
    const quantity =
      made.unit === 'm' ? 'thickness' : made.unit === 's' || made.unit === 'ms' ? 'two-way time' : 'attribute';
    // times are kept in ms
    const inMs = made.unit === 's';
    return {
      map: {
        binGrid,
        values: inMs ? made.values.map((v) => v * 1000) : made.values,
        quantity,
        unit: inMs ? 'ms' : made.unit,
      },
    };
  },
});
