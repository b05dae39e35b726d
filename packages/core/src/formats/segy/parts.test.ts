import { describe, expect, test } from 'vitest';
import { cornersOf } from '../../earth/binGrid.ts';
import type { SeismicLine, Volume } from '../../earth/objects.ts';
import { inspectFile } from '../../files/inspect.ts';
import { loadFile } from '../../files/load.ts';
import { pathOfLine } from '../../project/lines.ts';
import { waitingFor } from '../../project/wells/wells.ts';
import { chunkKey } from '../../storage/keys.ts';
import { memoryStore } from '../../storage/memory.ts';
import { readInlines, readPlane } from '../../storage/planes.ts';
import { storedOf } from '../../storage/regions.ts';
import { PLANES } from '../../storage/volumes.ts';
import { exactValue, makeSegy, PLAIN_SEGY } from '../../testing/segyWriter.ts';
import { memorySource } from '../source.ts';

const SAYS = { domain: 'twt', quantity: 'attribute' };
const context = (store = memoryStore()) => ({ store, crsTable: async () => [] });
const even = (n: number) => Array.from({ length: n }, (_, k) => k);
const plain = (change = {}) => makeSegy({ ...PLAIN_SEGY, ...change }, even);
const load = async (bytes: Uint8Array, declare: Record<string, string> = {}, beside: Uint8Array[] = []) => {
  const store = memoryStore();
  const loaded = await loadFile(
    memorySource('a.sgy', bytes),
    { ...SAYS, ...declare },
    context(store),
    beside.map((b, n) => memorySource(`part-${n}.sgy`, b)),
  );
  return { store, volume: loaded.objects[0] as Volume, warnings: loaded.warnings };
};

describe('parts of one volume', () => {
  test('in any order give the volume that one file would', async () => {
    const whole = await load(plain());
    const first = plain({ inlines: [1, 2, 3] });
    const second = plain({ inlines: [4, 5, 6], origin: [1000, 2075] });
    // the writer counts its values from each file's own first line
    const joined = await load(second, {}, [first]);
    expect(joined.volume.binGrid.inline).toEqual(whole.volume.binGrid.inline);
    expect(joined.volume.traces.missing).toBe(0);
    cornersOf(joined.volume.binGrid).forEach((c, n) => {
      const d = cornersOf(whole.volume.binGrid)[n];
      expect(Math.hypot(c[0] - d[0], c[1] - d[1])).toBeLessThan(1e-6);
    });
    const line = await readInlines(joined.store, joined.volume, 4, 5);
    expect(line[3 * 30 + 7]).toBe(exactValue(1, 1, 3, 7));
  });
  test('of another kind of trace are refused, and nothing is loaded', async () => {
    const store = memoryStore();
    const load = loadFile(memorySource('a.sgy', plain()), SAYS, context(store), [
      memorySource('b.sgy', plain({ samples: 12 })),
    ]);
    await expect(load).rejects.toThrow('they are no parts of one volume');
    expect(await store.list()).toEqual([]);
    expect(await store.arrayOwners()).toEqual([]);
  });
});

describe('a part of a volume', () => {
  test('is loaded by line numbers and times, and lies where it lay in the whole', async () => {
    const { store, volume } = await load(plain({ delayMs: 200 }), {
      inlines: '2-4',
      crosslines: '13-15',
      window: '208-240',
    });
    expect(volume.binGrid.inline).toEqual({ first: 2, step: 1, count: 3 });
    expect(volume.binGrid.crossline).toEqual({ first: 13, step: 1, count: 3 });
    expect(volume.vertical).toEqual({ first: 208, step: 4, count: 9 });
    expect(volume.binGrid.origin[0]).toBeCloseTo(1050, 6);
    expect(volume.binGrid.origin[1]).toBeCloseTo(2025, 6);
    for (const plane of PLANES) {
      const data = await readPlane(store, volume, plane, 1);
      const at = plane === 'inline' ? [2, 2, 2] : plane === 'crossline' ? [1, 3, 2] : [1, 2, 3];
      expect(data[0]).toBe(exactValue(1, ...(at as [number, number, number])));
    }
  });
  test.each([
    [{ inlines: '40-50' }, /takes in no inline/],
    [{ window: 'soon' }, /takes in no sample/],
  ])('that is not there is refused: %j', async (declare, says) => {
    await expect(load(plain(), declare)).rejects.toThrow(says);
  });
});

test('compact: no sample off by more than it says, nulls kept, half the bytes', async () => {
  const bytes = plain({ format: 5, missing: new Set([10]) });
  const whole = await load(bytes);
  const { store, volume, warnings } = await load(bytes, { storage: 'compact' });
  const scaled = storedOf(volume).inline.scaled;
  if (!scaled) throw new Error('it is not compact');
  expect(warnings.join(' ')).toContain(`no sample is off by more than ${(scaled.factor / 2).toPrecision(3)}`);
  const [a, b] = [await readInlines(whole.store, whole.volume, 0, 6), await readInlines(store, volume, 0, 6)];
  a.forEach((v, n) => {
    if (Number.isNaN(v)) expect(b[n]).toBeNaN();
    else expect(Math.abs(v - b[n])).toBeLessThanOrEqual(scaled.factor / 2 + 1e-6);
  });
  const size = async (s: typeof store, v: Volume) =>
    (await s.readBytes(chunkKey(storedOf(v).inline, [0, 0, 0])))?.length ?? 0;
  expect(2 * (await size(store, volume))).toBe(await size(whole.store, whole.volume));
});

describe('traces that are not all alike', () => {
  test('of differing length are filled up as empty, and it is said', async () => {
    const full = plain({ format: 5 });
    const traceBytes = 240 + 30 * 4;
    const view = new DataView(full.buffer.slice(0));
    view.setInt16(3502, 0);
    // every third trace loses its last ten samples
    const parts: Uint8Array[] = [new Uint8Array(view.buffer, 0, 3600)];
    for (let t = 0; t < 42; t++) {
      const trace = new Uint8Array(view.buffer.slice(3600 + t * traceBytes, 3600 + (t + 1) * traceBytes));
      const short = t % 3 === 1;
      if (short) new DataView(trace.buffer).setInt16(114, 20);
      parts.push(short ? trace.subarray(0, 240 + 20 * 4) : trace);
    }
    const bytes = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
    let at = 0;
    for (const part of parts) {
      bytes.set(part, at);
      at += part.length;
    }
    const { store, volume, warnings } = await load(bytes);
    expect(warnings.join(' ')).toContain('Trace lengths differ: 14 of 42 traces are shorter than 30 samples');
    const lines = await readInlines(store, volume, 0, 6);
    for (let t = 0; t < 42; t++)
      for (let k = 0; k < 30; k++) {
        const value = lines[t * 30 + k];
        if (t % 3 === 1 && k >= 20) expect(value).toBeNaN();
        else expect(value).toBe(exactValue(5, Math.floor(t / 7), t % 7, k));
      }
  });
  test('that begin at different times lie where they belong', async () => {
    const bytes = plain({ format: 5, delayMs: 100 });
    const view = new DataView(bytes.buffer);
    view.setInt16(3600 + 3 * 360 + 108, 120);
    const { store, volume, warnings } = await load(bytes);
    expect(warnings.join(' ')).toContain('Traces start at different times, from 100 to 120 ms');
    expect(volume.vertical).toEqual({ first: 100, step: 4, count: 35 });
    const line = await readInlines(store, volume, 0, 1);
    expect(line[3 * 35 + 4]).toBeNaN();
    expect(line[3 * 35 + 5]).toBe(exactValue(5, 0, 3, 0));
    expect(line[2 * 35]).toBe(exactValue(5, 0, 2, 0));
    expect(line[2 * 35 + 30]).toBeNaN();
  });
  test('with header extensions of revision 2 are found', async () => {
    const full = plain({ format: 5, revision: 2 });
    const out = new Uint8Array(3600 + 42 * (480 + 120));
    out.set(full.subarray(0, 3600));
    new DataView(out.buffer).setInt32(3506, 1);
    for (let t = 0; t < 42; t++) {
      out.set(full.subarray(3600 + t * 360, 3600 + t * 360 + 240), 3600 + t * 600);
      out.set(full.subarray(3600 + t * 360 + 240, 3600 + (t + 1) * 360), 3600 + t * 600 + 480);
    }
    const { store, volume } = await load(out);
    expect((await readInlines(store, volume, 5, 6))[6 * 30 + 29]).toBe(exactValue(5, 5, 6, 29));
  });
});

test('a grid that is nearly that of another volume is offered as the same, and taken when asked', async () => {
  const store = memoryStore();
  const first = (await loadFile(memorySource('a.sgy', plain({ scalar: -100 })), SAYS, context(store)))
    .objects[0] as Volume;
  const shifted = plain({ scalar: -100, origin: [1003, 2002] });
  const around = { objects: await store.list(), frame: null, crsTable: async () => [] };
  const report = await inspectFile(memorySource('b.sgy', shifted), {}, { around });
  const question = report.questions.find((q) => q.key === 'grid');
  expect(question?.hint?.why).toContain('3.61 m apart');
  const same = await inspectFile(memorySource('c.sgy', plain({ scalar: -100 })), {}, { around });
  expect(same.facts.find((f) => f.label === 'Grid')?.value).toBe('the same bins as a');
  const { objects } = await loadFile(memorySource('b.sgy', shifted), { ...SAYS, grid: 'a' }, context(store));
  expect((objects[0] as Volume).binGrid.origin).toEqual(first.binGrid.origin);
});

describe('2D lines', () => {
  /** A file of lines: CDP in bytes 21, shotpoint in 197, X and Y in 181, a line number in 189. */
  function linesFile(lines: { number: number; path: [number, number][] }[], coordinates = true): Uint8Array {
    const traces = lines.flatMap((l) => l.path.map((p, n) => ({ ...l, p, n })));
    const out = new Uint8Array(3600 + traces.length * (240 + 40));
    const view = new DataView(out.buffer);
    out.fill(0x40, 0, 3200);
    view.setInt16(3216, 4000);
    view.setInt16(3220, 10);
    view.setInt16(3224, 5);
    view.setUint16(3500, 0x100);
    view.setInt16(3502, 1);
    traces.forEach(({ number, p, n }, t) => {
      const at = 3600 + t * 280;
      view.setInt32(at, t + 1);
      view.setInt32(at + 20, 500 + 2 * n);
      view.setInt16(at + 70, -10);
      if (coordinates) {
        view.setInt32(at + 180, Math.round(p[0] * 10));
        view.setInt32(at + 184, Math.round(p[1] * 10));
      }
      view.setInt32(at + 188, number);
      view.setInt32(at + 196, 100 + Math.floor(n / 2));
      for (let k = 0; k < 10; k++) view.setFloat32(at + 240 + 4 * k, number * 100 + n + k / 10);
    });
    return out;
  }
  const bent = (x: number, y: number, n: number): [number, number][] =>
    Array.from({ length: n }, (_, t) => [x + 20 * t, y + (t > n / 2 ? 15 * (t - n / 2) : 0)]);

  test('several in a file come apart, with their bends', async () => {
    const store = memoryStore();
    const lines = [
      { number: 7, path: bent(1000, 2000, 120) },
      { number: 9, path: bent(5000, 9000, 80) },
    ];
    const { objects } = await loadFile(memorySource('lines.sgy', linesFile(lines)), SAYS, context(store));
    expect(objects.map((o) => o.name)).toEqual(['lines 7', 'lines 9']);
    const [a, b] = objects as SeismicLine[];
    expect([a.cdps.length, b.cdps.length]).toEqual([120, 80]);
    expect(a.cdps.slice(0, 3)).toEqual([500, 502, 504]);
    expect(a.shotpoints?.slice(0, 4)).toEqual([100, 100, 101, 101]);
    a.path.forEach(([x, y], n) => {
      expect(Math.hypot(x - lines[0].path[n][0], y - lines[0].path[n][1])).toBeLessThan(0.1);
    });
  });
  test('without coordinates wait for navigation of their name, in whichever order the two come', async () => {
    const path = bent(1000, 2000, 60);
    const file = memorySource('QL-3.sgy', linesFile([{ number: 3, path }], false));
    const table = new TextEncoder().encode(
      `line,sp,x,y\n${path.flatMap(([x, y], n) => (n % 2 === 0 ? [`QL-3,${100 + n / 2},${x},${y}`] : [])).join('\n')}\n`,
    );
    const p190 = new TextEncoder().encode(
      `H0100Survey\nH0200Date\n${path
        .flatMap(([x, y], n) =>
          n % 2 === 0
            ? [
                `S${'QL-3'.padEnd(12)}${' '.repeat(6)}${String(100 + n / 2).padStart(6)}${'212233.00S'.padStart(10)}${'0571010.00E'.padStart(11)}${x.toFixed(1).padStart(9)}${y.toFixed(1).padStart(9)}`,
              ]
            : [],
        )
        .join('\n')}\n`,
    );
    for (const [name, nav] of [
      ['nav.csv', table],
      ['nav.p190', p190],
    ] as const)
      for (const order of [0, 1]) {
        const store = memoryStore();
        const jobs = [
          () => loadFile(file, SAYS, context(store)),
          () => loadFile(memorySource(name, nav), {}, context(store)),
        ];
        await jobs[order]();
        if (order === 0) expect([...waitingFor(await store.list()).values()]).toEqual(['navigation of line QL-3']);
        await jobs[1 - order]();
        const objects = await store.list();
        expect(waitingFor(objects).size).toBe(0);
        const line = objects.find((o): o is SeismicLine => o.kind === 'seismic line') as SeismicLine;
        const found = pathOfLine(objects, line) as [number, number][];
        // between shots a trace lies on the way from one to the next
        for (let n = 0; n < 58; n += 2)
          expect(Math.hypot(found[n][0] - path[n][0], found[n][1] - path[n][1])).toBeLessThan(0.2);
        expect(found[1][0]).toBeCloseTo(path[1][0], 0);
      }
  });
});
