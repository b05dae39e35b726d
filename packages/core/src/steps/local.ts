import { LithagonError, stopIf } from '../earth/errors.ts';
import type { EarthObject, Volume } from '../earth/objects.ts';
import { evaluateRegion, type Plan, planOf, type Reader } from '../engine/evaluate.ts';
import type { PlanSpec } from '../engine/lanes.ts';
import { type Given, type LocalStep, shapeOfGrid, type VolumeGrid, type Volumes } from '../engine/local.ts';
import { readOnto } from '../engine/onto.ts';
import { inThread, type JobRunner } from '../engine/runner.ts';
import { storeResults } from '../engine/store.ts';
import type { Region } from '../numerics/block.ts';
import { RunningStatistics } from '../numerics/statistics.ts';
import { planeRegion } from '../storage/planes.ts';
import { readRegion, workOutLiveBy } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import type { Plane } from '../storage/volumes.ts';
import { type AnyStep, type Draft, type InputSpec, type RunContext, stepOf } from './define.ts';
import { checkParams } from './params.ts';

export const localOf = (step: string): LocalStep | undefined => stepOf(step)?.local;

/** Steps that every thread knows; one that was made up since is worked on where it was made up. */
const everywhere = new Set<string>();
export const knownEverywhere = (ids: Iterable<string>): void => {
  for (const id of ids) everywhere.add(id);
};

const volumesOf = (local: LocalStep, given: Given): Volumes =>
  Object.fromEntries(
    local.volumes.flatMap((role): [string, Volume][] => {
      const of = given[role];
      return Array.isArray(of)
        ? of.map((volume, n) => [`${role}/${n}`, volume as Volume])
        : of
          ? [[role, of as Volume]]
          : [];
    }),
  );

/** Results that were prepared lately, so that only what moves is made anew. */
const prepared = new WeakMap<Store, Map<string, Promise<unknown>>>();
const MOST_PREPARED = 6;

/** What a local step prepares of its inputs; kept for a while, so that it is not prepared twice. */
export async function prepare(
  step: AnyStep,
  given: Given,
  params: unknown,
  store: Store,
  signal?: AbortSignal,
): Promise<unknown> {
  const { local } = step;
  if (!local?.prepare) return undefined;
  const kept = prepared.get(store) ?? new Map<string, Promise<unknown>>();
  prepared.set(store, kept);
  const on = Object.fromEntries(
    (local.prepareRestsOn ?? []).map((key) => [key, (params as Record<string, unknown>)[key]]),
  );
  const revisions = Object.entries(given).map(([role, o]) => [
    role,
    [o ?? []].flat().map((each) => `${each.id}@${each.revision}`),
  ]);
  // tables and relations that are read with wells are no inputs of their own
  const beside = Object.values(step.inputs as Record<string, InputSpec>).flatMap((spec) => spec.companions ?? []);
  const tables = beside.length > 0 ? (await store.list()).filter((o) => beside.includes(o.kind)) : [];
  const key = JSON.stringify([step.id, on, revisions, tables.map((o) => `${o.id}@${o.revision}`)]);
  let known = kept.get(key);
  if (known) kept.delete(key);
  else {
    known = local.prepare(given, { store, signal, params });
    known.catch(() => kept.delete(key));
  }
  kept.set(key, known);
  if (kept.size > MOST_PREPARED) kept.delete(kept.keys().next().value as string);
  return known;
}

/** A local step with its inputs, prepared; and what crosses to other threads of it. */
async function planned(
  step: AnyStep,
  given: Given,
  params: unknown,
  store: Store,
  signal?: AbortSignal,
): Promise<{ plan: Plan; spec: PlanSpec }> {
  const local = step.local as LocalStep;
  const volumes = volumesOf(local, given);
  const ready = await prepare(step, given, params, store, signal);
  // a step may give more than volumes, which it works out by itself
  const roles =
    local.roles?.(given, params) ?? Object.keys(step.outputs).filter((role) => step.outputs[role].kind === 'volume');
  return {
    plan: planOf(local, params, ready, volumes, roles),
    spec: { step: step.id, params, prepared: ready, volumes, roles },
  };
}

/** How a local step is run: stored through a runner, or live. */
export function localRun(step: AnyStep, how: JobRunner | 'live' | null): NonNullable<AnyStep['run']> {
  return async (context: RunContext<never, unknown>) => {
    const { inputs, params, store, signal, progress, warn, idFor } = context;
    const given = inputs as Given;
    const { plan, spec } = await planned(step, given, params, store, signal);
    for (const sentence of plan.local.says?.(plan.ready) ?? []) warn(sentence);
    const facts = await (how === 'live'
      ? liveFacts(plan, store, signal)
      : storeResults(spec, plan, {
          store,
          runner: how && everywhere.has(step.id) ? how : inThread(localOf),
          idFor,
          signal,
          progress,
        }));
    const { domain, binGrid, vertical } = plan.grid;
    return Object.fromEntries(
      spec.roles.map((role): [string, Draft] => {
        const own = {
          ...plan.local.outputs?.[role.split('/')[0]],
          ...plan.local.outputOf?.(plan.first, params, plan.ready, role),
        };
        const { first } = plan;
        return [
          role,
          {
            kind: 'volume',
            binGrid,
            domain,
            vertical,
            quantity: own.quantity ?? first.quantity,
            unit: own.quantity ? (own.unit ?? '') : (own.unit ?? first.unit),
            polarity: own.quantity ? own.polarity : 'polarity' in own && own.polarity ? own.polarity : first.polarity,
            ...(own.classes ? { classes: own.classes } : {}),
            ...(own.angles ? { angles: own.angles } : {}),
            ...facts[role],
          },
        ];
      }),
    );
  };
}

/** Lines from which the statistics of a live volume come. */
const LOOKED_AT = 8;

/** What can be said of results that are not stored: statistics of lines spread over them. */
async function liveFacts(plan: Plan, store: Store, signal?: AbortSignal) {
  const shape = shapeOfGrid(plan.grid);
  const [ni, nj] = shape;
  const every = Math.max(1, ni / LOOKED_AT);
  const statistics = Object.fromEntries(plan.roles.map((role) => [role, new RunningStatistics()]));
  for (let n = every / 2; n < ni; n += every) {
    stopIf(signal);
    const region = planeRegion(shape, 'inline', Math.floor(n));
    const values = await evaluateRegion(plan, region, (volume, r) => readRegion(store, volume, r), signal);
    for (const role of plan.roles) statistics[role].add(values[role]);
  }
  const same = plan.grid === (plan.first as VolumeGrid);
  const traces = same ? plan.first.traces : { live: ni * nj, missing: 0, duplicate: 0 };
  return Object.fromEntries(plan.roles.map((role) => [role, { statistics: statistics[role].finish(), traces }]));
}

/** A plane of what a step would give, on the grid of its results. */
export interface Tried {
  grid: VolumeGrid;
  /** By role of the output; `[inline][crossline]`-wise as a plane is read. */
  values: Record<string, Float32Array>;
}

/** What a local step gives on one plane of its results: the same samples as the stored ones have there. */
export async function tryPlane(
  step: AnyStep,
  given: Given,
  params: unknown,
  store: Store,
  plane: Plane,
  index: number,
  signal?: AbortSignal,
): Promise<Tried> {
  const { plan } = await planned(step, given, params, store, signal);
  const region = planeRegion(shapeOfGrid(plan.grid), plane, index);
  return {
    grid: gridOf(plan.grid),
    values: await evaluateRegion(plan, region, (v, r) => readRegion(store, v, r), signal),
  };
}

/**
 * The same at the samples of a plane of the first input, for a view that shows that: empty where the results have no line,
 * and between their samples by a straight line.
 */
export async function tryOn(
  step: AnyStep,
  given: Given,
  params: unknown,
  store: Store,
  plane: Plane,
  index: number,
  signal?: AbortSignal,
): Promise<Record<string, Float32Array>> {
  const { plan } = await planned(step, given, params, store, signal);
  const region = planeRegion(shapeOfGrid(plan.first), plane, index);
  const read: Reader = (volume, r) => readRegion(store, volume, r);
  if (plan.grid === (plan.first as VolumeGrid)) return evaluateRegion(plan, region, read, signal);
  const out: Record<string, Float32Array> = {};
  for (const role of plan.roles) {
    const results: Reader = async (_, r) => (await evaluateRegion(plan, r, read, signal))[role];
    out[role] = await readOnto({ ...plan.first, ...gridOf(plan.grid) }, plan.first, region, results, 'samples');
  }
  return out;
}

/** The same for any region. */
export async function tryRegion(
  step: AnyStep,
  given: Given,
  params: unknown,
  store: Store,
  region: Region,
): Promise<Record<string, Float32Array>> {
  const { plan } = await planned(step, given, params, store);
  return evaluateRegion(plan, region, (volume, r) => readRegion(store, volume, r));
}

const gridOf = ({ binGrid, domain, vertical }: VolumeGrid): VolumeGrid => ({ binGrid, domain, vertical });

/** Plans of live volumes that were looked at lately. */
const livePlans = new WeakMap<Store, Map<string, Promise<Plan>>>();
const MOST_LIVE = 12;

/** What a live volume is worked out from, as it is now. */
async function givenToLive(store: Store, volume: Volume): Promise<{ step: AnyStep; given: Given }> {
  const step = stepOf(volume.madeBy.step);
  if (!step?.local)
    throw new LithagonError('live', `${volume.name} is live, and no step here is called “${volume.madeBy.step}”.`, {
      object: volume.name,
      fix: 'Open the project with the version that made it, and store it.',
    });
  const given: Given = {};
  for (const [role, spec] of Object.entries(step.inputs) as [string, { many?: boolean }][]) {
    const objects: EarthObject[] = [];
    for (const reference of volume.madeBy.inputs[role] ?? []) {
      const object = await store.get(reference.split('@')[0]);
      if (!object)
        throw new LithagonError('live', `${volume.name} is live, and what it is worked out from is gone.`, {
          object: volume.name,
          fix: 'Bring that back by undo, or delete this volume.',
        });
      objects.push(object);
    }
    given[role] = spec.many ? objects : objects[0];
  }
  return { step, given };
}

/** Samples of a live volume, worked out from what lies below it, live itself or stored. */
workOutLiveBy(async (store, volume, region) => {
  const { step, given } = await givenToLive(store, volume);
  const kept = livePlans.get(store) ?? new Map<string, Promise<Plan>>();
  livePlans.set(store, kept);
  const below = Object.values(given).flatMap((o) => [o ?? []].flat().map((each) => `${each.id}@${each.revision}`));
  const key = JSON.stringify([volume.madeBy.step, volume.madeBy.params, below]);
  let plan = kept.get(key);
  if (plan) kept.delete(key);
  else {
    plan = planned(step, given, checkParams(step, volume.madeBy.params), store).then((made) => made.plan);
    plan.catch(() => kept.delete(key));
  }
  kept.set(key, plan);
  if (kept.size > MOST_LIVE) kept.delete(kept.keys().next().value as string);
  const values = await evaluateRegion(await plan, region, (v, r) => readRegion(store, v, r));
  return values[volume.madeBy.output ?? ''] ?? Object.values(values)[0];
});
