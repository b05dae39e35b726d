import { beforeEach, describe, expect, test } from 'vitest';
import { newProject } from '../storage/projects';
import { storage } from '../testing/browser';
import { keepDesk, useDesk } from './desk';
import { deleteDesk, differences, openDesk, renameDesk, saveDesk, savedDesks } from './desks';
import { openProject } from './project';
import { changeSettings, goTo, settingsOf } from './views';

beforeEach(async () => {
  storage.clear();
  await openProject(await newProject('Desks'));
  keepDesk(`p${Math.random()}`);
});

describe('the desk of a project', () => {
  test('is kept when the page goes, and comes back', () => {
    keepDesk('mine');
    changeSettings('section', 'section', { increment: 7, along: 'crossline' });
    dispatchEvent(new Event('pagehide'));
    const kept = storage.getItem('lithagon-desk-mine') ?? '';
    changeSettings('section', 'section', { increment: 1, along: 'inline' });
    storage.setItem('lithagon-desk-mine', kept);
    keepDesk('mine');
    expect(settingsOf('section', 'section')).toMatchObject({ increment: 7, along: 'crossline' });
  });
  test('that cannot be read is begun anew', () => {
    storage.setItem('lithagon-desk-broken', '{"increment": ');
    keepDesk('broken');
    expect(settingsOf('section', 'section').increment).toBe(1);
  });
  test('from before a setting was there has its usual value', () => {
    storage.setItem(
      'lithagon-desk-old',
      JSON.stringify({ increment: 3, plane: 'crossline', domain: { map: 'depth' }, logs: { wells: ['a'] } }),
    );
    keepDesk('old');
    const logs = settingsOf('logs', 'logs');
    expect(logs.wells).toEqual(['a']);
    expect(logs.tracks.length).toBeGreaterThan(0);
    // what was said once for all views of a kind is said of the first of them
    expect(settingsOf('section', 'section')).toMatchObject({ increment: 3, along: 'crossline', domain: 'twt' });
    expect(settingsOf('map', 'map')).toMatchObject({ domain: 'depth', contours: true });
    expect(settingsOf('scene', 'scene').exaggeration).toBe(2);
  });
  test('takes its theme from this machine, not from the project', () => {
    storage.setItem('lithagon-theme', 'dark');
    keepDesk('themed');
    expect(useDesk.getState().theme).toBe('dark');
  });
});

describe('saved desks', () => {
  test('change only when saved, and say in words how the desk differs', async () => {
    changeSettings('section', 'section', { increment: 2 });
    await saveDesk('Crest');
    expect(savedDesks().map((d) => d.name)).toEqual(['Crest']);
    const [{ state }] = savedDesks();
    expect(differences(useDesk.getState(), state)).toEqual([]);
    changeSettings('section', 'section', { increment: 5 });
    goTo('section', { inline: 1040 });
    expect(differences(useDesk.getState(), state)).toEqual(['what views show', 'the lines and parts in view']);
    openDesk('Crest');
    expect(useDesk.getState()).toMatchObject({ links: {}, desk: 'Crest' });
    expect(settingsOf('section', 'section').increment).toBe(2);
  });
  test('of one name are one', async () => {
    await saveDesk('Crest');
    useDesk.setState({ volume: 'ninth' });
    await saveDesk('Crest');
    expect(savedDesks()).toHaveLength(1);
    expect(savedDesks()[0].state.volume).toBe('ninth');
  });
  test('are renamed where the name is free, and deleted; the desk itself stays as it is', async () => {
    await saveDesk('Crest');
    await saveDesk('Flank');
    await renameDesk('Flank', 'Crest');
    expect(savedDesks().map((d) => d.name)).toEqual(['Crest', 'Flank']);
    await renameDesk('Flank', 'East flank');
    expect(useDesk.getState().desk).toBe('East flank');
    useDesk.setState({ volume: 'fourth' });
    await deleteDesk('Crest');
    expect(useDesk.getState().desk).toBe('East flank');
    await deleteDesk('East flank');
    expect(savedDesks()).toEqual([]);
    expect(useDesk.getState()).toMatchObject({ desk: null, volume: 'fourth' });
  });
  test('do not differ by which view has the focus or how wide it is', async () => {
    const layout = (activeGroup: string, size: number, views: string[]) =>
      ({ activeGroup, grid: { root: { type: 'leaf', size, data: { views } } } }) as never;
    useDesk.setState({ layout: layout('1', 500, ['section']) });
    await saveDesk('Wide');
    const [{ state }] = savedDesks();
    useDesk.setState({ layout: layout('2', 430, ['section']) });
    expect(differences(useDesk.getState(), state)).toEqual([]);
    useDesk.setState({ layout: layout('2', 430, ['section', 'map']) });
    expect(differences(useDesk.getState(), state)).toEqual(['the views']);
  });
  test('leave a person’s theme and open bed alone', async () => {
    useDesk.setState({ theme: 'dark', stage: 'wells' });
    await saveDesk('Mine');
    useDesk.setState({ theme: 'light', stage: 'tie' });
    openDesk('Mine');
    expect(useDesk.getState()).toMatchObject({ theme: 'light', stage: 'tie' });
    openDesk('nowhere');
    expect(useDesk.getState().desk).toBe('Mine');
  });
});
