import './browser';
import { type AnyStep, type EarthObject, type Store, stepOf, type Volume } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { beforeAll, beforeEach } from 'vitest';
import { useDesk } from '../state/desk';
import { useHistory } from '../state/history';
import { openProject, refreshProject, useProject } from '../state/project';
import { useSelection } from '../state/selection';
import { newProject } from '../storage/projects';

export function step(id: string): AnyStep {
  const found = stepOf(id);
  if (!found) throw new Error(`there is no step ${id}`);
  return found;
}

/** Show a project that holds these. */
export function show(objects: EarthObject[]): void {
  useProject.setState({ objects, byId: new Map(objects.map((o) => [o.id, o])) });
}

interface Field {
  store: Store;
  objects: EarthObject[];
  seismic: Volume;
}

/** The layered field as the open project of every test, with nothing chosen. */
export function fieldOnTheDesk(): Field {
  const field = {} as Field;
  beforeAll(async () => {
    const { store, seismic } = await layeredField();
    Object.assign(field, { store, objects: await store.list(), seismic });
  });
  beforeEach(() => {
    show(field.objects);
    useDesk.setState({ volume: null });
    useSelection.setState({ setup: null, object: null });
  });
  return field;
}

/** Open a new project that holds these, with nothing done in it yet. */
export async function openWith(objects: EarthObject[]): Promise<void> {
  useHistory.setState({ done: [], undone: [] });
  useSelection.setState({ setup: null, object: null });
  await openProject(await newProject('Quillon field'));
  await useProject.getState().store?.commit({ put: objects });
  await refreshProject();
}

/** The objects of the open project, and the names of what was done in it. */
export const objectsNow = () => useProject.getState().objects;
export const done = () => useHistory.getState().done.map((e) => e.name);
