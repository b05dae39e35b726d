import { createHash } from 'node:crypto';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { EarthObject, FileReport, Store } from '@lithagon/core';
import { folderStore } from '@lithagon/core/node';
import { main } from '../main.ts';
import type { Output } from '../output.ts';

/** A file as somebody else may send it, and what is right to do with it. */
export interface Foreign {
  file: string;
  /** What it is, in words. */
  is: string;
  bytes: Uint8Array | string;
  /** Files that lie beside it. */
  beside?: Record<string, Uint8Array | string>;
  declare?: string[];
  /** It is loaded, and holds this. */
  holds?: (objects: EarthObject[], store: Store) => void | Promise<void>;
  /** What is said of it before it is loaded, when it is, and of what was loaded. */
  says?: RegExp;
  /** It is refused by a sentence with this in it. */
  refused?: RegExp;
  /** Keys that are asked for before it can be loaded. */
  asks?: string[];
}

/** What came of a file on the command line. */
export interface Outcome {
  report: FileReport;
  loaded: { code: number; said: string };
  /** Notes of `show` on each new object. */
  shown: string;
  objects: EarthObject[];
  /** Whether everything that was there before leaves as it did before. */
  unharmed: boolean;
  aside: number;
}

/** The command line, called with what it says kept. */
export async function call(...args: string[]) {
  const said = { out: '', err: '' };
  const output: Output = {
    out: (text) => {
      said.out += `${text}\n`;
    },
    err: (text) => {
      said.err += `${text}\n`;
    },
    interactive: false,
  };
  const code = await main(args, output);
  return { code, ...said };
}

const EXTENSIONS: Record<string, string> = { volume: 'sgy', logs: 'las', polygon: 'geojson' };

/** A project with an object of each usual kind in it, that files are loaded into. */
export async function workplace(good: Record<string, { bytes: Uint8Array | string; declare?: string[] }>) {
  const dir = mkdtempSync(join(tmpdir(), 'lithagon-foreign-'));
  const base = join(dir, 'base');
  mkdirSync(join(dir, 'good'));
  for (const [file, { bytes, declare = [] }] of Object.entries(good)) {
    writeFileSync(join(dir, 'good', file), bytes);
    const loaded = await call(
      'load',
      join(dir, 'good', file),
      '--project',
      base,
      ...declare.flatMap((d) => ['--declare', d]),
    );
    if (loaded.code !== 0) throw new Error(loaded.err);
  }
  const listed = JSON.parse((await call('list', '--project', base, '--json')).out) as {
    id: string;
    name: string;
    kind: string;
  }[];
  /** Hashes of what was there before, as it leaves. */
  const leaving = async (project: string) => {
    const hashes: string[] = [];
    for (const { id, kind } of listed) {
      const to = join(dir, `out.${EXTENSIONS[kind] ?? 'csv'}`);
      const { code, err } = await call('export', id, to, '--project', project);
      if (code !== 0) throw new Error(err);
      hashes.push(
        createHash('sha256')
          .update(new Uint8Array(readFileSync(to)))
          .digest('hex'),
      );
    }
    return hashes.join();
  };
  const before = await leaving(base);
  let number = 0;
  return {
    clear: () => rmSync(dir, { recursive: true, force: true }),
    /** Inspect a file, load it into a copy of the project, and show what came of it. */
    async give({ file, bytes, beside = {}, declare = [], holds }: Foreign): Promise<Outcome> {
      const own = join(dir, `at-${number++}`);
      const project = join(own, 'project');
      cpSync(base, project, { recursive: true });
      writeFileSync(join(own, file), bytes);
      for (const [name, content] of Object.entries(beside)) writeFileSync(join(own, name), content);
      const said = declare.flatMap((d) => ['--declare', d]);
      const looked = await call('inspect', join(own, file), '--project', project, '--json', ...said);
      const loaded = await call('load', join(own, file), '--project', project, ...said);
      const store = await folderStore(project);
      const objects = (await store.list()).filter((o) => !listed.some((l) => l.id === o.id));
      const aside = (await store.aside()).length;
      if (holds && loaded.code === 0) await holds(objects, store);
      await store.close?.();
      let shown = '';
      for (const { id } of objects.slice(0, 3)) shown += (await call('show', id, '--project', project)).out;
      const unharmed = (await leaving(project)) === before;
      rmSync(own, { recursive: true, force: true });
      const [report] = JSON.parse(looked.out) as FileReport[];
      return { report, loaded: { code: loaded.code, said: loaded.err + loaded.out }, shown, objects, unharmed, aside };
    },
  };
}
