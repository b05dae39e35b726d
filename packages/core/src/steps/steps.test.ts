import { afterEach, describe, expect, test } from 'vitest';
import { z } from 'zod';
import type { Volume } from '../earth/objects.ts';
import { oneVolume } from '../engine/local.ts';
import { RunningStatistics } from '../numerics/statistics.ts';
import { outOfDate } from '../project/catalogue/staleness.ts';
import { memoryStore } from '../storage/memory.ts';
import { readInlines } from '../storage/planes.ts';
import { volumeWriter } from '../storage/volumes.ts';
import { even } from '../testing/random.ts';
import { parseRecipe } from '../trail/recipe.ts';
import { runRecipe } from '../trail/runRecipe.ts';
import {
  allSteps,
  defineStep,
  describeStep,
  forgetStep,
  number,
  paramsSchema,
  registerStep,
  runStep,
  tryPlane,
} from './index.ts';

/** A small volume with waves, noise, a dead trace and a hole. */
async function madeVolume(shape: [number, number, number] = [9, 11, 40]) {
  const store = memoryStore();
  const [ni, nj, nk] = shape;
  const writer = await volumeWriter(store, 'volume-a', shape);
  const slab = new Float32Array(writer.slab * nj * nk).fill(Number.NaN);
  const random = even(7);
  for (let n = 0; n < ni * nj * nk; n++) {
    slab[n] = Math.sin(n % nk) * 3 + random();
  }
  slab.fill(Number.NaN, 4 * nj * nk, (4 * nj + 1) * nk);
  slab[50] = Number.NaN;
  await writer.write(0, slab);
  await writer.finish();
  const statistics = new RunningStatistics();
  statistics.add(slab.subarray(0, ni * nj * nk));
  const axis = (count: number) => ({ first: 1, step: 1, count });
  const volume: Volume = {
    id: 'volume-a',
    kind: 'volume',
    name: 'A',
    stage: 'data',
    revision: 'one',
    domain: 'twt',
    quantity: 'amplitude',
    unit: '',
    binGrid: { inline: axis(ni), crossline: axis(nj), origin: [0, 0], perInline: [0, 25], perCrossline: [25, 0] },
    vertical: { first: 0, step: 4, count: nk },
    layouts: writer.layouts,
    statistics: statistics.finish(),
    traces: { live: ni * nj - 1, missing: 1, duplicate: 0 },
    madeBy: {
      step: 'data.load',
      version: 1,
      params: {},
      inputs: {},
      started: '2026-01-01T00:00:00.000Z',
      tookMs: 1,
      warnings: [],
      engine: 'test',
    },
  };
  await store.commit({ put: [volume] });
  return { store, volume };
}

test('every step has a form: titles, units and ranges in its JSON Schema', () => {
  for (const step of allSteps()) {
    const { properties } = paramsSchema(step) as {
      properties: Record<string, { title?: string; description?: string; default?: unknown }>;
    };
    for (const [key, p] of Object.entries(properties)) {
      expect(p.title, `${step.id} ${key}`).toBeTruthy();
      expect(p.description, `${step.id} ${key}`).toBeTruthy();
      expect(p.default, `${step.id} ${key}`).toBeDefined();
    }
    expect(step.source).toMatch(/\d{4}/);
  }
});

test('every step says what it works out and when not to use it, and what its source is', () => {
  for (const step of allSteps()) {
    expect(step.formula, step.id).toMatch(/\w{2}|=/);
    expect(step.avoid?.length ?? 0, step.id).toBeGreaterThan(20);
    expect(step.source.length, step.id).toBeGreaterThan(10);
  }
});

describe('a step made up on the spot', () => {
  const params = z.object({
    by: number({ title: 'Factor', description: 'What samples are multiplied by.' }, { min: -10, max: 10, initial: 2 }),
  });
  const local = oneVolume<z.infer<typeof params>>('seismic', 'product', {
    quantity: 'amplitude',
    unit: '',
    halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
    evaluate: (block, p) => block.data.map((v) => v * p.by),
  });
  const times = defineStep({
    id: 'attributes.times',
    version: 1,
    stage: 'attributes',
    title: 'Times',
    summary: 'Multiplies.',
    source: 'Made up (2026)',
    reach: 'local',
    inputs: { seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude'] } },
    params,
    outputs: { product: { kind: 'volume', title: 'Product' } },
    local,
  });
  afterEach(() => forgetStep(times.id));

  test('is listed, tried, run, put in a recipe and kept with its trail, with no other file touched', async () => {
    registerStep(times);
    expect(allSteps()).toContain(times);
    expect(describeStep(times)).toMatchObject({
      title: 'Times',
      inputs: [{ role: 'seismic', needs: 'amplitude volume', optional: false }],
      params: [{ key: 'by', title: 'Factor', range: '-10 to 10', initial: '2' }],
      outputs: [{ role: 'product', kind: 'volume' }],
    });
    const { store, volume } = await madeVolume();
    const recipe = parseRecipe(
      'r',
      JSON.stringify({
        lithagon: 'recipe',
        version: 1,
        title: 'T',
        files: [],
        steps: [{ id: 'x', step: times.id, name: 'Thrice', inputs: { seismic: ['A'] }, params: { by: 3 } }],
      }),
    );
    await runRecipe(recipe, {
      store,
      crsTable: async () => [],
      open: async () => {
        throw new Error('no file');
      },
    });
    const made = (await store.list()).find((o) => o.name === 'Thrice') as Volume;
    expect(made.madeBy).toMatchObject({ step: times.id, params: { by: 3 }, inputs: { seismic: ['volume-a@one'] } });
    const from = await readInlines(store, volume, 2, 3);
    const to = await readInlines(store, made, 2, 3);
    expect([...to]).toEqual([...from.map((v) => v * 3)]);
    const tried = await tryPlane(times, { seismic: volume }, { by: 3 }, store, 'inline', 2);
    expect([...tried.values.product]).toEqual([...to]);
    // a new revision below makes it out of date; a new name does not
    await store.commit({ put: [{ ...volume, name: 'renamed' }] });
    expect(outOfDate(await store.list()).size).toBe(0);
    await store.commit({ put: [{ ...volume, revision: 'two' }] });
    expect(outOfDate(await store.list()).get(made.id)).toContain('has changed since');
  });

  test('refuses what it was not made for, by name, and leaves nothing behind', async () => {
    registerStep(times);
    const { store, volume } = await madeVolume();
    const ask = (inputs: Record<string, string[]>, p: Record<string, unknown>) =>
      runStep({ step: times.id, inputs, params: p }, store);
    await expect(ask({}, {})).rejects.toThrow('Times needs seismic.');
    await expect(ask({ seismic: [volume.id] }, { by: 99 })).rejects.toThrow(/\bby\b.* is more than/);
    await expect(ask({ seismic: [volume.id] }, { bye: 1 })).rejects.toThrow(/bye/);
    await store.commit({ put: [{ ...volume, quantity: 'impedance' }] });
    await expect(ask({ seismic: [volume.id] }, {})).rejects.toThrow('A holds impedance, and amplitude is needed');
    await expect(runStep({ step: 'no.such', inputs: {}, params: {} }, store)).rejects.toThrow(
      'There is no step called “no.such”',
    );
    expect(await store.arrayOwners()).toEqual(['volume-a']);
  });

  test('cancelled in the middle, it leaves nothing', async () => {
    registerStep(times);
    const { store, volume } = await madeVolume();
    const controller = new AbortController();
    const running = runStep({ step: times.id, inputs: { seismic: [volume.id] }, params: {} }, store, {
      signal: controller.signal,
      onProgress: () => controller.abort(),
    });
    await expect(running).rejects.toThrow('cancelled');
    expect(await store.arrayOwners()).toEqual(['volume-a']);
    expect(await store.list()).toHaveLength(1);
  });
});
