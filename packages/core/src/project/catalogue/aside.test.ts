import { expect, test } from 'vitest';
import { unitsOf } from '../../earth/display.ts';
import type { EarthObject } from '../../earth/objects.ts';
import { allKinds, kindNamed } from '../../kinds/index.ts';
import { layeredField } from '../../testing/layeredField.ts';
import { asideOf } from './facts.ts';

const of = (kind: string, more: object) => ({ kind, ...more }) as unknown as EarthObject;

test('every object of a field says something of itself', async () => {
  const objects = await (await layeredField()).store.list();
  expect(objects.length).toBeGreaterThan(4);
  for (const o of objects) if (o.kind !== 'well') expect(asideOf(o)).toMatch(/\S/);
  expect(asideOf(objects.find((o) => o.kind === 'volume') as EarthObject)).toBe('amplitude');
  expect(asideOf(objects.find((o) => o.kind === 'logs') as EarthObject)).toBe('4 curves');
});

test('figures are those of the object, in the units of the project', () => {
  const contacts = of('contacts', { owcM: 1068 });
  expect(asideOf(contacts)).toBe('1068 m');
  expect(asideOf(contacts, unitsOf({ display: 'field' }))).toBe('3504 ft');
  expect(asideOf(of('time-depth relation', { correlation: -0.456 }))).toBe('−0.46');
  expect(asideOf(of('horizon', { filled: 0.954 }))).toBe('95 %');
  expect(asideOf(of('map', { unit: 'm' }), unitsOf({ display: 'field' }))).toBe('ft');
  expect([1, 3].map((n) => asideOf(of('picks', { points: Array(n).fill(0) })))).toEqual(['1 pick', '3 picks']);
  expect([true, false].map((closed) => asideOf(of('polygon', { closed })))).toEqual(['area', 'line']);
});

test('kinds have titles for one and for several', () => {
  expect(['polygon', 'seismic line', 'crossplot class'].map((kind) => kindNamed(kind).plural)).toEqual([
    'Outlines',
    '2D lines',
    'Crossplot classes',
  ]);
  for (const kind of allKinds()) expect(kindNamed(kind).title).toMatch(/^[A-Z0-9]/);
});
