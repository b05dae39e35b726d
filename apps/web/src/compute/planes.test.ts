import type { StoredVolume, Volume } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';

/** A worker that answers when it is told to. */
const asked: { what: string; answer(data: Float32Array): void; fail(message: string): void }[] = [];
const stopped: string[] = [];
const remote = () => {
  const ask = (what: string) =>
    new Promise((resolve) => {
      asked.push({
        what,
        answer: (data) => resolve({ ok: true, value: what.startsWith('trial') ? { data, evaluateMs: 12 } : data }),
        fail: (message) => resolve({ ok: false, error: { code: 'storage', message } }),
      });
    });
  return {
    plane: (_: string, __: Volume, plane: string, index: number) => ask(`${plane} ${index}`),
    coarsePlane: (_: string, __: Volume, plane: string, index: number) => ask(`coarse ${plane} ${index}`),
    trial: (_: number, __: string, step: string, ...[, , , plane, index]: [object, object, Volume, string, number]) =>
      ask(`trial ${step} ${plane} ${index}`),
    array: (_: string, ref: { key: string }) => ask(`array ${ref.key}`),
  };
};
vi.mock('./pool', async () => {
  const { LithagonError } = await import('@lithagon/core');
  return {
    forViews: remote,
    tryOut: (work: (r: ReturnType<typeof remote>, task: number) => Promise<{ ok: boolean; value?: unknown }>) => ({
      done: work(remote(), 1).then((o) => o.value),
      stop: () => stopped.push('stopped'),
    }),
    unwrap: (o: { ok: boolean; value?: unknown; error?: { code: string; message: string } }) => {
      if (o.ok) return o.value;
      throw new LithagonError('storage', o.error?.message ?? '', {});
    },
  };
});
const { planeKey, planeNow, readArray, readFirstLook, readPlane, trialTook } = await import('./planes');

let volume: StoredVolume;
beforeAll(async () => {
  volume = (await layeredField()).seismic;
});
let revision = 0;
beforeEach(() => {
  asked.length = 0;
  volume = { ...volume, revision: `r${revision++}` };
});
const plane = (n: number) => new Float32Array(n);

describe('planes for views', () => {
  test('are read once, though two views ask for one at a time, and are there at once from then on', async () => {
    const [a, b] = [readPlane('p', volume, 'inline', 3), readPlane('p', volume, 'inline', 3)];
    expect(asked.map((q) => q.what)).toEqual(['inline 3']);
    const data = plane(10);
    asked[0].answer(data);
    expect(await a).toBe(data);
    expect(await b).toBe(data);
    expect(planeNow(planeKey(volume, 'inline', 3))).toBe(data);
    expect(await readPlane('p', volume, 'inline', 3)).toBe(data);
    expect(asked).toHaveLength(1);
  });
  test('of another revision, line, plane or trial are others', () => {
    const live = { step: 'attributes.variance', params: { windowMs: 36 }, inputs: { seismic: ['seismic'] } };
    const keys = [
      planeKey(volume, 'inline', 3),
      planeKey(volume, 'inline', 4),
      planeKey(volume, 'crossline', 3),
      planeKey({ ...volume, revision: 'other' }, 'inline', 3),
      planeKey(volume, 'inline', 3, live),
      planeKey(volume, 'inline', 3, { ...live, params: { windowMs: 40 } }),
    ];
    expect(new Set(keys).size).toBe(keys.length);
  });
  test('that could not be read are asked for again, and say why', async () => {
    const first = readPlane('p', volume, 'inline', 5);
    asked[0].fail('A part of the data is missing.');
    await expect(first).rejects.toThrow('A part of the data is missing.');
    const second = readPlane('p', volume, 'inline', 5);
    expect(asked).toHaveLength(2);
    asked[1].answer(plane(1));
    expect(await second).toHaveLength(1);
  });
  test('are let go of, the longest unused first, before they take too much room', async () => {
    const big = 30 << 18; // floats of 30 MB
    for (let n = 0; n < 8; n++) {
      const read = readPlane('p', volume, 'slice', n);
      asked[n].answer(plane(big));
      await read;
      // the first is looked at again and again
      expect(planeNow(planeKey(volume, 'slice', 0))).toBeDefined();
    }
    expect(planeNow(planeKey(volume, 'slice', 7))).toBeDefined();
    expect(planeNow(planeKey(volume, 'slice', 0))).toBeDefined();
    expect(planeNow(planeKey(volume, 'slice', 1))).toBeUndefined();
  });
  test('have a first look only where the volume keeps one', async () => {
    expect(await readFirstLook('p', volume, 'inline', 2)).toBeNull();
    expect(asked).toEqual([]);
    const { inline, crossline, slice } = volume.layouts;
    if (!crossline || !slice) throw new Error('the field has all copies');
    const large = { ...volume, layouts: { ...volume.layouts, coarse: { by: 4, inline, crossline, slice } } };
    const look = readFirstLook('p', large, 'inline', 2);
    asked[0].answer(plane(4));
    expect(await look).toHaveLength(4);
    // a first look never stands for the whole
    expect(planeNow(planeKey(large, 'inline', 2))).toBeUndefined();
  });
});

test('a trial remembers how long it took, by step, parameters and inputs', async () => {
  const live = { step: 'attributes.variance', params: { windowMs: 36 }, inputs: { seismic: ['seismic'] } };
  expect(trialTook(live)).toBeUndefined();
  const read = readPlane('p', volume, 'inline', 1, live);
  expect(asked[0].what).toBe('trial attributes.variance inline 1');
  asked[0].answer(plane(2));
  await read;
  expect(trialTook(live)).toBe(12);
  expect(trialTook({ ...live, params: { windowMs: 40 } })).toBeUndefined();
});

test('a trial with other parameters stops those before it; what is stored is not stopped', async () => {
  const live = { step: 'attributes.variance', params: { windowMs: 20 }, inputs: { seismic: ['seismic'] } };
  stopped.length = 0;
  const first = readPlane('p', volume, 'inline', 1, live);
  const beside = readPlane('p', volume, 'inline', 2, live);
  const whole = readPlane('p', volume, 'inline', 3);
  expect(stopped).toHaveLength(0);
  const second = readPlane('p', volume, 'inline', 1, { ...live, params: { windowMs: 24 } });
  expect(stopped).toHaveLength(2);
  for (const { answer } of asked) answer(plane(1));
  await Promise.all([first, beside, whole, second]);
});

test('arrays are read once by their key, and again after a failure', async () => {
  const ref = volume.layouts.inline;
  const first = readArray('p', 'k1', ref);
  asked[0].fail('gone');
  await expect(first).rejects.toThrow('gone');
  const again = [readArray('p', 'k1', ref), readArray('p', 'k1', ref)];
  expect(asked).toHaveLength(2);
  asked[1].answer(plane(3));
  expect((await Promise.all(again)).map((d) => d.length)).toEqual([3, 3]);
});
