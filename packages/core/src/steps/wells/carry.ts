import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import { TOP_COLUMNS } from '../../earth/objects.ts';
import { shownUnits } from '../../project/units.ts';
import { CARRY_SETTINGS, type CarrySettings, notThereYet, proposeTops } from '../../project/wells/carry.ts';
import { defineStep, eachRole, listed, number, text, wellsInput } from '../define.ts';

const params = z.object({
  curves: text(
    { title: 'Curves', description: 'The curves that are compared.', names: 'curves' },
    CARRY_SETTINGS.curves.join(', '),
  ),
  tops: text(
    { title: 'Tops', description: 'The tops that are correlated; all of them where none is named.', names: 'tops' },
    '',
    2000,
  ),
  mostStretch: number(
    { title: 'Stretch to', description: 'How many times thicker or thinner section may be than in the trusted well.' },
    { min: 1, max: 3, step: 0.05, initial: CARRY_SETTINGS.mostStretch },
  ),
  mostShiftM: number(
    { title: 'Search', description: 'How much shallower or deeper a top may lie.', unit: 'm' },
    { min: 20, max: 1000, step: 10, initial: CARRY_SETTINGS.mostShiftM },
  ),
  gapM: number(
    { title: 'Missing section costs', description: 'Low finds gaps readily, high only great ones.', unit: 'm' },
    { min: 5, max: 200, step: 5, initial: CARRY_SETTINGS.gapM },
  ),
  leastConfidence: number(
    { title: 'Minimum confidence', description: 'A top less sure than this is not proposed.' },
    { min: 0, max: 0.95, step: 0.05, initial: CARRY_SETTINGS.leastConfidence },
  ),
});

/** Settings from the parameters of a form. */
export function carrySettings(p: z.infer<typeof params>): CarrySettings {
  return { ...p, curves: listed(p.curves), tops: listed(p.tops) };
}

export const carry = defineStep({
  id: 'wells.carry',
  purpose: 'Correlation',
  version: 1,
  stage: 'wells',
  title: 'Correlate tops',
  summary: 'Proposes the tops of trusted wells in others by the shape of their curves; missing beds are reported.',
  formula:
    'The alignment of least cost: mean squared differences of the curves in units of their spread, and what missing section costs.',
  avoid: 'Across faults, pinch-outs or facies changes between the wells: every top must be looked at.',
  source: 'Lineman et al. (1987), SPWLA 28th Symposium; Smith & Waterman (1980), Journal of Geology 88, 451–457',
  reach: 'global',
  inputs: {
    trusted: { ...wellsInput(['directional surveys', 'logs', 'tops']), title: 'Trusted wells' },
    wells: { ...wellsInput(['directional surveys', 'logs', 'tops']), title: 'Wells to correlate them to' },
  },
  params,
  outputs: { tops: { kind: 'tops', title: 'Correlated tops', each: 'wells' } },
  async run({ inputs, around, params: p, store, signal, progress, warn, uses }) {
    const { trusted, wells } = inputs;
    const targets = wells.filter((w) => !trusted.some((t) => t.id === w.id));
    if (targets.length === 0)
      throw new LithagonError('carry', 'Every well chosen is trusted, so there is none to correlate tops to.', {
        fix: 'Choose wells without tops, or trust fewer.',
      });
    const { proposals, notes, used } = await proposeTops(store, around, trusted, targets, carrySettings(p), {
      signal,
      progress,
    });
    for (const logs of used) uses(logs);
    const units = await shownUnits(store);
    const fresh = notThereYet(around, proposals, units);
    for (const note of [...notes, ...fresh.notes]) warn(note);
    const out = targets.flatMap((well) => {
      const mine = fresh.proposals.filter((q) => q.well === well.name);
      for (const q of mine.filter((m) => m.absent))
        warn(`${well.name}: the bed below ${q.name} is missing at about ${units.text(q.md, 'm MD', 0)}.`);
      const rows = mine
        .filter((q) => !q.absent)
        .map((q) => [
          q.name,
          q.md,
          q.confidence,
          'top',
          null,
          `correlated from ${q.from}, match ${q.match.toFixed(2)}`,
        ]);
      return rows.length > 0 ? [{ id: well.id, well: well.name, rows }] : [];
    });
    if (out.length === 0)
      throw new LithagonError('carry', 'No top was found in a well that does not have it already.', {
        fix: 'Allow more stretch or search, or lower the least confidence. Nothing was changed.',
      });
    return Object.fromEntries(
      out.map(({ id, well, rows }) => [
        eachRole('tops', id),
        { kind: 'tops' as const, well, columns: TOP_COLUMNS, rows },
      ]),
    );
  },
});
