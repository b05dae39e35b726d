// Variance of a volume of 4 GB that is all zeros and whose results are kept nowhere: prints the most memory that the process
// had, in MB. Run by bench/variance.mjs in a process of its own.
import { groupsOf, memoryStore, runStep } from '@lithagon/core';
import { volumeOf } from './engine.mjs';

const SHAPE = [1000, 1000, 1000];
const store = memoryStore();
const zeros = new Map();
const chunk = 4 * groupsOf(SHAPE).slab * SHAPE[1] * SHAPE[2];
const nowhere = {
  ...store,
  readBytes: async (key) => {
    if (!key.startsWith('seismic/')) return store.readBytes(key);
    if (!zeros.has(chunk)) zeros.set(chunk, new Uint8Array(chunk));
    return zeros.get(chunk);
  },
  writeBytes: async () => undefined,
};
await store.commit({ put: [volumeOf(SHAPE)] });
const began = performance.now();
await runStep({ step: 'attributes.variance', inputs: { seismic: ['seismic'] }, params: { radius: 1 } }, nowhere);
const seconds = (performance.now() - began) / 1000;
console.log(JSON.stringify({ megabytes: process.resourceUsage().maxRSS / 1000, seconds }));
process.exit(0);
