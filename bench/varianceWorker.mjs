// Works on as many lines as it is told to, for bench/variance.mjs.
import { parentPort } from 'node:worker_threads';
import { loadKernels, varianceLine } from '@lithagon/kernels';
import { line } from './variance.mjs';

const kernels = loadKernels();
const made = line();
const out = new Float32Array(made.traces * made.samples);
parentPort.on('message', (lines) => {
  for (let n = 0; n < lines; n++) varianceLine(kernels, made, out);
  parentPort.postMessage('done');
});
parentPort.postMessage('ready');
