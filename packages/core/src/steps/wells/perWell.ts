import type { z } from 'zod';
import type { Units } from '../../earth/display.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import { type CurveClass, curveClassSchema, type EarthObject, type Kind, type Logs } from '../../earth/objects.ts';
import type { Given } from '../../engine/local.ts';
import { shownUnits } from '../../project/units.ts';
import { type curveOf, type DepthAxis, type WellCurves, wellCurves } from '../../project/wells/curves.ts';
import { writeWhole } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';
import { choice, type Draft, defineStep, eachRole, type ParamFacts, wellsInput } from '../define.ts';

/** A curve that a step makes of a well. */
export interface MadeCurve {
  mnemonic: string;
  class: CurveClass;
  unit: string;
  description: string;
  values: Float32Array;
}

/** Why a well gives nothing, in a sentence that goes among the notes of the run. */
export class Left extends Error {}

/** What a step has of one well. */
export interface OneWell extends WellCurves {
  /** A curve that must be there; a well without it is left out, and it is said. */
  need(name: string): Promise<Float32Array>;
  warn(sentence: string): void;
  /** What the project has around the wells: of the kinds that the step reads with them. */
  around: EarthObject[];
  /** Say that one of these was used. */
  uses(object: EarthObject): void;
  /** Those that sentences are written in. */
  units: Units;
}

/** Curves as a set of logs, written under an id. */
export async function logsDraft(
  store: Store,
  id: string,
  well: string,
  axis: DepthAxis,
  curves: MadeCurve[],
): Promise<Draft<Logs>> {
  const held: Logs['curves'] = [];
  for (const [n, curve] of curves.entries()) {
    let [min, max, nulls] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, 0];
    for (const v of curve.values) {
      if (v !== v) nulls++;
      else {
        if (v < min) min = v;
        if (v > max) max = v;
      }
    }
    held.push({
      mnemonic: curve.mnemonic,
      class: curve.class,
      unit: curve.unit,
      fileUnit: curve.unit,
      description: curve.description,
      data: await writeWhole(store, `${id}/${n}`, [axis.count], curve.values, ['depth']),
      min: nulls === axis.count ? 0 : min,
      max: nulls === axis.count ? 0 : max,
      nulls,
    });
  }
  return { kind: 'logs', well, depth: { ...axis }, curves: held };
}

/** A choice among the classes of curve that files bring. */
export function curveChoice(facts: ParamFacts, initial: CurveClass) {
  return choice(facts, curveClassSchema.options as [CurveClass, ...CurveClass[]], initial);
}

/** The curve that an edit is of. */
export const anyCurve = curveChoice({ title: 'Curve', description: 'The class of curve that is edited.' }, 'sonic');

const COMPANIONS = ['directional surveys', 'logs', 'tops'] as const;

/**
 * Do something for each of several wells, with its curves on one axis. Those that lack what is needed are left out with
 * a sentence; if all are, the run fails with the first.
 * @param axisOf classes of which the first that a well has gives the axis
 */
export async function forEachWell<T>(
  context: {
    inputs: { wells: { name: string }[] };
    around: EarthObject[];
    store: Store;
    signal?: AbortSignal;
    progress(part: number): void;
    warn(sentence: string): void;
    uses(object: EarthObject): void;
  },
  axisOf: string[],
  work: (one: OneWell) => Promise<T>,
): Promise<{ well: string; id: string; made: T }[]> {
  const { around, store, warn } = context;
  const wells = context.inputs.wells as Extract<EarthObject, { kind: 'well' }>[];
  const units = await shownUnits(store);
  const out: { well: string; id: string; made: T }[] = [];
  let first: string | null = null;
  for (const [n, well] of wells.entries()) {
    stopIf(context.signal);
    try {
      const curves = wellCurves(store, around, well, axisOf);
      if (!curves) throw new Left(`${well.name} has no ${axisOf.join(', no ')}`);
      const axisFrom = axisOf.map(curves.held).find((held) => held !== null);
      if (axisFrom) context.uses(axisFrom.logs);
      const get = async (name: string) => {
        const held = curves.held(name);
        if (held) context.uses(held.logs);
        return curves.get(name);
      };
      const made = await work({
        ...curves,
        get,
        need: async (name) => {
          const values = await get(name);
          if (!values) throw new Left(`${well.name} has no ${name}`);
          return values;
        },
        warn: (sentence) => warn(`${well.name}: ${sentence}`),
        around,
        uses: (object) => context.uses(object),
        units,
      });
      out.push({ well: well.name, id: well.id, made });
    } catch (cause) {
      if (!(cause instanceof Left)) throw cause;
      first ??= cause.message;
      warn(`${cause.message}; it was left out.`);
    }
    context.progress((n + 1) / wells.length);
  }
  if (out.length === 0)
    throw new LithagonError('wells', `${first ?? 'No well was chosen'}.`, {
      fix: 'Choose wells that have it, or load it. Nothing was changed.',
    });
  return out;
}

/** Declare a step that makes curves of each of several wells from curves that they have. */
export function wellStep<P extends z.ZodObject>(spec: {
  id: string;
  purpose?: string;
  formula?: string;
  avoid?: string;
  title: string;
  output: string;
  summary: string;
  source: string;
  params: P;
  /** Kinds of table that are read of every well in the project, besides logs, surveys and tops of those chosen. */
  ofField?: Kind[];
  version?: number;
  axis: (params: z.infer<P>) => string[];
  foresee?(given: { inputs: Given; objects: EarthObject[]; params: z.infer<P> }): Promise<string>;
  make(one: OneWell, params: z.infer<P>): Promise<MadeCurve[] | { axis: DepthAxis; curves: MadeCurve[] }>;
}) {
  return defineStep({
    id: spec.id,
    version: spec.version ?? 1,
    stage: 'wells',
    purpose: spec.purpose,
    formula: spec.formula,
    avoid: spec.avoid,
    title: spec.title,
    summary: spec.summary,
    source: spec.source,
    reach: 'global',
    inputs: { wells: wellsInput([...COMPANIONS], { ofField: spec.ofField }) },
    params: spec.params,
    outputs: { logs: { kind: 'logs', title: spec.output, each: 'wells' } },
    foresee: spec.foresee,
    async run(context) {
      const params = context.params as z.infer<P>;
      const made = await forEachWell(context, spec.axis(params), async (one) => {
        const result = await spec.make(one, params);
        const { axis, curves } = Array.isArray(result) ? { axis: one.axis, curves: result } : result;
        return logsDraft(context.store, context.idFor(eachRole('logs', one.well.id)), one.well.name, axis, curves);
      });
      return Object.fromEntries(made.map(({ id, made: draft }) => [eachRole('logs', id), draft]));
    },
  });
}

/** The curve of a class as it is held, with a copy of its values; what edits of one curve begin with. */
export async function heldValues(one: OneWell, name: string) {
  const held = one.held(name);
  if (!held) throw new Left(`${one.well.name} has no ${name}`);
  return { held, values: await one.need(name) };
}

/** An edited curve under the name that it had. */
export function edited(held: NonNullable<ReturnType<typeof curveOf>>, values: Float32Array, what: string): MadeCurve {
  const { mnemonic, unit, description } = held.curve;
  return {
    mnemonic,
    class: held.curve.class,
    unit,
    description: `${description || mnemonic}, ${what}`.slice(0, 200),
    values,
  };
}
