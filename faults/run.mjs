// npm run faults: kills, two processes, full disks, hostile parcels, closed tabs, two tabs, a quota that fills.
import { spawnSync } from 'node:child_process';
import { parseArgs } from 'node:util';
import { disk } from './disk.mjs';
import { kills } from './kills.mjs';
import { parcels } from './parcels.mjs';
import { processes } from './processes.mjs';
import { note, prepare, results, root } from './support.mjs';

const { values } = parseArgs({
  options: { kills: { type: 'string', default: '200' }, only: { type: 'string', default: '' } },
});
const groups = {
  parcels: () => parcels(),
  processes: () => processes(),
  disk: () => disk(),
  kills: () => kills(Number(values.kills)),
  tabs: () => {
    const done = spawnSync('npx', ['playwright', 'test', '-c', 'faults/playwright.config.ts'], {
      cwd: root,
      stdio: 'inherit',
    });
    note('tabs (above)', done.status === 0 ? [] : [`they ended with ${done.status}`]);
  },
};
const wanted = values.only ? values.only.split(',') : Object.keys(groups);
if (wanted.some((name) => name !== 'tabs')) await prepare();
for (const name of wanted) {
  const started = Date.now();
  await groups[name]();
  console.log(`${name}: ${((Date.now() - started) / 1000).toFixed(0)} s`);
}
console.log(`\n${results.passed} passed, ${results.failed} failed`);
process.exit(results.failed > 0 ? 1 : 0);
