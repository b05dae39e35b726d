// The kernels of attributes, each against its plain twin on one thread, and runs of the steps over 14 million samples stored in a
// folder, on two threads.
import { join } from 'node:path';
import { inThread, localOf, runStep } from '@lithagon/core';
import { folderStore, threadRunner } from '@lithagon/core/node';
import {
  calmestTwin,
  firstPartTwin,
  loadKernels,
  medianTwin,
  movedTwin,
  normalsTwin,
  roomIn,
  weighTwin,
} from '@lithagon/kernels';
import { madeVolume } from './engine.mjs';
import { noise, timed } from './support.mjs';

const [TRACES, SAMPLES] = [200, 500];

/** A kernel and its twin on the same rows: how often each is called stands beside it, so that both are timed over long enough. */
function cases(kernels) {
  const random = noise(5);
  const filled = (n) => Float32Array.from({ length: n }, random);
  const length = TRACES * SAMPLES;
  const room = roomIn(kernels);
  const held = (array, to = room.take(array.length)) => ({ array, at: to });
  const data = held(filled(length + 40));
  const weights = held(filled(21));
  const tensors = held(filled(6 * length));
  // tensors of gradients have diagonals that are not negative
  for (const r of [0, 3, 5])
    for (let n = 0; n < length; n++) tensors.array[r * length + n] = 1 + Math.abs(tensors.array[r * length + n]);
  const [p, q] = [held(filled(SAMPLES)), held(filled(SAMPLES))];
  const rows = held(filled(25 * SAMPLES));
  const sets = [0, 1, 2, 3, 4, 5, 6, 7, 8].map((s) =>
    Array.from({ length: 9 }, (_, m) => (Math.floor(s / 3) + Math.floor(m / 3)) * 5 + (s % 3) + (m % 3)),
  );
  const outs = [0, 1, 2].map(() => room.take(length));
  const spare = room.take(25 * SAMPLES);
  const list = room.take(81);
  const [products, boxed, scratch] = [room.take(45 * SAMPLES), room.take(45 * SAMPLES), room.take(72)];
  const ones = held(new Float32Array(9).fill(1));
  for (const { array, at } of [data, weights, tensors, p, q, rows, ones]) room.floats(at, array.length).set(array);
  room.ints(list, 81).set(sets.flat());
  const [out, other, third] = outs.map(() => new Float32Array(length));
  const trace = data.array.subarray(0, SAMPLES);
  const line = new Float32Array(SAMPLES);
  const nine = rows.array.subarray(0, 9 * SAMPLES);
  return [
    {
      what: 'weighted sums of 21 neighbours',
      samples: length,
      kernel: () => kernels.weigh(data.at, outs[0], length, 1, weights.at, 21),
      twin: () => weighTwin(data.array, out, 1, weights.array),
    },
    {
      what: 'slopes and disorder of tensors',
      against: 'its twin, by Jacobi rotations',
      samples: length,
      kernel: () => kernels.normals(tensors.at, outs[0], outs[1], outs[2], length, length),
      twin: () => normalsTwin(tensors.array, out, other, third),
    },
    {
      what: 'traces moved along dip',
      samples: SAMPLES * 50,
      kernel: () => {
        for (let n = 0; n < 50; n++) kernels.moved(data.at, p.at, q.at, 1, -1, outs[0], SAMPLES);
      },
      twin: () => {
        for (let n = 0; n < 50; n++) movedTwin(trace, p.array, q.array, 1, -1, line);
      },
    },
    {
      what: 'first components of 9 traces over 9 samples',
      against: 'its twin, by Jacobi rotations',
      samples: SAMPLES,
      kernel: () => {
        kernels.pairProducts(rows.at, 9, SAMPLES, products);
        kernels.weigh(products, boxed, 45 * SAMPLES - 8, 1, ones.at, 9);
        kernels.firstPart(boxed, 9, SAMPLES, 0, SAMPLES, scratch, outs[0]);
      },
      twin: () => firstPartTwin(nine, 9, 4, line),
    },
    {
      what: 'medians of 25 traces',
      samples: SAMPLES,
      kernel: () => {
        // rows are sorted in place: they are laid out anew as a run does
        room.floats(spare, 25 * SAMPLES).set(rows.array);
        kernels.medianRows(spare, 25, SAMPLES, outs[0]);
      },
      twin: () => medianTwin(rows.array, 25, line),
    },
    {
      what: 'means of the calmest of 9 windows of 9 traces',
      samples: SAMPLES,
      kernel: () => kernels.calmest(rows.at, SAMPLES, list, 9, 9, outs[0]),
      twin: () => calmestTwin(rows.array, sets, line),
    },
  ];
}

const STEPS = [
  ['attributes.trace', { kind: 'envelope' }],
  ['attributes.frequency', {}],
  ['attributes.dip', {}],
  ['attributes.coherence', {}],
  ['attributes.smooth', { way: 'median', radius: 1 }],
];

export async function measure({ dir }) {
  const results = [];
  for (const { what, samples, kernel, twin, against } of cases(loadKernels())) {
    const took = await timed(kernel, 15);
    results.push({
      what: `${what}, one thread`,
      value: samples / 1e6 / took,
      unit: 'million samples/s',
      ratio: (await timed(twin, 3)) / took,
      against: against ?? 'its plain twin',
    });
  }
  const store = await folderStore(join(dir, 'attributes-project'), { name: 'bench' });
  const volume = await madeVolume(store, [200, 140, 500]);
  const runner = threadRunner(2, inThread(localOf));
  try {
    for (const [step, params] of STEPS) {
      const began = performance.now();
      await runStep({ step, inputs: { seismic: [volume.id] }, params }, store, { runner });
      results.push({
        what: `${step} of 14 million samples stored in a folder, two threads`,
        value: (performance.now() - began) / 1000,
        unit: 's',
      });
    }
  } finally {
    runner.stop();
  }
  return results;
}
