import type { FileReport } from '@lithagon/core';
import { madeWell } from '@lithagon/core/testing/storeContract';
import { beforeEach, describe, expect, test } from 'vitest';
import { storage } from '../../testing/browser';
import {
  alsoAnswered,
  entriesOf,
  knownNames,
  looksLikeParts,
  possibleParts,
  recall,
  remember,
  unanswered,
} from './entries';

const file = (name: string) => ({ name }) as File;
const table = (columns: string[], more: object = {}) =>
  ({
    table: { kind: 'well heads', columns: columns.map((column) => ({ column })) },
    questions: [],
    ...more,
  }) as unknown as FileReport;
const segy = (inlines: [number, number], crosslines: [number, number], kind = '3D') =>
  ({ segy: { kind, whole: { inlines, crosslines } }, questions: [] }) as unknown as FileReport;
const entry = (name: string, report: FileReport | null) => ({
  file: file(name),
  beside: [],
  report,
  declare: {},
  wanted: true,
});

beforeEach(() => storage.clear());

describe('dropped files', () => {
  test('that belong to a shapefile go with it, whatever the case of their names', () => {
    const names = ['Fields.SHP', 'fields.dbf', 'FIELDS.prj', 'other.dbf', 'a.las'];
    const entries = entriesOf(names.map(file));
    expect(entries.map((e) => e.file.name)).toEqual(['Fields.SHP', 'other.dbf', 'a.las']);
    expect(entries[0].beside.map((f) => f.name)).toEqual(['fields.dbf', 'FIELDS.prj']);
  });
  test('look like parts where their lines follow one another, not where they overlap', () => {
    expect(looksLikeParts(segy([1, 100], [1, 50]), segy([101, 200], [1, 50]))).toBe(true);
    expect(looksLikeParts(segy([1, 100], [1, 50]), segy([1, 100], [51, 90]))).toBe(true);
    expect(looksLikeParts(segy([1, 100], [1, 50]), segy([90, 200], [1, 50]))).toBe(false);
    expect(looksLikeParts(segy([1, 100], [1, 50]), segy([101, 200], [1, 60]))).toBe(false);
    expect(looksLikeParts(segy([1, 100], [1, 50]), table(['x']))).toBe(false);
  });
  test('may be parts of one volume only among traces of one kind', () => {
    const [a, b, c, d] = [
      entry('a', segy([1, 9], [1, 9])),
      entry('b', segy([10, 19], [1, 9])),
      entry('c', segy([1, 9], [1, 9], '2D')),
      entry('d', table(['x'])),
    ];
    expect(possibleParts(a, [a, b, c, d]).map((e) => e.file.name)).toEqual(['b']);
    expect(possibleParts(d, [a, b, c, d])).toEqual([]);
  });
  test('are held against wells of the project and heads among the other files', () => {
    const heads = entry('heads.csv', table(['well'], { wells: ['QN-2', 'QN-1'] }));
    const refused = entry('broken.csv', table(['well'], { wells: ['QN-9'], refused: 'no' }));
    const logs = entry('a.las', table([]));
    expect(knownNames(logs, [heads, refused, logs], [madeWell('w', 'QN-1')])).toEqual(['QN-1', 'QN-2']);
  });
  test('are answered together where they ask the same, have no answer, and do not look like something else', () => {
    const asks = (key: string, hint?: string) =>
      ({
        segy: {},
        questions: [{ key, label: key, options: [], hint: hint && { value: hint, why: '' } }],
      }) as unknown as FileReport;
    const near = entry('near.sgy', asks('quantity', 'amplitude'));
    const far = entry('far.sgy', asks('quantity', 'amplitude'));
    const velocity = entry('velocity.sgy', asks('quantity', 'interval velocity'));
    const odd = entry('odd.sgy', asks('quantity'));
    const said = { ...entry('said.sgy', asks('quantity')), declare: { quantity: 'variance' } };
    const all = [near, far, velocity, odd, said, entry('a.csv', table(['x'])), entry('looking.sgy', null)];
    expect(alsoAnswered(near, all, 'quantity', 'amplitude')).toEqual([far, odd]);
    expect(alsoAnswered(near, all, 'domain', 'twt')).toEqual([]);
    // polarity is of amplitudes
    const amplitude = { ...far, declare: { quantity: 'amplitude' } };
    const known = { ...odd, declare: { quantity: 'amplitude', polarity: 'harder-negative' } };
    expect(alsoAnswered(near, [near, amplitude, velocity, known], 'polarity', 'harder-positive')).toEqual([amplitude]);
  });
  test('ask only for what is neither optional nor declared', () => {
    const questions = [
      { key: 'domain', label: 'Domain' },
      { key: 'quantity', label: 'Quantity' },
      { key: 'crs', label: 'System', optional: true },
    ];
    const report = { questions } as unknown as FileReport;
    expect(unanswered(report, { domain: 'twt' })).toEqual(['quantity']);
  });
});

describe('what was said of the columns of a table', () => {
  const said = { kind: 'tops', 'column.0': 'well', 'unit.md': 'ft', name: 'Tops of May', reference: 'kb' };
  test('is remembered for the next of the same shape, without what this one is called', () => {
    remember(table(['Well', 'MD']), said);
    expect(recall(table(['Well', 'MD']))).toEqual({
      kind: 'tops',
      'column.0': 'well',
      'unit.md': 'ft',
      reference: 'kb',
    });
    expect(recall(table(['MD', 'Well']))).toBeNull();
  });
  test('is nothing where nothing was said, or what is kept cannot be read', () => {
    remember(table(['A']), { name: 'x' });
    expect(recall(table(['A']))).toBeNull();
    storage.setItem('lithagon-columns', '{"A": ');
    expect(recall(table(['A']))).toBeNull();
    remember(table(['A']), said);
    expect(recall(table(['A']))?.kind).toBe('tops');
  });
  test('of a table whose column is called as a part of every object is no more than text', () => {
    expect(recall(table(['__proto__']))).toBeNull();
    expect(recall(table(['constructor']))).toBeNull();
    remember(table(['__proto__']), said);
    expect(recall(table(['__proto__']))?.kind ?? 'tops').toBe('tops');
    expect(({} as { kind?: string }).kind).toBeUndefined();
  });
});
