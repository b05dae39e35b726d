import { LithagonError, stopIf } from '../earth/errors.ts';
import { domainName, type EarthObject, objectSchema } from '../earth/objects.ts';
import type { Given } from '../engine/local.ts';
import type { JobRunner } from '../engine/runner.ts';
import { dependents } from '../project/catalogue/catalogue.ts';
import { computedRevision, ENGINE, freeName, newId } from '../project/make.ts';
import { companionsOf } from '../project/wells/wells.ts';
import type { Store } from '../storage/store.ts';
import { type AnyStep, type Draft, eachRole, type InputSpec, type OutputSpec, type Preview, stepOf } from './define.ts';
import { localRun, prepare } from './local.ts';
import { checkParams } from './params.ts';

/** A step to run: inputs as object ids by role, parameters as plain values. */
export interface RunRequest {
  step: string;
  inputs: Record<string, string[]>;
  params: Record<string, unknown>;
  /** Name of the (first) output; made from step and input otherwise. */
  name?: string;
  /** Outputs, by role, that take the place of objects by id: these keep id, name and colour, and get a new revision. */
  replaces?: Record<string, string>;
  /** Volumes are not stored, but worked out where they are looked at. */
  live?: boolean;
}

export interface RunOptions {
  signal?: AbortSignal;
  onProgress?: (part: number) => void;
  onPreview?: (map: Preview) => void;
  /** Where local steps are worked on; in this thread where it is left out. */
  runner?: JobRunner;
}

/** Kinds of object that an input takes, in words. */
export const kindsOf = ({ kind, or }: InputSpec): string => (or ? `${kind} or ${or}` : kind);

/** Why an object does not fit an input, or null where it does. */
export function unfit(spec: InputSpec, object: EarthObject): string | null {
  if (object.kind !== spec.kind && object.kind !== spec.or)
    return `${object.name} is a ${object.kind}, and a ${kindsOf(spec)} is needed`;
  if (spec.quantity && 'quantity' in object && !(spec.quantity as string[]).includes(object.quantity))
    return `${object.name} holds ${object.quantity}, and ${spec.quantity.join(' or ')} is needed`;
  if (spec.domain && 'domain' in object && object.domain && object.domain !== spec.domain)
    return `${object.name} is in ${domainName(object.domain)}, and ${domainName(spec.domain)} is needed`;
  return null;
}

/** The inputs of a step by role, of whatever fits among the ids that were chosen: what a trial is given. */
export async function givenOf(step: AnyStep, inputs: Record<string, string[]>, store: Store): Promise<Given> {
  const given: Given = {};
  for (const [role, spec] of Object.entries(step.inputs) as [string, InputSpec][]) {
    const objects: EarthObject[] = [];
    for (const id of inputs[role] ?? []) {
      const object = await store.get(id);
      if (object && unfit(spec, object) === null) objects.push(object);
    }
    given[role] = spec.many ? objects : objects[0];
  }
  return given;
}

async function gather(step: AnyStep, request: RunRequest, store: Store) {
  const inputs: Record<string, EarthObject | EarthObject[] | undefined> = {};
  const references: Record<string, string[]> = {};
  const around: EarthObject[] = [];
  const all = await store.list();
  // what is made again, and what rests on it, is no part of what it is made from
  const replaced = Object.values(request.replaces ?? {});
  const above = new Set([...replaced, ...dependents(all, replaced).map((o) => o.id)]);
  const beneath = all.filter((o) => !above.has(o.id));
  for (const role of Object.keys(request.inputs))
    if (!step.inputs[role])
      throw new LithagonError('input', `${step.title} takes nothing called “${role}”.`, {
        fix: `It takes ${Object.keys(step.inputs).join(', ')}.`,
      });
  for (const [role, spec] of Object.entries(step.inputs) as [string, InputSpec][]) {
    const ids = request.inputs[role] ?? [];
    if (ids.length === 0 && !spec.optional)
      throw new LithagonError('input', `${step.title} needs ${spec.title.toLowerCase()}.`, {
        fix: `Choose a ${kindsOf(spec)} for it.`,
      });
    const objects: EarthObject[] = [];
    for (const id of ids) {
      const object = await store.get(id);
      if (!object) throw new LithagonError('input', `There is no object ${id}.`, { object: id });
      const why = unfit(spec, object);
      if (why)
        throw new LithagonError('input', `${step.title}: ${why}.`, {
          object: object.name,
          fix: 'Choose another. Nothing was changed.',
        });
      objects.push(object);
    }
    if (objects.length > 1 && !spec.many)
      throw new LithagonError('input', `${step.title} takes one ${spec.title.toLowerCase()}, not ${objects.length}.`);
    inputs[role] = spec.many ? objects : objects[0];
    references[role] = objects.map((o) => `${o.id}@${o.revision}`);
    const beside = [
      ...(spec.companions ?? []).map((kind) => ({
        kind,
        found: objects.flatMap((well) => companionsOf(beneath, well.name, kind)),
      })),
      ...(spec.ofField ?? []).map((kind) => ({ kind, found: beneath.filter((o) => o.kind === kind) })),
    ];
    for (const { kind, found } of beside) {
      around.push(...found);
      if (found.length > 0) references[`${role}.${kind}`] = found.map((o) => `${o.id}@${o.revision}`);
    }
  }
  return { inputs, references, around, all };
}

/** Outputs of a run by role: those given for each object of an input once for each of them. */
function expanded(step: AnyStep, inputs: Given) {
  type Expanded = { role: string; spec: OutputSpec; of: string | null; number?: number };
  return Object.entries(step.outputs as Record<string, OutputSpec>).flatMap(([role, spec]): Expanded[] => {
    const roles = spec.each
      ? [inputs[spec.each] ?? []].flat().map((o) => ({ role: eachRole(role, o.id), of: o.name }))
      : [{ role, of: null }];
    if (!spec.several) return roles.map((one) => ({ ...one, spec }));
    const numbers = Array.from({ length: spec.several }, (_, n) => n + 1);
    return roles.flatMap((one) =>
      numbers.map((number) => ({ ...one, role: eachRole(one.role, String(number)), spec, number })),
    );
  });
}

/** What people gave an object, which stays when it is made again; a tie keeps its turn among those of its well. */
function givenTo(old: EarthObject): Partial<EarthObject> {
  const { color, tags, note } = old;
  return {
    ...(color ? { color } : {}),
    ...(tags ? { tags } : {}),
    ...(note ? { note } : {}),
    ...(old.kind === 'blend' && old.set
      ? { red: old.red, green: old.green, blue: old.blue, strength: old.strength, axes: old.axes, set: true }
      : {}),
    ...(old.kind === 'blend' && old.set && old.shade ? { shade: old.shade } : {}),
    ...(old.kind === 'time-depth relation' ? { activated: old.activated ?? old.madeBy.started } : {}),
  };
}

/**
 * Run a step on a project. Outputs appear in one transaction at the end; a run that fails or is cancelled leaves
 * nothing behind.
 */
export async function runStep(request: RunRequest, store: Store, options: RunOptions = {}): Promise<EarthObject[]> {
  const step = stepOf(request.step);
  if (!step)
    throw new LithagonError('step', `There is no step called “${request.step}”.`, {
      fix: '“lithagon steps” lists them.',
    });
  const params = checkParams(step, request.params);
  const { inputs, references, around, all: existing } = await gather(step, request, store);
  const replaced = new Map(
    Object.entries(request.replaces ?? {}).map(([role, id]) => [role, existing.find((o) => o.id === id)]),
  );
  const started = new Date();
  const run = crypto.randomUUID();
  const warnings: string[] = [];
  const used = new Map<string, Set<string>>();
  const ids = new Map<string, string>();
  const names = new Map<string, string>();
  const outputs = expanded(step, inputs);
  // of several inputs the first is no better a name than another
  const [first] = Object.values(inputs).filter((given) => given && [given].flat().length > 0);
  const about = Array.isArray(first) && first.length > 1 ? (request.name ?? null) : [first].flat()[0]?.name;
  outputs.forEach(({ role, spec, of, number: nth }, n) => {
    const old = replaced.get(role);
    // what takes an object's place keeps its arrays under that object's id and more, until the old ones are swept
    ids.set(role, old ? `${old.id.slice(0, 100)}.${crypto.randomUUID().slice(0, 8)}` : newId(spec.kind));
    if (old) {
      names.set(role, old.name);
      return;
    }
    const own = of ?? about;
    const wanted =
      nth !== undefined
        ? `${(spec === outputs[0].spec && request.name) || spec.title} ${nth}${of === null ? '' : ` of ${of}`}`
        : of !== null
          ? `${(spec === outputs[0].spec && request.name) || spec.title} of ${of}`
          : n === 0 && request.name
            ? request.name
            : `${spec.title}${own ? ` of ${own}` : ''}`;
    names.set(role, freeName(existing, spec.kind, wanted));
  });
  try {
    if (request.live && !step.local)
      throw new LithagonError('step', `${step.title} cannot be kept live: it looks at everything at once.`, {
        fix: 'Run it.',
      });
    const local = step.local ? localRun(step, request.live ? 'live' : (options.runner ?? null)) : null;
    // what is kept live is its volumes alone
    const work = (request.live ? local : (step.run ?? local)) as NonNullable<AnyStep['run']>;
    const context: Parameters<NonNullable<AnyStep['run']>>[0] = {
      inputs,
      around,
      params,
      store,
      idFor: (role: string) => ids.get(role) as string,
      signal: options.signal,
      preview: (map: Preview) => options.onPreview?.(map),
      progress: (part: number) => options.onProgress?.(part),
      warn: (sentence: string) => warnings.push(sentence),
      uses: ({ kind, id }: EarthObject) => used.set(kind, (used.get(kind) ?? new Set()).add(id)),
      stored: async () => (local ? local(context) : {}),
      prepared: () => prepare(step, inputs, params, store, options.signal),
    };
    const drafts: Record<string, Draft> = await work(context);
    stopIf(options.signal);
    const restsOn = Object.fromEntries(
      Object.entries(references)
        .map(([role, refs]): [string, string[]] => {
          const some = role.includes('.') ? used.get(role.slice(role.indexOf('.') + 1)) : undefined;
          return [role, some ? refs.filter((r) => some.has(r.split('@')[0])) : refs];
        })
        .filter(([role, refs]) => refs.length > 0 || !role.includes('.')),
    );
    const made = outputs
      // of several things that are found, one that is found no more stays as it was, and it is told
      .filter(({ role, number: nth }) => drafts[role] || (nth !== undefined && replaced.get(role)))
      .map(({ role }): EarthObject => {
        const old = replaced.get(role);
        if (!drafts[role]) warnings.push(`${old?.name} is found no more; it stays as it was.`);
        const object = {
          ...(drafts[role] ?? old),
          ...(old ? givenTo(old) : {}),
          id: old?.id ?? (ids.get(role) as string),
          name: names.get(role) as string,
          stage: step.stage,
          revision: computedRevision(step.id, step.version, params, restsOn, role),
          madeBy: {
            step: step.id,
            version: step.version,
            params,
            output: role,
            run,
            inputs: restsOn,
            started: started.toISOString(),
            tookMs: Date.now() - started.getTime(),
            warnings,
            engine: ENGINE,
          },
        };
        return objectSchema.parse(object);
      });
    const at = new Date().toISOString();
    await store.commit({
      put: made,
      ledger: made.map((o) => ({ at, what: 'made' as const, object: o.id, name: o.name, note: `by ${step.id}` })),
    });
    return made;
  } catch (cause) {
    for (const id of ids.values()) await store.removeArrays(`${id}/`);
    throw cause;
  }
}
