// A stamp of files and folders of the project: the same as long as nothing in them has changed.
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** Folders that are made, not written. */
const MADE = new Set(['node_modules', 'dist', '.astro', 'generated']);

function filesIn(path) {
  if (statSync(path).isFile()) return [path];
  return readdirSync(path, { withFileTypes: true })
    .filter((entry) => !MADE.has(entry.name))
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) => filesIn(join(path, entry.name)));
}

/** @param paths below the project's root */
export function stampOf(root, paths) {
  const hash = createHash('sha256');
  for (const path of paths)
    for (const file of filesIn(join(root, path)))
      hash.update(file.slice(root.length)).update('\0').update(readFileSync(file));
  return hash.digest('hex');
}
