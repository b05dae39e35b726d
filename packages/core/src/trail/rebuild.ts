import { LithagonError } from '../earth/errors.ts';
import type { EarthObject } from '../earth/objects.ts';
import { outOfDate } from '../project/catalogue/staleness.ts';
import { eachRole, type OutputSpec, stepOf } from '../steps/define.ts';
import { type RunOptions, runStep } from '../steps/run.ts';
import { damagesOf } from '../storage/damage.ts';
import type { Store } from '../storage/store.ts';
import { runOf } from './runs.ts';

/** Ids of the objects that an object was made from. */
export function inputsOf(object: EarthObject): string[] {
  return Object.values(object.madeBy.inputs)
    .flat()
    .map((r) => r.split('@')[0]);
}

/** An object with everything that it rests on, what is beneath first. */
export function beneath(objects: EarthObject[], id: string): EarthObject[] {
  const byId = new Map(objects.map((o) => [o.id, o]));
  const out = new Map<string, EarthObject>();
  const seen = new Set<string>();
  const visit = (each: string) => {
    const object = byId.get(each);
    // a trail that leads back to itself, which a file may have, is followed once
    if (!object || seen.has(each)) return;
    seen.add(each);
    for (const input of inputsOf(object)) visit(input);
    out.set(each, object);
  };
  visit(id);
  return [...out.values()];
}

/** What is out of date, in the order in which it must be made again: all of it, or what one object rests on. */
export function rebuildOrder(objects: EarthObject[], only?: string): EarthObject[] {
  const old = outOfDate(objects);
  const seen = new Map<string, EarthObject>();
  for (const id of only ? [only] : old.keys())
    for (const object of beneath(objects, id)) if (old.has(object.id)) seen.set(object.id, object);
  return [...seen.values()];
}

/** Inputs by role as a run is asked for them: what a step finds by itself is left out. */
export function askedInputs(object: EarthObject): Record<string, string[]> {
  return Object.fromEntries(
    Object.entries(object.madeBy.inputs)
      .filter(([role]) => !role.includes('.'))
      .map(([role, references]) => [role, references.map((r) => r.split('@')[0])]),
  );
}

/** Every output of the run that made an object, by role: they are made again together. */
export function madeTogether(objects: EarthObject[], object: EarthObject): Record<string, string> {
  const { output } = object.madeBy;
  return runOf(objects, object)?.outputs ?? (output ? { [output]: object.id } : {});
}

/** Parameters of a run that the step, as it is now, still knows. */
function knownParams(object: EarthObject): Record<string, unknown> {
  const step = stepOf(object.madeBy.step);
  return Object.fromEntries(Object.entries(object.madeBy.params).filter(([key]) => step && key in step.params.shape));
}

export interface RebuildOptions extends RunOptions {
  say?: (name: string, nth: number, of: number) => void;
}

/**
 * Make again what is out of date, in order; each keeps its id, name and colour. What was made stays when a later one
 * fails or is cancelled.
 * @param only the object to bring up to date, with what it rests on; everything where it is not given
 * @returns names of what was made again
 */
export async function rebuild(store: Store, only: string | undefined, options: RebuildOptions = {}): Promise<string[]> {
  const all = await store.list();
  const order = rebuildOrder(all, only);
  const named = all.find((o) => o.id === only);
  // one that is in date is made again where its data are damaged
  if (named && stepOf(named.madeBy.step) && !order.some((o) => o.id === only))
    if ((await damagesOf(store, named, options.signal)).length > 0) order.push(named);
  const made: string[] = [];
  const done = new Set<string>();
  for (let n = 0; n < order.length; n++) {
    if (done.has(order[n].id)) continue;
    const objects = await store.list();
    const object = objects.find((o) => o.id === order[n].id);
    if (!object) continue;
    const missing = inputsOf(object).filter((id) => !objects.some((o) => o.id === id));
    if (!stepOf(object.madeBy.step) || missing.length > 0)
      throw new LithagonError(
        'rebuild',
        `${object.name} cannot be made again: ${missing.length > 0 ? 'something that it was made from is gone' : `its step ${object.madeBy.step} is not known`}.`,
        { object: object.name, fix: 'Make it anew from other inputs. What was rebuilt before it stays.' },
      );
    options.say?.(object.name, n + 1, order.length);
    const replaces = madeTogether(objects, object);
    const running = runStep(
      {
        step: object.madeBy.step,
        inputs: askedInputs(object),
        params: knownParams(object),
        replaces: Object.keys(replaces).length > 0 ? replaces : { [firstRole(object)]: object.id },
        live: object.kind === 'volume' && !object.layouts,
      },
      store,
      {
        signal: options.signal,
        runner: options.runner,
        onProgress: (part) => options.onProgress?.((n + part) / order.length),
      },
    );
    await running.catch((cause) => {
      if (made.length === 0 || !options.signal?.aborted) throw cause;
      throw new LithagonError('cancelled', `Cancelled. What was made again before stays: ${made.join(', ')}.`);
    });
    for (const id of [object.id, ...Object.values(replaces)]) done.add(id);
    made.push(object.name);
  }
  return made;
}

/** The role that an object without one must have: the first of its kind among the step's outputs. */
function firstRole(object: EarthObject): string {
  const outputs: Record<string, OutputSpec> = stepOf(object.madeBy.step)?.outputs ?? {};
  const role = Object.keys(outputs).find((each) => outputs[each].kind === object.kind) ?? Object.keys(outputs)[0];
  return outputs[role]?.each && 'wellId' in object && object.wellId ? eachRole(role, object.wellId) : role;
}
