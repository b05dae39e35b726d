// What every command does first on a fresh machine: install the packages, once for each lockfile.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { stampOf } from './stamp.mjs';

export const root = fileURLToPath(new URL('..', import.meta.url));

/** Where what commands say on stdout goes: with figures on it, elsewhere. */
let stdout = 'inherit';

/** Keep stdout for figures: what commands say of their work goes to stderr from now on. */
export function keepStdoutForFigures() {
  stdout = process.stderr.fd;
}

/** Run a command in the project's root; its output is shown. @returns whether it succeeded */
export function run(command, args, options = {}) {
  const done = spawnSync(command, args, { cwd: root, stdio: ['inherit', stdout, 'inherit'], ...options });
  return done.status === 0;
}

/** Run a command beside what comes next. @returns whether it succeeded, once it has ended */
export function beside(command, args) {
  const child = spawn(command, args, { cwd: root, stdio: ['ignore', stdout, 'inherit'] });
  return new Promise((resolve) => {
    child.once('error', () => resolve(false));
    child.once('close', (code) => resolve(code === 0));
  });
}

export function must(command, args, options) {
  if (!run(command, args, options)) {
    console.error(`“${command} ${args.join(' ')}” failed.`);
    process.exit(1);
  }
}

/** Install packages if the lockfile is not the one that they were last installed from. */
export function install() {
  const stamp = `${root}/node_modules/.cache/lithagon-installed`;
  const lock = createHash('sha256')
    .update(readFileSync(`${root}/package-lock.json`))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  must('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  mkdirSync(`${root}/node_modules/.cache`, { recursive: true });
  writeFileSync(stamp, lock);
}

/** Chromium for the browser tests: Debian's, installed when missing. @returns its path */
export function chromium() {
  const path = '/usr/bin/chromium';
  if (existsSync(path)) return path;
  console.log('Installing Chromium for the browser tests …');
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    return run(command, rest, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  };
  if (!(apt('update') && apt('install', '-y', '--no-install-recommends', 'chromium'))) {
    console.error('Chromium could not be installed. Install the package “chromium” by hand and try again.');
    process.exit(1);
  }
  return path;
}

/** Build kernels and packages: all that the command line needs. */
export function buildPackages() {
  for (const part of ['kernels', 'packages']) must('npm', ['run', '--silent', `build:${part}`]);
}

/** What the built application is made from. */
const SOURCES = ['package-lock.json', 'tsconfig.base.json', 'packages', 'apps'];

/**
 * Build kernels, packages and the web application, where anything of them has changed since they were built.
 * @param begin called once the packages are there, before the application is built
 */
export function build(begin) {
  // it lies in what the build makes anew, so that no other build can be taken for this one
  const note = `${root}/apps/web/dist/built-from`;
  const stamp = stampOf(root, SOURCES);
  const built = ['packages/core/dist/index.js', 'packages/kernels/build'].every((path) =>
    existsSync(`${root}/${path}`),
  );
  const fresh = built && existsSync(note) && readFileSync(note, 'utf8') === stamp;
  if (!fresh) buildPackages();
  begin?.();
  if (fresh) return;
  must('npm', ['run', '--silent', 'build:web']);
  writeFileSync(note, stamp);
}
