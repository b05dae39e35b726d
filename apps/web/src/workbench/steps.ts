import { type AnyStep, type EarthObject, type InputSpec, paramsSchema, type runStep, unfit } from '@lithagon/core';
import * as Comlink from 'comlink';
import { runJob } from '../compute/pool';
import { useDesk } from '../state/desk';
import { refreshProject, useProject } from '../state/project';
import { track } from '../state/runs';
import { type Setup, select, useSelection } from '../state/selection';

/** Objects that fit an input. */
export function fitting(spec: InputSpec, objects: EarthObject[]): EarthObject[] {
  return objects.filter((o) => unfit(spec, o) === null);
}

/** What a step still lacks, in words, or null where it can be set up. */
export function lacks(step: AnyStep, objects: EarthObject[]): string | null {
  for (const spec of Object.values(step.inputs) as InputSpec[])
    if (!spec.optional && fitting(spec, objects).length === 0)
      return `${[...(spec.quantity ?? []), spec.kind].join(' ')}: load or make one first`;
  return null;
}

/** Initial values of a step's parameters, from its declaration. */
export function initialParams(step: AnyStep): Record<string, unknown> {
  const { properties } = paramsSchema(step) as { properties?: Record<string, { default?: unknown }> };
  return Object.fromEntries(Object.entries(properties ?? {}).map(([key, p]) => [key, p.default]));
}

/** Open a step in the Sheet with inputs that fit: what the desk shows where it can. */
export function prepare(step: AnyStep): void {
  const { objects } = useProject.getState();
  const shown = useDesk.getState().volume;
  const inputs = Object.fromEntries(
    (Object.entries(step.inputs) as [string, InputSpec][]).map(([role, spec]) => {
      const fits = fitting(spec, objects);
      if (spec.many) return [role, fits.map((o) => o.id)];
      const one = fits.find((o) => o.id === shown) ?? fits[0];
      return [role, one && !spec.optional ? [one.id] : []];
    }),
  );
  const setup: Setup = { step: step.id, inputs, params: initialParams(step), live: false };
  useSelection.setState({ setup, object: null });
}

/** Run what is set up, on a worker, and show what it made. */
export async function runSetup(setup: Setup, step: AnyStep): Promise<void> {
  const projectId = useProject.getState().id;
  const request: Parameters<typeof runStep>[0] = {
    step: setup.step,
    inputs: setup.inputs,
    params: setup.params,
    name: setup.name,
  };
  useSelection.setState({ setup: { ...setup, live: false } });
  const ids = await track(step.title, step.stage, (signal, progress) =>
    runJob(
      (remote, task) =>
        remote.run(
          task,
          projectId,
          request,
          Comlink.proxy((part: number) => progress(part)),
        ),
      signal,
    ),
  );
  if (!ids) return;
  await refreshProject();
  const made = useProject.getState().byId.get(ids[0]);
  select(ids[0]);
  useDesk.setState({ stage: step.stage, ...(made?.kind === 'volume' ? { volume: made.id } : {}) });
}
