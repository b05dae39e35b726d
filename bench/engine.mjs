// What the measurements of the engine share: a made-up volume, arithmetic on so many threads, a store that counts its reads.
import { isMainThread, parentPort, Worker } from 'node:worker_threads';
import { layoutFor, PLANES, volumeWriter } from '@lithagon/core';
import { noise } from './support.mjs';

/** A volume of so many inlines, crosslines and samples, kept where `layouts` say. */
export function volumeOf(shape) {
  const [ni, nj, nk] = shape;
  return {
    id: 'seismic',
    kind: 'volume',
    name: 'Seismic',
    revision: '1',
    stage: 'data',
    domain: 'twt',
    quantity: 'amplitude',
    unit: '',
    binGrid: {
      inline: { first: 1, step: 1, count: ni },
      crossline: { first: 1, step: 1, count: nj },
      origin: [0, 0],
      perInline: [0, 25],
      perCrossline: [25, 0],
    },
    vertical: { first: 0, step: 4, count: nk },
    layouts: Object.fromEntries(PLANES.map((plane) => [plane, layoutFor('seismic', shape, plane)])),
    statistics: { min: -1, max: 1, mean: 0, rms: 0.58, count: ni * nj * nk, nulls: 0, absolute: {}, percentiles: {} },
    traces: { live: ni * nj, missing: 0, duplicate: 0 },
    madeBy: {
      step: 'data.load',
      version: 1,
      params: {},
      inputs: {},
      started: '2026-01-01T00:00:00.000Z',
      tookMs: 0,
      warnings: [],
      engine: 'bench',
    },
  };
}

/** A volume of noise put in a store. */
export async function madeVolume(store, [ni, nj, nk]) {
  const writer = await volumeWriter(store, 'seismic', [ni, nj, nk]);
  const random = noise(5);
  for (let i = 0; i < ni; i += writer.slab) {
    const slab = new Float32Array(writer.slab * nj * nk).fill(Number.NaN);
    const lines = Math.min(writer.slab, ni - i);
    for (let n = 0; n < lines * nj * nk; n++) slab[n] = random();
    await writer.write(i, slab);
  }
  await writer.finish();
  const volume = volumeOf([ni, nj, nk]);
  await store.commit({ put: [volume] });
  return volume;
}

/** A store that counts the samples that are read of it. */
export function countReads(store) {
  let bytes = 0;
  return {
    store: {
      ...store,
      door: undefined,
      readBytes: async (key) => {
        const read = await store.readBytes(key);
        if (key.startsWith('seismic/')) bytes += read?.byteLength ?? 0;
        return read;
      },
    },
    samples: () => bytes / 4,
  };
}

/** Nothing but sums and products. */
function sums(count) {
  const data = new Float64Array(4096).map((_, n) => n % 17);
  let total = 0;
  for (let n = 0; n < count; n++) {
    const v = data[n & 4095];
    total += v * 1.000001 + (total % 3);
  }
  return total;
}

/** Seconds that so many threads take for the same arithmetic, shared out among them. */
export async function arithmetic(threads) {
  const workers = await Promise.all(
    Array.from(
      { length: threads },
      () =>
        new Promise((resolve) => {
          const worker = new Worker(new URL(import.meta.url));
          worker.once('message', () => resolve(worker));
        }),
    ),
  );
  const began = performance.now();
  await Promise.all(
    workers.map(
      (worker) =>
        new Promise((resolve) => {
          worker.once('message', resolve);
          worker.postMessage(6e7 / threads);
        }),
    ),
  );
  const took = (performance.now() - began) / 1000;
  for (const worker of workers) await worker.terminate();
  return took;
}

if (!isMainThread && parentPort) {
  sums(1e6);
  parentPort.postMessage('ready');
  parentPort.on('message', (count) => parentPort.postMessage(sums(count)));
}
