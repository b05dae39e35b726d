import {
  BlobReader,
  BlobWriter,
  configure,
  TextReader,
  TextWriter,
  Uint8ArrayReader,
  Uint8ArrayWriter,
  ZipReader,
  ZipWriter,
} from '@zip.js/zip.js';
import { LithagonError, stopIf } from '../earth/errors.ts';
import type { ArrayRef, EarthObject } from '../earth/objects.ts';
import { chunkKey } from './arrays.ts';
import { type ProjectFile, projectSchema } from './projectFile.ts';
import type { Store } from './store.ts';
import { remakePlanes } from './volumes.ts';

configure({ useWebWorkers: false });

/** Every array of an object; of a volume only the copy by inlines, from which the others are made again. */
function arraysOf(object: EarthObject): ArrayRef[] {
  const found: ArrayRef[] = [];
  const visit = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    if ('key' in value && 'chunk' in value && 'shape' in value) found.push(value as ArrayRef);
    else for (const each of Object.values(value)) visit(each);
  };
  visit(object.kind === 'volume' ? object.layouts.inline : object);
  return found;
}

/** Keys of an array in its store: its description, then its chunks. */
function keysOf(ref: ArrayRef): string[] {
  const counts = ref.shape.map((n, axis) => Math.ceil(n / ref.chunk[axis]));
  const keys = [`${ref.key}/zarr.json`];
  const at = counts.map(() => 0);
  for (;;) {
    keys.push(chunkKey(ref, at));
    let axis = at.length - 1;
    while (axis >= 0 && ++at[axis] === counts[axis]) at[axis--] = 0;
    if (axis < 0) return keys;
  }
}

export interface ParcelOptions {
  signal?: AbortSignal;
  onProgress?: (part: number) => void;
}

/** A whole project in one file: a Zip64 of `project.json` and `arrays/` as a folder project has them. */
export async function writeParcel(store: Store, options: ParcelOptions = {}): Promise<Blob> {
  const objects = await store.list();
  const { id, name, created, frame, curveClasses, desks } = await store.facts();
  const file: ProjectFile = {
    lithagon: 1,
    facts: { id, name, created, frame, curveClasses, desks },
    objects,
    ledger: await store.ledger(),
  };
  const writer = new ZipWriter(new BlobWriter('application/zip'), { level: 1, zip64: true, keepOrder: true });
  await writer.add('project.json', new TextReader(JSON.stringify(file)));
  const keys = objects.flatMap(arraysOf).flatMap(keysOf);
  for (let n = 0; n < keys.length; n++) {
    stopIf(options.signal);
    const bytes = await store.readBytes(keys[n]);
    // floats hardly shrink, and waiting for it is felt
    if (bytes) await writer.add(`arrays/${keys[n]}`, new Uint8ArrayReader(bytes), { level: 0 });
    options.onProgress?.((n + 1) / keys.length);
  }
  return writer.close();
}

function broken(name: string, why: string): LithagonError {
  return new LithagonError('parcel', `${name} cannot be opened as a parcel: ${why}.`, {
    object: name,
    fix: 'No project was made. Ask for the file again, or check that it was copied whole.',
  });
}

/**
 * Read a parcel into an empty store. Objects appear in one transaction, after all their arrays are in.
 * @param open makes the store for the project, once its facts are known
 */
export async function readParcel(
  name: string,
  parcel: Blob,
  open: (facts: ProjectFile['facts']) => Promise<Store>,
  options: ParcelOptions = {},
): Promise<ProjectFile['facts']> {
  const reader = new ZipReader(new BlobReader(parcel), { checkSignature: true });
  const entries = await reader.getEntries().catch(() => {
    throw broken(name, 'it is no zip file, or was cut short');
  });
  const head = entries.find((e) => e.filename === 'project.json');
  if (!head || head.directory) throw broken(name, 'it holds no project.json');
  let raw: unknown;
  try {
    raw = JSON.parse(await head.getData(new TextWriter()));
  } catch {
    throw broken(name, 'its project.json cannot be read');
  }
  const parsed = projectSchema.safeParse(raw);
  if (!parsed.success) throw broken(name, 'its project.json is not of a kind that this version knows');
  const project = parsed.data;
  const byName = new Map(entries.map((e) => [e.filename, e]));
  const keys = project.objects.flatMap(arraysOf).flatMap(keysOf);
  const missing = keys.find((key) => !byName.has(`arrays/${key}`));
  if (missing) throw broken(name, `the array ${missing} is missing`);
  const store = await open(project.facts);
  for (let n = 0; n < keys.length; n++) {
    stopIf(options.signal);
    const entry = byName.get(`arrays/${keys[n]}`);
    if (!entry || entry.directory) continue;
    const bytes = await entry.getData(new Uint8ArrayWriter()).catch(() => {
      throw broken(name, `the array ${keys[n]} is damaged`);
    });
    await store.writeBytes(keys[n], bytes);
    options.onProgress?.((0.7 * (n + 1)) / keys.length);
  }
  const volumes = project.objects.filter((o) => o.kind === 'volume');
  for (let n = 0; n < volumes.length; n++)
    await remakePlanes(store, volumes[n].layouts, options.signal, (p) =>
      options.onProgress?.(0.7 + (0.3 * (n + p)) / volumes.length),
    );
  const { frame, curveClasses, desks } = project.facts;
  await store.commit({ put: project.objects, ledger: project.ledger, facts: { frame, curveClasses, desks } });
  await reader.close();
  return project.facts;
}
