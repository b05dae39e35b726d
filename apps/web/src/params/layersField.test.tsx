// @vitest-environment happy-dom
import type { EarthObject } from '@lithagon/core';
import { useState } from 'react';
import { expect, test } from 'vitest';
import { useProject } from '../state/project';
import { fieldOnTheDesk, show } from '../testing/field';
import { onPage, screen } from '../testing/page';
import { LayersField } from './LayersField';

const field = fieldOnTheDesk();

const boundary = (name: string, range: [number, number]) =>
  ({ ...field.objects[0], id: name, name, kind: 'horizon', domain: 'twt', range }) as unknown as EarthObject;

let rows: Record<string, unknown>[] = [];
function Layers({ begin = [] }: { begin?: Record<string, unknown>[] }) {
  const [now, set] = useState(begin);
  rows = now;
  return <LayersField label="Layers of their own" rows={now} chosen={['Deep', 'Shallow']} onChange={set} />;
}
const law = (base: string) => screen.getByRole('combobox', { name: `Velocity down to ${base}` });
const number = (what: string, base: string) => screen.getByRole('textbox', { name: `${what}, down to ${base}` });

test('each chosen boundary has its layer, from the top down; what its velocity is stands there in words', async () => {
  show([boundary('Deep', [900, 1000]), boundary('Shallow', [400, 500])]);
  useProject.setState({ facts: null });
  const { hands } = onPage(<Layers />);
  expect(screen.getAllByRole('group').map((g) => g.getAttribute('aria-label'))).toEqual([
    'Layer down to Shallow',
    'Layer down to Deep',
  ]);
  await hands.selectOptions(law('Shallow'), 'from top to base');
  await hands.clear(number('At the top', 'Shallow'));
  await hands.type(number('At the top', 'Shallow'), '1500{Enter}');
  await hands.clear(number('At the base', 'Shallow'));
  await hands.type(number('At the base', 'Shallow'), '2400{Enter}');
  expect(rows).toMatchObject([{ base: 'Shallow', law: 'from top to base', use: 'typed', v0: 1500, vBase: 2400 }]);
  screen.getByText(/^1500 m\/s at the layer’s top, rising evenly with depth to 2400 m\/s at its base/);
  // a fit takes nothing of what is typed
  await hands.selectOptions(screen.getByRole('combobox', { name: 'Numbers down to Shallow' }), 'fitted to wells');
  expect(rows).toMatchObject([{ use: 'fitted to wells', v0: 1500, vBase: 2400 }]);
  screen.getByText(/fitted to the wells; what is typed stays here/);
  await hands.selectOptions(law('Shallow'), 'as the others');
  expect(rows).toEqual([]);
});

test('what is no number is not taken', async () => {
  show([boundary('Shallow', [400, 500])]);
  const { hands } = onPage(<Layers begin={[{ base: 'Shallow', law: 'constant', v0: 1800 }]} />);
  await hands.clear(number('Velocity', 'Shallow'));
  await hands.type(number('Velocity', 'Shallow'), 'fast{Enter}');
  expect(rows).toMatchObject([{ v0: 1800 }]);
});
