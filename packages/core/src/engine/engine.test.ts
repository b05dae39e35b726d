import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { z } from 'zod';
import type { BinGrid } from '../earth/binGrid.ts';
import type { Volume } from '../earth/objects.ts';
import { outOfDate } from '../project/catalogue/staleness.ts';
import { defineStep, forgetStep, localOf, number, registerStep, runStep, tryOn, tryRegion } from '../steps/index.ts';
import { folderStore } from '../storage/folder.ts';
import { memoryStore } from '../storage/memory.ts';
import { readPlane, shapeOf } from '../storage/planes.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import { TURNED } from '../testing/objects.ts';
import { madeVolume } from '../testing/volume.ts';
import { rebuild } from '../trail/rebuild.ts';
import { flagged } from './lanes.ts';
import { inThread } from './runner.ts';
import { threadRunner } from './threads.ts';

const params = z.object({
  by: number({ title: 'Weight', description: 'Of the second.' }, { min: 0, max: 10, initial: 2 }),
});
/** Sum and difference of two volumes, the second weighted; the difference looks one trace on. */
const both = defineStep({
  id: 'attributes.both',
  version: 1,
  stage: 'attributes',
  title: 'Both',
  summary: 'Adds and subtracts.',
  source: 'Made up (2026)',
  reach: 'local',
  inputs: { first: { kind: 'volume', title: 'First' }, second: { kind: 'volume', title: 'Second' } },
  params,
  outputs: { sum: { kind: 'volume', title: 'Sum' }, difference: { kind: 'volume', title: 'Difference' } },
  local: {
    volumes: ['first', 'second'],
    otherGrids: true,
    outputs: { sum: {}, difference: { quantity: 'attribute' } },
    halo: () => ({ inline: 0, crossline: 1, sample: 0 }),
    evaluate: ({ first, second }, p) => {
      const [ni, mj, nk] = first.size;
      const out = { sum: new Float32Array(ni * (mj - 2) * nk), difference: new Float32Array(ni * (mj - 2) * nk) };
      for (let i = 0, to = 0; i < ni; i++)
        for (let j = 1; j < mj - 1; j++)
          for (let k = 0; k < nk; k++, to++) {
            const at = (i * mj + j) * nk + k;
            out.sum[to] = first.data[at] + p.by * second.data[at];
            out.difference[to] = first.data[at] - p.by * second.data[at + nk];
          }
      return out;
    },
  },
});

beforeEach(() => registerStep(both));
afterEach(() => forgetStep(both.id));

const one = (i: number, j: number, k: number) => 1000 * i + 10 * j + k / 8;
const two = (i: number, j: number, k: number) => i - 3 * j + k;

describe('a step of two volumes in and two out', () => {
  test('is run, tried and kept live from its declaration alone', async () => {
    const store = memoryStore();
    const first = await madeVolume(store, one, { name: 'One' });
    const second = await madeVolume(store, two, { name: 'Two' });
    const inputs = { first: [first.id], second: [second.id] };
    const [sum, difference] = (await runStep({ step: both.id, inputs, params: { by: 3 } }, store)) as Volume[];
    expect([sum.quantity, difference.quantity]).toEqual(['amplitude', 'attribute']);
    const [, nj, nk] = shapeOf(sum);
    const plane = await readPlane(store, sum, 'inline', 4);
    expect(plane[5 * nk + 7]).toBeCloseTo(one(4, 5, 7) + 3 * two(4, 5, 7), 3);
    const other = await readPlane(store, difference, 'inline', 4);
    expect(other[5 * nk + 7]).toBeCloseTo(one(4, 5, 7) - 3 * two(4, 6, 7), 3);
    // beyond the last trace there is nothing to subtract
    expect(other[(nj - 1) * nk + 7]).toBeNaN();
    const live = (await runStep({ step: both.id, inputs, params: { by: 3 }, live: true }, store)) as Volume[];
    for (const [n, of] of [sum, difference].entries())
      expect(await readPlane(store, live[n], 'slice', 3)).toEqual(await readPlane(store, of, 'slice', 3));
    const tried = await tryOn(both, { first, second }, { by: 3 }, store, 'crossline', 2);
    expect(tried.sum).toEqual(await readPlane(store, sum, 'crossline', 2));
  });
  test('takes the second from bins and samples of its own, and refuses one in another domain', async () => {
    const store = memoryStore();
    const first = await madeVolume(store, () => 0, { name: 'One', samples: 21, first: 100, step: 4 });
    // half as many lines, turned with the first; every 8 ms; a plane, which interpolation leaves as it is
    const half: BinGrid = {
      ...TURNED,
      inline: { ...TURNED.inline, step: 2, count: 6 },
      perInline: [2 * TURNED.perInline[0], 2 * TURNED.perInline[1]],
    };
    const second = await madeVolume(store, (i, j, k) => 2 * i * 7 + j * 5 + 2 * k * 3, {
      name: 'Two',
      binGrid: half,
      samples: 11,
      first: 100,
      step: 8,
    });
    const { sum } = await tryRegion(both, { first, second }, { by: 1 }, store, { i: [3, 6], j: [2, 9], k: [1, 18] });
    for (const [i, j, k] of [
      [3, 2, 1],
      [4, 5, 10],
      [5, 8, 17],
    ])
      expect(sum[((i - 3) * 7 + j - 2) * 17 + k - 1]).toBeCloseTo(7 * i + 5 * j + 3 * k, 3);
    const deep: Volume = { ...second, domain: 'depth' };
    await expect(
      tryRegion(both, { first, second: deep }, { by: 1 }, store, { i: [0, 1], j: [0, 1], k: [0, 1] }),
    ).rejects.toThrow('Two and One are not in the same domain');
  });
});

describe('chains of live volumes', () => {
  test('are worked out without storing what lies between, follow what lies below, and are stored in their place', async () => {
    const store = memoryStore();
    const seismic = await madeVolume(store, (i, j, k) => Math.sin(k / 2 + i / 5) + j / 40, {
      name: 'Seismic',
      samples: 60,
    });
    const live = async (step: string, id: string, p: object) =>
      (await runStep({ step, inputs: { seismic: [id] }, params: p as never, live: true }, store))[0] as Volume;
    const scaled = await live('data.scale', seismic.id, { factor: 3 });
    const variance = await live('attributes.variance', scaled.id, { radius: 2 });
    expect(await store.arrayOwners()).toEqual([seismic.id]);
    const chained = await readPlane(store, variance, 'slice', 30);
    const [stored] = (await runStep(
      { step: 'attributes.variance', inputs: { seismic: [scaled.id] }, params: { radius: 2 } },
      store,
    )) as Volume[];
    const kept = await readPlane(store, stored, 'slice', 30);
    for (const [n, v] of kept.entries()) expect(chained[n]).toBeCloseTo(v, 6);
    // what lies below changes, and with it what is seen; a rebuild keeps it live
    await runStep(
      {
        step: 'data.scale',
        inputs: { seismic: [seismic.id] },
        params: { factor: 5 },
        replaces: { conditioned: scaled.id },
        live: true,
      },
      store,
    );
    expect(outOfDate(await store.list()).has(variance.id)).toBe(true);
    await rebuild(store, variance.id);
    expect(((await store.get(variance.id)) as Volume).layouts).toBeUndefined();
    await runStep(
      {
        step: 'attributes.variance',
        inputs: { seismic: [scaled.id] },
        params: { radius: 2 },
        replaces: { variance: variance.id },
      },
      store,
    );
    expect(((await store.get(variance.id)) as Volume).layouts).toBeDefined();
    await store.commit({ remove: [seismic.id] });
    const gone = (await store.get(scaled.id)) as Volume;
    await expect(readPlane(store, gone, 'inline', 0)).rejects.toThrow('what it is worked out from is gone');
  });
  test('cannot be made of a step that looks at everything at once', async () => {
    const store = memoryStore();
    const seismic = await madeVolume(store, one, { name: 'Seismic' });
    const request = { step: 'tie.wavelet', inputs: { seismic: [seismic.id] }, params: {}, live: true };
    await expect(runStep(request, store)).rejects.toThrow('cannot be kept live');
  });
});

// what threads run is the build; without one there is nothing to hold against it
const built = existsSync(fileURLToPath(new URL('../../dist/engine/thread.js', import.meta.url)));

describe.runIf(built)('on threads', () => {
  let dir: string;
  let store: Store;
  const runner = threadRunner(2, inThread(localOf));
  beforeEach(async () => {
    dir = mkdtempSync(join(tmpdir(), 'lithagon-lanes-'));
    store = await folderStore(dir, { name: 'Lanes' });
  });
  afterEach(async () => {
    await store.close?.();
    rmSync(dir, { recursive: true });
  });
  const binGrid: BinGrid = {
    ...TURNED,
    inline: { first: 1, step: 1, count: 60 },
    crossline: { first: 1, step: 1, count: 130 },
  };
  const large = () =>
    madeVolume(store, (i, j, k) => Math.sin(k / 3 + i / 7 - j / 11) + (((i * 31 + j * 17 + k * 7) % 13) - 6) / 20, {
      name: 'Large',
      binGrid,
      samples: 401,
    });

  test('a run gives what one thread gives, statistics and all', async () => {
    const seismic = await large();
    const request = { step: 'attributes.variance', inputs: { seismic: [seismic.id] }, params: { radius: 2 } };
    const parts: number[] = [];
    const [many] = (await runStep(request, store, { runner, onProgress: (p) => parts.push(p) })) as Volume[];
    const [alone] = (await runStep(request, store)) as Volume[];
    expect(many.statistics).toEqual(alone.statistics);
    expect(parts.at(-1)).toBeCloseTo(1, 6);
    const [ni, nj, nk] = shapeOf(many);
    const region = { i: [0, ni] as [number, number], j: [0, nj] as [number, number], k: [0, nk] as [number, number] };
    const [a, b] = await Promise.all([many, alone].map((volume) => readRegion(store, volume, region)));
    expect(a.length).toBe(b.length);
    expect(a.findIndex((v, n) => !Object.is(v, b[n]))).toBe(-1);
    for (const plane of ['crossline', 'slice'] as const)
      expect(await readPlane(store, many, plane, 77)).toEqual(await readPlane(store, alone, plane, 77));
  }, 60_000);
  test('a cancel leaves nothing, and the next run has its lanes', async () => {
    const seismic = await large();
    const request = { step: 'attributes.variance', inputs: { seismic: [seismic.id] }, params: { along: 'along dip' } };
    const flags = new Int32Array(new SharedArrayBuffer(4));
    const signal = flagged(flags, 0, 1);
    setTimeout(() => Atomics.store(flags, 0, 1), 150);
    await expect(runStep(request, store, { runner, signal })).rejects.toMatchObject({ name: 'AbortError' });
    expect(await store.arrayOwners()).toEqual([seismic.id]);
    const again = { ...request, params: {} };
    expect(await runStep(again, store, { runner })).toHaveLength(1);
  }, 60_000);
  test('a step that was made up here is worked on here', async () => {
    const seismic = await large();
    const request = { step: both.id, inputs: { first: [seismic.id], second: [seismic.id] }, params: {} };
    expect(await runStep(request, store, { runner })).toHaveLength(2);
  }, 60_000);
});
