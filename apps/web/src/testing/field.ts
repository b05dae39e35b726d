import './browser';
import { type AnyStep, type EarthObject, stepOf, type Volume } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { beforeAll, beforeEach } from 'vitest';
import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { useSelection } from '../state/selection';

export function step(id: string): AnyStep {
  const found = stepOf(id);
  if (!found) throw new Error(`there is no step ${id}`);
  return found;
}

/** Show a project that holds these. */
export function show(objects: EarthObject[]): void {
  useProject.setState({ objects, byId: new Map(objects.map((o) => [o.id, o])) });
}

/** The layered field as the open project of every test, with nothing chosen. */
export function fieldOnTheDesk(): { objects: EarthObject[]; seismic: Volume } {
  const field = {} as { objects: EarthObject[]; seismic: Volume };
  beforeAll(async () => {
    const { store, seismic } = await layeredField();
    Object.assign(field, { objects: await store.list(), seismic });
  });
  beforeEach(() => {
    show(field.objects);
    useDesk.setState({ volume: null });
    useSelection.setState({ setup: null, object: null });
  });
  return field;
}
