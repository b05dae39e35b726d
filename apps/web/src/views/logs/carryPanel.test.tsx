import '../../testing/browser';
import { type Proposal, unitsOf } from '@lithagon/core';
import { renderToStaticMarkup } from 'react-dom/server';
import { beforeEach, expect, test, vi } from 'vitest';

let display: 'metric' | 'field' = 'metric';
// what is rendered without a page sees no change of a store
vi.mock('../../state/units', () => ({ useUnits: () => unitsOf({ display }) }));
const { CarryPanel } = await import('./CarryPanel');
const { topOf } = await import('./useCarry');

const PROPOSAL: Proposal = {
  well: 'QN-4',
  name: 'Tolven Top',
  from: 'QN-1',
  md: 1000,
  tvdss: 975,
  absent: false,
  missing: 0.1,
  match: 0.876,
  margin: 41,
  confidence: 0.61,
  runnerUp: { md: 1100, cost: 44 },
  disagreementM: null,
  misclosureM: 0.4,
};
/** Cells of each row of the body, as text. */
function rows(proposals: Proposal[], notes: string[] = []): string[][] {
  const nothing = () => undefined;
  const markup = renderToStaticMarkup(
    <CarryPanel
      state={{ proposals, notes, asked: { trusted: [], wells: [], params: {} } }}
      onAccept={nothing}
      onRefuse={nothing}
      onAgain={nothing}
      onClose={nothing}
    />,
  );
  const [, body] = markup.split('<tbody>');
  return body
    .split('<tr>')
    .slice(1)
    .map((row) => row.split('</td>').map((cell) => cell.replace(/<[^>]+>/g, '').trim()));
}
beforeEach(() => {
  display = 'metric';
});

test('a proposal says where, how well it matches, what comes next and how it closes', () => {
  const [row] = rows([PROPOSAL]);
  expect(row.slice(1, 9)).toEqual(['Tolven Top', '1000.0', '0.88', '1100.0', '41', '–', '0.4 m', '61 %']);
  expect(row[9]).toBe('Accept Refuse');
});

test('the first row of a well offers all of them, and the others do not name it again', () => {
  const wells = rows([PROPOSAL, { ...PROPOSAL, name: 'Pell Top' }, { ...PROPOSAL, well: 'QN-5' }]).map(([w]) => w);
  expect(wells).toEqual(['QN-4 Accept all of QN-4', '', 'QN-5 Accept all of QN-5']);
});

test('a missing bed is to be noted, and one that may be missing says so beside its place', () => {
  const [gone, perhaps] = rows([
    { ...PROPOSAL, absent: true, missing: 0.9 },
    { ...PROPOSAL, missing: 0.62 },
  ]);
  expect(gone[2]).toBe('missing at about 1000');
  expect(gone[9]).toContain('Noted');
  expect(perhaps[2]).toBe('1000.0 or missing');
});

test('lengths are in the units of the project, in the heading too', () => {
  display = 'field';
  const [row] = rows([{ ...PROPOSAL, disagreementM: 10 }]);
  expect([row[2], row[4], row[6], row[7]]).toEqual(['3280.8', '3608.9', '32.8 ft', '1.3 ft']);
});

test('notes stand below, and where nothing is left it is said', () => {
  expect(rows([], ['QN-2: no place stands out for Brack Top.'])).toEqual([
    ['QN-2: no place stands out for Brack Top.', ''],
    ['No proposal is left.', ''],
  ]);
});

test('an accepted top keeps where it came from, how well it matched and how sure it is', () => {
  expect(topOf(PROPOSAL)).toEqual({
    name: 'Tolven Top',
    md: 1000,
    confidence: 0.61,
    kind: 'top',
    missingM: null,
    how: 'correlated from QN-1, match 0.88',
  });
});
