import { beforeEach, expect, test } from 'vitest';
import { toMap } from '../../earth/binGrid.ts';
import type { Horizon, Polygon } from '../../earth/objects.ts';
import { readWhole } from '../../storage/arrays.ts';
import { memoryStore } from '../../storage/memory.ts';
import type { Store } from '../../storage/store.ts';
import { MADE, madeHorizon, TURNED } from '../../testing/objects.ts';
import { runStep } from '../run.ts';
import '../index.ts';

const [NI, NJ] = [TURNED.inline.count, TURNED.crossline.count];
let store: Store;
let horizon: Horizon;
beforeEach(async () => {
  store = memoryStore('Patches');
  horizon = await madeHorizon(store, 'Top', 'twt', (i, j) => 1000 + 2 * i + 3 * j, TURNED);
  await store.commit({ put: [horizon] });
});
const valuesOf = (h: Horizon) => readWhole(store, h.values);
/** An area of some bins, a little larger than they. */
const areaOf = (i0: number, i1: number, j0: number, j1: number): Polygon => ({
  id: 'area',
  kind: 'polygon',
  name: 'Area',
  revision: '1',
  stage: 'data',
  madeBy: MADE,
  closed: true,
  rings: [
    [
      toMap(TURNED, i0 - 0.4, j0 - 0.4),
      toMap(TURNED, i1 + 0.4, j0 - 0.4),
      toMap(TURNED, i1 + 0.4, j1 + 0.4),
      toMap(TURNED, i0 - 0.4, j1 + 0.4),
      toMap(TURNED, i0 - 0.4, j0 - 0.4),
    ],
  ],
});

test('a horizon is parted along an area, and put together again it is what it was', async () => {
  await store.commit({ put: [areaOf(2, 5, 3, 6)] });
  const [inside, outside] = (await runStep(
    { step: 'interpret.split', inputs: { horizon: [horizon.id], area: ['area'] }, params: {} },
    store,
  )) as Horizon[];
  const [a, b] = [await valuesOf(inside), await valuesOf(outside)];
  expect(a.filter((v) => !Number.isNaN(v))).toHaveLength(16);
  for (let n = 0; n < NI * NJ; n++) expect(Number.isNaN(a[n])).toBe(!Number.isNaN(b[n]));
  expect(inside.range).toEqual([1000 + 4 + 9, 1000 + 10 + 18]);
  const [merged] = (await runStep(
    { step: 'interpret.merge', inputs: { first: [inside.id], second: [outside.id], third: [] }, params: { apart: 10 } },
    store,
  )) as Horizon[];
  expect(await valuesOf(merged)).toEqual(await valuesOf(horizon));
  expect(merged.filled).toBe(1);
});

test('of patches that overlap the first holds, and where they differ it is told', async () => {
  const other = await madeHorizon(store, 'Other', 'twt', (i, j) => 1020 + 2 * i + 3 * j, TURNED);
  await store.commit({ put: [other] });
  const run = (first: string, second: string) =>
    runStep(
      { step: 'interpret.merge', inputs: { first: [first], second: [second], third: [] }, params: { apart: 10 } },
      store,
    ) as Promise<Horizon[]>;
  const [merged] = await run(other.id, horizon.id);
  expect(await valuesOf(merged)).toEqual(await valuesOf(other));
  expect(merged.madeBy.warnings[0]).toContain(`in ${NI * NJ} bins, and differs there by more than 10 in ${NI * NJ}`);
});

test('an area beside the horizon, and horizons of two domains, are refused in words', async () => {
  const far = {
    ...areaOf(2, 5, 3, 6),
    rings: [
      [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 0],
      ],
    ],
  } as Polygon;
  const deep = await madeHorizon(store, 'Deep', 'depth', () => 2000, TURNED);
  await store.commit({ put: [far, deep] });
  await expect(
    runStep({ step: 'interpret.split', inputs: { horizon: [horizon.id], area: ['area'] }, params: {} }, store),
  ).rejects.toThrow('Area holds no bin of Top');
  await expect(
    runStep(
      { step: 'interpret.merge', inputs: { first: [horizon.id], second: [deep.id], third: [] }, params: { apart: 1 } },
      store,
    ),
  ).rejects.toThrow('Deep and Top are not both in one domain');
});
