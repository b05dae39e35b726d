// Two processes at once on one project: each is done whole or refused by name, and neither loses the other's work.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { call, complaints, copyOf, files, loadOf, note, recipe, stateOf, work } from './support.mjs';

/** What a process does, and the names of what it makes where it is done. */
const JOBS = {
  'load a volume': { args: (dir, k) => loadOf('quillon-near.sgy', dir, `Near ${k}`), makes: (k) => [`Near ${k}`] },
  'load a table': {
    args: (dir) => ['load', join(files, 'checkshots.csv'), '--project', dir],
    makes: () => ['QN-1 checkshots'],
  },
  'run a step': {
    args: (dir, k) => ['do', 'data.flip', '--project', dir, '--in', 'seismic=Full', '--name', `Flipped ${k}`],
    makes: (k) => [`Flipped ${k}`],
  },
  'run a recipe': {
    args: (dir) => ['run', recipe, '--project', dir, '--files', files],
    makes: () => ['Near balanced'],
  },
  rebuild: { args: (dir) => ['rebuild', '--project', dir], makes: () => ['Variance'] },
  list: { args: (dir) => ['list', '--project', dir, '--json'], makes: () => [] },
  export: { args: (dir, k) => ['export', 'Full', join(work, `out-${k}.sgy`), '--project', dir], makes: () => ['Full'] },
};

export async function processes() {
  const before = await stateOf(copyOf('untouched'));
  const names = Object.keys(JOBS);
  for (let a = 0; a < names.length; a++)
    for (let b = a; b < names.length; b++) {
      const dir = copyOf('shared');
      const both = await Promise.all(
        [names[a], names[b]].map(async (name, k) => ({ name, k, ...(await call(JOBS[name].args(dir, k)).ended) })),
      );
      const problems = await complaints(dir, before, ['Balanced', 'Variance']);
      const { objects, ledger } = JSON.parse(readFileSync(join(dir, 'project.json'), 'utf8'));
      for (const { name, k, code, err } of both) {
        if (code === 0) {
          for (const made of JOBS[name].makes(k))
            if (!objects.some((o) => o.name === made))
              problems.push(`${name} said that it was done, and ${made} is not there`);
        } else if (code !== 1 || !/is being changed by (lithagon|another)/.test(err))
          problems.push(`${name} ended with ${code}: ${err}`);
      }
      if (both.every((each) => each.code !== 0)) problems.push('both were refused');
      const exported = both.filter(
        (each) => each.name === 'export' && each.code === 0 && !/ledger does not say so/.test(each.err),
      );
      if (ledger.filter((l) => l.what === 'out' && l.note.startsWith('out-')).length < exported.length)
        problems.push('the ledger lost a line');
      note(`${names[a]} beside ${names[b]}`, problems);
    }
}
