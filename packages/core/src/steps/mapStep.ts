import type { z } from 'zod';
import type { BinGrid } from '../earth/binGrid.ts';
import { LithagonError } from '../earth/errors.ts';
import type { QuantityMap } from '../earth/objects.ts';
import type { Given } from '../engine/local.ts';
import { writeWhole } from '../storage/arrays.ts';
import { type AnyStep, type Draft, defineStep, type InputSpec, type RunContext, type Step } from './define.ts';

/** A map that was worked out, `[inline][crossline]`, NaN where there is none. */
export interface MadeMap {
  binGrid: BinGrid;
  values: Float32Array;
  quantity: string;
  unit: string;
}

/** What maps are worked out from: a run has it, and a trial. */
export type MapContext<I extends Record<string, InputSpec>, P> = Pick<
  RunContext<I, P>,
  'inputs' | 'params' | 'store' | 'signal' | 'progress' | 'warn'
>;

/** What is kept of maps; one without a value is refused. */
export async function keptMap(
  { binGrid, values, quantity, unit }: MadeMap,
  store: RunContext<never, never>['store'],
  id: string,
): Promise<Draft<QuantityMap>> {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const v of values) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  if (!(high >= low))
    throw new LithagonError('empty', 'No bin got a value: the horizon and the volume share nothing there.', {
      fix: 'Look at both in one section, and move the window. Nothing was changed.',
    });
  return {
    kind: 'map',
    binGrid,
    quantity,
    unit,
    values: await writeWhole(store, `${id}/values`, [binGrid.inline.count, binGrid.crossline.count], values, [
      'inline',
      'crossline',
    ]),
    range: [low, high],
  };
}

/** A step whose results are maps, which are seen while parameters move: `maps` works them out, and nothing is stored by it. */
export function mapStep<const I extends Record<string, InputSpec>, P extends z.ZodObject>(
  declared: Omit<Step<I, P>, 'run' | 'local' | 'maps'> & {
    maps(context: MapContext<I, z.infer<P>>): Promise<Record<string, MadeMap>>;
  },
): AnyStep {
  return defineStep({
    ...declared,
    async run(context) {
      const made = await declared.maps(context);
      const out: Record<string, Draft> = {};
      for (const [role, map] of Object.entries(made))
        out[role] = await keptMap(map, context.store, context.idFor(role));
      return out;
    },
  }) as AnyStep;
}

/** Maps that a step would give of what was chosen, by role; nothing is stored. */
export async function tryMaps(
  step: AnyStep,
  given: Given,
  params: unknown,
  store: RunContext<never, never>['store'],
  signal?: AbortSignal,
): Promise<Record<string, MadeMap>> {
  if (!step.maps) throw new Error(`${step.id} has no maps to try`);
  for (const [role, spec] of Object.entries(step.inputs) as [string, InputSpec][])
    if (!spec.optional && [given[role] ?? []].flat().length === 0)
      throw new LithagonError('input', `${step.title} needs ${spec.title.toLowerCase()}.`, {
        fix: `Choose a ${spec.kind} for it.`,
      });
  return step.maps({ inputs: given as never, params, store, signal, progress: () => undefined, warn: () => undefined });
}
