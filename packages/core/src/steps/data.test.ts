import { beforeEach, describe, expect, test } from 'vitest';
import { toMap } from '../earth/binGrid.ts';
import type { Volume } from '../earth/objects.ts';
import { memoryStore } from '../storage/memory.ts';
import { readInlines, readPlane } from '../storage/planes.ts';
import type { Store } from '../storage/store.ts';
import { madeHorizon, TURNED } from '../testing/objects.ts';
import { even } from '../testing/random.ts';
import { madeVolume } from '../testing/volume.ts';
import { runStep, stepOf, tryPlane } from './index.ts';

const SAMPLES = { step: 4, samples: 101, first: 0 };
/** Every sample is told from every other. */
const told = (i: number, j: number, k: number) => 10_000 * i + 200 * j + k;
let store: Store;
let volume: Volume;
beforeEach(async () => {
  store = memoryStore();
  volume = await madeVolume(store, told, { ...SAMPLES, name: 'Told' });
});
const run = async (step: string, params: Record<string, unknown>, more: Record<string, string[]> = {}) =>
  (await runStep({ step: `data.${step}`, inputs: { seismic: [volume.id], ...more }, params }, store)) as Volume[];
const trace = async (of: Volume, i: number, j: number) => {
  const nk = of.vertical.count;
  return (await readInlines(store, of, i, i + 1)).slice(j * nk, (j + 1) * nk);
};
const rms = (values: ArrayLike<number>) => Math.sqrt(Array.from(values).reduce((a, v) => a + v * v, 0) / values.length);

describe('a crop', () => {
  const range = { firstInline: 1003, lastInline: 1007, firstCrossline: 2002, lastCrossline: 2010, from: 40, to: 200 };
  test('holds exactly the samples asked for, with their lines, times and places', async () => {
    const [part] = await run('crop', range);
    expect(part.binGrid.inline).toEqual({ first: 1003, step: 1, count: 5 });
    expect(part.binGrid.crossline).toEqual({ first: 2002, step: 1, count: 9 });
    expect(part.vertical).toEqual({ first: 40, step: 4, count: 41 });
    for (const [i, j] of [
      [0, 0],
      [4, 8],
      [2, 3],
    ]) {
      expect([...(await trace(part, i, j))]).toEqual(Array.from({ length: 41 }, (_, k) => told(i + 3, j + 2, k + 10)));
      const [x, y] = toMap(part.binGrid, i, j);
      const [wantedX, wantedY] = toMap(TURNED, i + 3, j + 2);
      expect(Math.hypot(x - wantedX, y - wantedY)).toBeLessThan(1e-6);
    }
    expect(part.statistics).toMatchObject({ min: told(3, 2, 10), max: told(7, 10, 50) });
  });
  test('of limits given the wrong way round is the same, and of far limits is the whole', async () => {
    const turned = { ...range, firstInline: 1007, lastInline: 1003, from: 200, to: 40 };
    const [a] = await run('crop', range);
    const [b] = await run('crop', turned);
    expect([b.binGrid, b.vertical, b.statistics]).toEqual([a.binGrid, a.vertical, a.statistics]);
    const [all] = await run('crop', {});
    const exact = ({ min, max, rms, count }: Volume['statistics']) => ({ min, max, rms, count });
    expect([all.binGrid, all.vertical, exact(all.statistics)]).toEqual([
      volume.binGrid,
      volume.vertical,
      exact(volume.statistics),
    ]);
  });
  test('that leaves nothing is refused, and nothing is kept', async () => {
    await expect(run('crop', { firstInline: 5000, lastInline: 6000 })).rejects.toThrow(
      'Nothing of Told lies in that range',
    );
    expect(await store.list()).toHaveLength(1);
  });
});

describe('a decimation', () => {
  test.each([
    [2, 3],
    [5, 1],
    [20, 20],
  ])('every %d. inline and every %d. crossline, where they were', async (inlines, crosslines) => {
    const [part] = await run('decimate', { inlines, crosslines });
    const [ni, nj] = [Math.ceil(12 / inlines), Math.ceil(15 / crosslines)];
    expect([part.binGrid.inline, part.binGrid.crossline]).toEqual([
      { first: 1000, step: inlines, count: ni },
      { first: 2000, step: crosslines, count: nj },
    ]);
    const [i, j] = [ni - 1, nj - 1];
    expect((await trace(part, i, j))[7]).toBe(told(i * inlines, j * crosslines, 7));
    const [x, y] = toMap(part.binGrid, i, j);
    const [wantedX, wantedY] = toMap(TURNED, i * inlines, j * crosslines);
    expect(Math.hypot(x - wantedX, y - wantedY)).toBeLessThan(1e-6);
  });
});

describe('a resampling', () => {
  const wave = (hz: number) => (_: number, __: number, k: number) => Math.sin(2 * Math.PI * hz * 0.004 * k);
  test('to a finer interval gives back the wave between the samples', async () => {
    volume = await madeVolume(store, wave(30), { ...SAMPLES, name: 'Wave' });
    const [fine] = await run('resample', { step: 1 });
    expect(fine.vertical).toEqual({ first: 0, step: 1, count: 401 });
    const values = await trace(fine, 3, 4);
    // ends of a trace are held from one side only
    for (let k = 60; k < 340; k++)
      expect(Math.abs(values[k] - Math.sin(2 * Math.PI * 30 * 0.001 * k))).toBeLessThan(0.01);
  });
  test('to a wider one keeps what the new interval can hold, and lets nothing fold over', async () => {
    volume = await madeVolume(store, wave(15), { ...SAMPLES, name: 'Low' });
    const [low] = await run('resample', { step: 10 });
    expect(low.vertical).toEqual({ first: 0, step: 10, count: 41 });
    expect(rms((await trace(low, 0, 0)).slice(8, 33))).toBeCloseTo(Math.SQRT1_2, 1);
    // 70 Hz is above the Nyquist of 50 Hz, and would come back as 30 Hz
    volume = await madeVolume(store, wave(70), { ...SAMPLES, name: 'High' });
    const [high] = await run('resample', { step: 10 });
    expect(rms((await trace(high, 0, 0)).slice(8, 33))).toBeLessThan(0.01);
  });
});

describe('a mute', () => {
  test('follows a horizon that dips, from the sample on which it lies', async () => {
    volume = await madeVolume(store, () => 1, { ...SAMPLES, name: 'Ones' });
    const horizon = await madeHorizon(store, 'Bed', 'twt', (i, j) =>
      i === 5 && j === 5 ? Number.NaN : 100 + 4 * i + 8 * j,
    );
    const [below] = await run('mute', { side: 'above', at: 20, taper: 0 }, { horizon: [horizon.id] });
    for (const [i, j] of [
      [0, 0],
      [3, 7],
      [11, 14],
    ]) {
      const values = await trace(below, i, j);
      const first = values.findIndex((v) => v > 0.5);
      expect(first * 4).toBe(120 + 4 * i + 8 * j);
    }
    // where the horizon is not known the trace is left as it is
    expect(rms(await trace(below, 5, 5))).toBe(1);
  });
  test('by a horizon in depth is refused', async () => {
    const horizon = await madeHorizon(store, 'Deep', 'depth', () => 900);
    await expect(run('mute', {}, { horizon: [horizon.id] })).rejects.toThrow('are not in the same domain');
  });
});

test('a polarity flip turns samples and what was declared, and twice is nothing', async () => {
  const [once] = await run('flip', {});
  expect(once.polarity).toBe('harder-negative');
  expect((await trace(once, 2, 2))[5]).toBe(-told(2, 2, 5));
  volume = once;
  const [twice] = await run('flip', {});
  expect(twice.polarity).toBe('harder-positive');
  expect([...(await trace(twice, 2, 2))]).toEqual([
    ...(await trace(await madeVolume(store, told, { ...SAMPLES, name: 'Told' }), 2, 2)),
  ]);
});

test('scaling multiplies, then adds', async () => {
  const [scaled] = await run('scale', { factor: -0.5, shift: 7 });
  expect((await trace(scaled, 1, 2))[3]).toBe(-0.5 * told(1, 2, 3) + 7);
});

test('footprint that is taken out and what is left make up the volume again', async () => {
  const random = even(3);
  const stripes = (_: number, j: number) => (j % 2 === 0 ? 0.5 : -0.5);
  const binGrid = { ...TURNED, inline: { first: 1, step: 1, count: 32 }, crossline: { first: 1, step: 1, count: 32 } };
  volume = await madeVolume(store, (i, j, k) => Math.sin(i / 9 + j / 11 + k / 3) + stripes(i, j) + 0.05 * random(), {
    name: 'Striped',
    samples: 24,
    binGrid,
  });
  const [clean, removed] = await run('footprint', {});
  let [left, taken] = [0, 0];
  for (const k of [0, 11, 23]) {
    const [all, kept, gone] = await Promise.all([volume, clean, removed].map((v) => readPlane(store, v, 'slice', k)));
    for (let n = 0; n < all.length; n++) {
      expect(kept[n] + gone[n]).toBeCloseTo(all[n], 4);
      left += kept[n] * stripes(0, n % 32);
      taken += gone[n] * stripes(0, n % 32);
    }
  }
  // what goes along with the stripes was in the volume, and is in what was taken out
  expect(Math.abs(left)).toBeLessThan(0.1 * taken);
});

test('what is tried of a crop or a resampling lies on its own lines and samples', async () => {
  const try_ = async (step: string, params: object, plane: 'inline' | 'slice', index: number) => {
    const known = stepOf(`data.${step}`);
    if (!known) throw new Error(`there is no ${step}`);
    return tryPlane(known, { seismic: volume }, known.params.parse(params), store, plane, index);
  };
  const cropped = await try_('crop', { firstInline: 1002, firstCrossline: 2003, from: 40 }, 'inline', 2);
  expect(cropped.grid.vertical).toEqual({ first: 40, step: 4, count: 91 });
  expect(cropped.values.part[0]).toBe(told(4, 3, 10));
  const wide = await try_('decimate', { inlines: 2, crosslines: 3 }, 'slice', 7);
  expect([...wide.values.part].slice(0, 3)).toEqual([told(0, 0, 7), told(0, 3, 7), told(0, 6, 7)]);
});
