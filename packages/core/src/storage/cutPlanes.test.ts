import { expect, test } from 'vitest';
import type { Volume } from '../earth/objects.ts';
import '../steps/index.ts';
import { runStep } from '../steps/run.ts';
import { madeVolume } from '../testing/volume.ts';
import { memoryStore } from './memory.ts';
import { readInlines, readPlane, shapeOf } from './planes.ts';
import type { Store } from './store.ts';
import { cutPlanes, PLANES, uncutPlanes } from './volumes.ts';

const at = (i: number, j: number, k: number) => (i === 2 && j === 3 ? Number.NaN : 100 * i + 10 * j + Math.sin(k));

/** A volume as a file leaves it: with its copy by inlines only. */
async function uncut(store: Store = memoryStore()) {
  const whole = await madeVolume(store, at);
  const volume: Volume = { ...whole, layouts: { inline: whole.layouts.inline } };
  for (const plane of ['crossline', 'slice']) await store.removeArrays(`${whole.id}/${plane}/`);
  await store.commit({ put: [volume] });
  return { store, volume };
}

test('a volume that is not cut shows any plane, put together from its inlines', async () => {
  const { store, volume } = await uncut();
  expect(uncutPlanes(volume)).toEqual(['crossline', 'slice']);
  const [ni, nj, nk] = shapeOf(volume);
  const crossline = await readPlane(store, volume, 'crossline', 3);
  expect(crossline.length).toBe(ni * nk);
  const slice = await readPlane(store, volume, 'slice', 7);
  expect(slice.length).toBe(ni * nj);
  for (let i = 0; i < ni; i++) {
    expect(crossline[i * nk + 5]).toBe(Math.fround(at(i, 3, 5)));
    expect(slice[i * nj + 1]).toBe(Math.fround(at(i, 1, 7)));
  }
});

test('cut, it shows the same planes; its samples, revision and what people call it stay', async () => {
  const { store, volume } = await uncut();
  const before = await Promise.all(PLANES.map((plane) => readPlane(store, volume, plane, 4)));
  // a rename while it is being cut is kept
  const cutting = cutPlanes(store, volume);
  await store.commit({ put: [{ ...volume, name: 'Renamed meanwhile' }] });
  const cut = await cutting;
  const now = (await store.get(volume.id)) as Volume;
  expect(now).toEqual(cut);
  expect(now.name).toBe('Renamed meanwhile');
  expect(now.revision).toBe(volume.revision);
  expect(uncutPlanes(now)).toEqual([]);
  expect(await Promise.all(PLANES.map((plane) => readPlane(store, now, plane, 4)))).toEqual(before);
  // nothing is left to do
  expect(await cutPlanes(store, now)).toBe(now);
});

test('stopped, or without its volume at the end, it leaves the copy by inlines alone', async () => {
  const { store, volume } = await uncut();
  const keys: string[] = [];
  const watched: Store = {
    ...store,
    writeBytes: async (key, bytes) => {
      keys.push(key);
      await store.writeBytes(key, bytes);
    },
  };
  const stop = new AbortController();
  stop.abort();
  await expect(cutPlanes(watched, volume, stop.signal)).rejects.toMatchObject({ name: 'AbortError' });
  expect(keys.length).toBeGreaterThan(0);
  for (const key of keys) expect(await store.readBytes(key)).toBeNull();
  expect(await store.get(volume.id)).toEqual(volume);

  keys.length = 0;
  const cutting = cutPlanes(watched, volume);
  await store.commit({ remove: [volume.id] });
  expect(await cutting).toBeNull();
  expect(keys.length).toBeGreaterThan(2);
  for (const key of keys) expect(await store.readBytes(key)).toBeNull();
  expect((await readInlines(store, volume, 0, 1))[5]).toBe(Math.fround(at(0, 0, 5)));
});

test('a step that goes slice by slice gives the same from a volume that is not cut', async () => {
  const run = async ({ store, volume }: { store: Store; volume: Volume }) => {
    const request = { step: 'data.footprint', params: {}, inputs: { seismic: [volume.id] } };
    const made = (await runStep(request, store)) as Volume[];
    expect(made.map((v) => uncutPlanes(v))).toEqual([[], []]);
    expect((await store.arrayOwners()).sort()).toEqual([volume.id, ...made.map((v) => v.id)].sort());
    return Promise.all(made.map((v) => readPlane(store, v, 'slice', 3)));
  };
  const whole = memoryStore();
  const cut = await run({ store: whole, volume: await madeVolume(whole, at) });
  expect(await run(await uncut())).toEqual(cut);
});
