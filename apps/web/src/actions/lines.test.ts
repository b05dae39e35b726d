import '../testing/browser';
import type { EarthObject, Plane, Volume } from '@lithagon/core';
import { FIELD, layeredField } from '@lithagon/core/testing/layeredField';
import { beforeAll, beforeEach, expect, test } from 'vitest';
import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { changeSettings, goTo, linkTo, settingsOf } from '../state/views';
import { lookIn } from '../state/views/index';
import { indexAt, placeAt } from '../views/common/survey';
import { stepLine } from './lines';

let seismic: Volume;
beforeAll(async () => {
  ({ seismic } = await layeredField());
});
beforeEach(() => {
  useProject.setState({ objects: [seismic] });
  useDesk.setState({ volume: null, views: {}, links: {}, active: null, recent: [] });
  goTo('section', {
    ...placeAt(seismic, 'inline', 5),
    ...placeAt(seismic, 'crossline', 5),
    ...placeAt(seismic, 'slice', 5),
  });
});
const set = (change: Parameters<typeof changeSettings<'section'>>[2]) => changeSettings('section', 'section', change);
const at = (view = 'section') => {
  const { place } = lookIn(useDesk.getState(), view);
  const index = (plane: Plane) => indexAt(seismic, plane, place);
  return { inline: index('inline'), crossline: index('crossline'), slice: index('slice') };
};

test('lines are stepped by the increment, of the plane in view, and no further than the survey', () => {
  stepLine(1);
  expect(at().inline).toBe(6);
  set({ increment: 4 });
  stepLine(2);
  expect(at()).toEqual({ inline: 14, crossline: 5, slice: 5 });
  stepLine(10);
  expect(at().inline).toBe(FIELD.inline.count - 1);
  set({ along: 'crossline' });
  stepLine(-10);
  expect(at()).toMatchObject({ crossline: 0, inline: FIELD.inline.count - 1 });
});

test('2D lines follow one another, round and round', () => {
  const flat = ['a', 'b', 'c'].map((id) => ({ id, kind: 'seismic line', name: id })) as unknown as EarthObject[];
  useProject.setState({ objects: [seismic, ...flat] });
  set({ line: 'b', increment: 7 });
  stepLine(1);
  expect(settingsOf('section', 'section').line).toBe('c');
  stepLine(1);
  expect(settingsOf('section', 'section').line).toBe('a');
  stepLine(-1);
  expect(settingsOf('section', 'section').line).toBe('c');
  expect(at().inline).toBe(5);
});

test('where there is no volume nothing moves', () => {
  useProject.setState({ objects: [] });
  stepLine(1);
  expect(at().inline).toBe(5);
});

test('linked sections move together, one by itself moves alone, and each by its own increment', () => {
  changeSettings('section', 'section-2', { increment: 3 });
  stepLine(1, 'section-2');
  expect([at().inline, at('section-2').inline]).toEqual([8, 8]);
  linkTo('section-2', null);
  // it stays where it was
  expect(at('section-2').inline).toBe(8);
  stepLine(1, 'section-2');
  expect([at().inline, at('section-2').inline]).toEqual([8, 11]);
  // a group that nobody is in yet takes the place of the first, and one that is there gives its own
  linkTo('section-2', 'B');
  expect(at('section-2').inline).toBe(11);
  linkTo('section', 'B');
  expect(at().inline).toBe(11);
});

test('a place is told in line numbers, so that a part of the survey shows the same line', () => {
  const part = {
    ...seismic,
    binGrid: {
      ...seismic.binGrid,
      inline: { ...seismic.binGrid.inline, first: FIELD.inline.first + 3 * FIELD.inline.step, count: 6 },
    },
  };
  const { place } = lookIn(useDesk.getState(), 'section');
  expect(indexAt(part, 'inline', place)).toBe(2);
});
