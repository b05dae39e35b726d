// The scan for faults: what a sample costs by how large the planes are and how many samples there are, beside the same means taken line
// by line; and a run of fault strength over 14 million samples stored in a folder, on two threads.
import { join } from 'node:path';
import { inThread, localOf, runStep } from '@lithagon/core';
import { folderStore, threadRunner } from '@lithagon/core/node';
import { loadKernels, roomIn, slantedMeans, slantedMeansTwin, slantedRoom } from '@lithagon/kernels';
import { madeVolume } from './engine.mjs';
import { noise, timed } from './support.mjs';

const [WIDTH, SLOPE] = [240, 0.3];

/** Nanoseconds a sample of means over `half` rows each way, by the kernel and line by line. */
async function cost(kernels, rows, half) {
  const room = roomIn(kernels);
  const count = rows * WIDTH;
  const [image, out] = [room.take(count), room.take(count)];
  const scratch = room.take(slantedRoom(rows, WIDTH, SLOPE, half));
  const values = Float32Array.from({ length: count }, noise(3));
  room.floats(image, count).set(values);
  const of = { rows, width: WIDTH, stride: WIDTH, first: 0, low: 0, high: rows };
  const kernel = await timed(() => slantedMeans(kernels, image, of, SLOPE, half, scratch, out, WIDTH), 25);
  const twin = await timed(() => slantedMeansTwin(values, of, SLOPE, half), 1);
  return { each: (1e9 * kernel) / count, ratio: twin / kernel };
}

export async function measure({ dir }) {
  const results = [];
  const kernels = loadKernels();
  for (const half of [6, 12, 24, 48]) {
    const { each, ratio } = await cost(kernels, 400, half);
    results.push({
      what: `scan along planes of ${2 * half + 1} rows, one thread`,
      value: each,
      unit: 'ns a sample and pass',
      ratio,
      against: 'line by line',
    });
  }
  const [small, large] = [await cost(kernels, 200, 12), await cost(kernels, 800, 12)];
  results.push({
    what: 'scan of four times the samples, each of them',
    value: large.each,
    unit: 'ns a sample and pass',
    ratio: large.each / small.each,
    against: 'that of a quarter',
  });
  const store = await folderStore(join(dir, 'faults-project'), { name: 'bench' });
  const volume = await madeVolume(store, [200, 140, 500]);
  const runner = threadRunner(2, inThread(localOf));
  try {
    for (const scan of ['quick', 'careful']) {
      const began = performance.now();
      await runStep({ step: 'interpret.faultStrength', inputs: { volume: [volume.id] }, params: { scan } }, store, {
        runner,
      });
      results.push({
        what: `interpret.faultStrength, ${scan}, of 14 million samples stored in a folder, two threads`,
        value: (performance.now() - began) / 1000,
        unit: 's',
      });
    }
  } finally {
    runner.stop();
  }
  return results;
}
