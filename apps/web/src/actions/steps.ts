import {
  type AnyStep,
  askedInputs,
  bytesOf,
  type EarthObject,
  type InputSpec,
  kindsOf,
  madeTogether,
  type Preview,
  type runStep,
  stepOf,
  type Volume,
} from '@lithagon/core';
import * as Comlink from 'comlink';
import { toast } from 'sonner';
import { runJob } from '../compute/pool';
import { useDesk } from '../state/desk';
import { openView } from '../state/dock';
import { turnTo } from '../state/pages';
import { mayChange, refreshProject, useProject } from '../state/project';
import { track, useRuns } from '../state/runs';
import { type Setup, select, useSelection } from '../state/selection';
import { activeOf, changeSettings } from '../state/views';
import { checkRoom } from '../storage/room';
import { showBlend, showPair, uncover } from './blends';
import { fitting, initialInputs, initialParams } from './initial';

/** What a step still lacks, in words, or null where it can be set up. */
export function lacks(step: AnyStep, objects: EarthObject[]): string | null {
  for (const spec of Object.values(step.inputs) as InputSpec[])
    if (!spec.optional && fitting(spec, objects).length === 0) return wanted(spec);
  return null;
}

/** An input in words: “an amplitude, attribute or impedance volume: load or make one first”. */
function wanted(spec: InputSpec): string {
  const { quantity = [] } = spec;
  const kind = kindsOf(spec);
  const last = quantity.length - 1;
  const which = quantity.map((q, n) => (n === 0 ? q : n === last ? ` or ${q}` : `, ${q}`)).join('');
  const what = which ? `${which} ${kind}` : kind;
  if (kind.endsWith('s')) return `${what}: load or make them first`;
  return `${/^[aeiou]/.test(what) ? 'an' : 'a'} ${what}: load or make one first`;
}

/** Open a step in the Sheet with inputs that fit: what the desk shows where it can. */
export function prepare(step: AnyStep): void {
  const { objects } = useProject.getState();
  const shown = useDesk.getState().volume;
  setUp({
    step: step.id,
    inputs: initialInputs(step, objects, shown),
    params: initialParams(step, objects),
    live: false,
  });
}

/** Open a step by its id, with inputs of choice over those that fit, and a name for what it makes. */
export function prepareNamed(
  id: string,
  inputs: Record<string, string[]> = {},
  name?: string,
  params: Record<string, unknown> = {},
): void {
  const step = stepOf(id);
  if (!step) return;
  prepare(step);
  useSelection.setState((s) => ({
    setup: s.setup && {
      ...s.setup,
      inputs: { ...s.setup.inputs, ...inputs },
      params: { ...s.setup.params, ...params },
      name,
    },
  }));
}

/** Put a step in the Sheet, and open the view in which it is worked on. */
function setUp(setup: Setup): void {
  useSelection.setState({ setup, object: null });
  if (setup.step === 'tie.well') openView('tie');
  if (setup.step === 'invert.netPay') openView('pay');
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
    { show: false },
  );
}

/** Store a live volume, with what its step made beside it: each keeps its name and what rests on it. */
export async function store(volume: Volume): Promise<void> {
  await rerun(volume, {});
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
function bytesMade(setup: Pick<Setup, 'inputs'>, step: AnyStep): number {
  const { byId } = useProject.getState();
  const taken = Object.values(setup.inputs)
    .flat()
    .map((id) => byId.get(id))
    .filter((o) => o?.kind === 'volume');
  const made = Object.values(step.outputs).filter((o) => o.kind === 'volume').length;
  return made * Math.max(0, ...taken.map((o) => (o ? bytesOf(o) : 0)));
}

/** Run a step on a worker and take in what it made. @returns its ids, or nothing where it was cancelled or failed, which is told */
export async function runQuietly(request: Parameters<typeof runStep>[0]): Promise<string[] | undefined> {
  const step = stepOf(request.step);
  if (!step) return undefined;
  const projectId = useProject.getState().id;
  const ids = await track(step.title, step.stage, async (signal, progress) => {
    mayChange();
    if (!request.live) await checkRoom(step.title, bytesMade(request, step));
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
  if (ids) await refreshProject();
  return ids ?? undefined;
}

/** Run what is set up, and show what it made. */
export async function runSetup(
  setup: Setup,
  step: AnyStep,
  { show = true, live = false }: { show?: boolean; live?: boolean } = {},
): Promise<void> {
  if (show) useSelection.setState({ setup: { ...setup, live: false } });
  const ids = await runQuietly({
    step: setup.step,
    inputs: setup.inputs,
    params: setup.params,
    name: setup.name?.trim() || undefined,
    replaces: replacesOf(setup),
    live,
  });
  if (!ids || !show) return;
  const { byId } = useProject.getState();
  // bodies are drawn over what is shown; their numbers would only hide it
  const bodies = ids.find((id) => byId.get(id)?.kind === 'bodies');
  const made = byId.get(bodies ?? ids[0]);
  select(bodies ?? ids[0]);
  if (made?.kind === 'map') changeSettings('map', activeOf('map'), { shows: made.id });
  if (made?.kind === 'blend') showBlend(made);
  if (made?.kind === 'turned pair') showPair(made);
  if (made?.kind === 'volume') {
    uncover();
    turnTo(made);
  }
  useDesk.setState({ stage: step.stage, ...(made?.kind === 'volume' ? { volume: made.id } : {}) });
}
