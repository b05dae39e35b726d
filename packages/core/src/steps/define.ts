import { z } from 'zod';
import type { BinGrid } from '../earth/binGrid.ts';
import type { Domain, EarthObject, Kind, ObjectOf } from '../earth/objects.ts';
import type { Quantity } from '../earth/quantities.ts';
import type { Given, LocalStep } from '../engine/local.ts';
import type { Store } from '../storage/store.ts';

/** What a step takes in under a role. */
export interface InputSpec<K extends Kind = Kind> {
  kind: K;
  /** Objects of this kind fit as well. */
  or?: Kind;
  title: string;
  /** Only objects of these quantities fit. */
  quantity?: readonly Quantity[];
  domain?: Domain;
  many?: boolean;
  optional?: boolean;
  /** Of an optional one: whether a form begins with something in it all the same; of many, that it begins with none. */
  begins?: boolean;
  /** Tables, logs and relations of the chosen wells that the step reads too; they are found by the well's name. */
  companions?: Kind[];
  /** Kinds of table of which the step reads those of every well in the project. */
  ofField?: Kind[];
  /** Of a horizon: it begins with the shallowest of those that were not converted. */
  shallowest?: true;
  /** What usually makes it: the latest of these is chosen first. */
  usual?: { step: string; output: string };
  /** Chosen at first are those that have one of this kind which the step did not make. */
  having?: Kind;
  /** Chosen at first are the stacks of one survey that differ by their angles. */
  stacks?: true;
}

/** What a step gives under a role. */
export interface OutputSpec {
  kind: Kind;
  title: string;
  /** One for each object of this input, under the roles `role/ID` (`eachRole`); any of them may be left out. */
  each?: string;
  /**
   * As many as are found, and no more than so many, under the roles `role/1`, `role/2` …; they are named by their number. With `each` as
   * many for each object, under `role/ID/1` ….
   */
  several?: number;
}

/** The role of one of the outputs that a step gives for each of several objects, by that object's id. */
export const eachRole = (role: string, id: string): string => `${role}/${id}`;

/** Objects that fit an input. */
type Fits<S extends InputSpec> = ObjectOf<S['kind']> | (S extends { or: infer O extends Kind } ? ObjectOf<O> : never);

type InputOf<S extends InputSpec> = S extends { many: true }
  ? Fits<S>[]
  : S extends { optional: true }
    ? Fits<S> | undefined
    : Fits<S>;

/** A map in the making, `[inline][crossline]`. */
export interface Preview {
  binGrid: BinGrid;
  values: Float32Array;
}

/** What a run is given. */
export interface RunContext<I extends Record<string, InputSpec>, P> {
  inputs: { [R in keyof I]: InputOf<I[R]> };
  /** What belongs to the wells among the inputs, of the kinds that the step asks for. */
  around: EarthObject[];
  params: P;
  store: Store;
  /** Where the arrays of an output go: no object owns them until the run has ended well. */
  idFor(role: string): string;
  signal?: AbortSignal;
  progress(part: number): void;
  /** Say that one of `around` was used; a step that says so of some of a kind rests on no other of that kind. */
  uses(object: EarthObject): void;
  /** Show what there is so far of a map in the making, where somebody looks on. */
  preview(map: Preview): void;
  warn(sentence: string): void;
  /** Of a step that is local too: the volumes that follow from what surrounds their samples. */
  stored(): Promise<Record<string, Draft>>;
  /** Of such a step: what it has prepared for them. */
  prepared(): Promise<unknown>;
}

/** An output without what the framework fills in: id, revision, trail, stage. */
export type Draft<O extends EarthObject = EarthObject> = O extends EarthObject
  ? Omit<O, 'id' | 'revision' | 'madeBy' | 'stage' | 'name'>
  : never;

interface StepFacts {
  id: string;
  version: number;
  /** Bed of the Column that its results belong to. */
  stage: string;
  /** What it is for among the steps of its stage, where there are many. */
  purpose?: string;
  title: string;
  summary: string;
  /** What it works out, in a line. */
  formula?: string;
  /** Where it leads astray. */
  avoid?: string;
  /** Paper, journal, pages. */
  source: string;
  /** How far a sample of the result looks: around itself, along its trace, over its slice, or everywhere. */
  reach: 'local' | 'trace' | 'slice' | 'global';
  outputs: Record<string, OutputSpec>;
}

/** A choice of wells, with what a step reads of them. */
export function wellsInput<
  const K extends Kind[],
  const O extends { optional?: true; having?: Kind; ofField?: Kind[] },
>(companions: K, more?: O) {
  return { kind: 'well', title: 'Wells', many: true, companions, ...more } as {
    kind: 'well';
    title: string;
    many: true;
    companions: K;
  } & O;
}

export interface Step<
  I extends Record<string, InputSpec> = Record<string, InputSpec>,
  P extends z.ZodObject = z.ZodObject,
> extends StepFacts {
  inputs: I;
  params: P;
  /** How its results come to be from what surrounds them alone; run, trial and live volumes follow from it. */
  local?: LocalStep<z.infer<P>>;
  /** Gain at a frequency (Hz), drawn over the data's own spectrum; `spectrum` gives that in dB by frequency. */
  response?(params: z.infer<P>, hz: number): number;
  /** What a run would give, in a sentence, from parameters and objects alone; throws why it cannot. */
  foresee?(given: { inputs: Given; objects: EarthObject[]; params: z.infer<P> }): Promise<string>;
  /** Maps that it would give, by role, for a trial. */
  maps?(
    context: Pick<RunContext<I, z.infer<P>>, 'inputs' | 'params' | 'store' | 'signal' | 'progress' | 'warn'>,
  ): Promise<Record<string, { binGrid: BinGrid; values: Float32Array; quantity: string; unit: string }>>;
  /** What it does; a local step needs none, and one that has more to give than volumes has both. */
  run?(context: RunContext<I, z.infer<P>>): Promise<Record<string, Draft>>;
}

/** A step with its types forgotten, as the registry, forms and command line see it. */
// biome-ignore lint/suspicious/noExplicitAny: the registry holds steps of every type of input and parameter
export type AnyStep = Step<any, any>;

/** Declare a step. From this one declaration come form, trial, command line, recipe and methods page. */
export function defineStep<const I extends Record<string, InputSpec>, P extends z.ZodObject>(
  step: Step<I, P>,
): Step<I, P> {
  if (!step.run && !step.local) throw new Error(`${step.id} neither runs nor is local`);
  if (!/^[a-z]+(\.[a-zA-Z]+)+$/.test(step.id)) throw new Error(`a step's id reads “stage.name”, not “${step.id}”`);
  return step;
}

const registry = new Map<string, AnyStep>();

/** Make a step known everywhere. */
export function registerStep(step: AnyStep): void {
  if (registry.has(step.id)) throw new Error(`two steps are called ${step.id}`);
  registry.set(step.id, step);
}

export function forgetStep(id: string): void {
  registry.delete(id);
}

export function stepOf(id: string): AnyStep | undefined {
  return registry.get(id);
}

export function allSteps(): AnyStep[] {
  return [...registry.values()];
}

/** Facts about a parameter beside its type: shown in forms and on the methods page. */
export interface ParamFacts {
  title: string;
  description: string;
  unit?: string;
  /** What of the project the text names; several with commas between for “tops” and “curves”. */
  names?: Named;
  /** Of a name that may be left out. */
  optional?: true;
  /** Of a value: the role of the volume whose values it lies among. */
  among?: string;
  /** Of the first of three coordinates: the keys of all of them, so that a place may be pointed at, and what else is set by that. */
  place?: { keys: [string, string, string]; sets?: Record<string, unknown> };
  /** How a list comes about that is no plain table: by strokes of a brush, or as layers between the boundaries that are chosen. */
  drawn?: 'strokes' | 'layers';
}

/** `log` and `logs` are curves in time, those that a wave averages among them. */
export type Named = 'top' | 'tops' | 'curve' | 'curves' | 'log' | 'logs' | 'formula' | 'horizon';

/** A number parameter with unit and range. */
export function number(
  facts: ParamFacts,
  range: { min: number; max: number; step?: number; initial: number; whole?: boolean },
) {
  const base = range.whole ? z.int() : z.number();
  return base
    .min(range.min)
    .max(range.max)
    .default(range.initial)
    .meta({ ...facts, step: range.step ?? (range.whole ? 1 : (range.max - range.min) / 100) });
}

/** A choice among named options. */
export function choice<const O extends [string, ...string[]]>(facts: ParamFacts, options: O, initial: O[number]) {
  return z
    .enum(options)
    .default(initial as never)
    .meta({ ...facts });
}

/** A text, such as the name of a top; it may be left empty where it begins so. */
export function text(facts: ParamFacts, initial: string, longest = 200) {
  return z
    .string()
    .min(initial ? 1 : 0)
    .max(longest)
    .default(initial)
    .meta({ ...facts });
}

/** A place of the project, by map coordinates and TWT or depth; pointing at it sets what else says that it is wanted. */
export const placeParams = (sets: Record<string, unknown>) => ({
  x: number(
    { title: 'X of the place', description: 'Map coordinate.', unit: 'm', place: { keys: ['x', 'y', 'at'], sets } },
    { min: -1e8, max: 1e8, step: 1, initial: 0 },
  ),
  y: number(
    { title: 'Y of the place', description: 'Map coordinate.', unit: 'm' },
    { min: -1e8, max: 1e8, step: 1, initial: 0 },
  ),
  at: number(
    { title: 'TWT or depth of the place', description: 'In ms, or m in depth.' },
    { min: -1e5, max: 1e5, step: 1, initial: 0 },
  ),
});

/** The names in a text that has commas between them. */
export function listed(names: string): string[] {
  return names
    .split(',')
    .map((n) => n.trim())
    .filter(Boolean);
}

/** Parameters as JSON Schema (2020-12), for forms, the command line and the methods page. */
export function paramsSchema(step: AnyStep): Record<string, unknown> {
  return z.toJSONSchema(step.params, { io: 'input' }) as Record<string, unknown>;
}
