import type { EarthObject, Well } from '@lithagon/core';
import { newTable } from '@lithagon/core';
import { MADE } from '@lithagon/core/testing/objects';
import { expect, test } from 'vitest';
import { LOGS_DESK, styleOf, styleOfClass } from '../../state/logsTemplate';
import type { WellColumn } from './columns';
import { headingFacts } from './heading';

const well: Well = {
  id: 'w',
  kind: 'well',
  name: 'T-1',
  revision: '1',
  stage: 'wells',
  madeBy: MADE,
  x: 512345.6,
  y: 7642001.2,
  kbM: 25,
};
const facts = (more: Partial<Well> = {}, objects: EarthObject[] = []) =>
  headingFacts({ well: { ...well, ...more }, facies: undefined } as WellColumn, objects, (m, unit) => `${m} ${unit}`);
const tie = (id: string, correlation: number): EarthObject =>
  ({
    id,
    kind: 'time-depth relation',
    name: id,
    revision: id,
    stage: 'tie',
    well: 'T-1',
    correlation,
    madeBy: { ...MADE, started: `2026-01-0${id.slice(-1)}T00:00:00.000Z` },
  }) as unknown as EarthObject;

test('a heading is made of facts of the well; what is not known is empty', () => {
  expect(facts()).toMatchObject({
    status: '',
    'kelly bushing': 'KB 25 m',
    'total depth': '',
    position: '512346 E 7642001 N',
    tie: 'not tied',
    facies: '',
    note: '',
  });
  expect(facts({ status: 'oil', totalMdM: 1400, note: 'Short log\nsecond line' })).toMatchObject({
    status: 'oil',
    'total depth': 'TD 1400 m MD',
    note: 'Short log',
  });
  for (const fact of LOGS_DESK.heading) expect(facts()).toHaveProperty([fact]);
});

test('the tie that it names is the one in use, not the first that was made', () => {
  expect(facts({}, [tie('tie-1', 0.51), tie('tie-2', 0.93)]).tie).toBe('tied, 0.93');
  expect(facts({}, [{ ...tie('tie-1', 0.51), well: 'T-2' } as EarthObject]).tie).toBe('not tied');
});

test('facies that are shown are named', () => {
  const facies = { ...newTable('facies', 'T-1'), name: 'T-1 facies' };
  expect(headingFacts({ well, facies } as unknown as WellColumn, [], String).facies).toBe('T-1 facies');
});

test('a curve is drawn as it is set for one well, else for all, else as its class, else by its range', () => {
  const curve = { class: 'gamma ray', min: 10, max: 90 } as const;
  const [one, all] = [
    { from: 0, to: 1, log: false, color: '#111111' },
    { from: 2, to: 3, log: true, color: '#222222' },
  ];
  const styles = { 'T-1/gamma ray': one, 'gamma ray': all };
  expect(styleOf('gamma ray', curve, 'T-1', styles)).toBe(one);
  expect(styleOf('gamma ray', curve, 'T-2', styles)).toBe(all);
  expect(styleOf('gamma ray', curve, 'T-2', {})).toBe(styleOfClass('gamma ray'));
  const own = styleOf('X', { class: 'other', min: 10, max: 90 }, 'T-1', {});
  expect([own.from, own.to]).toEqual([6, 94]);
  const flat = styleOf('X', { class: 'other', min: 5, max: 5 }, 'T-1', {});
  expect(flat.to).toBeGreaterThan(flat.from);
});
