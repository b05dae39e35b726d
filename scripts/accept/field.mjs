// One made-up field worked up by the recipe with its truth moved away, and what the parts of the acceptance read of it.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../setup.mjs';

export function cli(...args) {
  const done = spawnSync('node', [join(root, 'apps/cli/bin/lithagon.mjs'), ...args], { encoding: 'utf8' });
  if (done.status !== 0) throw new Error(`lithagon ${args.join(' ')}: ${done.stderr}`);
  return done.stdout;
}

/** Rows of a CSV file by the names of its columns; what is empty is NaN. */
export function csv(path) {
  const [head, ...lines] = readFileSync(path, 'utf8').trim().split('\n');
  const names = head.split(',');
  return lines.map((line) =>
    Object.fromEntries(
      line
        .split(',')
        .map((cell, n) => [names[n], cell === '' ? Number.NaN : Number.isNaN(Number(cell)) ? cell : Number(cell)]),
    ),
  );
}

const json = (path) => JSON.parse(readFileSync(path, 'utf8'));

/** @returns what was worked up: files with their truth, the project, and ways to read both */
export function workUp(seed) {
  const dir = mkdtempSync(join(tmpdir(), 'lithagon-accept-'));
  const [files, hidden, project] = ['files', 'hidden', 'project'].map((name) => join(dir, name));
  cli('demo', files, '--seed', String(seed));
  renameSync(join(files, 'truth'), hidden);
  renameSync(join(files, 'truth.json'), `${hidden}.json`);
  cli('run', join(files, 'quillon.recipe.json'), '--project', project);
  renameSync(hidden, join(files, 'truth'));
  renameSync(`${hidden}.json`, join(files, 'truth.json'));
  const objects = () => json(join(project, 'project.json')).objects;
  const named = (kind, name) => {
    const found = objects().find((o) => o.kind === kind && o.name === name);
    if (!found) throw new Error(`The recipe left no ${kind} “${name}”.`);
    return found;
  };
  /** An array of a horizon as a function of inline and crossline number. */
  const gridOf = (name, array = 'values') => {
    const { [array]: ref, binGrid } = named('horizon', name);
    const bytes = readFileSync(join(project, 'arrays', ref.key, 'c/0/0'));
    const data = new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length));
    return (inline, crossline) =>
      data[(inline - binGrid.inline.first) * binGrid.crossline.count + crossline - binGrid.crossline.first];
  };
  return {
    seed,
    dir,
    files,
    project,
    objects,
    named,
    gridOf,
    truth: (name) => csv(join(files, 'truth', name)),
    truthJson: json(join(files, 'truth.json')),
    table: (name) => csv(join(files, name)),
    remove: () => rmSync(dir, { recursive: true, force: true }),
  };
}
