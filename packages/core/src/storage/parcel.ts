import {
  BlobReader,
  BlobWriter,
  configure,
  type FileEntry,
  TextReader,
  Uint8ArrayReader,
  ZipReader,
  ZipWriter,
} from '@zip.js/zip.js';
import { LithagonError, stopIf } from '../earth/errors.ts';
import type { ArrayRef } from '../earth/objects.ts';
import { directorySize } from '../formats/zip.ts';
import { damage, wrongLength } from './damage.ts';
import { arraysOf, chunkBytes, chunkCount, chunkKey, chunksOf } from './keys.ts';
import { VERSION } from './migrate.ts';
import { type OpenedProject, type ProjectFile, readProject } from './projectFile.ts';
import type { ProjectFacts, Store } from './store.ts';
import { remakePlanes } from './volumes.ts';

configure({ useWebWorkers: false });

/** Most bytes of `project.json`: what a project holds besides its arrays. */
const MOST_PROJECT = 48e6;
/** Most bytes of the description of an array. */
const MOST_DESCRIPTION = 64e3;
/** Most entries: at a megabyte each, 100 GB. */
const MOST_ENTRIES = 100_000;
/** What a parcel may always unpack to, and how many times its own size beyond that. */
const MOST_UNPACKED = 500e6;
const MOST_RATIO = 100;

const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(bytes < 10e6 ? 1 : 0)} MB`;

/** Keys of an array in its store, with the bytes that each must have: its description, then its chunks. */
function* keysOf(ref: ArrayRef): Generator<{ key: string; at: number[]; bytes: number | null }> {
  yield { key: `${ref.key}/zarr.json`, at: [], bytes: null };
  const bytes = chunkBytes(ref);
  for (const at of chunksOf(ref)) yield { key: chunkKey(ref, at), at, bytes };
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
    lithagon: VERSION,
    facts: { id, name, created, frame, curveClasses, desks },
    objects,
    ledger: await store.ledger(),
  };
  const text = JSON.stringify(file);
  if (text.length > MOST_PROJECT)
    throw new LithagonError(
      'parcel',
      `What ${name} holds besides its arrays is too much for a parcel (${megabytes(text.length)}).`,
      {
        object: name,
        fix: 'Take out large tables or outlines. No parcel was written.',
      },
    );
  const writer = new ZipWriter(new BlobWriter('application/zip'), { level: 1, zip64: true, keepOrder: true });
  await writer.add('project.json', new TextReader(text));
  const arrays = objects.flatMap((object) => arraysOf(object));
  const count = arrays.reduce((n, ref) => n + 1 + chunkCount(ref), 0);
  let done = 0;
  for (const ref of arrays)
    for (const { key, at, bytes: wanted } of keysOf(ref)) {
      stopIf(options.signal);
      const bytes = await store.readBytes(key);
      // floats hardly shrink, and waiting for it is felt; what is damaged would make the whole parcel unreadable
      if (bytes && (wanted === null || wanted === bytes.byteLength))
        await writer.add(`arrays/${key}`, new Uint8ArrayReader(bytes), { level: 0 });
      else if (wanted !== null) throw await damage(store, ref, at, wrongLength(ref, bytes) ?? 'is missing');
      options.onProgress?.(++done / count);
    }
  return writer.close();
}

function broken(name: string, why: string): LithagonError {
  return new LithagonError('parcel', `${name} cannot be opened as a parcel: ${why}.`, {
    object: name,
    fix: 'Nothing of it was kept. Ask for the file again, or check that it was copied whole.',
  });
}

/** The text of an entry, which may be no longer than it says that it is. */
async function textOf(entry: FileEntry, most: number): Promise<string> {
  const decoder = new TextDecoder();
  let text = '';
  let length = 0;
  await entry.getData(
    new WritableStream<Uint8Array>({
      write(part) {
        length += part.length;
        if (length > most) throw new Error('longer than it says');
        text += decoder.decode(part, { stream: true });
      },
    }),
  );
  return text + decoder.decode();
}

const MOST_DEEP = 64;
const MOST_PARTS = 4e6;

/** Whether a JSON text has no more lists and objects than a project can have: each takes memory, however short it is. */
function isSensible(text: string): boolean {
  let [depth, parts] = [0, 0];
  for (let n = 0; n < text.length; n++) {
    const c = text.charCodeAt(n);
    if (c === QUOTE) {
      do {
        n = text.indexOf('"', n + 1);
        if (n < 0) return true;
        // an even number of backslashes before it ends the string
      } while (/(?:^|[^\\])(?:\\\\)*\\$/.test(text.slice(Math.max(0, n - 40), n)));
    } else if (c === SQUARE || c === CURLY) {
      if (++depth > MOST_DEEP || ++parts > MOST_PARTS) return false;
    } else if (c === SQUARE_END || c === CURLY_END) depth--;
  }
  return true;
}
const [QUOTE, SQUARE, SQUARE_END, CURLY, CURLY_END] = Array.from('"[]{}', (c) => c.charCodeAt(0));

/** The bytes of an entry, exactly as many as there must be. */
async function bytesOf(entry: FileEntry, length: number): Promise<Uint8Array> {
  const out = new Uint8Array(length);
  let at = 0;
  await entry.getData(
    new WritableStream<Uint8Array>({
      write(part) {
        if (at + part.length > length) throw new Error('longer than it says');
        out.set(part, at);
        at += part.length;
      },
    }),
  );
  if (at !== length) throw new Error('shorter than it says');
  return out;
}

/** Entries of a parcel by name, as long as there are no more of them than a parcel can have. */
async function entriesOf(name: string, parcel: Blob, reader: ZipReader<Blob>, signal?: AbortSignal) {
  const size = await directorySize(parcel);
  if (!size) throw broken(name, 'it is no zip file, or was cut short');
  if (size.entries > MOST_ENTRIES || size.bytes > MOST_ENTRIES * 500)
    throw broken(name, `it says that it has ${size.entries} entries, and ${MOST_ENTRIES} can be read`);
  const entries = new Map<string, FileEntry>();
  try {
    for await (const entry of reader.getEntriesGenerator()) {
      stopIf(signal);
      if (entries.size >= MOST_ENTRIES) throw broken(name, `it has more than ${MOST_ENTRIES} entries`);
      if (!entry.directory) entries.set(entry.filename, entry);
    }
  } catch (cause) {
    if (cause instanceof LithagonError || signal?.aborted) throw cause;
    throw broken(name, 'it is no zip file, or was cut short');
  }
  return entries;
}

/** The project that a parcel holds; everything in it must be whole. */
async function projectOf(name: string, entries: Map<string, FileEntry>): Promise<OpenedProject> {
  const head = entries.get('project.json');
  if (!head) throw broken(name, 'it holds no project.json');
  if (head.uncompressedSize > MOST_PROJECT)
    throw broken(
      name,
      `its project.json has ${megabytes(head.uncompressedSize)}, and ${megabytes(MOST_PROJECT)} can be read`,
    );
  let raw: unknown;
  try {
    const text = await textOf(head, head.uncompressedSize);
    raw = isSensible(text) ? JSON.parse(text) : null;
  } catch {
    throw broken(name, 'its project.json cannot be read');
  }
  const project = readProject(raw);
  if (!project) throw broken(name, 'its project.json is not of a kind that this version knows');
  const [wrong] = project.aside;
  if (wrong) throw broken(name, `${wrong.name} in it cannot be read (${wrong.why})`);
  return project;
}

/**
 * Read a parcel into an empty store. Objects appear in one transaction, after all their arrays are in. What a parcel says
 * of its sizes is held against its entries before anything is unpacked.
 * @param open makes the store for the project, once its facts are known
 */
export async function readParcel(
  name: string,
  parcel: Blob,
  open: (facts: ProjectFacts) => Promise<Store>,
  { signal, onProgress }: ParcelOptions = {},
): Promise<ProjectFacts> {
  const reader = new ZipReader(new BlobReader(parcel), { checkSignature: true });
  try {
    const entries = await entriesOf(name, parcel, reader, signal);
    const project = await projectOf(name, entries);
    const arrays = project.objects.flatMap((object) => arraysOf(object));
    const wanted: { key: string; entry: FileEntry }[] = [];
    for (const ref of arrays)
      for (const { key, bytes } of keysOf(ref)) {
        const entry = entries.get(`arrays/${key}`);
        if (!entry) throw broken(name, `the array ${key} is missing`);
        const size = entry.uncompressedSize;
        if (bytes === null ? size > MOST_DESCRIPTION : size !== bytes)
          throw broken(name, `the array ${key} has ${size} bytes${bytes === null ? '' : ` instead of ${bytes}`}`);
        wanted.push({ key, entry });
      }
    const total = wanted.reduce((n, { entry }) => n + entry.uncompressedSize, 0);
    // floats that say something shrink a little; ten thousand million zeros shrink to nothing
    if (total > Math.max(MOST_UNPACKED, parcel.size * MOST_RATIO))
      throw broken(name, `it says that it unpacks to ${megabytes(total)}, from ${megabytes(parcel.size)}`);
    stopIf(signal);
    const store = await open(project.facts);
    for (const [n, { key, entry }] of wanted.entries()) {
      stopIf(signal);
      const bytes = await bytesOf(entry, entry.uncompressedSize).catch(() => {
        throw broken(name, `the array ${key} is damaged`);
      });
      await store.writeBytes(key, bytes);
      onProgress?.((0.7 * (n + 1)) / wanted.length);
    }
    const volumes = project.objects.filter((o) => o.kind === 'volume');
    for (const [n, volume] of volumes.entries())
      if (volume.layouts)
        await remakePlanes(store, volume.layouts, signal, (p) => onProgress?.(0.7 + (0.3 * (n + p)) / volumes.length));
    const { frame, curveClasses, desks } = project.facts;
    await store.commit({ put: project.objects, ledger: project.ledger, facts: { frame, curveClasses, desks } });
    return project.facts;
  } finally {
    await reader.close();
  }
}
