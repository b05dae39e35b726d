// npm run demo: install, build, make the Quillon data and the worked-up project, serve them, print the address.
import { existsSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build, install, must, root } from './setup.mjs';

const dir = join(root, 'demo-data');
const cli = join(root, 'apps/cli/bin/lithagon.mjs');

/** Make something into a folder under another name, and rename it when it is whole. */
function whole(name, make) {
  const path = join(dir, name);
  if (existsSync(path)) return;
  const part = `${path}.part`;
  rmSync(part, { recursive: true, force: true });
  make(part);
  renameSync(part, path);
}

export function makeDemo(size = 'full') {
  whole('files', (part) => must('node', [cli, 'demo', part, '--size', size]));
  whole('project', (part) => must('node', [cli, 'run', join(dir, 'files/quillon.recipe.json'), '--project', part]));
}

install();
build();
makeDemo();
const { serve } = await import('../apps/web/server/serve.mjs');
const port = Number(process.env.PORT ?? 4173);
await serve({ port, demo: dir });
console.log(`\nLithagon is at http://127.0.0.1:${port}/  (Ctrl+C stops it)`);
