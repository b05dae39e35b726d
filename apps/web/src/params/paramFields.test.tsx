// @vitest-environment happy-dom
import { type AnyStep, defineStep, type InputSpec, number, text } from '@lithagon/core';
import { useState } from 'react';
import { beforeEach, describe, expect, test } from 'vitest';
import { z } from 'zod';
import { initialParams } from '../actions/initial';
import { useProject } from '../state/project';
import { fieldOnTheDesk } from '../testing/field';
import { onPage, screen, waitFor, within } from '../testing/page';
import { InputField } from '../workbench/steps/InputField';
import { ParamFields } from './ParamFields';

const field = fieldOnTheDesk();
const step = defineStep({
  id: 'wells.madeUp',
  version: 1,
  stage: 'wells',
  title: 'Made up',
  summary: 'Nothing.',
  source: 'none',
  reach: 'global',
  inputs: {},
  params: z.object({
    heightM: number(
      { title: 'Height', description: 'How high.', unit: 'm' },
      { min: 10, max: 200, step: 1, initial: 50 },
    ),
    turns: number({ title: 'Turns', description: 'How often.' }, { min: 1, max: 9, initial: 3, whole: true }),
    way: z.enum(['linear', 'curved']).default('linear').meta({ title: 'Way', description: 'Which way.' }),
    called: text({ title: 'Called', description: 'Its name.' }, 'A', 5),
    layers: z
      .array(z.object({ base: z.string(), v0: z.number().meta({ title: 'Velocity', unit: 'm/s' }) }))
      .default([])
      .meta({ title: 'Layers', description: 'Typed layers.' }),
  }),
  outputs: {},
  run: async () => ({}),
}) as unknown as AnyStep;

let params: Record<string, unknown> = {};
function Form() {
  const [now, set] = useState(() => initialParams(step));
  params = now;
  return <ParamFields step={step} params={now} onChange={set} />;
}
const typed = (label: string) => screen.getByRole('textbox', { name: `${label}, typed` });
beforeEach(() => useProject.setState({ facts: null }));

describe('a text', () => {
  test('that cannot be used is told of at its field, until it can', async () => {
    const { hands } = onPage(<Form />);
    const field = screen.getByRole('textbox', { name: 'Called' });
    await hands.type(field, 'bcdefg');
    expect((await screen.findByRole('alert')).textContent).toBe('Called has more than 5 letters.');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    await hands.type(field, '{Backspace}{Backspace}');
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
    expect(params.called).toBe('Abcde');
  });
});

describe('a number', () => {
  test('is typed, with a comma or a point, and held within its range', async () => {
    const { hands } = onPage(<Form />);
    const type = async (label: string, text: string) => {
      await hands.clear(typed(label));
      await hands.type(typed(label), `${text}{Enter}`);
    };
    await type('Height', '72,5');
    expect(params.heightM).toBe(72.5);
    await type('Height', '1e4');
    expect(params.heightM).toBe(200);
    await type('Height', 'high');
    expect(params.heightM).toBe(200);
    expect(typed('Height')).toHaveProperty('value', '200');
    await type('Turns', '4.4');
    expect(params.turns).toBe(4);
  });
  test('reads in the units of the project and is kept in its own', async () => {
    useProject.setState({ facts: { frame: { display: 'field' } } as never });
    const { hands } = onPage(<Form />);
    expect(typed('Height')).toHaveProperty('value', String(Number((50 / 0.3048).toFixed(4))));
    await hands.clear(typed('Height'));
    await hands.type(typed('Height'), '100');
    await hands.tab();
    expect(params.heightM).toBeCloseTo(30.48, 9);
  });
  test('is moved by keys along its slider', async () => {
    const { hands } = onPage(<Form />);
    screen.getByRole('slider', { name: 'Turns' }).focus();
    await hands.keyboard('{ArrowRight}{ArrowRight}{ArrowLeft}');
    expect(params.turns).toBe(4);
    await hands.keyboard('{End}');
    expect(params.turns).toBe(9);
  });
});

test('a choice is one of those that the step knows', async () => {
  const { hands } = onPage(<Form />);
  await hands.selectOptions(screen.getByRole('combobox', { name: 'Way' }), 'curved');
  expect(params.way).toBe('curved');
});

describe('rows', () => {
  test('are added, typed and taken out; what is no number is not kept', async () => {
    const { hands } = onPage(<Form />);
    await hands.click(screen.getByRole('button', { name: 'Add a row to Layers' }));
    expect(params.layers).toEqual([{ base: '', v0: 0 }]);
    await hands.type(screen.getByRole('textbox', { name: 'base, row 1 of Layers' }), 'Tolven Top{Enter}');
    const v0 = () => screen.getByRole('textbox', { name: 'Velocity, row 1 of Layers' });
    await hands.clear(v0());
    await hands.type(v0(), '1800,5{Enter}');
    expect(params.layers).toEqual([{ base: 'Tolven Top', v0: 1800.5 }]);
    await hands.clear(v0());
    await hands.type(v0(), 'fast{Enter}');
    expect(params.layers).toEqual([{ base: 'Tolven Top', v0: 1800.5 }]);
    await hands.click(screen.getByRole('button', { name: 'Remove row 1' }));
    expect(params.layers).toEqual([]);
  });
});

test('rows read in the units of the project, and are kept in their own', async () => {
  useProject.setState({ facts: { frame: { display: 'field' } } as never });
  const { hands } = onPage(<Form />);
  await hands.click(screen.getByRole('button', { name: 'Add a row to Layers' }));
  expect(screen.getByText('Velocity (ft/s)')).toBeDefined();
  const velocity = () => screen.getByRole('textbox', { name: 'Velocity, row 1 of Layers' });
  await hands.clear(velocity());
  await hands.type(velocity(), '6000{Enter}');
  expect((params.layers as { v0: number }[])[0].v0).toBeCloseTo(1828.8, 6);
  expect(velocity()).toHaveProperty('value', '6000');
});

describe('what a step takes in', () => {
  let chosen: string[] = [];
  function Input({ spec }: { spec: InputSpec }) {
    const [ids, set] = useState<string[]>([]);
    chosen = ids;
    return <InputField spec={spec} objects={field.objects} chosen={ids} onChange={set} />;
  }
  test('is chosen from what fits, or is none where it may be', async () => {
    const { hands } = onPage(<Input spec={{ kind: 'volume', title: 'Seismic', optional: true } as InputSpec} />);
    const choice = screen.getByRole('combobox', { name: 'Seismic' });
    const offered = within(choice)
      .getAllByRole('option')
      .map((o) => o.textContent);
    expect(offered).toEqual(['none', field.seismic.name]);
    await hands.selectOptions(choice, field.seismic.name);
    expect(chosen).toEqual([field.seismic.id]);
    await hands.selectOptions(choice, 'none');
    expect(chosen).toEqual([]);
  });
  test('is any number of those that fit where it may be many', async () => {
    const { hands } = onPage(<Input spec={{ kind: 'well', title: 'Wells', many: true } as InputSpec} />);
    expect(screen.getByText('0 of 1')).toBeDefined();
    const box = screen.getByRole('checkbox', { name: 'T-1', hidden: true });
    await hands.click(box);
    expect(chosen).toHaveLength(1);
    await hands.click(box);
    expect(chosen).toEqual([]);
  });
});
