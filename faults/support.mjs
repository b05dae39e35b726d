// What every group of faults needs: a small project, calls of the command line that may be killed, and the questions that
// are asked of a project after whatever has happened to it.
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { damagesOf } from '@lithagon/core';
import { folderStore } from '@lithagon/core/node';

export const root = fileURLToPath(new URL('..', import.meta.url));
const cli = join(root, 'apps/cli/bin/lithagon.mjs');
export const work = mkdtempSync(join(tmpdir(), 'lithagon-faults-'));
process.on('exit', () => rmSync(work, { recursive: true, force: true }));

export const results = { passed: 0, failed: 0 };
/** Note how something went; what went wrong is printed. */
export function note(name, problems) {
  if (problems.length === 0) results.passed++;
  else {
    results.failed++;
    console.log(`FAILED: ${name}\n  ${problems.join('\n  ')}`);
  }
}

/** Start the command line. @returns the child, and how it ended: code, what it said, greatest memory in bytes */
export function call(args, { env } = {}) {
  const child = spawn('node', [cli, ...args], { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, ...env } });
  let [out, err, peak] = ['', '', 0];
  child.stdout.on('data', (part) => {
    out += part;
  });
  child.stderr.on('data', (part) => {
    err += part;
  });
  const watch = setInterval(() => {
    try {
      const status = readFileSync(`/proc/${child.pid}/status`, 'utf8');
      peak = Math.max(peak, 1024 * Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0));
    } catch {
      // it has ended
    }
  }, 20);
  const ended = new Promise((resolve) => {
    child.on('close', (code, signal) => {
      clearInterval(watch);
      resolve({ code, signal, out, err, peak });
    });
  });
  return { child, ended };
}

export async function must(args) {
  const { code, err } = await call(args).ended;
  if (code !== 0) throw new Error(`lithagon ${args.join(' ')} failed: ${err}`);
}

// a part of the field: what is looked at after each fault must not take longer than the fault
const PART = { inlines: '1020-1059', crosslines: '2028-2077' };
const SEISMIC = Object.entries({ domain: 'twt', quantity: 'amplitude', crs: 'EPSG:32740', ...PART }).flatMap(
  ([key, value]) => ['--declare', `${key}=${value}`],
);
export const files = join(work, 'files');
export const base = join(work, 'base');
export const parcel = join(work, 'base.parcel');
export const recipe = join(work, 'small.recipe.json');
export const loadOf = (file, project, name) => [
  'load',
  join(files, file),
  '--project',
  project,
  ...SEISMIC,
  '--declare',
  `name=${name}`,
];

/** A small field, and a project of it in which something is out of date. */
export async function prepare() {
  await must(['demo', files, '--size', 'small']);
  await must(loadOf('quillon-full.sgy', base, 'Full'));
  await must(['load', join(files, 'well-heads.csv'), join(files, 'well-tops.csv'), '--project', base]);
  await must(['do', 'data.balance', '--project', base, '--in', 'seismic=Full', '--name', 'Balanced']);
  await must(['do', 'attributes.variance', '--project', base, '--in', 'seismic=Balanced', '--name', 'Variance']);
  await must(['export', '.', parcel, '--project', base]);
  const path = join(base, 'project.json');
  const project = JSON.parse(readFileSync(path, 'utf8'));
  project.objects.find((o) => o.name === 'Full').revision = 'another';
  writeFileSync(path, JSON.stringify(project));
  writeFileSync(
    recipe,
    JSON.stringify({
      lithagon: 'recipe',
      version: 1,
      title: 'Small',
      files: [{ file: 'quillon-near.sgy', declare: { domain: 'twt', quantity: 'amplitude', name: 'Near', ...PART } }],
      steps: [{ id: 'g', step: 'data.balance', name: 'Near balanced', inputs: { seismic: ['Near'] }, params: {} }],
    }),
  );
}

/** A copy of the project to do harm to. */
export function copyOf(name, from = base) {
  const dir = join(work, name);
  rmSync(dir, { recursive: true, force: true });
  cpSync(from, dir, { recursive: true });
  return dir;
}

function sumOf(dir, owner) {
  const sum = createHash('sha1');
  const visit = (at) => {
    for (const each of readdirSync(at, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      if (each.isDirectory()) visit(join(at, each.name));
      else sum.update(each.name).update(readFileSync(join(at, each.name)));
    }
  };
  const place = join(dir, 'arrays', owner);
  if (existsSync(place)) visit(place);
  return sum.digest('hex');
}

/** Every object of a project with the sum of its data. */
export async function stateOf(dir) {
  const store = await folderStore(dir);
  const objects = await store.list();
  const aside = await store.aside();
  const sums = objects.map((o) => {
    const owners = new Set([...JSON.stringify(o).matchAll(/"key":"([^"/]+)\//g)].map(([, owner]) => owner));
    return [...owners].map((owner) => sumOf(dir, owner)).join(' ');
  });
  const damaged = [];
  for (const object of objects) damaged.push(...(await damagesOf(store, object)).map((each) => each.message));
  return { objects, aside, damaged, sums: new Map(objects.map((o, n) => [o.id, sums[n]])) };
}

/**
 * What is wrong with a project after something has happened to it.
 * @param before its state before
 * @param replaced names of objects that may have been made again meanwhile
 */
export async function complaints(dir, before, replaced = []) {
  let now;
  try {
    now = await stateOf(dir);
  } catch (cause) {
    return [`it does not open: ${cause.message}`];
  }
  const out = [...now.damaged, ...now.aside.map((a) => `${a.name} was set aside: ${a.why}`)];
  for (const old of before.objects) {
    const found = now.objects.find((o) => o.id === old.id);
    if (!found) out.push(`${old.name} is gone`);
    else if (replaced.includes(old.name)) continue;
    else if (JSON.stringify({ ...found, layouts: 0 }) !== JSON.stringify({ ...old, layouts: 0 }))
      out.push(`${old.name} is not what it was`);
    else if (now.sums.get(old.id) !== before.sums.get(old.id))
      out.push(`the data of ${old.name} are not what they were`);
  }
  return out;
}

/** What is left in a project that nobody owns, after its next use. */
export async function leftovers(dir) {
  await must(['load', join(files, 'checkshots.csv'), '--project', dir]);
  const store = await folderStore(dir);
  const known = new Set(
    [...JSON.stringify(await store.list()).matchAll(/"key":"([^"/]+)\//g)].map(([, owner]) => owner),
  );
  const out = (await store.arrayOwners())
    .filter((owner) => !known.has(owner))
    .map((owner) => `arrays of ${owner} are left`);
  for (const file of readdirSync(dir))
    if (!['project.json', 'arrays'].includes(file)) out.push(`${file} is left in the project’s folder`);
  return out;
}

export const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Numbers between 0 and 1 that are the same each time. */
export function random(seed) {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

export function folder(name) {
  const dir = join(work, name);
  rmSync(dir, { recursive: true, force: true });
  mkdirSync(dir, { recursive: true });
  return dir;
}
