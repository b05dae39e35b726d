// A volume to depth: the arithmetic of a thread through layers and by a velocity volume, against a plain loop of nearest samples;
// and the whole of it on all threads, stored in a folder.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runStep } from '@lithagon/core';
import { folderStore } from '@lithagon/core/node';
import { lanes } from '../apps/cli/dist/lanes.js';
import { sincDown } from '../packages/core/dist/numerics/sinc.js';
import { columnOf, downColumn, timeOfDepth } from '../packages/core/dist/velocity/column.js';
import { madeVolume } from './engine.mjs';
import { noise, timed } from './support.mjs';

const [TRACES, SAMPLES, DEPTHS, STEP] = [8000, 451, 451, 4];
const [INLINES, CROSSLINES] = [160, 200];

const LAYERS = [
  { law: { form: 'v0 + k·z from the datum', v0: 1500, k: 0.8 }, base: 600 },
  { law: { form: 'from top to base', v0: 2400, vBase: 2700, k: 0 }, base: 950 },
  { law: { form: 'v0 + k·z from the top', v0: 2600, k: 0.2 }, base: 1000 },
];

/** Layers by a velocity volume of 90 samples. */
const volumeLayers = () => {
  const trace = {
    values: Float64Array.from({ length: 90 }, (_, k) => 1500 + 18 * k),
    domain: 'twt',
    first: 0,
    step: 20,
    samples: 'the interval below it',
  };
  return [{ law: { form: 'velocity volume', v0: 1, k: 0 }, base: Number.POSITIVE_INFINITY, trace }];
};

export async function measure() {
  const random = noise(9);
  const data = Float32Array.from({ length: TRACES * SAMPLES }, random);
  const out = new Float32Array(TRACES * DEPTHS);
  const places = new Float64Array(DEPTHS + 1);
  const through = (layers) => () => {
    for (let t = 0; t < TRACES; t++) {
      downColumn(columnOf(90, { waterVelocity: 1490 }, layers), 'twt', 0, STEP, places);
      for (let k = 0; k <= DEPTHS; k++) places[k] /= STEP;
      sincDown(data, t * SAMPLES, SAMPLES, places, out, t * DEPTHS);
    }
  };
  const plain = (layers) => () => {
    for (let t = 0; t < TRACES; t++) {
      const column = columnOf(90, { waterVelocity: 1490 }, layers);
      for (let k = 0; k < DEPTHS; k++) {
        const at = Math.round(timeOfDepth(column, STEP * k) / STEP);
        out[t * DEPTHS + k] = at < SAMPLES ? data[t * SAMPLES + at] : Number.NaN;
      }
    }
  };
  const rows = [];
  for (const [name, layers] of [
    ['three layers', LAYERS],
    ['a velocity volume', volumeLayers()],
  ]) {
    const sinc = await timed(through(layers), 3);
    const nearest = await timed(plain(layers), 3);
    rows.push({
      what: `volume to depth through ${name}, windowed sinc of 16 points, one thread`,
      value: (TRACES * DEPTHS) / 1e6 / sinc,
      unit: 'million samples/s',
      ratio: nearest / sinc,
      against: 'a plain loop of nearest samples',
    });
  }
  const dir = mkdtempSync(join(tmpdir(), 'lithagon-bench-depth-'));
  try {
    const store = await folderStore(join(dir, 'project'), { name: 'bench' });
    const volume = await madeVolume(store, [INLINES, CROSSLINES, SAMPLES]);
    const model = {
      id: 'model',
      kind: 'velocity model',
      name: 'Model',
      revision: '1',
      stage: 'depth',
      madeBy: volume.madeBy,
      waterVelocity: 1490,
      layers: [{ base: '', form: 'v0 + k·z from the datum', v0: 1600, k: 0.6, rms: 0, points: 0 }],
    };
    await store.commit({ put: [model] });
    const began = performance.now();
    await runStep({ step: 'depth.volume', inputs: { volume: [volume.id], model: ['model'] }, params: {} }, store, {
      runner: lanes,
    });
    const took = (performance.now() - began) / 1000;
    rows.push({
      what: `volume of ${((INLINES * CROSSLINES * SAMPLES) / 1e6).toFixed(0)} million samples to depth, stored in a folder, all threads`,
      value: took,
      unit: 's',
    });
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
  return rows;
}
