import '../../testing/browser';
import { type ResultTable, unitsOf } from '@lithagon/core';
import { MADE } from '@lithagon/core/testing/objects';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test, vi } from 'vitest';

let display: 'metric' | 'field' = 'metric';
// what is rendered without a page sees no change of a store
vi.mock('../../state/units', () => ({ useUnits: () => unitsOf({ display }) }));
const { FaciesReport, isFaciesReport } = await import('./FaciesReport');
const { ResultRows } = await import('./ResultRows');

const table = (more: Partial<ResultTable>): ResultTable =>
  ({
    id: 't',
    kind: 'result table',
    name: 'Table',
    revision: '1',
    stage: 'volumes',
    madeBy: MADE,
    columns: [],
    rows: [],
    ...more,
  }) as ResultTable;
const textOf = (markup: string) =>
  markup
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

describe('a result table', () => {
  const volumes = table({
    columns: [
      { name: 'Area', unit: '' },
      { name: 'Gross rock', unit: 'm3' },
      { name: 'Depth', unit: 'm' },
      { name: 'Note', unit: '' },
    ],
    rows: [
      ['Crest', 126_200_000, 1000, null],
      ['Field', 4_800_000_000, 0.25, 'typed'],
    ],
  });
  test('has large numbers in thousands of thousands, and a dash where there is nothing', () => {
    display = 'metric';
    const text = textOf(renderToStaticMarkup(<ResultRows table={volumes} />));
    expect(text).toContain('126.2 × 10⁶');
    expect(text).toContain('4.800 × 10⁹');
    expect(text).toContain('–');
    expect(text).toContain('typed');
  });
  test('follows the units of the project, heading and figures together', () => {
    display = 'field';
    const text = textOf(renderToStaticMarkup(<ResultRows table={volumes} />));
    expect(text).toContain('Depth ft');
    expect(text).toContain('3 281');
  });
});

describe('the report of a prediction of facies', () => {
  const report = {
    classes: ['sand', 'shale'],
    curves: ['gamma ray', 'density'],
    confusion: [
      [90, 10],
      [0, 0],
    ],
    accuracy: 0.913,
    majority: 0.5,
    byWell: [
      { well: 'QN-1', accuracy: 0.9, majority: 0.5, samples: 100 },
      { well: 'QN-2', accuracy: 0.93, majority: 0.5, samples: 80 },
    ],
    importance: [0.31, -0.004],
    reliability: [{ said: 0.95, right: 0.9, samples: 400 }],
    calibrationError: 0.021,
    temper: 1.2,
  };
  const made = table({ madeBy: { ...MADE, step: 'wells.facies' }, records: [report as never] });
  test('is told from other tables, and is nothing where it holds none', () => {
    expect([isFaciesReport(made), isFaciesReport(table({}))]).toEqual([true, false]);
    expect(renderToStaticMarkup(<FaciesReport table={table({})} />)).toBe('');
  });
  test('says how often it was right in wells left out, against always guessing the commonest', () => {
    const text = textOf(renderToStaticMarkup(<FaciesReport table={made} />)).replace(/\u202f/g, ' ');
    expect(text).toContain('91 % right in wells left out, against 50 % by always guessing the commonest');
    expect(text).toContain('QN-1 90 %, QN-2 93 %');
    expect(text).toContain('2.1 points off, after tempering by 1.20');
    // a curve that brings nothing has no more than its mark
    expect(text).toContain('density -0.4');
  });
  test('gives each row of the confusion in parts of a hundred, and nothing where nothing was described', () => {
    const markup = renderToStaticMarkup(<FaciesReport table={made} />);
    const cells = [...markup.matchAll(/<td[^>]*title="(\d+) samples"[^>]*>([^<]*)<\/td>/g)].map((m) => [m[1], m[2]]);
    expect(cells).toEqual([
      ['90', '90'],
      ['10', '10'],
      ['0', ''],
      ['0', ''],
    ]);
    expect(markup).not.toContain('NaN');
  });
});
