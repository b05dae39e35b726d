import '../testing/browser';
import { type AnyStep, type EarthObject, stepOf, type Volume } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { MADE } from '@lithagon/core/testing/objects';
import { beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { useSelection } from '../state/selection';
import { fitting } from './initial';
import { change, lacks, prepare, prepareNamed, takesPlaceOf } from './steps';

let objects: EarthObject[];
let seismic: Volume;
const step = (id: string): AnyStep => {
  const found = stepOf(id);
  if (!found) throw new Error(`there is no step ${id}`);
  return found;
};

beforeAll(async () => {
  const field = await layeredField();
  objects = await field.store.list();
  seismic = field.seismic;
});
beforeEach(() => {
  useProject.setState({ objects, byId: new Map(objects.map((o) => [o.id, o])) });
  useDesk.setState({ volume: null });
  useSelection.setState({ setup: null, object: null });
});

describe('a step', () => {
  test('says what it still lacks, and nothing where it can be set up', () => {
    const variance = step('attributes.variance');
    expect(lacks(variance, [])).toMatch(/volume: load or make one first$/);
    expect(lacks(variance, objects)).toBeNull();
    // one domain or quantity is not another
    expect(lacks(variance, [{ ...seismic, quantity: 'interval velocity' }])).not.toBeNull();
  });
  test('is set up with what the desk shows where it fits', () => {
    const other = { ...seismic, id: 'other', name: 'Other' };
    const all = [...objects, other];
    useProject.setState({ objects: all, byId: new Map(all.map((o) => [o.id, o])) });
    useDesk.setState({ volume: 'other' });
    prepare(step('attributes.variance'));
    expect(Object.values(useSelection.getState().setup?.inputs ?? {})).toEqual([['other']]);
    useDesk.setState({ volume: 'gone' });
    prepare(step('attributes.variance'));
    expect(Object.values(useSelection.getState().setup?.inputs ?? {})).toEqual([['seismic']]);
  });
  test('named by its id takes inputs and a name of choice', () => {
    const [role] = Object.keys(step('attributes.variance').inputs);
    prepareNamed('attributes.variance', { [role]: ['mine'] }, 'My variance');
    expect(useSelection.getState().setup).toMatchObject({ inputs: { [role]: ['mine'] }, name: 'My variance' });
    useSelection.setState({ setup: null });
    prepareNamed('nothing.atAll');
    expect(useSelection.getState().setup).toBeNull();
  });
});

describe('changing what a step made', () => {
  const made = (): Volume => ({
    ...seismic,
    id: 'variance-1',
    name: 'Variance 36',
    quantity: 'variance',
    madeBy: {
      ...MADE,
      step: 'attributes.variance',
      output: 'variance',
      params: { windowMs: 60 },
      inputs: { [Object.keys(step('attributes.variance').inputs)[0]]: ['seismic@1'] },
    },
  });
  test('opens the step with what it was given, and takes the object’s place', () => {
    const object = made();
    const all = [...objects, object];
    useProject.setState({ objects: all, byId: new Map(all.map((o) => [o.id, o])) });
    change(object);
    const { setup } = useSelection.getState();
    expect(setup).toMatchObject({ name: 'Variance 36', live: false });
    expect(setup?.params).toMatchObject({ windowMs: 60 });
    expect(Object.values(setup?.inputs ?? {})).toEqual([['seismic']]);
    if (!setup) throw new Error('it is set up');
    expect(takesPlaceOf(setup, all).map((o) => o.id)).toEqual(['variance-1']);
    // a tie of a well is a version beside the others
    expect(takesPlaceOf({ ...setup, step: 'tie.well' }, all)).toEqual([]);
  });
  test('does nothing for what no step made', () => {
    change({ ...made(), madeBy: { ...MADE, step: 'gone.step' } });
    expect(useSelection.getState().setup).toBeNull();
  });
  test('fits only what an input allows', () => {
    const [spec] = Object.values(step('attributes.variance').inputs);
    expect(fitting(spec as Parameters<typeof fitting>[0], [...objects, made()]).map((o) => o.id)).toEqual(['seismic']);
  });
});
