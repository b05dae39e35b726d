// The variance kernel against a plain C loop with running sums (its plain twin where there is no compiler), and a stored run
// of the step over 14 million samples on two threads against one, beside what plain arithmetic gains from the second.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { inThread, localOf, runStep } from '@lithagon/core';
import { folderStore, threadRunner } from '@lithagon/core/node';
import { loadKernels, varianceBlock, varianceBlockTwin } from '@lithagon/kernels';
import { arithmetic, countReads, madeVolume } from './engine.mjs';
import { median, noise, timed } from './support.mjs';

const [LINES, TRACES, SAMPLES, HALF] = [40, 500, 500, 4];

function block(radius) {
  const random = noise(3);
  const size = [LINES + 2 * radius, TRACES + 2 * radius, SAMPLES];
  const data = Float32Array.from({ length: size[0] * size[1] * size[2] }, random);
  return { data, size, radius, half: HALF, margin: 0, rows: [0, SAMPLES] };
}

/** Seconds of the plain loop in C, or null where there is no compiler. */
function inC(dir, radius) {
  const program = join(dir, 'variance');
  const made = spawnSync('gcc', ['-O2', '-o', program, join(import.meta.dirname, 'variance.c')]);
  if (made.status !== 0) return null;
  return Number(spawnSync(program, [LINES, TRACES, SAMPLES, radius, HALF].map(String)).stdout);
}

async function kernel(dir) {
  const kernels = loadKernels();
  const out = new Float32Array(LINES * TRACES * SAMPLES);
  const million = out.length / 1e6;
  const results = [];
  for (const radius of [1, 2, 4]) {
    const made = block(radius);
    const took = await timed(() => varianceBlock(kernels, made, out));
    const c = inC(dir, radius);
    const reference = c ?? (await timed(() => varianceBlockTwin(made, out), 1));
    results.push({
      what: `variance of ${2 * radius + 1} × ${2 * radius + 1} traces, one thread`,
      value: million / took,
      unit: 'million samples/s',
      ratio: reference / took,
      against: c === null ? 'its TypeScript twin' : 'a plain C loop with running sums',
    });
  }
  return results;
}

async function workers(dir) {
  const store = await folderStore(join(dir, 'variance-project'), { name: 'bench' });
  const volume = await madeVolume(store, [200, 140, 500]);
  const alone = inThread(localOf);
  const run = async (runner) => {
    const began = performance.now();
    const [made] = await runStep(
      { step: 'attributes.variance', inputs: { seismic: [volume.id] }, params: { radius: 2 } },
      store,
      { runner },
    );
    const took = (performance.now() - began) / 1000;
    await store.commit({ remove: [made.id] });
    await store.removeArrays(`${made.id}/`);
    return took;
  };
  const [one, two] = [threadRunner(1, alone), threadRunner(2, alone)];
  const [single, double, plainOne, plainTwo] = [[], [], [], []];
  for (let n = 0; n < 6; n++) {
    single.push(await run(one));
    double.push(await run(two));
    plainOne.push(await arithmetic(1));
    plainTwo.push(await arithmetic(2));
  }
  one.stop();
  two.stop();
  const counted = countReads(store);
  await runStep(
    { step: 'attributes.variance', inputs: { seismic: [volume.id] }, params: { radius: 2 } },
    counted.store,
  );
  const [a, b, c, d] = [single, double, plainOne, plainTwo].map((times) => median(times.slice(1)));
  return [
    {
      what: 'variance of 14 million samples stored in a folder, two threads',
      value: 14 / b,
      unit: 'million samples/s',
      ratio: a / b,
      against: `one thread; plain arithmetic gains ${(c / d).toFixed(2)} ×, of which this is ${(a / b / (c / d)).toFixed(2)}`,
    },
    { what: 'samples that it reads of the store, of those it has', value: counted.samples() / 14e6, unit: '×' },
  ];
}

/** The most memory of a process that works through 4 GB. */
function memory() {
  const { stdout } = spawnSync('node', [join(import.meta.dirname, 'sparse.mjs')]);
  const { megabytes, seconds } = JSON.parse(stdout);
  return [
    { what: 'memory of the process while the variance of 4 GB is worked out', value: megabytes, unit: 'MB' },
    {
      what: 'that volume worked through in one thread, nothing kept',
      value: 1000 / seconds,
      unit: 'million samples/s',
    },
  ];
}

export const measure = async ({ dir }) => [...(await kernel(dir)), ...(await workers(dir)), ...memory()];
