// @vitest-environment happy-dom
import type { Well } from '@lithagon/core';
import { beforeEach, describe, expect, test } from 'vitest';
import { useDesk } from '../../state/desk';
import { styleOf, TRACKS } from '../../state/logsTemplate';
import { settingsOf } from '../../state/views';
import { fieldOnTheDesk } from '../../testing/field';
import { onPage, screen, within } from '../../testing/page';
import { TracksSheet } from './TracksSheet';

const field = fieldOnTheDesk();
const logs = () => settingsOf('logs', 'logs');
beforeEach(() => useDesk.setState({ views: {}, active: null, recent: [] }));

/** The sheet, for a panel that shows the field's one well. */
function sheet() {
  const well = field.objects.find((o): o is Well => o.kind === 'well') as Well;
  return onPage(<TracksSheet open onClose={() => undefined} columns={[{ well }] as never} />);
}
const track = (title: string) => within(screen.getByDisplayValue(title).parentElement as HTMLElement);

describe('tracks', () => {
  test('take curves that some well has, and give them back; a fill goes with the curve that it hangs on', async () => {
    const { hands } = sheet();
    const add = track('Gamma ray').getByRole('combobox', { name: 'Add a curve to Gamma ray' });
    const offered = within(add)
      .getAllByRole('option')
      .map((o) => o.textContent);
    expect(offered).toContain('density');
    expect(offered).not.toContain('gamma ray');
    await hands.selectOptions(add, 'density');
    expect(logs().tracks[0].curves).toEqual(['gamma ray', 'density']);
    expect(logs().tracks[0].fill).toEqual({ kind: 'value', curve: 'gamma ray' });
    await hands.click(track('Gamma ray').getByRole('button', { name: 'gamma ray ×' }));
    expect(logs().tracks[0]).toMatchObject({ curves: ['density'], fill: undefined });
  });
  test('are filled to a side, by value or between two curves, which takes two', async () => {
    const { hands } = sheet();
    const fill = (title: string) => track(title).getByRole('combobox', { name: `Fill of ${title}` });
    await hands.selectOptions(fill('Resistivity'), 'from the first curve to the left');
    expect(logs().tracks[1].fill).toMatchObject({ kind: 'limit', curve: 'resistivity', side: 'left' });
    expect(within(fill('Resistivity')).getByRole('option', { name: /between the first two/ })).toHaveProperty(
      'disabled',
      true,
    );
    await hands.selectOptions(fill('Density, neutron'), 'no fill');
    expect(logs().tracks[2].fill).toBeUndefined();
    await hands.selectOptions(fill('Density, neutron'), 'between the first two, where they cross');
    expect(logs().tracks[2].fill).toMatchObject({ kind: 'between', curves: ['density', 'neutron'] });
  });
  test('are added, moved, taken out and put back as they were at first', async () => {
    const { hands } = sheet();
    await hands.click(screen.getByRole('button', { name: 'Add a track' }));
    expect(logs().tracks.at(-1)).toMatchObject({ title: 'New track', curves: [] });
    await hands.click(track('New track').getByRole('button', { name: '←' }));
    expect(logs().tracks.map((t) => t.title)).toEqual([
      'Gamma ray',
      'Resistivity',
      'Density, neutron',
      'New track',
      'Facies',
    ]);
    await hands.click(track('Resistivity').getByRole('button', { name: 'Remove' }));
    expect(logs().tracks.map((t) => t.id)).not.toContain('rt');
    await hands.click(screen.getByRole('button', { name: 'As they were at first' }));
    expect(logs().tracks).toEqual(TRACKS);
  });
  test('are never narrower than they can be read', async () => {
    const { hands } = sheet();
    const width = screen.getByRole('spinbutton', { name: 'Width of Resistivity' });
    await hands.tripleClick(width);
    await hands.paste('5');
    expect(logs().tracks[1].width).toBe(20);
  });
});

describe('limits', () => {
  const curve = { class: 'gamma ray', min: 10, max: 120 } as const;
  test('hold for a curve in all wells, until one well has its own', async () => {
    const { hands } = sheet();
    const right = () => screen.getByRole('textbox', { name: 'Right limit of gamma ray' });
    await hands.clear(right());
    await hands.type(right(), '200');
    await hands.tab();
    expect(styleOf('gamma ray', curve, 'T-1', logs().styles).to).toBe(200);
    await hands.selectOptions(screen.getByRole('combobox', { name: 'Limits for' }), 'T-1 only');
    expect(right()).toHaveProperty('value', '200');
    await hands.clear(right());
    await hands.type(right(), '90');
    await hands.tab();
    expect(styleOf('gamma ray', curve, 'T-1', logs().styles).to).toBe(90);
    expect(styleOf('gamma ray', curve, 'T-2', logs().styles).to).toBe(200);
  });
  test('that are no numbers change nothing, and one of zero takes no logarithm', async () => {
    const { hands } = sheet();
    const left = screen.getByRole('textbox', { name: 'Left limit of gamma ray' });
    await hands.clear(left);
    await hands.type(left, 'about ten');
    await hands.tab();
    expect(logs().styles).toEqual({});
    expect(screen.getByRole('checkbox', { name: 'gamma ray logarithmic' })).toHaveProperty('disabled', true);
    const log = screen.getByRole('checkbox', { name: 'resistivity logarithmic' });
    expect(log).toHaveProperty('checked', true);
    await hands.click(log);
    expect(logs().styles.resistivity).toMatchObject({ from: 0.2, to: 200, log: false });
  });
});

test('headings say what is ticked, in the order in which it was', async () => {
  const { hands } = sheet();
  await hands.click(screen.getByRole('checkbox', { name: 'status' }));
  await hands.click(screen.getByRole('checkbox', { name: 'tie' }));
  await hands.click(screen.getByRole('checkbox', { name: 'status' }));
  expect(logs().heading).toEqual(['kelly bushing', 'tie', 'status']);
});
