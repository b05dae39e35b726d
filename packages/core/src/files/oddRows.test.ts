import { describe, expect, test } from 'vitest';
import { memorySource } from '../formats/source.ts';
import { memoryStore } from '../storage/memory.ts';
import { fileContext } from '../testing/field.ts';
import { inspectFile } from './inspect.ts';
import { loadFile } from './load.ts';

const HEADS = 'well,x_m,y_m,kb_m,td_m\nQN-1,1050,2050,25,1500\n';

/** Load a table into a project that has QN-1; what is said on looking, on loading, and afterwards. */
async function said(name: string, text: string) {
  const store = memoryStore();
  const context = fileContext(store);
  await loadFile(memorySource('heads.csv', new TextEncoder().encode(HEADS)), {}, context);
  const around = { objects: await store.list(), frame: null, crsTable: context.crsTable };
  const source = memorySource(name, new TextEncoder().encode(text));
  const { problems } = await inspectFile(source, {}, { around });
  const { warnings, objects } = await loadFile(source, {}, context);
  return { looking: problems.join(' '), loading: warnings.join(' '), shown: objects[0].madeBy.warnings.join(' ') };
}

describe('what is odd about rows is said by inspect, load and show alike, with its row and column', () => {
  test.each([
    [
      'one name at two places in a file',
      'heads2.csv',
      'well,x_m,y_m,kb_m\nQN-7,1050,2050,25\nQN-8,1,2,3\nQN-7,1450,2350,25\n',
      /QN-7 stands at two places 500 m apart \(rows 2 and 4\); the first was taken\./,
    ],
    [
      'one name at two places in two files',
      'heads2.csv',
      'well,x_m,y_m,kb_m\nQN-1,1090,2080,25\n',
      /The project has a well QN-1 already, 50 m from where row 2 puts it/,
    ],
    [
      'a well that is there already',
      'heads2.csv',
      'well,x_m,y_m,kb_m\nQN-1,1050,2050,25\n',
      /The project has the well QN-1 already, at the same place \(row 2\)/,
    ],
    [
      'times that go back',
      'checkshots.csv',
      'well,md_m,twt_ms\nQN-1,500,600\nQN-1,700,590\nQN-1,900,800\n',
      /In QN-1 the time goes back with depth once \(first: row 3\)/,
    ],
    [
      'a top below total depth',
      'tops.csv',
      'well,top,md_m\nQN-1,Brack Top,600\nQN-1,Pell Top,1700\n',
      /1 top of QN-1 lies below its total depth of 1500\.0 m MD \(first: row 3\)/,
    ],
    [
      'text among depths',
      'tops.csv',
      'well,top,md_m\nQN-1,Brack Top,600\nQN-1,Pell Top,deep\n',
      /“md_m” has 1 cell that is no number \(first: “deep” in row 3\)/,
    ],
    [
      'text in a column that may be empty',
      'heads2.csv',
      'well,x_m,y_m,kb_m,td_m\nQN-9,1,2,3,unknown\nQN-8,1,2,3,\n',
      /“td_m” has 1 cell that is no number \(first: “unknown” in row 2\)/,
    ],
    [
      'rows with too many cells',
      'tops.csv',
      'well,top,md_m\nQN-1,Brack Top,600\nQN-1,Pell Top,900,spare\n',
      /1 row has more cells than there are columns \(first: row 3\)/,
    ],
    [
      'degrees in a project of metres',
      'heads2.csv',
      'well,x,y,kb_m\nQN-7,57.123,-21.345,25\n',
      /read like longitude and latitude in degrees/,
    ],
  ])('%s', async (_what, name, text, sentence) => {
    const { looking, loading, shown } = await said(name, text);
    expect(looking).toMatch(sentence);
    expect(loading).toMatch(sentence);
    expect(shown).toMatch(sentence);
  });
  test('and nothing where nothing is odd', async () => {
    expect(
      await said('tops.csv', 'well,top,md_m\nQN-1,Brack Top,600\nQN-1,Pell Top,\nQN-1,Pell Base,900\n'),
    ).toMatchObject({
      loading: '1 of 3 rows lack a number and were left out (first: row 3).',
    });
    expect((await said('heads2.csv', 'well,x_m,y_m,kb_m\nQN-7,1050,2050,25\n')).loading).toBe('');
  });
});
