// @vitest-environment happy-dom
import { columnOfTops, type EarthObject } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { MADE, twinOf } from '@lithagon/core/testing/objects';
import { act } from '@testing-library/react';
import { beforeEach, describe, expect, test } from 'vitest';
import { useDesk } from '../../state/desk';
import { useSelection } from '../../state/selection';
import { useTool } from '../../state/tool';
import { settingsOf } from '../../state/views';
import { objectsNow, openWith } from '../../testing/field';
import { onPage, screen, within } from '../../testing/page';
import { Column } from '../Column';
import { Tray } from './Tray';

/** The beds with the tray of the one that is chosen. */
const beds = () =>
  onPage(
    <>
      <Column />
      <Tray />
    </>,
  );
let field: EarthObject[];
beforeEach(async () => {
  const { store } = await layeredField();
  field = await store.list();
  useDesk.setState({ stage: null, views: {}, links: {}, active: null, recent: [] });
  await openWith(field);
});

describe('the tray of a bed', () => {
  test('opens from the column, holds its objects by kind, and closes', async () => {
    const { hands } = beds();
    expect(screen.queryByRole('complementary')).toBeNull();
    await hands.click(screen.getByRole('button', { name: /^Wells ?: \d+ objects/ }));
    const tray = screen.getByRole('complementary', { name: 'Wells' });
    // what belongs to a well stands under it, folded
    expect(screen.queryByRole('button', { name: /^T-1 tops/ })).toBeNull();
    await hands.click(screen.getByRole('button', { name: /^What T-1 has, \d+/ }));
    expect(tray.textContent).toContain('T-1 tops');
    await hands.click(screen.getByRole('button', { name: /^T-1 tops/ }));
    expect(useSelection.getState().object).toBe(objectsNow().find((o) => o.name === 'T-1 tops')?.id);
    await hands.click(screen.getByRole('button', { name: 'Close the tray' }));
    expect(screen.queryByRole('complementary')).toBeNull();
  });
  test('offers the steps of its bed, and of those that cannot be made yet says what they need', async () => {
    const { hands } = beds();
    await hands.click(screen.getByRole('button', { name: /^Tie ?: / }));
    const wavelet = screen.getByRole('button', { name: /^Make a wavelet/ });
    expect(wavelet).toHaveProperty('disabled', false);
    const tie = screen.getByRole('button', { name: /^Tie a well/ });
    expect(tie).toHaveProperty('disabled', true);
    expect(tie.textContent).toContain('Needs a wavelet');
    await hands.click(wavelet);
    expect(useSelection.getState().setup?.step).toBe('tie.wavelet');
  });
  test('says of an empty bed what it is for', async () => {
    const { hands } = beds();
    await hands.click(screen.getByRole('button', { name: /^Grid|^Properties ?: / }));
    expect(screen.getByRole('complementary').textContent).toMatch(/\w+ \w+/);
    expect(screen.queryByText('Rebuild what is out of date')).toBeNull();
  });
  test('marks what is out of date, as its bed does, and offers to rebuild it', async () => {
    const seismic = field.find((o) => o.name === 'Seismic') as EarthObject;
    const worn = {
      ...twinOf(seismic, 'worn'),
      name: 'Worn',
      stage: 'attributes',
      madeBy: { ...MADE, inputs: { seismic: [`${seismic.id}@an older one`] } },
    } as EarthObject;
    await openWith([...field, worn]);
    const { hands } = beds();
    const bed = screen.getByRole('button', { name: /^Attributes ?: 1 object, 1 out of date/ });
    await hands.click(bed);
    const row = screen.getByRole('button', { name: /^Worn/ });
    expect(row.textContent).toContain('out of date');
    expect(row.title).toMatch(/^Out of date: /);
    expect(screen.getByRole('button', { name: 'Rebuild what is out of date' })).toBeDefined();
  });
  test('folds a kind of which there are many, keeps in sight what is selected, and finds by name', async () => {
    const well = field.find((o) => o.kind === 'well') as EarthObject;
    const many = Array.from({ length: 200 }, (_, n) => ({ ...well, id: `w${n}`, name: `W-${n}` }));
    await openWith([...field, ...many]);
    const { hands } = beds();
    await hands.click(screen.getByRole('button', { name: /^Wells ?: / }));
    const shown = () => screen.queryAllByRole('button', { name: /^W-\d+/ }).map((b) => b.title);
    expect(shown()).toEqual([]);
    await hands.type(screen.getByRole('searchbox', { name: 'Find in Wells' }), 'W-13');
    expect(shown()).toEqual(['W-13', ...Array.from({ length: 10 }, (_, n) => `W-13${n}`)]);
    await hands.click(screen.getByRole('button', { name: /^W-137/ }));
    await hands.clear(screen.getByRole('searchbox', { name: 'Find in Wells' }));
    expect(shown()).toEqual(['W-137']);
    await hands.click(screen.getByRole('button', { name: 'Unfold Wells' }));
    expect(shown()).toHaveLength(200);
  });
  test('shows and hides objects in the view in front, one by one and all of a kind', async () => {
    useDesk.setState({ active: 'section', recent: ['section'] });
    const { hands } = beds();
    await hands.click(screen.getByRole('button', { name: /^Wells ?: / }));
    const eye = screen.getByRole('button', { name: 'Hide T-1 in Section' });
    await hands.click(eye);
    const well = objectsNow().find((o) => o.name === 'T-1') as EarthObject;
    expect(useDesk.getState().views.section.contents.shown).toContainEqual({ id: well.id, eye: false, opacity: 1 });
    await hands.click(screen.getByRole('button', { name: 'Show T-1 in Section' }));
    expect(screen.getByRole('button', { name: 'Hide T-1 in Section' })).toBeDefined();
    // the map has eyes of its own
    act(() => useDesk.setState({ active: 'map' }));
    await hands.click(screen.getByRole('button', { name: 'Hide T-1 in Map' }));
    act(() => useDesk.setState({ active: 'section' }));
    expect(screen.getByRole('button', { name: 'Hide T-1 in Section' })).toBeDefined();
  });
  test('finds steps by what they do, and shows those that can be made first', async () => {
    const { hands } = beds();
    await hands.click(screen.getByRole('button', { name: /^Data ?: / }));
    const steps = () => within(screen.getByRole('region', { name: 'Make' })).getAllByRole('button');
    expect(steps().length).toBeGreaterThan(10);
    await hands.type(screen.getByRole('searchbox', { name: 'Find a step' }), 'band-pass');
    expect(steps().map((b) => b.querySelector('strong')?.textContent)).toContain('Band-pass');
    expect(steps().length).toBeLessThan(4);
  });
  test('shows an object in its view by a double click', async () => {
    const horizon = field.find((o) => o.kind === 'horizon') as EarthObject;
    const { hands } = beds();
    await hands.click(screen.getByRole('button', { name: /^Interpret ?: / }));
    await hands.dblClick(screen.getByRole('button', { name: new RegExp(`^${horizon.name}`) }));
    expect(settingsOf('map', 'map').shows).toBe(horizon.id);
  });
  test('begins what is drawn by hand', async () => {
    const { hands } = beds();
    await hands.click(screen.getByRole('button', { name: /^Interpret ?: / }));
    await hands.click(screen.getByRole('button', { name: 'Draw an area' }));
    expect(useTool.getState().tool).toMatchObject({ kind: 'area', name: 'Drawn area' });
  });
});

test('a stratigraphic column is a thing of the wells', async () => {
  await openWith([...field, columnOfTops(field)]);
  const { hands } = beds();
  await hands.click(screen.getByRole('button', { name: /^Wells ?: / }));
  expect(screen.getByRole('button', { name: /^Stratigraphic column/ })).toBeDefined();
});
