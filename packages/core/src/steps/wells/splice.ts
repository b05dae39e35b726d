import { z } from 'zod';
import type { Units } from '../../earth/display.ts';
import { LithagonError } from '../../earth/errors.ts';
import { shownUnits } from '../../project/units.ts';
import { sampledOf } from '../../project/wells/curves.ts';
import { spliced, spliceOrder } from '../../wells/edit.ts';
import { choice, defineStep } from '../define.ts';
import { logsDraft, type MadeCurve } from './perWell.ts';

/** Ranges of depth of the samples that came from each run, in words. */
function sources(from: Int8Array, firstM: number, stepM: number, names: string[], units: Units): string {
  const parts: string[] = [];
  for (let k = 0; k < from.length; ) {
    let to = k;
    while (to < from.length && from[to] === from[k]) to++;
    if (from[k] >= 0)
      parts.push(
        `${units.to(firstM + k * stepM, 'm').toFixed(1)} to ${units.text(firstM + (to - 1) * stepM, 'm')} from ${names[from[k]]}`,
      );
    k = to;
  }
  return parts.length > 6 ? `${parts.slice(0, 6).join(', ')} and ${parts.length - 6} more pieces` : parts.join(', ');
}

export const splice = defineStep({
  id: 'wells.splice',
  purpose: 'Curves',
  version: 1,
  stage: 'wells',
  title: 'Splice runs',
  summary: 'Joins several runs of one well’s logs into one set, curve by curve, by a rule; says what came from where.',
  formula: 'c = a above the join, b below; between them (1 − w)·a + w·b.',
  avoid: 'Where runs differ by a scale: rescale one to the other first.',
  source: 'Theys (1999), Log Data Acquisition and Quality Control, 2nd edition: runs joined by priority',
  reach: 'global',
  inputs: { runs: { kind: 'logs', title: 'Runs', many: true } },
  params: z.object({
    rule: choice(
      { title: 'Where runs overlap', description: 'Which run a value is taken from where several have one.' },
      ['longest run', 'deepest run', 'first chosen'],
      'longest run',
    ),
  }),
  outputs: { logs: { kind: 'logs', title: 'Spliced logs' } },
  async run({ inputs, params, store, idFor, warn }) {
    const { runs } = inputs;
    const wells = [...new Set(runs.map((r) => r.well))];
    if (wells.length !== 1 || runs.length < 2)
      throw new LithagonError(
        'splice',
        `Runs of ${wells.length === 1 ? 'one well, two or more,' : `one well, not of ${wells.join(' and ')},`} are spliced.`,
        {
          fix: 'Choose two or more sets of logs of one well. Nothing was changed.',
        },
      );
    const stepM = Math.min(...runs.map((r) => r.depth.stepM));
    const firstM = Math.min(...runs.map((r) => r.depth.firstM));
    const lastM = Math.max(...runs.map((r) => r.depth.firstM + r.depth.stepM * (r.depth.count - 1)));
    const axis = { firstM, stepM, count: Math.floor((lastM - firstM) / stepM + 1e-6) + 1 };
    const keys = new Map<string, { logs: (typeof runs)[number]; curve: (typeof runs)[number]['curves'][number] }[]>();
    for (const logs of runs)
      for (const curve of logs.curves) {
        const key = curve.class === 'other' ? curve.mnemonic : curve.class;
        const same = keys.get(key) ?? [];
        // a run brings one curve of a class: its first
        if (!same.some((s) => s.logs === logs)) keys.set(key, [...same, { logs, curve }]);
      }
    const units = await shownUnits(store);
    const curves: MadeCurve[] = [];
    for (const [key, held] of keys) {
      const [{ curve }] = held;
      const alike = held.filter((h) => h.curve.unit === curve.unit);
      if (alike.length < held.length) warn(`${key}: runs in another unit than ${curve.unit || 'none'} were left out.`);
      const sampled = await Promise.all(alike.map((h) => sampledOf(store, h)));
      const { values, from } = spliced(sampled, spliceOrder(sampled, params.rule), axis);
      if (alike.length > 1)
        warn(
          `${key}: ${sources(
            from,
            firstM,
            stepM,
            alike.map((h) => h.logs.name),
            units,
          )}.`,
        );
      curves.push({ mnemonic: curve.mnemonic, class: curve.class, unit: curve.unit, description: 'Spliced', values });
    }
    return { logs: await logsDraft(store, idFor('logs'), wells[0], axis, curves) };
  },
});
