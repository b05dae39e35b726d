import type { Volume } from '@lithagon/core';
import { MADE } from '@lithagon/core/testing/objects';
import { describe, expect, test } from 'vitest';
import { useDesk } from '../state/desk';
import { useSelection } from '../state/selection';
import { fieldOnTheDesk, show, step } from '../testing/field';
import { fitting } from './initial';
import { change, lacks, prepare, prepareNamed, takesPlaceOf } from './steps';

const field = fieldOnTheDesk();

describe('a step', () => {
  test('says what it still lacks, and nothing where it can be set up', () => {
    const variance = step('attributes.variance');
    expect(lacks(variance, [])).toMatch(/volume: load or make one first$/);
    expect(lacks(variance, field.objects)).toBeNull();
    // one domain or quantity is not another
    expect(lacks(variance, [{ ...field.seismic, quantity: 'interval velocity' }])).not.toBeNull();
  });
  test('is set up with what the desk shows where it fits', () => {
    const other = { ...field.seismic, id: 'other', name: 'Other' };
    const all = [...field.objects, other];
    show(all);
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
    ...field.seismic,
    id: 'variance-1',
    name: 'Variance 36',
    quantity: 'variance',
    madeBy: {
      ...MADE,
      step: 'attributes.variance',
      run: 'run-1',
      output: 'variance',
      params: { windowMs: 60 },
      inputs: { [Object.keys(step('attributes.variance').inputs)[0]]: ['seismic@1'] },
    },
  });
  test('opens the step with what it was given, and takes the object’s place', () => {
    const object = made();
    const all = [...field.objects, object];
    show(all);
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
    expect(fitting(spec as Parameters<typeof fitting>[0], [...field.objects, made()]).map((o) => o.id)).toEqual([
      'seismic',
    ]);
  });
});
