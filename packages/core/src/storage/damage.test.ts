import { beforeEach, describe, expect, test } from 'vitest';
import type { Volume } from '../earth/objects.ts';
import { exportParts } from '../files/out/export.ts';
import '../steps/index.ts';
import { runStep } from '../steps/run.ts';
import { madeHorizon } from '../testing/objects.ts';
import { madeVolume } from '../testing/volume.ts';
import { rebuild } from '../trail/rebuild.ts';
import { readWhole } from './arrays.ts';
import { damagesOf } from './damage.ts';
import { chunkKey } from './keys.ts';
import { memoryStore } from './memory.ts';
import { writeParcel } from './parcel.ts';
import { readInlines, readPlane, shapeOf } from './planes.ts';
import { storedOf } from './regions.ts';
import type { Store } from './store.ts';

let store: Store;
let volume: Volume;
beforeEach(async () => {
  store = memoryStore();
  volume = await madeVolume(store, (i, j, k) => 100 * i + 10 * j + Math.sin(k));
});
/** Make one chunk as long as this. */
async function cut(key: string, bytes: number) {
  const whole = (await store.readBytes(key)) ?? new Uint8Array();
  await store.writeBytes(key, bytes <= whole.length ? whole.slice(0, bytes) : new Uint8Array(bytes));
}

describe.each([0, 1, 100, 1e6])('a chunk of %i bytes', (bytes) => {
  test('is not read as data: the object and the part are named, by export and by attributes too', async () => {
    const key = chunkKey(storedOf(volume).inline, [0, 0, 0]);
    await cut(key, bytes);
    await expect(readPlane(store, volume, 'inline', 0)).rejects.toMatchObject({
      code: 'damaged',
      object: volume.name,
      message: expect.stringContaining(`has ${bytes} bytes instead of`),
    });
    await expect(readInlines(store, volume, 0, 2)).rejects.toMatchObject({ code: 'damaged' });
    await expect(
      (async () => {
        for await (const _ of exportParts(store, volume, 'sgy', null, {}));
      })(),
    ).rejects.toMatchObject({ code: 'damaged' });
    await expect(
      runStep({ step: 'attributes.variance', inputs: { seismic: [volume.id] }, params: {} }, store),
    ).rejects.toMatchObject({ code: 'damaged' });
    await expect(writeParcel(store)).rejects.toMatchObject({ code: 'damaged' });
    expect((await store.list()).map((o) => o.name)).toEqual([volume.name]);
  });
});

test('crosslines and slices whose copy is damaged are put together from the inlines', async () => {
  const [ni, , nk] = shapeOf(volume);
  const before = await readPlane(store, volume, 'crossline', 4);
  for (const plane of ['crossline', 'slice'] as const) {
    const ref = storedOf(volume)[plane];
    if (ref) await cut(chunkKey(ref, [0, 0, 0]), 5);
  }
  expect(await readPlane(store, volume, 'crossline', 4)).toEqual(before);
  expect((await readPlane(store, volume, 'slice', 2))[0]).toBe(Math.fround(Math.sin(2)));
  expect(before).toHaveLength(ni * nk);
});

test('what was computed is made again from what it was made from, and then whole', async () => {
  const [made] = (await runStep(
    { step: 'data.balance', name: 'Gained', inputs: { seismic: [volume.id] }, params: {} },
    store,
  )) as Volume[];
  const before = await readPlane(store, made, 'inline', 1);
  await cut(chunkKey(storedOf(made).inline, [0, 0, 0]), 40);
  const [found] = await damagesOf(store, made);
  expect(found.sentence).toMatch(/The data of Gained are damaged: a part.*Rebuild it to have it whole\./);
  expect(await damagesOf(store, volume)).toEqual([]);
  expect(await rebuild(store, made.id)).toEqual(['Gained']);
  const again = (await store.get(made.id)) as Volume;
  expect(await damagesOf(store, again)).toEqual([]);
  expect(await readPlane(store, again, 'inline', 1)).toEqual(before);
  // whole and in date, it is left alone
  expect(await rebuild(store, made.id)).toEqual([]);
});

test('a horizon whose values are gone is named', async () => {
  const horizon = await madeHorizon(store, 'Brack', 'twt', (i) => 900 + i);
  await store.removeArrays(`${horizon.id}/`);
  await expect(readWhole(store, horizon.values)).rejects.toThrow('The data of Brack are damaged: a part is missing.');
});
