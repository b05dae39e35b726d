import { describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import type { EarthObject, QuantityMap } from '../earth/objects.ts';
import { writeWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import type { Store } from '../storage/store.ts';
import { layeredField } from '../testing/layeredField.ts';
import { MADE, madeHorizon, TURNED } from '../testing/objects.ts';
import { madeVolume } from '../testing/volume.ts';
import { type PlotRequest, plotPoints, selectedIntervals } from './crossplot.ts';

const REQUEST: PlotRequest = {
  from: 'volumes',
  x: { of: '', log: false },
  y: { of: '', log: false },
  color: null,
  wells: [],
  top: '',
  base: '',
  area: null,
  fromVertical: 0,
  toVertical: 1e6,
};
const axis = (of: string, log = false) => ({ of, log });

async function madeMap(store: Store, name: string, binGrid: BinGrid, at: (x: number, y: number) => number) {
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  const values = Float32Array.from({ length: ni * nj }, (_, n) => {
    const [i, j] = [Math.floor(n / nj), n % nj];
    const [x, y] = [0, 1].map((a) => binGrid.origin[a] + i * binGrid.perInline[a] + j * binGrid.perCrossline[a]);
    return at(x, y);
  });
  const map: QuantityMap = {
    id: name,
    kind: 'map',
    name,
    revision: '1',
    stage: 'interpret',
    madeBy: MADE,
    binGrid,
    quantity: 'thickness',
    unit: 'm',
    values: await writeWhole(store, `${name}/values`, [ni, nj], values, ['inline', 'crossline']),
    range: [0, 1],
  };
  await store.commit({ put: [map] });
  return map;
}

describe('points of volumes', () => {
  const two = async () => {
    const store = memoryStore();
    const a = await madeVolume(store, (i, j, k) => 10000 * i + 100 * j + k, { name: 'A' });
    const b = await madeVolume(store, (i, j, k) => -(10000 * i + 100 * j + k), { name: 'B' });
    return { store, a, b, request: { ...REQUEST, x: axis(a.id), y: axis(b.id) } };
  };
  test('are every sample within typed times, each with its bin and time', async () => {
    const { store, request } = await two();
    const p = await plotPoints(store, await store.list(), { ...request, fromVertical: 107, toVertical: 117 });
    // samples at 108, 112 and 116 ms of 12 × 15 bins
    expect(p.x.length).toBe(3 * 12 * 15);
    expect(new Set(p.depth)).toEqual(new Set([108, 112, 116]));
    for (let n = 0; n < p.x.length; n++) {
      const [i, j, k] = [Math.floor(p.place[n] / 15), p.place[n] % 15, (p.depth[n] - 100) / 4];
      expect(p.x[n]).toBe(10000 * i + 100 * j + k);
      expect(p.y[n]).toBe(-p.x[n]);
    }
  });
  test('between two horizons follow both, bin by bin; a bin without one has none', async () => {
    const { store, request } = await two();
    const top = await madeHorizon(store, 'Top', 'twt', (i, j) => (i === 3 && j === 4 ? Number.NaN : 110 + i));
    const base = await madeHorizon(store, 'Base', 'twt', (_, j) => 140 + j);
    const p = await plotPoints(store, await store.list(), { ...request, top: top.id, base: base.id });
    let expected = 0;
    for (let i = 0; i < 12; i++)
      for (let j = 0; j < 15; j++)
        for (let t = 100; t < 180; t += 4) if (!(i === 3 && j === 4) && t >= 110 + i && t <= 140 + j) expected++;
    expect(p.x.length).toBe(expected);
    for (let n = 0; n < p.x.length; n++) {
      const [i, j] = [Math.floor(p.place[n] / 15), p.place[n] % 15];
      expect(p.depth[n]).toBeGreaterThanOrEqual(110 + i);
      expect(p.depth[n]).toBeLessThanOrEqual(140 + j);
    }
  });
  test('below one horizon only, down to a typed time', async () => {
    const { store, request } = await two();
    const top = await madeHorizon(store, 'Top', 'twt', () => 150);
    const p = await plotPoints(store, await store.list(), { ...request, top: top.id, toVertical: 160 });
    expect(new Set(p.depth)).toEqual(new Set([152, 156, 160]));
  });
  test('are refused where volumes or a horizon do not belong together, by name', async () => {
    const { store, a, request } = await two();
    const short = await madeVolume(store, () => 1, { name: 'Short', samples: 7 });
    const deep = await madeHorizon(store, 'Deep', 'depth', () => 900);
    const objects = await store.list();
    await expect(plotPoints(store, objects, { ...request, y: axis(short.id) })).rejects.toThrow(/Short and A have not/);
    await expect(plotPoints(store, objects, { ...request, top: deep.id })).rejects.toThrow(/not a horizon of A/);
    await expect(plotPoints(store, objects, { ...request, y: axis('gone') })).rejects.toThrow(/Two volumes/);
    expect(a.name).toBe('A');
  });
});

describe('points of maps', () => {
  test('of other bins are read between them, and missing outside', async () => {
    const store = memoryStore();
    const plane = (x: number, y: number) => (x - TURNED.origin[0]) * 0.3 + (y - TURNED.origin[1]) * 0.7;
    const coarse: BinGrid = {
      ...TURNED,
      inline: { first: 1000, step: 3, count: 3 },
      crossline: { first: 2000, step: 3, count: 3 },
      perInline: [3 * TURNED.perInline[0], 3 * TURNED.perInline[1]],
      perCrossline: [3 * TURNED.perCrossline[0], 3 * TURNED.perCrossline[1]],
    };
    const fine = await madeMap(store, 'fine', TURNED, plane);
    const wide = await madeMap(store, 'wide', coarse, plane);
    const request = { ...REQUEST, from: 'maps' as const, x: axis(fine.id), y: axis(wide.id) };
    const p = await plotPoints(store, await store.list(), request);
    // coarse bins reach to the sixth inline and crossline, and may be asked for one bin of theirs beyond
    expect(p.x.length).toBeGreaterThanOrEqual(7 * 7);
    expect(p.x.length).toBeLessThan(12 * 15);
    let inner = 0;
    for (let n = 0; n < p.x.length; n++) {
      const [i, j] = [Math.floor(p.place[n] / 15), p.place[n] % 15];
      if (i > 6 || j > 6) continue;
      inner++;
      expect(p.y[n]).toBeCloseTo(p.x[n], 3);
    }
    expect(inner).toBe(49);
  });
  test('inside an outline only', async () => {
    const store = memoryStore();
    const map = await madeMap(store, 'map', TURNED, (x) => x);
    const [ox, oy] = TURNED.origin;
    const area: EarthObject = {
      id: 'area',
      kind: 'polygon',
      name: 'Area',
      revision: '1',
      stage: 'interpret',
      madeBy: MADE,
      closed: true,
      rings: [
        [
          [ox - 30, oy - 30],
          [ox + 30, oy - 30],
          [ox + 30, oy + 30],
          [ox - 30, oy + 30],
        ],
      ],
    };
    const request = { ...REQUEST, from: 'maps' as const, x: axis(map.id), y: axis(map.id), area: 'area' };
    const p = await plotPoints(store, [...(await store.list()), area], request);
    expect(p.x.length).toBeGreaterThan(1);
    for (const x of p.x) expect(Math.abs(x - ox)).toBeLessThanOrEqual(30);
  });
});

describe('points of logs', () => {
  test('lie between two tops, with measured depths; what has no logarithm is left out', async () => {
    const { store, well } = await layeredField();
    const objects = await store.list();
    const request: PlotRequest = {
      ...REQUEST,
      from: 'logs',
      x: axis('sonic'),
      y: axis('density'),
      wells: [well.id],
    };
    const whole = await plotPoints(store, objects, request);
    expect(whole.wells).toEqual(['T-1']);
    expect(whole.x.length).toBeGreaterThan(100);
    const [top, base] = objects
      .flatMap((o) => (o.kind === 'tops' ? o.rows : []))
      .map((r) => [String(r[0]), Number(r[1])] as const)
      .sort((a, b) => a[1] - b[1])
      .slice(0, 2);
    const zone = await plotPoints(store, objects, { ...request, top: top[0], base: base[0] });
    expect(zone.x.length).toBeGreaterThan(0);
    expect(zone.x.length).toBeLessThan(whole.x.length);
    for (const md of zone.depth) {
      expect(md).toBeGreaterThanOrEqual(top[1]);
      expect(md).toBeLessThan(base[1]);
    }
    const logged = await plotPoints(store, objects, { ...request, x: axis('sonic', true) });
    expect(10 ** logged.x[5]).toBeCloseTo(whole.x[5], 3);
    const missing = await plotPoints(store, objects, { ...request, y: axis('neutron'), top: 'Nowhere' });
    expect(missing.x.length).toBe(0);
    expect(missing.notes).toHaveLength(1);
    expect(missing.notes[0]).toMatch(/^T-1 has no /);
  });
  test('that are chosen make intervals, neighbours within a metre as one', () => {
    const points = {
      ...{ x: new Float32Array(5), y: new Float32Array(5), color: null, unitX: '', unitY: '', unitColor: '' },
      place: Int32Array.from([0, 0, 0, 1, 0]),
      depth: Float32Array.from([100, 100.5, 101, 50, 200]),
      wells: ['A', 'B'],
      classes: [],
      more: [],
      unitsMore: [],
      notes: [],
    };
    const intervals = selectedIntervals(points, Uint8Array.from([1, 1, 1, 1, 1]));
    expect(intervals.get('A')).toEqual([
      [100, 101],
      [200, 200.15],
    ]);
    expect(intervals.get('B')).toEqual([[50, 50.15]]);
    expect(selectedIntervals(points, new Uint8Array(5)).size).toBe(0);
  });
});
