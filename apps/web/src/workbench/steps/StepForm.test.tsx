import { type AnyStep, defineStep, forgetStep, number, registerStep } from '@lithagon/core';
import { renderToStaticMarkup } from 'react-dom/server';
import { afterEach, expect, test } from 'vitest';
import { z } from 'zod';
import { initialParams } from '../../actions/initial';
import { lacks } from '../../actions/steps';
import { NameField, NameListField } from '../../params/NamesField';
import { StepForm } from './StepForm';

const made = defineStep({
  id: 'attributes.madeUp',
  version: 1,
  stage: 'attributes',
  title: 'Made up',
  summary: 'Does what it says.',
  source: 'Made up (2026)',
  reach: 'global',
  inputs: { seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude'] } },
  params: z.object({
    windowMs: number(
      { title: 'Window', description: 'Height that is looked at.', unit: 'ms' },
      { min: 4, max: 200, step: 4, initial: 36 },
    ),
    rows: z
      .array(z.object({ base: z.string(), v0: z.number() }))
      .default([])
      .meta({ title: 'Typed rows', description: 'A list.' }),
  }),
  outputs: { out: { kind: 'volume', title: 'Out' } },
  run: async () => ({}),
});

afterEach(() => forgetStep(made.id));

test('a step made up on the spot has a form: its title, what it needs, every parameter with unit, help and value', () => {
  registerStep(made);
  const step = made as AnyStep;
  const setup = { step: made.id, inputs: { seismic: [] }, params: initialParams(step), live: false };
  const form = renderToStaticMarkup(<StepForm setup={setup} step={step} />);
  for (const text of [
    'Made up',
    'Does what it says.',
    'Seismic',
    'Window',
    'Height that is looked at.',
    'ms',
    'Typed rows',
  ])
    expect(form).toContain(text);
  expect(form).toContain('value="36"');
  expect(form).toContain('After Made up (2026)');
});

const names = (value: string, held: string[]) => ({ label: 'Which', value, held, onChange: () => undefined });

test('a parameter that names a top offers those that there are, and says of another that no well has it', () => {
  const of = (value: string, empty = false) =>
    renderToStaticMarkup(<NameField {...names(value, ['Upper', 'Sand'])} empty={empty} />);
  expect(of('Sand')).toMatch(/<option value="Upper">Upper<\/option><option value="Sand" selected="">/);
  expect(of('Sand')).not.toContain('none');
  expect(of('', true)).toContain('<option value="" selected="">none</option>');
  expect(of('Gone')).toContain('Gone, which no chosen well has');
  expect(of('')).toContain('<option value="" selected="">no chosen well has one</option>');
});

test('one that names several shows which are taken; a name that no well has stays to be taken out', () => {
  const form = renderToStaticMarkup(<NameListField {...names('sonic, spectral', ['gamma ray', 'sonic'])} />);
  expect(form).toContain('2 of 3');
  const pressed = [...form.matchAll(/aria-pressed="(\w+)"[^>]*>([^<]+)/g)].map(([, on, name]) => [name, on]);
  expect(pressed).toEqual([
    ['gamma ray', 'false'],
    ['sonic', 'true'],
    ['spectral', 'true'],
  ]);
  expect(form).toContain('No chosen well has it');
});

test('a step says what it still lacks, in words', () => {
  expect(lacks(made as AnyStep, [])).toBe('an amplitude volume: load or make one first');
});
