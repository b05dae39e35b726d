import '../testing/browser';
import type { EarthObject, Volume } from '@lithagon/core';
import { FIELD, layeredField } from '@lithagon/core/testing/layeredField';
import { beforeAll, beforeEach, expect, test } from 'vitest';
import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { stepLine } from './lines';

let seismic: Volume;
beforeAll(async () => {
  ({ seismic } = await layeredField());
});
beforeEach(() => {
  useProject.setState({ objects: [seismic] });
  useDesk.setState({
    volume: null,
    line: null,
    plane: 'inline',
    increment: 1,
    lines: { inline: 5, crossline: 5, slice: 5 },
  });
});
const at = () => useDesk.getState().lines;

test('lines are stepped by the increment, of the plane in view, and no further than the survey', () => {
  stepLine(1);
  expect(at().inline).toBe(6);
  useDesk.setState({ increment: 4 });
  stepLine(2);
  expect(at()).toEqual({ inline: 14, crossline: 5, slice: 5 });
  stepLine(10);
  expect(at().inline).toBe(FIELD.inline.count - 1);
  useDesk.setState({ plane: 'crossline' });
  stepLine(-10);
  expect(at()).toMatchObject({ crossline: 0, inline: FIELD.inline.count - 1 });
});

test('2D lines follow one another, round and round', () => {
  const flat = ['a', 'b', 'c'].map((id) => ({ id, kind: 'seismic line', name: id })) as unknown as EarthObject[];
  useProject.setState({ objects: [seismic, ...flat] });
  useDesk.setState({ line: 'b', increment: 7 });
  stepLine(1);
  expect(useDesk.getState().line).toBe('c');
  stepLine(1);
  expect(useDesk.getState().line).toBe('a');
  stepLine(-1);
  expect(useDesk.getState().line).toBe('c');
  expect(at().inline).toBe(5);
});

test('where there is no volume nothing moves', () => {
  useProject.setState({ objects: [] });
  stepLine(1);
  expect(at().inline).toBe(5);
});
