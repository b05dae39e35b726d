import { describe, expect, test } from 'vitest';
import type { EarthObject, Logs } from '../../earth/objects.ts';
import { MADE } from '../../testing/objects.ts';
import { columnOfTops, withUnits } from './column.ts';
import { curveNames, formulaUnits, topNames } from './names.ts';
import { newTable } from './tops.ts';

const facts = { revision: '1', stage: 'wells', madeBy: MADE };
const well = (name: string): EarthObject => ({ ...facts, id: name, kind: 'well', name, x: 0, y: 0, kbM: 20 });
const tops = (name: string, rows: [string, number, number?, string?][]): EarthObject => ({
  ...newTable('tops', name),
  id: `${name}-tops`,
  rows: rows.map(([top, md, confidence = 1, kind = 'top']) => [top, md, confidence, kind]),
});
const logs = (name: string, curves: [string, Logs['curves'][number]['class']][], id = `${name}-logs`): EarthObject => ({
  ...facts,
  id,
  kind: 'logs',
  name: id,
  well: name,
  depth: { firstM: 0, stepM: 1, count: 1 },
  madeBy: { ...MADE, file: 'made.las' },
  curves: curves.map(([mnemonic, cls]) => ({
    mnemonic,
    class: cls,
    unit: '1',
    fileUnit: '1',
    description: '',
    data: { path: mnemonic, shape: [1], chunk: [1], names: ['depth'] } as unknown as Logs['curves'][number]['data'],
    min: 0,
    max: 1,
    nulls: 0,
  })),
});
const field = [
  well('A'),
  well('B'),
  tops('A', [
    ['Sand', 600],
    ['West Fault', 650, 1, 'fault cut'],
    ['Upper', 500],
  ]),
  tops('B', [['Lower', 900]]),
  logs('A', [
    ['GR', 'gamma ray'],
    ['X 1', 'other'],
  ]),
  logs('B', [
    ['DT', 'sonic'],
    ['GR_2', 'gamma ray'],
  ]),
];

describe('names that parameters may take', () => {
  test('tops of the chosen wells from the youngest down, no fault cuts', () => {
    expect(topNames(field, ['A', 'B'])).toEqual(['Upper', 'Sand', 'Lower']);
    expect(topNames(field, ['B'])).toEqual(['Lower']);
    expect(topNames(field, ['C'])).toEqual([]);
  });
  test('in the order of the column where there is one, and what it lacks after it', () => {
    const column = columnOfTops(field);
    const turned = withUnits(column, [column.units[1], column.units[0]]);
    expect(topNames([...field, turned], ['A', 'B'])).toEqual(['Sand', 'Upper', 'Lower']);
  });
  test('curves by class, by mnemonic where they have none', () => {
    expect(curveNames(field, ['A'])).toEqual(['gamma ray', 'X 1']);
    expect(curveNames(field, ['A', 'B'])).toEqual(['gamma ray', 'X 1', 'sonic']);
    const predicted = logs('A', [['P(Sand)', 'facies probability']], 'predicted');
    const made = { ...predicted, madeBy: { ...MADE, step: 'wells.facies' } };
    expect(curveNames([...field, made], ['A'])).toEqual(['gamma ray', 'X 1']);
  });
  test('a formula may name them as words, and depths', () => {
    const units = formulaUnits(field, ['A', 'B']);
    expect([...units.keys()]).toEqual(['gamma_ray', 'X_1', 'sonic', 'MD', 'TVDSS']);
    expect(units.get('TVDSS')).toBe('m');
  });
});
