import { BlobWriter, TextReader, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import type { ProjectFile } from '../storage/projectFile.ts';
import { MADE, TURNED } from './objects.ts';

type Entries = [name: string, content: string | Uint8Array, level?: number][];

/** A zip file of entries, in order. */
export async function zipOf(entries: Entries): Promise<Blob> {
  const writer = new ZipWriter(new BlobWriter('application/zip'), { useWebWorkers: false, keepOrder: true });
  for (const [name, content, level = 6] of entries)
    await writer.add(name, typeof content === 'string' ? new TextReader(content) : new Uint8ArrayReader(content), {
      level,
    });
  return writer.close();
}

const BINS = TURNED.inline.count * TURNED.crossline.count;
const shape = [TURNED.inline.count, TURNED.crossline.count];
const own = (id: string) => ({ id, name: id, revision: 'r', stage: 'interpret', madeBy: MADE });
/** A horizon whose values are kept under a key. */
const horizon = (id: string, key: string, more: object = {}, ref: object = {}) => ({
  ...own(id),
  kind: 'horizon',
  domain: 'twt',
  binGrid: TURNED,
  values: { key, shape, chunk: shape, ...ref },
  range: [0, 1],
  filled: BINS,
  ...more,
});
const project = (objects: unknown[], more: object = {}): string =>
  JSON.stringify({
    lithagon: 1,
    facts: { id: 'p', name: 'P', created: '2026-01-01T00:00:00Z', frame: null },
    objects,
    ledger: [],
    ...more,
  });
const chunk = new Uint8Array(4 * BINS);
const arrays = (key: string, bytes = chunk): Entries => [
  [`arrays/${key}/zarr.json`, '{}'],
  [`arrays/${key}/c/0/0`, bytes],
];
const polygon = (name: string) => ({ ...own('poly'), name, kind: 'polygon', closed: true, rings: [[[0, 0]]] });

/** Change a number in the central directory's record of the last entry: what it says that it unpacks to. */
async function withClaimedSize(blob: Blob, size: number): Promise<Blob> {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  const view = new DataView(bytes.buffer);
  for (let at = bytes.length - 46; at >= 0; at--)
    if (view.getUint32(at, true) === 0x02014b50) {
      view.setUint32(at + 24, size, true);
      break;
    }
  return new Blob([bytes]);
}

/** Say another number of entries, or another length of the directory, at the end of the file. */
async function withClaimedDirectory(blob: Blob, entries: number, length?: number): Promise<Blob> {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  const view = new DataView(bytes.buffer);
  const end = bytes.length - 22;
  view.setUint16(end + 8, entries, true);
  view.setUint16(end + 10, entries, true);
  if (length !== undefined) view.setUint32(end + 12, length, true);
  return new Blob([bytes]);
}

export interface HostileParcel {
  name: string;
  /** Whether it may open: what is odd about it harms nothing. */
  mayOpen?: boolean;
  make(): Promise<Blob>;
}

const KEYS = [
  '../../../../tmp/out/values',
  '../up/values',
  '/etc/lithagon/values',
  'h/../../up',
  'h/..',
  'h//values',
  'h/./values',
  'h\\..\\..\\up',
  'h/values\u0000',
  'C:/up/values',
  '.hidden/values',
  '__proto__/values',
  'h/%2e%2e/values',
  'h',
  '',
  'h/a/b/c/d/e/f/g/i/j',
  `${'x'.repeat(400)}/values`,
];
const IDS = ['../h', 'h/../../x', '..', '', '__proto__', 'a b', 'h\u202e', 'x'.repeat(500)];
const huge = 2 ** 53 - 1;
const REFS: Record<string, object> = {
  'a shape of 2^53': { shape: [huge, huge], chunk: [1, 1] },
  'a shape that is no whole number': { shape: [1.5, 2], chunk: [1, 1] },
  'a shape of nothing': { shape: [], chunk: [] },
  'chunks of nothing': { chunk: [0, 0] },
  'a negative shape': { shape: [-12, -15], chunk: [-12, -15] },
  'ranks that differ': { shape, chunk: [12] },
  'four hundred axes': { shape: Array(400).fill(2), chunk: Array(400).fill(1) },
  'chunks of one bin over a large shape': { shape: [2 ** 20, 2 ** 20], chunk: [1, 1] },
  'one chunk of a thousand million samples': { shape: [2 ** 15, 2 ** 15], chunk: [2 ** 15, 2 ** 15] },
  'chunks larger than itself': { chunk: [4096, 4096] },
  'a shape other than its bins': { shape: [3, 3], chunk: [3, 3] },
  'a scale of nothing': { scaled: { factor: 0, offset: 0 } },
};

/** Parcels made to do harm: none may leave a trace outside its project, take much memory, or half a project. */
export const HOSTILE: HostileParcel[] = [
  ...KEYS.map((key, n) => ({
    name: `array key ${n} ${JSON.stringify(key).slice(0, 40)}`,
    make: () => zipOf([['project.json', project([horizon('h', key)])], ...arrays(key)]),
  })),
  ...IDS.map((id, n) => ({
    name: `id ${n} ${JSON.stringify(id).slice(0, 30)}`,
    make: () => zipOf([['project.json', project([horizon(id, `${id}/values`)])], ...arrays(`${id}/values`)]),
  })),
  ...Object.entries(REFS).map(([name, ref]) => ({
    name,
    make: () => zipOf([['project.json', project([horizon('h', 'h/values', {}, ref)])], ...arrays('h/values')]),
  })),
  {
    name: 'entries beside the project that lead out of it',
    mayOpen: true,
    make: () =>
      zipOf([
        ['project.json', project([horizon('h', 'h/values')])],
        ...arrays('h/values'),
        ['../../../../tmp/out', 'x'],
        ['arrays/../../out', 'x'],
        ['/tmp/out', 'x'],
      ]),
  },
  {
    name: 'two objects of one id',
    make: () =>
      zipOf([['project.json', project([horizon('h', 'h/values'), horizon('h', 'h/values')])], ...arrays('h/values')]),
  },
  {
    name: 'an object with its data in the place of another',
    make: () =>
      zipOf([['project.json', project([horizon('h', 'h/values'), horizon('i', 'h/values')])], ...arrays('h/values')]),
  },
  {
    name: 'a trail that leads back to itself',
    mayOpen: true,
    make: () => {
      const from = (id: string) => ({ madeBy: { ...MADE, step: 'interpret.close', inputs: { horizon: [`${id}@r`] } } });
      return zipOf([
        ['project.json', project([horizon('h', 'h/values', from('i')), horizon('i', 'i/values', from('h'))])],
        ...arrays('h/values'),
        ...arrays('i/values'),
      ]);
    },
  },
  {
    name: 'an object called __proto__',
    mayOpen: true,
    make: () => zipOf([['project.json', project([polygon('__proto__'), { ...polygon('constructor'), id: 'q' }])]]),
  },
  {
    name: 'a name that turns the line round',
    mayOpen: true,
    make: () => zipOf([['project.json', project([polygon('a\u202eb\u0007')])]]),
  },
  {
    name: 'markup in names',
    mayOpen: true,
    make: () => zipOf([['project.json', project([polygon('<img src=x onerror=alert(1)>')])]]),
  },
  {
    name: 'script in a colour',
    make: () => zipOf([['project.json', project([{ ...polygon('p'), color: '"/><script>alert(1)</script>' }])]]),
  },
  {
    name: 'desks that are no desks',
    mayOpen: true,
    make: () => {
      const desks = [{ name: 'D', state: { layout: { panels: { x: 1 } }, logs: 5, lines: 'none', display: [] } }];
      const facts = { id: 'p', name: 'P', created: '', frame: null, desks } as unknown as ProjectFile['facts'];
      return zipOf([['project.json', project([], { facts })]]);
    },
  },
  {
    name: 'a chunk that is too short',
    make: () =>
      zipOf([['project.json', project([horizon('h', 'h/values')])], ...arrays('h/values', chunk.subarray(0, 40))]),
  },
  {
    name: 'a chunk that is too long',
    make: () =>
      zipOf([['project.json', project([horizon('h', 'h/values')])], ...arrays('h/values', new Uint8Array(1e6))]),
  },
  {
    name: 'a chunk that is missing',
    make: () =>
      zipOf([
        ['project.json', project([horizon('h', 'h/values')])],
        ['arrays/h/values/zarr.json', '{}'],
      ]),
  },
  {
    name: 'a description of ten megabytes',
    make: () =>
      zipOf([
        ['project.json', project([horizon('h', 'h/values')])],
        ['arrays/h/values/zarr.json', new Uint8Array(10e6)],
        ['arrays/h/values/c/0/0', chunk],
      ]),
  },
  {
    name: 'a chunk that unpacks to more than it says',
    make: async () =>
      withClaimedSize(
        await zipOf([
          ['project.json', project([horizon('h', 'h/values')])],
          ['arrays/h/values/zarr.json', '{}'],
          ['arrays/h/values/c/0/0', new Uint8Array(20e6)],
        ]),
        4 * BINS,
      ),
  },
  { name: 'a project.json of 100 MB', make: () => zipOf([['project.json', new Uint8Array(100e6).fill(32)]]) },
  {
    name: 'a project.json that says that it is small, and is not',
    make: async () => withClaimedSize(await zipOf([['project.json', new Uint8Array(100e6).fill(32)]]), 1000),
  },
  { name: 'a project.json of brackets', make: () => zipOf([['project.json', '['.repeat(20e6)]]) },
  {
    name: 'a project.json of deep objects',
    make: () => zipOf([['project.json', `${'{"a":'.repeat(2e6)}1${'}'.repeat(2e6)}`]]),
  },
  { name: 'no project.json', make: () => zipOf([['other.json', '{}']]) },
  { name: 'a folder called project.json', make: () => zipOf([['project.json/x', '{}']]) },
  {
    name: 'a project of a later version',
    make: () => zipOf([['project.json', JSON.stringify({ lithagon: 99, facts: {}, objects: [] })]]),
  },
  { name: 'an empty object', make: () => zipOf([['project.json', '{}']]) },
  { name: 'null', make: () => zipOf([['project.json', 'null']]) },
  {
    name: 'objects that are no list',
    make: () => zipOf([['project.json', project([], { objects: { length: 1e9 } })]]),
  },
  { name: 'an empty zip file', make: () => zipOf([]) },
  {
    name: 'a claim of 65 000 entries',
    make: async () => withClaimedDirectory(await zipOf([['project.json', project([])]]), 65000),
  },
  {
    name: 'a directory of four thousand million bytes',
    make: async () => withClaimedDirectory(await zipOf([['project.json', project([])]]), 2, 4e9),
  },
  { name: 'no zip file', make: async () => new Blob(['PK\u0003\u0004 not really'.repeat(1000)]) },
  { name: 'nothing', make: async () => new Blob([]) },
];
