import { z } from 'zod';
import { blocked, makeBarrier } from '../../faults/barrier.ts';
import { meshOfSticks } from '../../faults/surface.ts';
import { type Filling, fillGaps } from '../../horizons/fill.ts';
import { during } from '../../numerics/stop.ts';
import { readWhole, writeWhole } from '../../storage/arrays.ts';
import { defineStep, number } from '../define.ts';

const params = z.object({
  tension: number(
    { title: 'Tension', description: '0 bends freely like a thin plate; 1 is stretched like a membrane.' },
    { min: 0, max: 1, step: 0.05, initial: 0.25 },
  ),
});

export const close = defineStep({
  id: 'interpret.close',
  version: 2,
  stage: 'interpret',
  title: 'Close a horizon',
  summary: 'Fills the gaps of a horizon with a smooth surface, cut at faults; what was tracked stays as it is.',
  formula: '(1 − T)·∇⁴z − T·∇²z = 0 in the gaps, T the tension, in each block between faults.',
  avoid: 'Over gaps wider than what is known round them: a smooth guess is drawn.',
  source: 'Smith & Wessel (1990), Geophysics 55, 293–305',
  reach: 'global',
  inputs: {
    horizon: { kind: 'horizon', title: 'Horizon', domain: 'twt' },
    faults: { kind: 'fault', title: 'Cut at', many: true, optional: true, domain: 'twt' },
  },
  params,
  outputs: { closed: { kind: 'horizon', title: 'Closed' } },
  async run({ inputs, params: p, store, signal, idFor, warn }) {
    const { horizon, faults } = inputs;
    const [rows, columns] = horizon.values.shape;
    const values = await readWhole(store, horizon.values);
    let how: Filling = { residual: 0, iterations: 0, empty: 0 };
    const filled = during(signal, () => {
      let cuts: Uint8Array | undefined;
      if (faults.length > 0) {
        // where the gaps lie in time, roughly, decides which part of a fault cuts them
        const rough = fillGaps(values, rows, columns, 1);
        const barrier = makeBarrier(
          horizon.binGrid,
          faults.map((f) => meshOfSticks(f.sticks)),
          horizon.range[0] - 60,
          horizon.range[1] + 60,
          10,
        );
        cuts = new Uint8Array(rows * columns);
        for (let i = 0; i < rows; i++)
          for (let j = 0; j < columns; j++) {
            const n = i * columns + j;
            if (i + 1 < rows && blocked(barrier, i, j, 1, 0, rough[n])) cuts[n] |= 1;
            if (j + 1 < columns && blocked(barrier, i, j, 0, 1, rough[n])) cuts[n] |= 2;
          }
      }
      return fillGaps(values, rows, columns, p.tension, cuts, {
        aspect: Math.hypot(...horizon.binGrid.perInline) / Math.hypot(...horizon.binGrid.perCrossline),
        say: (filling) => {
          how = filling;
        },
      });
    });
    if (how.residual > 1e-6)
      warn(
        `The surface was not found to the end: ${(100 * how.residual).toPrecision(2)} % of its equations are left over after ${how.iterations} rounds. More tension, or more picks, make it sure.`,
      );
    const known = filled.filter((v) => !Number.isNaN(v));
    if (how.empty > 0)
      warn(
        `${how.empty} bins lie in blocks between faults that hold no pick and no track: they stay empty. Pick in them, or take out a fault.`,
      );
    const id = idFor('closed');
    const keep = (name: string, data: Float32Array) =>
      writeWhole(store, `${id}/${name}`, [rows, columns], data, ['inline', 'crossline']);
    const sure = horizon.confidence ? await readWhole(store, horizon.confidence) : null;
    return {
      closed: {
        kind: 'horizon',
        domain: horizon.domain,
        binGrid: horizon.binGrid,
        values: await keep('values', filled),
        // what was filled is a guess
        ...(sure
          ? {
              confidence: await keep(
                'confidence',
                sure.map((c, n) => (Number.isNaN(values[n]) ? 0 : c)),
              ),
            }
          : {}),
        range: [
          known.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY),
          known.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY),
        ],
        filled: known.length / filled.length,
      },
    };
  },
});
