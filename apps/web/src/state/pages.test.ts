import type { EarthObject, Horizon } from '@lithagon/core';
import { beforeEach, expect, test } from 'vitest';
import { behindPage, pageOf, seriesOf, turnPages, turnTo, usePages } from './pages';

const page = (n: number, run = 'run-1', output = `slice/${n}`) =>
  ({ id: `${run}-${n}`, kind: 'horizon', name: `Age slice ${n}`, madeBy: { run, output } }) as unknown as Horizon;
// as they come from a list by name: 10 before 2
const objects: EarthObject[] = [10, 1, 2, 3].map((n) => page(n));
objects.push(page(1, 'run-2'), { ...page(5), id: 'other', madeBy: { run: 'run-1', output: 'turned' } } as Horizon);

beforeEach(() => usePages.setState({ turned: {} }));

test('the slices of one run are a series in their order; one by itself, and what else a run made, is none', () => {
  const series = seriesOf(objects[0], objects);
  expect(series.map((h) => h.name)).toEqual([1, 2, 3, 10].map((n) => `Age slice ${n}`));
  expect(seriesOf(objects[4], objects)).toEqual([]);
  expect(seriesOf(objects[5], objects)).toEqual([]);
  expect(seriesOf(undefined, objects)).toEqual([]);
});

test('one page is turned up, the middle one at first, and pages end at the first and the last', () => {
  const series = seriesOf(objects[0], objects);
  expect(pageOf(series).name).toBe('Age slice 3');
  expect(turnPages(series, 1).name).toBe('Age slice 10');
  expect(turnPages(series, 1).name).toBe('Age slice 10');
  turnTo(series[0]);
  expect(turnPages(series, -1).name).toBe('Age slice 1');
  expect(behindPage(series[0], objects)).toBeNull();
  expect(behindPage(series[1], objects)).toBe('is another page of its series');
  // a horizon that is in no series is never behind one
  expect(behindPage(objects[5] as Horizon, objects)).toBeNull();
});
