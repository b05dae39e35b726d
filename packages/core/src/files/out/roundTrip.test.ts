import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type BinGrid, cornersOf } from '../../earth/binGrid.ts';
import { crsTable } from '../../earth/crsTable.ts';
import type { Logs, SeismicLine, Volume } from '../../earth/objects.ts';
import { memorySource } from '../../formats/source.ts';
import { readWhole } from '../../storage/arrays.ts';
import { memoryStore } from '../../storage/memory.ts';
import { readInlines } from '../../storage/planes.ts';
import { madeHorizon, TURNED } from '../../testing/objects.ts';
import { madeVolume } from '../../testing/volume.ts';
import { crsOf, frameFor } from '../coordinates.ts';
import { loadFile } from '../load.ts';
import { exportObject } from './export.ts';
import type { OutOptions } from './out.ts';

const frame = async () => frameFor(await crsOf('EPSG:32740', crsTable));

async function back(name: string, bytes: Uint8Array, declare: Record<string, string> = {}) {
  const store = memoryStore();
  await store.commit({ facts: { frame: await frame() } });
  const { objects } = await loadFile(memorySource(name, bytes), declare, { store, crsTable });
  return { store, object: objects[0] };
}

const near = (a: BinGrid, b: BinGrid) => {
  const d = cornersOf(b);
  return Math.max(...cornersOf(a).map(([x, y], n) => Math.hypot(x - d[n][0], y - d[n][1])));
};

describe('a volume leaves and comes back', () => {
  const anyOut = fc.record({
    format: fc.constantFrom('ieee', 'ibm', 'compact') as fc.Arbitrary<NonNullable<OutOptions['format']>>,
    revision: fc.constantFrom('1', '2') as fc.Arbitrary<NonNullable<OutOptions['revision']>>,
    scale: fc.constantFrom(1e-6, 1, 3000, 1e7),
    samples: fc.integer({ min: 5, max: 30 }),
    first: fc.constantFrom(0, 200),
    step: fc.constantFrom(1, 2, 4),
    flip: fc.boolean(),
    every: fc.integer({ min: 1, max: 4 }),
    seed: fc.nat(),
  });
  test('as SEG-Y: floats to their last bit or to IBM’s, integers to half a step, missing traces missing', async () => {
    await fc.assert(
      fc.asyncProperty(anyOut, async ({ format, revision, scale, samples, first, step, flip, every, seed }) => {
        const store = memoryStore();
        const binGrid: BinGrid = {
          ...TURNED,
          inline: { first: 500, step: every, count: 7 },
          crossline: { first: 90, step: 1, count: 9 },
          perInline: flip ? [9.768, -23.013] : TURNED.perInline,
        };
        const value = (i: number, j: number, k: number) =>
          i === 3 && j === 4 ? Number.NaN : scale * Math.sin(1 + seed + 7 * i + 3 * j * k + k);
        const volume = await madeVolume(store, value, { binGrid, samples, first, step });
        const bytes = await exportObject(store, volume, 'sgy', await frame(), { format, revision });
        const again = await back('out.sgy', bytes, { domain: 'twt', quantity: 'amplitude' });
        const read = again.object as Volume;
        expect(read.binGrid.inline).toEqual(binGrid.inline);
        expect(read.binGrid.crossline).toEqual(binGrid.crossline);
        expect(read.vertical).toEqual(volume.vertical);
        expect(near(read.binGrid, binGrid)).toBeLessThan(0.02);
        const [a, b] = [await readInlines(store, volume, 0, 7), await readInlines(again.store, read, 0, 7)];
        const most = Math.max(Math.abs(volume.statistics.min), Math.abs(volume.statistics.max));
        // IBM floats keep 21 to 24 bits; integers a 32 767th part of a power of two
        const off =
          format === 'ieee' ? 0 : format === 'ibm' ? 2 ** -20 : (1.0001 * 2 ** Math.ceil(Math.log2(most / 32767))) / 2;
        for (let n = 0; n < a.length; n++) {
          if (Number.isNaN(a[n])) expect(b[n]).toBe(0);
          else expect(Math.abs(a[n] - b[n])).toBeLessThanOrEqual(format === 'ibm' ? off * Math.abs(a[n]) : off);
        }
      }),
      { numRuns: 40, seed: 11 },
    );
  });
  test('as zipped Zarr: to the last bit, with what was declared of it', async () => {
    const store = memoryStore();
    const volume = await madeVolume(store, (i, j, k) => (i === 2 && j === 2 ? Number.NaN : i * 100 + j * 10 + k / 7));
    const bytes = await exportObject(store, volume, 'zarr.zip', await frame());
    const again = await back('made.zarr.zip', bytes);
    const read = again.object as Volume;
    expect(read).toMatchObject({
      name: 'Made',
      domain: 'twt',
      quantity: 'amplitude',
      polarity: 'harder-positive',
      vertical: volume.vertical,
    });
    expect(near(read.binGrid, volume.binGrid)).toBeLessThan(1e-6);
    expect([...(await readInlines(again.store, read, 0, 12))]).toEqual([...(await readInlines(store, volume, 0, 12))]);
  });
  test('the text header says what the trail knows', async () => {
    const store = memoryStore('Osmund');
    const volume = await madeVolume(store, (i, j, k) => i + j + k);
    const bytes = await exportObject(store, volume, 'sgy', await frame(), { format: 'compact' });
    const { object } = await back('out.sgy', bytes, { domain: 'twt', quantity: 'amplitude' });
    const text = (object as Volume).text?.join('\n') ?? '';
    for (const said of [
      'MADE, PROJECT OSMUND',
      'TWO-WAY TIME',
      'INCREASE OF IMPEDANCE IS POSITIVE',
      'EPSG:32740',
      'BYTES 189-192',
      'TIMES 2 TO THE POWER',
    ])
      expect(text).toContain(said);
  });
  test('the text header cuts no word or number in two, and keeps what is longer than a line', async () => {
    const store = memoryStore('Osmund');
    const file = `${'a'.repeat(100)} part of a volume with a long name.sgy`;
    const made = await madeVolume(store, (i, j, k) => i + j + k, { name: 'A volume whose name goes on and on' });
    const volume = { ...made, madeBy: { ...made.madeBy, file } };
    await store.commit({ put: [volume] });
    const { object } = await back('out.sgy', await exportObject(store, volume, 'sgy', await frame()), {
      domain: 'twt',
      quantity: 'amplitude',
    });
    const lines = ((object as Volume).text ?? []).map((line) => line.replace(/^C[ \d]\d ?/, '').trimEnd());
    for (const line of lines) expect(line.length).toBeLessThanOrEqual(76);
    const places = lines.findIndex((line) => line.includes('CDP Y'));
    const words = `${lines[places]} ${lines[places + 1]}`.split(/\s+/);
    expect(words).toEqual(expect.arrayContaining(['77-80,', 'TIMES', '100']));
    expect(lines.join('')).toContain('A'.repeat(100));
    expect(lines.join(' ')).toContain('LONG NAME.SGY');
  });
  test('as a VTK image whose bins are no rectangles it is refused, by name', async () => {
    const store = memoryStore();
    const skew = { ...TURNED, perInline: [3, 25] as [number, number], perCrossline: [25, 0] as [number, number] };
    const volume = await madeVolume(store, () => 1, { binGrid: skew });
    await expect(exportObject(store, volume, 'vti', null)).rejects.toThrow('The bins of Made are no rectangles');
  });
});

describe('a horizon leaves and comes back', () => {
  test.each([
    ['csv', {}],
    ['tif', { domain: 'depth', unit: 'm', sign: 'down' }],
  ])('as .%s', async (extension, declare) => {
    const store = memoryStore();
    const horizon = await madeHorizon(store, 'Bed', 'depth', (i, j) =>
      i === 5 && j === 5 ? Number.NaN : 1000 + i * 3 - j / 2,
    );
    const again = await back(
      `bed.${extension}`,
      await exportObject(store, horizon, extension, await frame()),
      declare as Record<string, string>,
    );
    if (again.object.kind !== 'horizon') throw new Error('no horizon came back');
    expect(near(again.object.binGrid, horizon.binGrid)).toBeLessThan(0.02);
    const [a, b] = [await readWhole(store, horizon.values), await readWhole(again.store, again.object.values)];
    a.forEach((v, n) => {
      if (Number.isNaN(v)) expect(b[n]).toBeNaN();
      else expect(b[n]).toBeCloseTo(v, 3);
    });
  });
});

test('a 2D line leaves and comes back with its CDP and shotpoints', async () => {
  const store = memoryStore();
  const volume = await madeVolume(store, (i, j, k) => Math.sin(i + j + k));
  const samples = await readInlines(store, volume, 0, 1);
  const count = volume.binGrid.crossline.count;
  const ref = { key: 'line/samples', shape: [count, 20], chunk: [count, 20] };
  await store.writeBytes('line/samples/c/0/0', new Uint8Array(samples.buffer));
  const line: SeismicLine = {
    id: 'line',
    kind: 'seismic line',
    name: 'QL-1',
    revision: '1',
    stage: 'data',
    madeBy: volume.madeBy,
    domain: 'twt',
    quantity: 'amplitude',
    unit: '',
    vertical: volume.vertical,
    path: Array.from({ length: count }, (_, n) => [512000 + 12.5 * n, 7641000 + (n > 7 ? 5 * (n - 7) : 0)]),
    cdps: Array.from({ length: count }, (_, n) => 100 + n),
    shotpoints: Array.from({ length: count }, (_, n) => 40 + Math.floor(n / 2)),
    samples: ref,
    statistics: volume.statistics,
  };
  await store.commit({ put: [line] });
  const again = await back('QL-1.sgy', await exportObject(store, line, 'sgy', await frame()), {
    domain: 'twt',
    quantity: 'amplitude',
  });
  const read = again.object as SeismicLine;
  expect(read.kind).toBe('seismic line');
  expect(read.cdps).toEqual(line.cdps);
  expect(read.shotpoints).toEqual(line.shotpoints);
  read.path.forEach(([x, y], n) => {
    expect(Math.hypot(x - line.path[n][0], y - line.path[n][1])).toBeLessThan(0.01);
  });
  expect([...(await readWhole(again.store, read.samples))]).toEqual([...samples]);
});

test.each([
  'metric',
  'field',
] as const)('logs leave as LAS as they came, whatever the project shows (%s), and come back', async (display) => {
  const las =
    '~V\n VERS. 2.0 :\n WRAP. NO :\n~W\n NULL. -999.25 :\n WELL. A-1 :\n~C\n DEPT.M :\n DT.US/M : slowness\n RHOB.KG/M3 :\n NPHI.V/V :\n~A\n1000 300 2300 0.2\n1000.5 301 -999.25 0.21\n1001 302 2400 0.25\n';
  const { store, object } = await back('a.las', new TextEncoder().encode(las));
  const logs = object as Logs;
  const bytes = await exportObject(store, logs, 'las', { ...(await frame()), display });
  const text = new TextDecoder().decode(bytes);
  expect(text).toContain('STRT  .M ');
  for (const unit of ['.US/M', '.KG/M3', '.V/V']) expect(text).toContain(unit);
  const again = await back('b.las', bytes);
  const read = again.object as Logs;
  expect(read.well).toBe('A-1');
  expect(read.depth.firstM).toBeCloseTo(1000, 3);
  expect(read.curves.map((c) => [c.mnemonic, c.class])).toEqual(logs.curves.map((c) => [c.mnemonic, c.class]));
  for (const [n, curve] of logs.curves.entries()) {
    const [a, b] = [await readWhole(store, curve.data), await readWhole(again.store, read.curves[n].data)];
    a.forEach((v, k) => {
      if (Number.isNaN(v)) expect(b[k]).toBeNaN();
      else expect(Math.abs(b[k] / v - 1)).toBeLessThan(1e-6);
    });
  }
});
