// @vitest-environment happy-dom
import type { EarthObject } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { MADE, twinOf } from '@lithagon/core/testing/objects';
import { beforeEach, describe, expect, test } from 'vitest';
import { undo } from '../../state/history';
import { useProject } from '../../state/project';
import { done, objectsNow, openWith } from '../../testing/field';
import { onPage, screen, waitFor } from '../../testing/page';
import { BulkActions } from './BulkActions';

let ended = 0;
/** The strip for the objects of these names, as they stand now. */
function Strip({ names }: { names: string[] }) {
  const objects = useProject((s) => s.objects);
  const marked = names.flatMap((name) => objects.filter((o) => o.name === name));
  return <BulkActions objects={marked} onDone={() => ended++} />;
}
const named = (name: string) => objectsNow().find((o) => o.name === name) as EarthObject;
/** A volume that was made from the field's seismic. */
const child = (seismic: EarthObject) => ({
  ...twinOf(seismic, 'child'),
  name: 'Made of it',
  madeBy: { ...MADE, step: 'attributes.variance', inputs: { seismic: [`${seismic.id}@${seismic.revision}`] } },
});

beforeEach(async () => {
  ended = 0;
  const { store, seismic } = await layeredField();
  await openWith([...(await store.list()), child(seismic)]);
});

describe('several objects at once', () => {
  test('take a tag and give it back; what was tagged before keeps it once', async () => {
    const { hands } = onPage(<Strip names={['Seismic', 'T-1']} />);
    expect(screen.getByText('2 marked')).toBeDefined();
    const field = screen.getByRole('combobox', { name: 'Tag' });
    await hands.type(field, '  for review {Enter}');
    await waitFor(() => expect(named('T-1').tags).toEqual(['for review']));
    await hands.type(field, 'for review');
    // all of them have it: it is taken off
    await hands.click(await screen.findByRole('button', { name: 'Untag' }));
    await waitFor(() => expect(named('Seismic').tags).toEqual([]));
    expect(done()).toEqual(['Tag “for review” on 2 objects', 'Take the tag “for review” off 2 objects']);
    await undo();
    await waitFor(() => expect(named('Seismic').tags).toEqual(['for review']));
    // nothing is no tag
    await hands.clear(field);
    expect(screen.getByRole('button', { name: 'Tag' })).toHaveProperty('disabled', true);
  });
  test('are deleted once it is said what rests on them, and come back by one undo', async () => {
    const { hands } = onPage(<Strip names={['Seismic', 'T-1']} />);
    const before = objectsNow().length;
    await hands.click(screen.getByRole('button', { name: 'Delete…' }));
    const rests = screen.getByRole('list', { name: 'What rests on it' });
    expect(rests.textContent).toContain('Made of it');
    expect(screen.getByText(/name T-1 and will wait for a head/)).toBeDefined();
    await hands.click(screen.getByRole('button', { name: 'Keep' }));
    expect(objectsNow()).toHaveLength(before);
    await hands.click(screen.getByRole('button', { name: 'Delete…' }));
    await hands.click(screen.getByRole('button', { name: 'Delete 2 objects' }));
    await waitFor(() => expect(objectsNow()).toHaveLength(before - 2));
    expect(ended).toBe(1);
    expect(named('Made of it')).toBeDefined();
    await undo();
    await waitFor(() => expect(objectsNow()).toHaveLength(before));
  });
  test('take what rests on them along where that is wanted', async () => {
    const { hands } = onPage(<Strip names={['Seismic']} />);
    await hands.click(screen.getByRole('button', { name: 'Delete…' }));
    await hands.click(screen.getByRole('checkbox', { name: 'Delete these too' }));
    await hands.click(screen.getByRole('button', { name: 'Delete 2 objects' }));
    await waitFor(() => expect(named('Made of it')).toBeUndefined());
    expect(done()).toEqual(['Delete 2 objects']);
  });
});

test('nothing marked leaves nothing to do', () => {
  const { container } = onPage(<Strip names={[]} />);
  expect(container.textContent).toBe('');
});
