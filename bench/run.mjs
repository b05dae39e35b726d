// npm run bench [-- --json] [NAME …]: throughput of the main waits, each beside a plain reference measured in the same run.
// Takes a couple of minutes; needs the built packages, and for the browser the built application.

import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install, root } from '../scripts/setup.mjs';

const json = process.argv.includes('--json');
const say = (text) => !json && console.log(text);
install();
build();
const demo = join(root, 'demo-data/files');
const dir = mkdtempSync(join(tmpdir(), 'lithagon-bench-'));
let files = demo;
if (!existsSync(join(demo, 'quillon-full.sgy'))) {
  files = join(dir, 'files');
  spawnSync('node', [join(root, 'apps/cli/bin/lithagon.mjs'), 'demo', files]);
}
const results = [];
const only = process.argv.slice(2).filter((a) => !a.startsWith('-'));
for (const name of [
  'load',
  'large',
  'variance',
  'attributes',
  'cancel',
  'faults',
  'ages',
  'inversion',
  'tracking',
  'depth',
  'wells',
  'browser',
  'lanes',
  'logs',
  'catalogue',
  'screen',
  'seeing',
].filter((n) => only.length === 0 || only.includes(n))) {
  say(`${name} …`);
  const { measure } = await import(`./${name}.mjs`);
  for (const result of await measure({ files, dir })) {
    results.push(result);
    say(
      `  ${result.what}: ${result.value.toFixed(result.value < 10 ? 2 : 0)} ${result.unit}${result.ratio === undefined ? '' : `, ${result.ratio.toFixed(2)} × ${result.against}`}`,
    );
  }
}
rmSync(dir, { recursive: true, force: true });
if (json) console.log(JSON.stringify(results, null, 1));
process.exit(0);
