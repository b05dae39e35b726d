// npm run demo: install, build, serve the page and print its address; behind it make the Quillon data, then the project that
// is worked up from them. What is there and has not changed is not made again.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build, install, root } from './setup.mjs';
import { stampOf } from './stamp.mjs';

const dir = join(root, 'demo-data');
const cli = join(root, 'apps/cli/bin/lithagon.mjs');

/** What the start page is told of the demo: each part as `there`, `making` or `missing`, and how far the making is. */
const state = { files: 'missing', project: 'missing', what: '', part: 0, problem: '' };

function call(args) {
  return new Promise((resolve, reject) => {
    const child = spawn('node', [cli, ...args], { stdio: ['ignore', 'ignore', 'pipe', 'ipc'] });
    let said = '';
    child.stderr.on('data', (text) => {
      said = `${said}${text}`.slice(-2000);
    });
    child.on('message', ({ part, what }) => Object.assign(state, { part, what }));
    child.on('error', reject);
    child.on('close', (code) => (code === 0 ? resolve() : reject(new Error(said.trim().split('\n').at(-1)))));
  });
}

/** Make something into a folder under another name, and rename it when it is whole; what it was made from is noted beside it. */
async function whole(name, madeFrom, make) {
  const [path, note] = [join(dir, name), join(dir, `${name}.made-from`)];
  if (existsSync(path) && existsSync(note) && readFileSync(note, 'utf8') === madeFrom) {
    state[name] = 'there';
    return;
  }
  const part = `${path}.part`;
  state[name] = 'making';
  rmSync(part, { recursive: true, force: true });
  await make(part);
  rmSync(path, { recursive: true, force: true });
  renameSync(part, path);
  writeFileSync(note, madeFrom);
  state[name] = 'there';
  console.log(name === 'files' ? 'The raw files of the field are there.' : 'The field is worked up.');
}

async function makeDemo(size = 'full') {
  const earth = stampOf(root, ['packages/quillon/src']);
  await whole('files', `${size} ${earth}`, (part) => call(['demo', part, '--size', size]));
  const recipe = stampOf(root, ['apps/cli/quillon.recipe.json', 'packages/core/src', 'packages/kernels/assembly']);
  const file = join(root, 'apps/cli/quillon.recipe.json');
  await whole('project', `${size} ${earth} ${recipe}`, (part) =>
    call(['run', file, '--files', join(dir, 'files'), '--project', part]),
  );
}

mkdirSync(dir, { recursive: true });
install();
build();
const { serve } = await import('../apps/web/server/serve.mjs');
const port = Number(process.env.PORT ?? 4173);
await serve({ port, demo: dir, demoState: () => state });
console.log(`\nLithagon is at http://127.0.0.1:${port}/  (Ctrl+C stops it)`);
await makeDemo().catch((cause) => {
  for (const part of ['files', 'project']) if (state[part] === 'making') state[part] = 'missing';
  state.problem = `The demo field could not be made: ${cause.message}`;
  console.error(state.problem);
});
