import { cutPlanes, type EarthObject, uncutPlanes, type Volume } from '@lithagon/core';
import { FRAME } from '@lithagon/core/testing/objects';
import { madeWell } from '@lithagon/core/testing/storeContract';
import { madeVolume } from '@lithagon/core/testing/volume';
import { beforeEach, describe, expect, test } from 'vitest';
import { newProject } from '../storage/projects';
import { storage } from '../testing/browser';
import { edit, heldByHistory, keepHistory, redo, undo, useHistory } from './history';
import { openProject, refreshProject, useProject } from './project';

const names = () => useProject.getState().objects.map((o) => o.name);
const well = (): EarthObject => {
  const found = useProject.getState().byId.get('w');
  if (!found) throw new Error('the well is gone');
  return found;
};

beforeEach(async () => {
  storage.clear();
  storage.most = Number.POSITIVE_INFINITY;
  useHistory.setState({ done: [], undone: [] });
  await openProject(await newProject('Edits'));
  await edit('Make QN-1', [], [madeWell('w', 'QN-1')]);
});

describe('edits', () => {
  test('are taken back and done again by name, in order', async () => {
    await edit('Rename QN-1 to QN-9', [well()], [{ ...well(), name: 'QN-9' }]);
    await edit('Delete QN-9', [well()], []);
    expect(names()).toEqual([]);
    await undo();
    expect(names()).toEqual(['QN-9']);
    await undo();
    expect(names()).toEqual(['QN-1']);
    expect(useHistory.getState().undone.map((e) => e.name)).toEqual(['Delete QN-9', 'Rename QN-1 to QN-9']);
    await redo();
    await redo();
    expect(names()).toEqual([]);
    await redo();
    expect(useHistory.getState().undone).toEqual([]);
  });
  test('are taken back one by one, however quickly that is asked for', async () => {
    await edit('Rename QN-1 to QN-2', [well()], [{ ...well(), name: 'QN-2' }]);
    await edit('Rename QN-2 to QN-3', [well()], [{ ...well(), name: 'QN-3' }]);
    await Promise.all([undo(), undo()]);
    expect(names()).toEqual(['QN-1']);
    expect(useHistory.getState().undone).toHaveLength(2);
    await Promise.all([redo(), redo()]);
    expect(names()).toEqual(['QN-3']);
    expect(useHistory.getState().undone).toEqual([]);
  });
  test('made after an undo leave nothing to do again', async () => {
    await edit('Rename', [well()], [{ ...well(), name: 'QN-2' }]);
    await undo();
    await edit('Colour', [well()], [{ ...well(), color: '#123456' }]);
    expect(useHistory.getState().undone).toEqual([]);
    expect(useHistory.getState().done.map((e) => e.name)).toEqual(['Make QN-1', 'Colour']);
  });
  test('of something that was made again since change only what people call it', async () => {
    await edit('Rename', [well()], [{ ...well(), name: 'QN-2' }]);
    // a rebuild puts a newer revision in its place
    await useProject.getState().store?.commit({ put: [{ ...well(), revision: 'newer', x: 777 } as EarthObject] });
    await undo();
    const now = (await useProject.getState().store?.get('w')) as EarthObject & { x: number };
    expect([now.name, now.revision, now.x]).toEqual(['QN-1', 'r', 1]);
  });
  test('of a volume leave it the copies that were cut for it meanwhile', async () => {
    const { store } = useProject.getState();
    if (!store) throw new Error('there is no project');
    const made = await madeVolume(store, (i) => i);
    const uncut: Volume = { ...made, layouts: { inline: made.layouts.inline } };
    await store.commit({ put: [uncut] });
    await refreshProject();
    await edit('Rename', [uncut], [{ ...uncut, name: 'Renamed' }]);
    await cutPlanes(store, uncut);
    await refreshProject();
    await undo();
    const now = useProject.getState().byId.get(made.id) as Volume;
    expect(now.name).toBe(made.name);
    expect(uncutPlanes(now)).toEqual([]);
    await redo();
    const again = useProject.getState().byId.get(made.id) as Volume;
    expect([again.name, uncutPlanes(again)]).toEqual(['Renamed', []]);
  });
  test('change the frame with the objects, and take both back', async () => {
    const frame = FRAME;
    const before = { ...FRAME, crs: 'EPSG:32739', crsName: 'WGS 84 / UTM zone 39S' };
    await edit('Set the frame', [], [], { before, after: frame });
    expect(useProject.getState().facts?.frame).toEqual(frame);
    await undo();
    expect(useProject.getState().facts?.frame).toEqual(before);
  });
  test('hold what they may bring back', async () => {
    await edit('Delete', [well()], []);
    expect(heldByHistory().map((o) => o.id)).toContain('w');
  });
});

describe('the history of a project', () => {
  test('survives a reload', async () => {
    keepHistory('p');
    await edit('Rename', [well()], [{ ...well(), name: 'QN-2' }]);
    const kept = storage.getItem('lithagon-history-p') ?? '';
    // a page that is loaded anew knows nothing
    useHistory.setState({ done: [], undone: [] });
    storage.setItem('lithagon-history-p', kept);
    keepHistory('p');
    expect(useHistory.getState().done.map((e) => e.name)).toEqual(['Rename']);
    await undo();
    expect(names()).toEqual(['QN-1']);
  });
  test('that cannot be read is begun anew', () => {
    storage.setItem('lithagon-history-broken', '{"done": [');
    keepHistory('broken');
    expect(useHistory.getState()).toEqual({ done: [], undone: [] });
  });
  test('gives up the oldest edits first where the browser keeps no more', async () => {
    keepHistory('small');
    storage.most = 4000;
    for (let n = 0; n < 12; n++) await edit(`Rename ${n}`, [well()], [{ ...well(), name: `QN-${n}` }]);
    const kept = JSON.parse(storage.getItem('lithagon-history-small') ?? '{}') as { done: { name: string }[] };
    expect(kept.done.length).toBeGreaterThan(0);
    expect(kept.done.length).toBeLessThan(12);
    expect(kept.done.at(-1)?.name).toBe('Rename 11');
    // in this session all can still be taken back
    expect(useHistory.getState().done).toHaveLength(12);
  });
});
