import {
  type AnyStep,
  askedInputs,
  bytesOf,
  companionsOf,
  curveNames,
  type EarthObject,
  type InputSpec,
  listed,
  madeTogether,
  type Named,
  type Preview,
  paramsSchema,
  type runStep,
  stepOf,
  topNames,
  unfit,
} from '@lithagon/core';
import * as Comlink from 'comlink';
import { toast } from 'sonner';
import { runJob } from '../compute/pool';
import { useDesk } from '../state/desk';
import { mayChange, refreshProject, useProject } from '../state/project';
import { track, useRuns } from '../state/runs';
import { type Setup, select, useSelection } from '../state/selection';
import { checkRoom } from '../storage/room';
import { openView } from './dock';

/** Objects that fit an input. */
export function fitting(spec: InputSpec, objects: EarthObject[]): EarthObject[] {
  return objects.filter((o) => unfit(spec, o) === null);
}

/** What a step still lacks, in words, or null where it can be set up. */
export function lacks(step: AnyStep, objects: EarthObject[]): string | null {
  for (const spec of Object.values(step.inputs) as InputSpec[])
    if (!spec.optional && fitting(spec, objects).length === 0) return wanted(spec);
  return null;
}

/** An input in words: “an amplitude, attribute or impedance volume: load or make one first”. */
function wanted({ quantity = [], kind }: InputSpec): string {
  const last = quantity.length - 1;
  const which = quantity.map((q, n) => (n === 0 ? q : n === last ? ` or ${q}` : `, ${q}`)).join('');
  const what = which ? `${which} ${kind}` : kind;
  if (kind.endsWith('s')) return `${what}: load or make them first`;
  return `${/^[aeiou]/.test(what) ? 'an' : 'a'} ${what}: load or make one first`;
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
  const before = objects
    .filter((o) => o.madeBy.step === step.id)
    .sort((a, b) => b.madeBy.started.localeCompare(a.madeBy.started))[0]?.madeBy.params;
  const held = (names: string[], key: string) => {
    const last = before?.[key];
    return typeof last === 'string' && names.includes(last) ? last : undefined;
  };
  let target = Math.max(0, Math.min(Math.floor((2 * tops.length) / 3), tops.length - 2));
  const named = (key: string, { default: initial, names, optional }: Declared[string]) => {
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

/** Of all that fit an input of many, those to begin with; all where none has what is asked for. */
function firstChosen(step: AnyStep, { having }: InputSpec, fits: EarthObject[], objects: EarthObject[]): EarthObject[] {
  if (!having) return fits;
  const own = fits.filter((o) => companionsOf(objects, o.name, having).some((c) => c.madeBy.step !== step.id));
  return own.length > 0 ? own : fits;
}

/** Open a step in the Sheet with inputs that fit: what the desk shows where it can. */
export function prepare(step: AnyStep): void {
  const { objects } = useProject.getState();
  const shown = useDesk.getState().volume;
  const inputs = Object.fromEntries(
    (Object.entries(step.inputs) as [string, InputSpec][]).map(([role, spec]) => {
      const fits = fitting(spec, objects);
      if (spec.many) return [role, firstChosen(step, spec, fits, objects).map((o) => o.id)];
      const one = fits.find((o) => o.id === shown) ?? fits[0];
      return [role, one && !spec.optional ? [one.id] : []];
    }),
  );
  setUp({ step: step.id, inputs, params: initialParams(step, objects), live: false });
}

/** Open a step by its id, with inputs of choice over those that fit, and a name for what it makes. */
export function prepareNamed(id: string, inputs: Record<string, string[]> = {}, name?: string): void {
  const step = stepOf(id);
  if (!step) return;
  prepare(step);
  useSelection.setState((s) => ({ setup: s.setup && { ...s.setup, inputs: { ...s.setup.inputs, ...inputs }, name } }));
}

/** Put a step in the Sheet, and open the view in which it is worked on. */
function setUp(setup: Setup): void {
  useSelection.setState({ setup, object: null });
  if (setup.step === 'tie.well') openView('tie');
}

/** Open the step that made an object with what it was given; running it makes that object again. */
export function change(object: EarthObject): void {
  const step = stepOf(object.madeBy.step);
  if (!step) return;
  const { objects } = useProject.getState();
  const replaces = madeTogether(objects, object);
  setUp({
    step: step.id,
    inputs: askedInputs(object),
    params: { ...initialParams(step), ...object.madeBy.params },
    live: false,
    name: object.name,
    replaces,
  });
}

/** What a run would take the place of: what is being changed. A tie of a well is a new version beside the others. */
export function takesPlaceOf(setup: Setup, objects: EarthObject[]): EarthObject[] {
  return setup.step === 'tie.well' ? [] : objects.filter((o) => Object.values(setup.replaces ?? {}).includes(o.id));
}

const replacesOf = (setup: Setup) => (setup.step === 'tie.well' ? undefined : setup.replaces);

/** Run the step of an object again in its place, with some inputs changed. */
export async function rerun(object: EarthObject, inputs: Record<string, string[]>): Promise<void> {
  const step = stepOf(object.madeBy.step);
  if (!step) return;
  const { objects } = useProject.getState();
  await runSetup(
    {
      step: step.id,
      inputs: { ...askedInputs(object), ...inputs },
      params: { ...initialParams(step), ...object.madeBy.params },
      live: false,
      replaces: madeTogether(objects, object),
    },
    step,
    false,
  );
}

/** Make again what is out of date: everything, or what one object rests on. */
export async function runRebuild(only?: EarthObject): Promise<void> {
  const projectId = useProject.getState().id;
  const made = await track(
    only ? `Rebuild ${only.name}` : 'Rebuild',
    only?.stage ?? 'data',
    async (signal, progress) => {
      mayChange();
      return runJob(
        (remote, task) =>
          remote.rebuild(
            task,
            projectId,
            only?.id,
            Comlink.proxy((part: number) => progress(part)),
          ),
        signal,
      );
    },
  );
  await refreshProject();
  if (made) toast(made.length === 0 ? 'Everything is up to date.' : `Made again: ${made.join(', ')}.`);
}

/** About how much a run will write: a volume for each that it makes, like the greatest that it takes. */
function bytesMade(setup: Setup, step: AnyStep): number {
  const { byId } = useProject.getState();
  const taken = Object.values(setup.inputs)
    .flat()
    .map((id) => byId.get(id))
    .filter((o) => o?.kind === 'volume');
  const made = Object.values(step.outputs).filter((o) => o.kind === 'volume').length;
  return made * Math.max(0, ...taken.map((o) => (o ? bytesOf(o) : 0)));
}

/** Run what is set up, on a worker, and show what it made. */
export async function runSetup(setup: Setup, step: AnyStep, show = true): Promise<void> {
  const projectId = useProject.getState().id;
  const request: Parameters<typeof runStep>[0] = {
    step: setup.step,
    inputs: setup.inputs,
    params: setup.params,
    name: setup.name?.trim() || undefined,
    replaces: replacesOf(setup),
  };
  if (show) useSelection.setState({ setup: { ...setup, live: false } });
  const ids = await track(step.title, step.stage, async (signal, progress) => {
    mayChange();
    await checkRoom(step.title, bytesMade(setup, step));
    return runJob(
      (remote, task) =>
        remote.run(
          task,
          projectId,
          request,
          Comlink.proxy((part: number) => progress(part)),
          Comlink.proxy((map: Preview) => useRuns.setState({ preview: map })),
        ),
      signal,
    );
  });
  useRuns.setState({ preview: null });
  if (!ids) return;
  await refreshProject();
  if (!show) return;
  const made = useProject.getState().byId.get(ids[0]);
  select(ids[0]);
  useDesk.setState({ stage: step.stage, ...(made?.kind === 'volume' ? { volume: made.id } : {}) });
}
