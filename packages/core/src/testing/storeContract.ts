import { describe, expect, test } from 'vitest';
import type { EarthObject } from '../earth/objects.ts';
import { readChunk, writeWhole } from '../storage/arrays.ts';
import { type Store, sweep } from '../storage/store.ts';
import { MADE, madeHorizon } from './objects.ts';

export const madeWell = (id: string, name: string): EarthObject => ({
  id,
  kind: 'well',
  name,
  stage: 'wells',
  revision: 'r',
  x: 1,
  y: 2,
  kbM: 25,
  madeBy: MADE,
});

/** What every store must do, wherever it keeps a project. `open` gives an empty project called A each time. */
export function storeContract(kept: string, open: () => Promise<Store>): void {
  describe(`a project in ${kept}`, () => {
    test('objects come and go by transactions', async () => {
      const store = await open();
      await store.commit({
        put: [madeWell('w1', 'QN-1'), madeWell('w2', 'QN-2')],
        ledger: [{ at: 'now', what: 'in', object: 'w1', name: 'QN-1', note: '' }],
      });
      expect((await store.list()).map((o) => o.name)).toEqual(['QN-1', 'QN-2']);
      await store.commit({ put: [madeWell('w1', 'renamed')], remove: ['w2'], facts: { name: 'B' } });
      expect((await store.list()).map((o) => o.name)).toEqual(['renamed']);
      expect((await store.facts()).name).toBe('B');
      expect(await store.get('w2')).toBeNull();
      expect(await store.ledger()).toHaveLength(1);
    });
    test('what was given is not what is kept: changing it later changes nothing', async () => {
      const store = await open();
      const object = madeWell('w1', 'QN-1');
      await store.commit({ put: [object] });
      object.name = 'changed outside';
      (await store.list())[0].name = 'changed outside';
      expect((await store.get('w1'))?.name).toBe('QN-1');
    });
    test('arrays are kept to the byte and removed by prefix', async () => {
      const store = await open();
      const data = Float32Array.of(1.5, Number.NaN, -3);
      const ref = await writeWhole(store, 'w1/values', [3], data, ['n']);
      expect([...(await readChunk(store, ref, [0]))]).toEqual([1.5, Number.NaN, -3]);
      await store.removeArrays('w1/');
      await expect(readChunk(store, ref, [0])).rejects.toMatchObject({ code: 'storage' });
    });
    test('arrays that no object refers to are swept', async () => {
      const store = await open();
      const { values } = await madeHorizon(store, 'H', 'twt', () => 900);
      await writeWhole(store, 'orphan/a', [1], new Float32Array(1), ['n']);
      expect(await sweep(store)).toBe(1);
      expect(await store.arrayOwners()).toEqual([values.key.split('/')[0]]);
    });
    test('a read of what was never written is null, and of part of a prefix leaves its neighbours', async () => {
      const store = await open();
      await store.writeBytes('w1/a', Uint8Array.of(1));
      await store.writeBytes('w10/a', Uint8Array.of(2));
      expect(await store.readBytes('w1/b')).toBeNull();
      await store.removeArrays('w1/');
      expect(await store.readBytes('w1/a')).toBeNull();
      expect([...((await store.readBytes('w10/a')) ?? [])]).toEqual([2]);
    });
    test('a view of a larger buffer is kept as itself, not with its buffer', async () => {
      const store = await open();
      const buffer = Uint8Array.from({ length: 100 }, (_, n) => n);
      await store.writeBytes('w1/view', buffer.subarray(10, 13));
      buffer.fill(0);
      expect([...((await store.readBytes('w1/view')) ?? [])]).toEqual([10, 11, 12]);
    });
  });
}
