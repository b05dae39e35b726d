// How long a step of the demo recipe goes on before it looks whether it is to stop: the longest of each, in one thread.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseRecipe, runRecipe, runStep } from '@lithagon/core';
import { crsTable, fileSource, folderStore } from '@lithagon/core/node';

/** A signal that never stops anything, and tells how long nobody looked at it. */
function watched() {
  const { signal } = new AbortController();
  let last = performance.now();
  let longest = 0;
  const look = () => {
    const now = performance.now();
    longest = Math.max(longest, now - last);
    last = now;
  };
  Object.defineProperty(signal, 'aborted', {
    get() {
      look();
      return false;
    },
  });
  return {
    signal,
    begin() {
      last = performance.now();
      longest = 0;
    },
    end() {
      look();
      return longest;
    },
  };
}

const [SEISMIC, TOP, BASE] = ['Full stack', 'Tolven Top', 'Tolven Base'];
const ON_TOP = { seismic: [SEISMIC], horizon: [TOP] };
/** Steps that are no part of the recipe. */
const ALSO = [
  { step: 'attributes.trace', inputs: { seismic: [SEISMIC] }, params: { kind: 'envelope' } },
  { step: 'attributes.dip', inputs: { seismic: [SEISMIC] }, params: {} },
  { step: 'attributes.coherence', inputs: { seismic: [SEISMIC] }, params: {} },
  { step: 'attributes.curvature', inputs: { seismic: [SEISMIC] }, params: {} },
  { step: 'attributes.smooth', inputs: { seismic: [SEISMIC] }, params: {} },
  { step: 'attributes.frequency', inputs: { seismic: [SEISMIC] }, params: {} },
  { step: 'attributes.frequencyMap', inputs: ON_TOP, params: {} },
  { step: 'attributes.onHorizon', inputs: { volume: [SEISMIC], horizon: [TOP] }, params: {} },
  { step: 'attributes.waveforms', inputs: { volume: [SEISMIC], horizon: [TOP], base: [BASE] }, params: {} },
  {
    step: 'attributes.bodies',
    inputs: { volume: [SEISMIC], top: [TOP], depth: ['Tolven Top in depth'] },
    params: { test: 'percentiles', from: 90, to: 100, below: 40 },
  },
  { step: 'attributes.cluster', inputs: { A: [SEISMIC], B: ['Variance'], top: [TOP], base: [BASE] }, params: {} },
  {
    step: 'attributes.facies',
    inputs: { A: [SEISMIC], B: ['Far stack'], wells: ['QN-1', 'QN-2'] },
    params: { method: 'random forest' },
  },
];

export async function measure({ files, dir }) {
  const path = join(files, 'quillon.recipe.json');
  const recipe = parseRecipe('quillon.recipe.json', readFileSync(path, 'utf8'));
  const store = await folderStore(join(dir, 'cancel-project'), { name: 'bench' });
  const watch = watched();
  const gaps = new Map();
  let now = null;
  const next = (what) => {
    if (now) gaps.set(now, Math.max(gaps.get(now) ?? 0, watch.end()));
    now = what.startsWith('Loading') ? 'load' : (recipe.steps.find((s) => s.name === what)?.step ?? what);
    watch.begin();
  };
  await runRecipe(recipe, {
    store,
    crsTable,
    open: (file) => fileSource(join(files, file)),
    signal: watch.signal,
    say: next,
  });
  const objects = await store.list();
  const id = (name) => objects.find((o) => o.name === name)?.id ?? name;
  for (const { step, inputs, params } of ALSO) {
    next(step);
    const roles = Object.entries(inputs).map(([role, names]) => [role, names.map(id)]);
    await runStep({ step, inputs: Object.fromEntries(roles), params }, store, { signal: watch.signal });
  }
  next('end');
  await store.close();
  return [...gaps]
    .sort((a, b) => b[1] - a[1])
    .map(([step, ms]) => ({ what: `longest that ${step} goes on before it hears of a cancel`, value: ms, unit: 'ms' }));
}
