import { describe, expect, test } from 'vitest';
import type { Volume } from '../earth/objects.ts';
import { loadFile } from '../files/load.ts';
import { memorySource } from '../formats/source.ts';
import { fileContext } from '../testing/field.ts';
import { makeSegy, PLAIN_SEGY } from '../testing/segyWriter.ts';
import { memoryStore } from './memory.ts';
import { readParcel, writeParcel } from './parcel.ts';
import { readPlane } from './planes.ts';
import type { Store } from './store.ts';
import { PLANES } from './volumes.ts';

const spec = { ...PLAIN_SEGY, format: 5, inlines: [1, 2, 3, 4, 5, 6, 7], samples: 40 };

async function project(): Promise<Store> {
  const store = memoryStore('Small');
  const bytes = makeSegy(spec, (n) => Array.from({ length: n }, (_, k) => Math.sin(k) * 100));
  await loadFile(memorySource('a.sgy', bytes), { domain: 'twt', quantity: 'amplitude', name: 'A' }, fileContext(store));
  await loadFile(
    memorySource('heads.csv', new TextEncoder().encode('well,x_m,y_m,kb_m\nQN-9,1050,2050,25\n')),
    {},
    fileContext(store),
  );
  return store;
}

async function open(parcel: Blob) {
  const stores: Store[] = [];
  const reading = readParcel('small.parcel', parcel, async ({ name }) => {
    stores.push(memoryStore(name));
    return stores[0];
  });
  return { reading, stores };
}

describe('a parcel', () => {
  test('opens as the project that it was packed from: objects, ledger, and every plane of its volumes', async () => {
    const store = await project();
    const { reading, stores } = await open(await writeParcel(store));
    expect((await reading).name).toBe('Small');
    const [copy] = stores;
    // as JSON: a field that is undefined is a field that is not there
    expect(await copy.list()).toEqual(JSON.parse(JSON.stringify(await store.list())));
    expect(await copy.ledger()).toEqual(await store.ledger());
    const volume = (await store.list()).find((o): o is Volume => o.kind === 'volume') as Volume;
    for (const plane of PLANES)
      expect(await readPlane(copy, volume, plane, 3)).toEqual(await readPlane(store, volume, plane, 3));
  });
  test('cut short, damaged, or no parcel at all: one sentence, and no object appears', async () => {
    const whole = new Uint8Array(await (await writeParcel(await project())).arrayBuffer());
    const damaged = whole.slice();
    damaged[Math.floor(whole.length / 2)] ^= 0xff;
    for (const [bytes, says] of [
      [whole.slice(0, whole.length - 300), /no zip file, or was cut short/],
      [whole.slice(0, 1000), /no zip file, or was cut short/],
      [damaged, /is damaged|cannot be read/],
      [new TextEncoder().encode('not a parcel'), /no zip file/],
    ] as const) {
      const { reading, stores } = await open(new Blob([bytes]));
      await expect(reading).rejects.toThrow(says);
      for (const store of stores) expect(await store.list()).toEqual([]);
    }
  });
  test('cancelled while it is opened, it leaves no object', async () => {
    const parcel = await writeParcel(await project());
    const controller = new AbortController();
    const store = memoryStore();
    await expect(
      readParcel('p', parcel, async () => store, {
        signal: controller.signal,
        onProgress: () => controller.abort(),
      }),
    ).rejects.toThrow('cancelled');
    expect(await store.list()).toEqual([]);
  });
});
