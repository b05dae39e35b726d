// @vitest-environment happy-dom
import { type EarthObject, type Logs, outOfDate, type Volume, waitingFor } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { MADE, twinOf } from '@lithagon/core/testing/objects';
import { beforeEach, describe, expect, test } from 'vitest';
import { undo } from '../../state/history';
import { useProject } from '../../state/project';
import { done, objectsNow, openWith } from '../../testing/field';
import { onPage, screen, waitFor } from '../../testing/page';
import { Attach, CurveClasses, Notes, Redeclare } from './ObjectEdits';

let objects: EarthObject[];
beforeEach(async () => {
  const { store, seismic } = await layeredField();
  const loaded = { ...seismic, madeBy: { ...MADE, step: 'data.load' } };
  const child = {
    ...twinOf(seismic, 'child'),
    name: 'Made of it',
    madeBy: { ...MADE, inputs: { seismic: [`${seismic.id}@${seismic.revision}`] } },
  };
  objects = [...(await store.list()).filter((o) => o.id !== seismic.id), loaded, child];
  await openWith(objects);
});
const now = <O extends EarthObject>(name: string) => objectsNow().find((o) => o.name === name) as O;

describe('seismic declared anew', () => {
  function Form() {
    const seismic = useProject((s) => s.objects.find((o): o is Volume => o.name === 'Seismic'));
    return seismic ? <Redeclare object={seismic} /> : null;
  }
  test('is what was said from then on, and what rests on it is out of date until it is taken back', async () => {
    const { hands } = onPage(<Form />);
    expect(outOfDate(objectsNow()).has('child')).toBe(false);
    await hands.selectOptions(screen.getByRole('combobox', { name: 'Harder is', hidden: true }), 'negative');
    await waitFor(() => expect(now<Volume>('Seismic').polarity).toBe('harder-negative'));
    expect(outOfDate(objectsNow()).has('child')).toBe(true);
    await undo();
    await waitFor(() => expect(outOfDate(objectsNow()).has('child')).toBe(false));
  });
  test('cannot be what its samples are not, and stays what it was', async () => {
    const { hands } = onPage(<Form />);
    const samples = screen.getByRole('combobox', { name: 'Samples are', hidden: true });
    await hands.selectOptions(samples, 'interval velocity');
    expect(samples).toHaveProperty('value', 'amplitude');
    expect(done()).toEqual([]);
  });
  test('asks for a unit where it holds velocities, and for no polarity then', async () => {
    const seismic = now<Volume>('Seismic');
    const percentiles = { ...seismic.statistics.percentiles, 1: 1500, 99: 3500 };
    await openWith([{ ...seismic, statistics: { ...seismic.statistics, percentiles } }]);
    const { hands } = onPage(<Form />);
    const samples = screen.getByRole('combobox', { name: 'Samples are', hidden: true });
    await hands.selectOptions(samples, 'interval velocity');
    await screen.findByRole('combobox', { name: 'Unit', hidden: true });
    expect(screen.queryByRole('combobox', { name: 'Harder is', hidden: true })).toBeNull();
    expect(now<Volume>('Seismic')).toMatchObject({ quantity: 'interval velocity', unit: 'm/s' });
  });
  test('is not offered for what a step made', () => {
    const made = { ...now<Volume>('Seismic'), madeBy: { ...MADE, step: 'data.crop' } };
    expect(onPage(<Redeclare object={made} />).container.textContent).toBe('');
  });
});

describe('tags and notes', () => {
  function Form() {
    const well = useProject((s) => s.objects.find((o) => o.name === 'T-1'));
    return well ? <Notes object={well} /> : null;
  }
  test('are kept with an object, once each, and make nothing out of date', async () => {
    const { hands } = onPage(<Form />);
    const { revision } = now('T-1');
    const tag = screen.getByRole('textbox', { name: 'New tag' });
    await hands.type(tag, 'cored{Enter}');
    await screen.findByRole('button', { name: 'cored ×' });
    await hands.type(tag, 'cored{Enter}');
    expect(now('T-1').tags).toEqual(['cored']);
    const note = screen.getByRole('textbox', { name: 'Note' });
    await hands.click(note);
    await hands.keyboard('  Washed out below 800 m.  ');
    await hands.tab();
    await waitFor(() => expect(now('T-1').note).toBe('Washed out below 800 m.'));
    expect(now('T-1').revision).toBe(revision);
    await hands.click(screen.getByRole('button', { name: 'cored ×' }));
    await waitFor(() => expect(now('T-1').tags).toEqual([]));
    expect(done()).toEqual(['Tag “cored” on T-1', 'Note on T-1', 'Take the tag “cored” off T-1']);
  });
  test('left as they are make no edit', async () => {
    const { hands } = onPage(<Form />);
    await hands.click(screen.getByRole('textbox', { name: 'Note' }));
    await hands.tab();
    expect(done()).toEqual([]);
  });
});

describe('what waits for a well', () => {
  test('is given to the one whose name is nearly its own, or to any', async () => {
    const tops = now('T-1 tops') as EarthObject & { well: string };
    const stray = { ...tops, id: 'stray', name: 'Stray', well: 'T_01', wellId: undefined };
    await openWith([...objects, stray]);
    expect(waitingFor(objectsNow()).get('stray')).toBe('the head of well T_01');
    const { hands } = onPage(<Attach object={stray} />);
    await hands.click(screen.getByRole('button', { name: 'It is T-1' }));
    await waitFor(() => expect((now('Stray') as typeof stray).well).toBe('T-1'));
    expect(waitingFor(objectsNow()).has('stray')).toBe(false);
    expect(done()).toEqual(['Give Stray to T-1']);
  });
});

test('the class of a curve is corrected once for all wells that have one of its name, and for what is loaded later', async () => {
  const logs = objects.find((o): o is Logs => o.kind === 'logs') as Logs;
  const other = { ...twinOf(logs, 'other'), name: 'Other logs', well: 'T-2', wellId: undefined };
  await openWith([...objects, other]);
  const mnemonic = logs.curves.find((c) => c.class === 'gamma ray')?.mnemonic ?? '';
  const { hands } = onPage(<CurveClasses logs={logs} />);
  const choice = screen.getByRole('combobox', { name: `What ${mnemonic} is`, hidden: true });
  await hands.selectOptions(choice, 'caliper');
  const classes = () =>
    objectsNow().flatMap((o) =>
      o.kind === 'logs' ? o.curves.filter((c) => c.mnemonic === mnemonic).map((c) => c.class) : [],
    );
  await waitFor(() => expect(classes()).toEqual(['caliper', 'caliper']));
  await waitFor(() =>
    expect(useProject.getState().facts?.curveClasses).toMatchObject({ [mnemonic.toLowerCase()]: 'caliper' }),
  );
});
