import {
  type AnyStep,
  askedInputs,
  type BinGrid,
  companionsOf,
  curveNames,
  type EarthObject,
  type Horizon,
  type InputSpec,
  listed,
  type Named,
  paramsSchema,
  pathOf,
  stackSetOf,
  timedNames,
  toIndex,
  topNames,
  unfit,
  type Volume,
  type Well,
} from '@lithagon/core';
import { standsFor } from '../views/common/survey';

/** Objects that fit an input. */
export function fitting(spec: InputSpec, objects: EarthObject[]): EarthObject[] {
  return objects.filter((o) => unfit(spec, o) === null);
}

type Declared = Record<string, { default?: unknown; names?: Named; optional?: boolean }>;

/**
 * Initial values of a step's parameters, from its declaration. Tops and curves that they name are ones that there are:
 * those that the step was given last, else the wells' target, which lies low in what they were drilled through.
 */
export function initialParams(step: AnyStep, objects: EarthObject[] = []): Record<string, unknown> {
  const { properties = {} } = paramsSchema(step) as { properties?: Declared };
  const wells = objects.filter((o) => o.kind === 'well').map((o) => o.name);
  const tops = topNames(objects, wells);
  const curves = curveNames(objects, wells);
  const timed = timedNames(objects, wells);
  const before = madeBefore(step, objects)[0]?.madeBy.params;
  const held = (names: string[], key: string) => {
    const last = before?.[key];
    return typeof last === 'string' && names.includes(last) ? last : undefined;
  };
  let target = Math.max(0, Math.min(Math.floor((2 * tops.length) / 3), tops.length - 2));
  const named = (key: string, { default: initial, names, optional }: Declared[string]) => {
    if (names === 'logs') return only(String(initial), timed) || initial;
    if (names === 'log') return held(timed, key) ?? initial;
    if (names === 'curves') return only(String(initial), curves) || initial;
    if (names === 'curve') return held(curves, key) ?? (only(String(initial), curves) || (curves[0] ?? initial));
    // a zone lies between two tops
    if (names === 'top' && !optional) return held(tops, key) ?? tops[Math.min(target++, tops.length - 1)] ?? initial;
    return initial;
  };
  return Object.fromEntries(Object.entries(properties).map(([key, p]) => [key, named(key, p)]));
}

/** Of names with commas between, those that there are. */
const only = (names: string, held: string[]) =>
  listed(names)
    .filter((n) => held.includes(n))
    .join(', ');

/** Whether a well passes the bins of a survey somewhere on its way: its head may stand beside it. */
function passes(binGrid: BinGrid, objects: EarthObject[], well: Well): boolean {
  const { x, y } = pathOf(objects, well);
  return x.some((_, n) => {
    const [i, j] = toIndex(binGrid, x[n], y[n]);
    return i >= 0 && j >= 0 && i <= binGrid.inline.count - 1 && j <= binGrid.crossline.count - 1;
  });
}

/** What a step made, the newest first. */
const madeBefore = (step: AnyStep, objects: EarthObject[]) =>
  objects.filter((o) => o.madeBy.step === step.id).sort((a, b) => b.madeBy.started.localeCompare(a.madeBy.started));

/** The latest that a step made as one of its outputs. */
const madeAs = ({ step, output }: NonNullable<InputSpec['usual']>, objects: EarthObject[]) =>
  objects.findLast((o) => o.madeBy.step === step && o.madeBy.output === output);

/**
 * Objects that a step begins with, by role: what the desk shows; of what a step is done to one by one, such as wells that
 * are tied, the first inside the survey that it was not done to and that has all that is read of it; else what it was
 * given last, and no object twice. What may be left out is.
 */
export function initialInputs(step: AnyStep, objects: EarthObject[], shown: string | null): Record<string, string[]> {
  const roles = Object.entries(step.inputs) as [string, InputSpec][];
  const before = madeBefore(step, objects);
  const inputs: Record<string, string[]> = {};
  const read = objects.filter((o) => o.kind === 'volume' && roles.some(([, spec]) => unfit(spec, o) === null));
  const survey = (read.find((o) => o.id === shown) ?? read[0]) as Volume | undefined;
  const inside = (o: EarthObject) => !survey || o.kind !== 'well' || passes(survey.binGrid, objects, o);
  for (const [n, [role, spec]] of roles.entries()) {
    const fits = fitting(spec, objects);
    if (spec.many) {
      inputs[role] = firstChosen(step, spec, fits, objects, survey).map((o) => o.id);
      continue;
    }
    const given = before.flatMap((o) => askedInputs(o)[role]?.slice(0, 1) ?? []);
    // what another input is usually made by is left to it
    const promised = roles.flatMap(([other, { usual }]) => {
      const made = usual && other !== role && !spec.usual ? madeAs(usual, objects) : undefined;
      return made ? [made.id] : [];
    });
    const taken = [...Object.values(inputs).flat(), ...promised];
    const alike = roles.filter(([, s]) => s.kind === spec.kind && !s.many && !s.optional).length;
    // a horizon in the domain of the seismic, and of one that was closed not the track that it was made from
    const closed = spec.kind === 'horizon' ? standsFor(objects) : new Set();
    const rank = (o: EarthObject) =>
      spec.kind === 'velocity model'
        ? // a model before a mere velocity volume, and the latest first
          o.kind === spec.kind
          ? -fits.indexOf(o)
          : 1
        : o.kind === 'horizon'
          ? 2 * Number(survey !== undefined && o.domain !== survey.domain) + Number(closed.has(o.id))
          : 0;
    const free = fits.filter((o) => !taken.includes(o.id)).sort((a, b) => rank(a) - rank(b));
    const whole = (o: EarthObject) =>
      (spec.companions ?? []).every((kind) => companionsOf(objects, o.name, kind).length > 0);
    const next = free.find((o) => !given.includes(o.id) && whole(o) && inside(o)) ?? free[0];
    // many runs are made of one volume
    const inTurn = n === 0 && alike === 1 && spec.kind !== 'volume';
    const latest = spec.kind === 'velocity model' ? free[0] : undefined;
    const usual = inTurn ? next : (latest ?? free.find((o) => o.id === given[0]) ?? free[0]);
    if (spec.kind === 'seismic line' && spec.optional) {
      // picks without a horizon were made on a 2D line
      const given = objects.filter((o) => Object.values(inputs).flat().includes(o.id));
      const picked = given.length > 0 && given.every((o) => o.kind === 'picks');
      inputs[role] = picked && fits[0] ? [fits[0].id] : [];
      continue;
    }
    if (spec.shallowest) {
      const own = free.filter((o): o is Horizon => o.kind === 'horizon' && !o.madeBy.step.startsWith('depth.'));
      const [top] = own.sort((a, b) => a.range[0] + a.range[1] - b.range[0] - b.range[1]);
      inputs[role] = top ? [top.id] : [];
      continue;
    }
    const { usual: made } = spec;
    const known = made && madeAs(made, fits);
    const one =
      spec.optional && !spec.begins
        ? undefined
        : (known ?? latest ?? free.find((o) => o.id === shown) ?? usual ?? fits[0]);
    inputs[role] = one ? [one.id] : [];
  }
  return inputs;
}

/** Steps whose horizons follow from ages, and so say nothing of them. */
const MADE_OF_AGES = new Set(['interpret.ageSlices', 'interpret.ageValid', 'interpret.terminations']);

/** Of all that fit an input of many, those to begin with; all where none has what is asked for. */
function firstChosen(
  step: AnyStep,
  { having, begins, kind, or, domain, stacks }: InputSpec,
  fits: EarthObject[],
  objects: EarthObject[],
  survey: Volume | undefined,
): EarthObject[] {
  if (begins === false) return [];
  if (stacks) {
    // the set of the survey that is shown, else of the first that has one
    const volumes = fits.filter((o): o is Volume => o.kind === 'volume');
    const sets = [...(survey ? [survey] : []), ...volumes].map((v) => stackSetOf(v, fits));
    return (sets.find((s) => s.length > 1) ?? []).map((s) => s.volume);
  }
  if (kind === 'horizon' && (survey || domain)) {
    // those beside the seismic, each once: of one that was closed not the track that it was made from, nor what was made of ages
    const closed = standsFor(objects);
    const horizons = fits.filter(
      (o) =>
        o.kind === 'horizon' &&
        o.domain === (domain ?? survey?.domain) &&
        !closed.has(o.id) &&
        !MADE_OF_AGES.has(o.madeBy.step),
    );
    // picks stand for horizons where there are none
    return horizons.length > 0 || !or ? horizons : fits;
  }
  if (!having) return fits;
  const own = fits.filter((o) => companionsOf(objects, o.name, having).some((c) => c.madeBy.step !== step.id));
  return own.length > 0 ? own : fits;
}
