import { describe, expect, test } from 'vitest';
import { toMap } from '../earth/binGrid.ts';
import type { Horizon, Polygon, ResultTable } from '../earth/objects.ts';
import { outOfDate } from '../project/catalogue/staleness.ts';
import { newDrawn } from '../project/given.ts';
import { runStep } from '../steps/index.ts';
import { readWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import { type Store, sweep } from '../storage/store.ts';
import { MADE, madeHorizon, named, TURNED } from '../testing/objects.ts';
import { rebuild, rebuildOrder } from './rebuild.ts';
import { parseRecipe } from './recipe.ts';
import { runRecipe } from './runRecipe.ts';
import { recipeOf } from './writeRecipe.ts';

const corners = [
  [0, 0],
  [0, 14],
  [11, 14],
  [11, 0],
  [0, 0],
].map(([i, j]) => toMap(TURNED, i, j));

/** Two horizons in depth, an area, and the volumes between them; the top was closed from one with a gap. */
async function project(): Promise<Store> {
  const store = memoryStore();
  const top = await madeHorizon(store, 'Top', 'twt', (i, j) => (i === 5 && j === 5 ? Number.NaN : 900 + i));
  const base = await madeHorizon(store, 'Base', 'depth', () => 1200);
  const area = newDrawn<Polygon>({ kind: 'polygon', name: 'Area', closed: true, rings: [corners] });
  await store.commit({
    put: [
      area,
      {
        id: 'model',
        kind: 'velocity model',
        name: 'Model',
        revision: 'm1',
        stage: 'depth',
        madeBy: MADE,
        waterVelocity: 1490,
        // one law from the datum down
        layers: [{ base: '', v0: 2000, k: 0.4, rms: 0, points: 0 }],
      },
    ],
  });
  await runStep({ step: 'interpret.close', name: 'Top', inputs: { horizon: [top.id] }, params: {} }, store);
  const closed = (await store.list()).find((o) => o.madeBy.step === 'interpret.close') as Horizon;
  await store.commit({ put: [{ ...closed, name: 'Top closed' }] });
  await store.commit({ put: [{ ...(await named<Horizon>(store, 'Top')), name: 'Top tracked' }] });
  await store.commit({ put: [{ ...(await named<Horizon>(store, 'Top closed')), name: 'Top' }] });
  await runStep(
    {
      step: 'depth.horizon',
      name: 'Top in depth',
      inputs: { horizon: [closed.id], model: ['model'] },
      params: {},
    },
    store,
  );
  const depth = await named<Horizon>(store, 'Top in depth');
  const [contacts] = await runStep(
    { step: 'volumes.contacts', name: 'Contacts', inputs: {}, params: { source: 'typed', owcM: 1150 } },
    store,
  );
  await runStep(
    {
      step: 'volumes.inPlace',
      name: 'Volumes',
      inputs: { top: [depth.id], base: [base.id], area: [area.id], contacts: [contacts.id] },
      params: { averages: 'typed' },
    },
    store,
  );
  return store;
}

const gross = async (store: Store) => {
  const table = await named<ResultTable>(store, 'Volumes');
  return Number(table.records?.[0].grossRockVolume_m3);
};

describe('what is out of date', () => {
  test('is made again in order, in its place: ids, names and colours stay, values follow', async () => {
    const store = await project();
    const before = await gross(store);
    const model = await named(store, 'Model');
    if (model.kind !== 'velocity model') throw new Error('no model');
    await store.commit({ put: [{ ...(await named<Horizon>(store, 'Top in depth')), color: '#123456' }] });
    expect(outOfDate(await store.list()).size).toBe(0);
    // slower rock: the top comes up
    await store.commit({ put: [{ ...model, revision: 'm2', layers: [{ ...model.layers[0], v0: 1900 }] }] });
    const order = rebuildOrder(await store.list()).map((o) => o.name);
    expect(order.indexOf('Top in depth')).toBeLessThan(order.indexOf('Volumes'));
    expect(order).not.toContain('Top');
    const made = await rebuild(store, undefined);
    expect(made.slice(0, 1)).toEqual(['Top in depth']);
    expect(outOfDate(await store.list()).size).toBe(0);
    const depth = await named<Horizon>(store, 'Top in depth');
    expect(depth.color).toBe('#123456');
    expect(await gross(store)).toBeGreaterThan(before * 1.02);
    expect(await rebuild(store, undefined)).toEqual([]);
  });
  test('one object alone is brought up to date with what it rests on, and no more', async () => {
    const store = await project();
    await store.commit({ put: [{ ...(await named(store, 'Model')), revision: 'm2' }] });
    const depth = await named(store, 'Top in depth');
    expect(await rebuild(store, depth.id)).toEqual(['Top in depth']);
    expect([...outOfDate(await store.list()).keys()]).not.toContain(depth.id);
    expect(outOfDate(await store.list()).has((await named(store, 'Volumes')).id)).toBe(true);
  });
  test('both outputs of one run are made again together', async () => {
    const store = await project();
    await store.commit({ put: [{ ...(await named(store, 'Model')), revision: 'm2' }] });
    await rebuild(store, undefined);
    const objects = await store.list();
    expect(objects.filter((o) => o.kind === 'map')).toHaveLength(1);
    expect(objects.filter((o) => o.madeBy.step === 'depth.horizon')).toHaveLength(2);
  });
  test('arrays of the new run are used, those of the old are swept, and none that is needed goes', async () => {
    const store = await project();
    await store.commit({ put: [{ ...(await named(store, 'Model')), revision: 'm2' }] });
    await rebuild(store, undefined);
    const depth = await named<Horizon>(store, 'Top in depth');
    expect(depth.values.key.startsWith(`${depth.id}/`)).toBe(false);
    expect(await sweep(store)).toBeGreaterThan(0);
    expect((await readWhole(store, depth.values)).some((v) => v > 0)).toBe(true);
  });
  test('what it was made from is gone: a sentence by name, and everything stays', async () => {
    const store = await project();
    const before = await gross(store);
    await store.commit({ remove: ['model'] });
    await expect(rebuild(store, undefined)).rejects.toThrow('Top in depth cannot be made again');
    expect(await gross(store)).toBe(before);
  });
});

test('a trail written out as a recipe makes the same volume in another project', async () => {
  const store = await project();
  const recipe = recipeOf(await store.list(), await named(store, 'Volumes'));
  expect(recipe.steps.map((s) => s.step)).toEqual([
    'interpret.close',
    'depth.horizon',
    'volumes.contacts',
    'volumes.inPlace',
  ]);
  expect(recipe.given.map((g) => g.name)).toEqual(['Area']);
  const other = memoryStore();
  // what would come from files
  await madeHorizon(other, 'Top tracked', 'twt', (i, j) => (i === 5 && j === 5 ? Number.NaN : 900 + i));
  await madeHorizon(other, 'Base', 'depth', () => 1200);
  await other.commit({ put: [await named(store, 'Model')] });
  await runRecipe(parseRecipe('r', JSON.stringify(recipe)), {
    store: other,
    crsTable: async () => [],
    open: async () => {
      throw new Error('no file is named');
    },
  });
  expect(await gross(other)).toBeCloseTo(await gross(store), 3);
});
