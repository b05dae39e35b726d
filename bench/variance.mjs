// The variance kernel against its twin in plain TypeScript, and two workers against one.
import { Worker } from 'node:worker_threads';
import { loadKernels, varianceLine, varianceLineTwin } from '@lithagon/kernels';
import { noise, timed } from './support.mjs';

const TRACES = 500;
const SAMPLES = 500;
const RADIUS = 1;
const LINES = 40;

export function line() {
  const random = noise(3);
  const width = TRACES + 2 * RADIUS;
  const data = Float32Array.from({ length: (2 * RADIUS + 1) * width * SAMPLES }, random);
  return {
    data,
    live: new Uint8Array((2 * RADIUS + 1) * width).fill(1),
    traces: TRACES,
    samples: SAMPLES,
    radius: RADIUS,
    half: 4,
  };
}

async function workers(count) {
  const all = await Promise.all(
    Array.from(
      { length: count },
      () =>
        new Promise((resolve) => {
          const worker = new Worker(new URL('./varianceWorker.mjs', import.meta.url));
          worker.once('message', () => resolve(worker));
        }),
    ),
  );
  return {
    run: (lines) =>
      Promise.all(
        all.map(
          (w) =>
            new Promise((resolve) => {
              w.once('message', resolve);
              w.postMessage(lines / count);
            }),
        ),
      ),
    stop: () => all.map((w) => w.terminate()),
  };
}

export async function measure() {
  const kernels = await loadKernels();
  const made = line();
  const out = new Float32Array(TRACES * SAMPLES);
  const repeat = (work) => () => {
    for (let n = 0; n < LINES; n++) work();
  };
  const kernel = await timed(repeat(() => varianceLine(kernels, made, out)));
  const twin = await timed(repeat(() => varianceLineTwin(made, out)));
  const million = (TRACES * SAMPLES * LINES) / 1e6;
  const one = await workers(1);
  const single = await timed(() => one.run(4 * LINES));
  one.stop();
  const two = await workers(2);
  const double = await timed(() => two.run(4 * LINES));
  two.stop();
  return [
    {
      what: 'variance 3 × 3 × 9, one thread',
      value: million / kernel,
      unit: 'million samples/s',
      ratio: twin / kernel,
      against: 'its TypeScript twin',
    },
    {
      what: 'variance 3 × 3 × 9, two workers',
      value: (4 * million) / double,
      unit: 'million samples/s',
      ratio: single / double,
      against: 'one worker',
    },
  ];
}
