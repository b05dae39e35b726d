// @vitest-environment happy-dom
import { layeredField } from '@lithagon/core/testing/layeredField';
import { beforeEach, describe, expect, test } from 'vitest';
import { useDesk } from '../../state/desk';
import { edit } from '../../state/history';
import { useSelection } from '../../state/selection';
import { objectsNow, openWith } from '../../testing/field';
import { onPage, screen } from '../../testing/page';
import { Help } from './Help';
import { Palette } from './Palette';

// the list scrolls to what is chosen, which a page without a layout cannot do
Element.prototype.scrollIntoView = () => undefined;

beforeEach(async () => {
  await openWith(await (await layeredField()).store.list());
  useDesk.setState({ stage: null });
  useSelection.setState({ paletteOpen: true, helpOpen: false });
});
const found = () => screen.getAllByRole('option').map((o) => o.textContent ?? '');

describe('the palette', () => {
  test('finds objects by what is typed, and chooses the one at hand with Enter', async () => {
    const { hands } = onPage(<Palette />);
    await hands.type(screen.getByRole('combobox'), 'T-1 tops');
    expect(found()[0]).toContain('T-1 tops');
    await hands.keyboard('{Enter}');
    expect(useSelection.getState()).toMatchObject({
      paletteOpen: false,
      object: objectsNow().find((o) => o.name === 'T-1 tops')?.id,
    });
  });
  test('finds steps that can be set up now, and sets them up', async () => {
    const { hands } = onPage(<Palette />);
    await hands.type(screen.getByRole('combobox'), 'make a wavelet');
    await hands.click(screen.getByRole('option', { name: /^Make a wavelet/ }));
    expect(useSelection.getState().setup?.step).toBe('tie.wavelet');
  });
  test('does not offer a step that lacks something', async () => {
    const { hands } = onPage(<Palette />);
    await hands.type(screen.getByRole('combobox'), 'tie a well');
    expect(screen.queryByRole('option', { name: /^Tie a well/ })).toBeNull();
  });
  test('says what undo would take back', async () => {
    const well = objectsNow().find((o) => o.kind === 'well');
    if (!well) throw new Error('the field has a well');
    await edit('Recolour T-1', [well], [{ ...well, color: '#123456' }]);
    const { hands } = onPage(<Palette />);
    await hands.type(screen.getByRole('combobox'), 'undo');
    expect(screen.getByRole('option', { name: /^Undo: Recolour T-1/ })).toBeDefined();
  });
  test('opens a bed', async () => {
    const { hands } = onPage(<Palette />);
    await hands.type(screen.getByRole('combobox'), 'open interpret');
    await hands.keyboard('{Enter}');
    expect(useDesk.getState().stage).toBe('interpret');
  });
});

test('the help lists every action that has a key', () => {
  useSelection.setState({ paletteOpen: false, helpOpen: true });
  onPage(<Help />);
  const text = screen.getByRole('dialog').textContent ?? '';
  for (const words of ['Undo', 'Open the Logs view', 'Next line', 'Open Data']) expect(text).toContain(words);
});
