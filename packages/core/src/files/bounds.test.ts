import {
  BlobReader,
  BlobWriter,
  TextReader,
  Uint8ArrayReader,
  Uint8ArrayWriter,
  ZipReader,
  ZipWriter,
} from '@zip.js/zip.js';
import { describe, expect, test } from 'vitest';
import { asLithagonError, LithagonError } from '../earth/errors.ts';
import { visible } from '../earth/text.ts';
import { cellsOf } from '../formats/csv/dialect.ts';
import { guarded, unguarded } from '../formats/csv/guard.ts';
import { csvText } from '../formats/csv/write.ts';
import { memorySource } from '../formats/source.ts';
import { xmlText } from '../formats/xml.ts';
import { memoryStore } from '../storage/memory.ts';
import { fileContext } from '../testing/field.ts';
import { FRAME } from '../testing/objects.ts';
import { madeWell } from '../testing/storeContract.ts';
import { madeVolume } from '../testing/volume.ts';
import { beneath } from '../trail/rebuild.ts';
import { evaluateFormula } from '../wells/formula.ts';
import { inspectFile } from './inspect.ts';
import { loadFile } from './load.ts';
import { exportObject } from './out/export.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
async function load(name: string, content: string | Uint8Array, declare = {}) {
  const store = memoryStore();
  const source = memorySource(name, typeof content === 'string' ? bytes(content) : content);
  const report = await inspectFile(source, declare);
  const loaded = await loadFile(source, declare, fileContext(store)).catch((cause) => cause as Error);
  return { store, report, loaded, error: loaded instanceof Error ? loaded : null };
}

describe('what is too much, or goes on for ever, is bounded', () => {
  test('150 000 bad rows are counted, and the good ones read', async () => {
    const rows = Array.from({ length: 150_000 }, (_, n) => `QN-${n},bad,worse`).join('\n');
    const { report, loaded } = await load('heads.csv', `well,x_m,y_m,kb_m\nQN-1,1050,2050,25\n${rows}\n`);
    expect(loaded).not.toBeInstanceOf(Error);
    expect(report.problems.join(' ')).toContain('150000 of 150001 rows lack a number and were left out (first: row 3)');
  });
  test('a .dbf whose rows have no length gives no names, and ends', async () => {
    const { parseShapes } = await import('../formats/shapefile/parse.ts');
    const shape = new Uint8Array(100 + 28);
    const view = new DataView(shape.buffer);
    view.setInt32(0, 9994);
    view.setInt32(100, 1);
    view.setInt32(104, 10);
    view.setInt32(108, 1, true);
    const table = new Uint8Array(70);
    const head = new DataView(table.buffer);
    head.setUint32(4, 0xffffffff, true);
    head.setUint16(8, 33, true);
    head.setUint16(10, 0, true);
    table[48] = 10;
    expect(parseShapes('a.shp', shape, table)[0].attributes).toEqual({});
  });
  test('a log of more curves than any tool has is refused by name', async () => {
    const curves = Array.from({ length: 20_000 }, (_, n) => `C${n}.M :\n`).join('');
    const { error, report } = await load(
      'many.las',
      `~V\nVERS. 2.0 :\nWRAP. NO :\n~W\nWELL. QN-1 :\n~C\nDEPT.M :\n${curves}~A\n1 2\n2 3\n`,
    );
    expect(error?.message).toContain('many.las cannot be read as LAS: it names 20001 curves');
    expect(report.refused?.message).toBe(error?.message);
  });
  test('a small zipped Zarr that says it is vast is refused before anything is filled', async () => {
    const zarr = async (shape: number[], chunk: number[], chunks: [string, Uint8Array][]) => {
      const meta = {
        zarr_format: 3,
        node_type: 'array',
        shape,
        data_type: 'float32',
        chunk_grid: { name: 'regular', configuration: { chunk_shape: chunk } },
        chunk_key_encoding: { name: 'default', configuration: { separator: '/' } },
        fill_value: 0,
        codecs: [{ name: 'bytes', configuration: { endian: 'little' } }],
        attributes: {},
      };
      const writer = new ZipWriter(new BlobWriter(), { useWebWorkers: false });
      await writer.add(
        'zarr.json',
        new TextReader(JSON.stringify({ zarr_format: 3, node_type: 'group', attributes: {} })),
      );
      await writer.add('v/zarr.json', new TextReader(JSON.stringify(meta)));
      for (const [key, data] of chunks) await writer.add(`v/${key}`, new Uint8ArrayReader(data));
      return new Uint8Array(await (await writer.close()).arrayBuffer());
    };
    const one: [string, Uint8Array][] = [['c/0/0/0', new Uint8Array(4 * 1000)]];
    for (const [file, says] of [
      [await zarr([50000, 50000, 5000], [10, 10, 10], one), 'it says that it has 12500000000000 samples'],
      [await zarr([50000, 50000, 5000], [10, 10, 10], []), 'it has no samples'],
      [await zarr([5000, 5000, 5000], [5000, 5000, 5000], one), 'its chunks are'],
    ] as const) {
      const started = performance.now();
      const { error } = await load('tiny.zarr.zip', file, { domain: 'twt', quantity: 'attribute' });
      expect(error?.message).toContain(`tiny.zarr.zip cannot be read as a zipped Zarr: ${says}`);
      expect(performance.now() - started).toBeLessThan(20_000);
    }
  });
  test('a zipped Zarr with a part that is cut short is refused, and its samples are not taken for nothing', async () => {
    const store = memoryStore();
    const volume = await madeVolume(store, (i, j, k) => 1 + i + j * k, { samples: 8 });
    const frame = { ...FRAME };
    const whole = await exportObject(store, volume, 'zarr.zip', frame);
    const reader = new ZipReader(new BlobReader(new Blob([whole as BlobPart])), { useWebWorkers: false });
    const writer = new ZipWriter(new BlobWriter(), { useWebWorkers: false });
    let cut = 0;
    for await (const entry of reader.getEntriesGenerator()) {
      if (entry.directory) continue;
      const data = await entry.getData(new Uint8ArrayWriter());
      // the samples, not their axes
      const isSamples = /c[./]\d+[./]\d+[./]\d+$/.test(entry.filename);
      if (isSamples) cut++;
      await writer.add(entry.filename, new Uint8ArrayReader(isSamples ? data.slice(0, data.length / 2) : data));
    }
    expect(cut).toBeGreaterThan(0);
    const bytes = new Uint8Array(await (await writer.close()).arrayBuffer());
    const { error, store: after } = await load('cut.zarr.zip', bytes, { crs: undefined });
    expect(error?.message).toMatch(/cut\.zarr\.zip cannot be read as a zipped Zarr: .*(damaged|cut short)/);
    expect(await after.list()).toEqual([]);
  });
  test('a GeoJSON name that is no text is not asked to become one', async () => {
    const shape = (name: unknown) =>
      JSON.stringify({
        type: 'FeatureCollection',
        features: [
          {
            type: 'Feature',
            properties: { name },
            geometry: {
              type: 'Polygon',
              coordinates: [
                [
                  [57, -21],
                  [57.1, -21],
                  [57.1, -21.1],
                  [57, -21],
                ],
              ],
            },
          },
        ],
      });
    for (const [name, wanted] of [
      [{ toString: 1 }, 'shapes'],
      [['a'], 'shapes'],
      [7, '7'],
      ['', 'shapes'],
      ['North', 'North'],
    ]) {
      const { report } = await load('shapes.geojson', shape(name), { crs: 'EPSG:4326' });
      expect(report.facts[0].value).toBe(wanted);
    }
  });
  test('trails that lead back to themselves come to an end', () => {
    const from = (id: string, input: string) => {
      const well = madeWell(id, id);
      return { ...well, madeBy: { ...well.madeBy, step: 'x', inputs: { a: [`${input}@r`] } } };
    };
    const round = [from('a', 'b'), from('b', 'c'), from('c', 'a')];
    expect(new Set(beneath(round, 'a').map((o) => o.id))).toEqual(new Set(['a', 'b', 'c']));
  });
  test('formulas of any depth get an answer or a sentence', async () => {
    const one = new Map([['a', { values: Float32Array.of(2), unit: '' }]]);
    for (const text of [
      '('.repeat(999) + 'a' + ')'.repeat(999),
      '-'.repeat(1999) + 'a',
      'a' + '^a'.repeat(999),
      'a' + '+a'.repeat(999),
      '(((',
      ')'.repeat(99),
    ])
      await evaluateFormula(text, one, 1, '').then(
        ({ values }) => expect(values).toHaveLength(1),
        (cause) => expect(cause).toBeInstanceOf(LithagonError),
      );
  });
  test('wells, tops and curves called __proto__ are names like others', async () => {
    const { store, error } = await load(
      'heads.csv',
      'well,x_m,y_m,kb_m\n__proto__,1050,2050,25\nconstructor,1060,2050,25\n',
    );
    expect(error).toBeNull();
    expect((await store.list()).map((o) => o.name)).toEqual(['__proto__', 'constructor']);
    const las = await load(
      'p.las',
      '~V\nVERS. 2.0 :\nWRAP. NO :\n~W\nWELL. __proto__ :\n~C\nDEPT.M :\n__proto__.M :\n~A\n1 2\n2 3\n3 4\n',
    );
    expect(las.error).toBeNull();
    expect(({} as Record<string, unknown>).M).toBeUndefined();
  });
});

describe('text of others', () => {
  test('control and direction-changing characters are seen, and nothing gets longer or is lost', () => {
    expect(visible('a\u202eb\u0007c\u007f\u0085\t\n')).toBe('a\ufffdb\u2407c\u2421\ufffd\t\n');
    expect(visible(visible('\u202e\u0000'))).toBe(visible('\u202e\u0000'));
    expect(visible('Ölfeld نفط 油')).toBe('Ölfeld نفط 油');
  });
  test('in names from files they are made visible on the way in', async () => {
    const { store } = await load('heads.csv', 'well,x_m,y_m,kb_m\nQN\u202e1\u2066,1050,2050,25\n');
    expect((await store.list())[0].name).toBe('QN\ufffd1\ufffd');
  });
  test('no cell of a table that leaves is a formula, whichever separator it is opened with, and it reads back as it was', () => {
    const cells = [
      '=1+1',
      '+A1',
      '-2+3',
      '@SUM',
      '＝1',
      '＋1',
      '－1',
      '＠x',
      'a;=1',
      'a,=1',
      'a\t=1',
      'a|=1',
      "'=1",
      "''+1",
      "it's",
      ' =1',
      'plain',
      'a=b',
      'x-y',
    ];
    const out = csvText(
      ['well', 'note'],
      cells.map((c) => ['w', c]),
    );
    for (const separator of [/,/, /;/, /\t/, /\|/])
      for (const cell of out.split('\n').flatMap((line) => line.split(separator)))
        expect(cell.replace(/^["\s]+/, '')).not.toMatch(/^[=+\-@＝＋－＠]/);
    expect(cellsOf('t.csv', out).body.map((row) => row[1])).toEqual(cells.map((c) => c.trim()));
    for (const cell of cells) expect(unguarded(guarded(cell))).toBe(cell);
    expect(csvText(['n'], [[-5]])).toBe('n\n-5\n');
  });
  test('nothing that is put into XML becomes part of it', () => {
    expect(xmlText('"><script>&\'\u0000\u001b\ud800x\ufffe')).toBe('&quot;&gt;&lt;script&gt;&amp;&#39;x');
  });
});

describe('what the system refuses is said as what it is', () => {
  test.each([
    [
      Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC' }),
      'There is no space left on the disk.',
    ],
    [Object.assign(new Error('x'), { code: 'EROFS', path: '/p' }), 'The disk can only be read (/p).'],
    [Object.assign(new Error('x'), { code: 'EACCES', path: '/p' }), 'You may not write there (/p).'],
    [new DOMException('', 'QuotaExceededError'), 'The browser gives this site no more space.'],
    [new DOMException('', 'DataError'), 'Something went wrong that was not foreseen: DataError.'],
    [new Error(''), 'Something went wrong that was not foreseen: Error.'],
    [null, 'Something went wrong that was not foreseen: nothing was said of it.'],
    ['text', 'Something went wrong that was not foreseen: text.'],
  ])('%s', (cause, sentence) => {
    const error = asLithagonError(cause);
    expect(error.message).toBe(sentence);
    // nothing is claimed of what was or was not changed
    expect(error.sentence).not.toMatch(/Nothing was changed|project is as it was/);
  });
});
