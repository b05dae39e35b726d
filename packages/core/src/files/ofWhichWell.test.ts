import { describe, expect, test } from 'vitest';
import { crsTable } from '../earth/crsTable.ts';
import type { Logs, WellTable } from '../earth/objects.ts';
import { memorySource } from '../formats/source.ts';
import { memoryStore } from '../storage/memory.ts';
import { FRAME, MADE } from '../testing/objects.ts';
import { inspectFile } from './inspect.ts';
import { loadFile } from './load.ts';
import { wellQuestion } from './names.ts';

const KNOWN = ['QN-1', 'QN-10', 'Lantern 3'];
const source = (name: string, text: string) => memorySource(name, new TextEncoder().encode(text));
const around = {
  objects: KNOWN.map((name) => ({
    id: name,
    kind: 'well' as const,
    name,
    stage: 'wells' as const,
    revision: '1',
    madeBy: MADE,
    x: 0,
    y: 0,
    kbM: 25,
  })),
  frame: FRAME,
  crsTable,
};
const SURVEY = 'MD,Incl,Azim\n0,0,0\n100,1,20\n';
const LAS =
  '~V\n VERS. 2.0 :\n WRAP. NO :\n~W\n STRT.M 100 :\n STOP.M 101 :\n STEP.M 0.5 :\n NULL. -999.25 :\n WELL.  :\n~C\n DEPT.M :\n GR.GAPI :\n~A\n100 1\n100.5 2\n101 3\n';

describe('the well that a file is of, by its name', () => {
  test.each([
    ['QN-10 survey.csv', 'QN-10'],
    ['qn_01_tops.csv', 'QN-1'],
    ['QN1.las', 'QN-1'],
    ['final_lantern-03_checkshots.txt', 'Lantern 3'],
    ['Pell 7 deviation.csv', 'Pell 7'],
    ['QN-100 logs.las', 'QN-100'],
  ])('%s is offered as that of %s', (file, well) => expect(wellQuestion(file, KNOWN).hint?.value).toBe(well));
  test('a file name that only says what is in it offers none', () => {
    for (const file of ['survey.csv', 'Logs_final.las', 'checkshots.txt'])
      expect(wellQuestion(file, KNOWN).hint).toBeUndefined();
  });
});

describe.each([
  ['a directional survey', 'QN-1 survey.csv', SURVEY],
  ['tops', 'QN-1 tops.csv', 'Formation,MD\nBrack Top,1000\n'],
  ['checkshots', 'QN-1 cs.csv', 'TVDSS (m),TWT (ms)\n100,100\n200,190\n'],
  ['logs', 'QN-1.las', LAS],
])('%s without the name of a well', (_, name, text) => {
  test('asks for it, with the wells of the project to choose from', async () => {
    const { refused, questions, wells } = await inspectFile(source(name, text), {}, { around });
    expect(refused).toBeUndefined();
    expect(wells).toEqual([]);
    expect(questions[0]).toMatchObject({ key: 'well', typed: true, hint: { value: 'QN-1' } });
    expect(questions[0].optional).toBeUndefined();
    expect(questions[0].options.map((o) => o.value)).toEqual(KNOWN);
  });
  test('is loaded to the well that was said, and refused where none was', async () => {
    const store = memoryStore();
    await expect(loadFile(source(name, text), {}, { store, crsTable })).rejects.toThrow(/well/);
    expect(await store.list()).toEqual([]);
    const { objects } = await loadFile(source(name, text), { well: 'Pell 7' }, { store, crsTable });
    expect((objects as (WellTable | Logs)[]).map((o) => o.well)).toEqual(['Pell 7']);
    const looked = await inspectFile(source(name, text), { well: 'qn 1' }, { around });
    expect(looked.wells).toEqual(['qn 1']);
  });
});

test('a table that names its wells is not asked about, and no other kind is taken for one of wells', async () => {
  const named = await inspectFile(
    source('s.csv', `Well,${SURVEY.replaceAll('\n0', '\nA-1,0').replace('\n100', '\nA-1,100')}`),
  );
  expect(named.questions.map((q) => q.key)).not.toContain('well');
  const horizon = await inspectFile(source('h.csv', 'x,y,twt,tvdss\n1,2,3,4\n2,3,4,5\n'));
  expect(horizon.takenFor).toBe('Horizon points');
});

test('well heads without a column of names are asked for it, and no well is lost to another', async () => {
  const text = 'Hole,x_m,y_m,kb_m\nA-1,1,2,25\nA-2,3,4,25\n';
  const report = await inspectFile(source('heads.csv', text));
  expect(report.refused?.message).toContain('for well heads it lacks Well');
  expect(report.questions.map((q) => q.key)).not.toContain('well');
  const { objects } = await loadFile(
    source('heads.csv', text),
    { 'column.well': 'Hole' },
    { store: memoryStore(), crsTable },
  );
  expect(objects.map((o) => o.name)).toEqual(['A-1', 'A-2']);
});

test('columns that go by no known word are no table until it is said which', async () => {
  const text = 'Osmund 1 514394.0 7646433.0 692.6\nOsmund 1 514349.9 7646410.5 759.5\n';
  const report = await inspectFile(source('sticks.dat', text));
  expect(report.takenFor).toBe('Table');
  expect(report.table?.kind).toBe('');
  // rows alike from the first on have no row of names
  expect(report.table?.columns.map((c) => c.column)).toEqual([
    'Column 1',
    'Column 2',
    'Column 3',
    'Column 4',
    'Column 5',
  ]);
  expect(report.refused?.fix).toContain('Say what it is a table of');
  const said = {
    kind: 'fault sticks',
    'column.fault': 'Column 1',
    'column.stick': 'Column 2',
    'column.x': 'Column 3',
    'column.y': 'Column 4',
    'column.twt': 'Column 5',
  };
  const { objects } = await loadFile(source('sticks.dat', text), said, { store: memoryStore(), crsTable });
  expect(objects[0]).toMatchObject({
    kind: 'fault',
    name: 'Osmund',
    sticks: [
      [
        [514394, 7646433, 692.6],
        [514349.9, 7646410.5, 759.5],
      ],
    ],
  });
});
