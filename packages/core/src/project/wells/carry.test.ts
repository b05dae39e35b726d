import { expect, test } from 'vitest';
import { unitsOf } from '../../earth/display.ts';
import type { WellTable } from '../../earth/objects.ts';
import { TOP_COLUMNS } from '../../earth/objects.ts';
import { MADE } from '../../testing/objects.ts';
import { notThereYet, type Proposal, unsureNotes } from './carry.ts';

const proposal = (well: string, name: string, md: number, absent = false): Proposal => ({
  well,
  name,
  md,
  tvdss: md - 25,
  absent,
  missing: absent ? 1 : 0,
  match: 0.9,
  margin: 30,
  confidence: 0.8,
  from: 'A-1',
  runnerUp: null,
  disagreementM: null,
  misclosureM: null,
});
const tops = (well: string, ...rows: [string, number][]): WellTable => ({
  id: `tops-${well}`,
  kind: 'tops',
  name: `${well} tops`,
  stage: 'wells',
  revision: '1',
  madeBy: MADE,
  well,
  columns: TOP_COLUMNS,
  rows: rows.map(([name, md]) => [name, md, 1, 'top', null, '']),
});

test('tops that a well has are left out, and it is said how near the carried ones fall', () => {
  const objects = [tops('A-2', ['Brack Top', 1000], ['Pell Top', 1400])];
  const given = [
    proposal('A-2', 'Brack Top', 1000.8),
    proposal('A-2', 'Pell Top', 1397.5),
    proposal('A-2', 'Tolven Top', 1200),
    proposal('A-3', 'Brack Top', 980),
  ];
  const { proposals, notes } = notThereYet(objects, given, unitsOf(null));
  expect(proposals).toEqual([given[2], given[3]]);
  expect(notes).toEqual([
    'A-2 has Brack Top, Pell Top already; carried, they fall within 2.5 m of them (Pell Top the furthest).',
  ]);
  expect(notThereYet(objects, given, unitsOf({ display: 'field' })).notes[0]).toContain('within 8.2 ft of them');
});

test('a bed that is picked and yet looks missing is doubted by name', () => {
  const { proposals, notes } = notThereYet(
    [tops('A-2', ['Brack Top', 1000])],
    [proposal('A-2', 'Brack Top', 1010, true)],
    unitsOf(null),
  );
  expect(proposals).toEqual([]);
  expect(notes).toEqual(['A-2 has Brack Top already. By its curves the bed below Brack Top is missing.']);
});

test('tops for which no place stands out are named in one sentence, and in another where their beds may be missing', () => {
  const unsure = [
    { name: 'Brack Top', missing: false },
    { name: 'Tolven Top', missing: true },
    { name: 'Pell Top', missing: false },
  ];
  expect(unsureNotes('A-2', unsure)).toEqual([
    'A-2: no place stands out for Brack Top, Pell Top.',
    'A-2: no place stands out for Tolven Top, and its bed may be missing.',
  ]);
  expect(unsureNotes('A-2', [])).toEqual([]);
});
