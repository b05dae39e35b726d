// npm run faults: kills, two processes, full disks, hostile parcels, closed tabs, two tabs, a quota that fills.
import { spawn } from 'node:child_process';
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
  tabs: () =>
    new Promise((resolve) => {
      const tests = spawn('npx', ['playwright', 'test', '-c', 'faults/playwright.config.ts'], {
        cwd: root,
        stdio: 'inherit',
      });
      tests.on('close', (status) => {
        note('tabs (above)', status === 0 ? [] : [`they ended with ${status}`]);
        resolve();
      });
    }),
};
const wanted = values.only ? values.only.split(',') : Object.keys(groups);
/** Run one group and say how long it took. */
async function timed(name) {
  const started = Date.now();
  await groups[name]();
  console.log(`${name}: ${((Date.now() - started) / 1000).toFixed(0)} s`);
}
const others = wanted.filter((name) => name !== 'tabs');
// tabs wait for the most part: they go on beside the others
const tabs = wanted.includes('tabs') ? timed('tabs') : null;
if (others.length > 0) await prepare();
for (const name of others) await timed(name);
await tabs;
console.log(`\n${results.passed} passed, ${results.failed} failed`);
process.exit(results.failed > 0 ? 1 : 0);
