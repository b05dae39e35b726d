// Makes the small demo field, raw and worked up, with the command line that a person would use.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../..', import.meta.url));
export const demo = join(root, 'test-results/demo');
const call = (...args) => {
  const done = spawnSync('node', [join(root, 'apps/cli/bin/lithagon.mjs'), ...args], { encoding: 'utf8' });
  if (done.status !== 0) throw new Error(`lithagon ${args[0]} failed: ${done.stderr}`);
};
if (!existsSync(join(demo, 'files/manifest.json'))) call('demo', join(demo, 'files'), '--size', 'small');
if (!existsSync(join(demo, 'project/project.json'))) {
  // the small survey ends short of QN-3 and QN-4, which therefore cannot be tied to it
  const recipe = JSON.parse(readFileSync(join(demo, 'files/quillon.recipe.json'), 'utf8'));
  recipe.steps = recipe.steps.filter((s) => !['tieQn3', 'tieQn4'].includes(s.id));
  const small = join(demo, 'small.recipe.json');
  writeFileSync(small, JSON.stringify(recipe));
  call('run', small, '--files', join(demo, 'files'), '--project', join(demo, 'project'));
}
