// Relative age over 14 million samples stored in a folder: a first look, and the full level; and what a sample costs beside that of an
// eighth of the volume.
import { join } from 'node:path';
import { runStep } from '@lithagon/core';
import { folderStore } from '@lithagon/core/node';
import { writeWhole } from '../packages/core/dist/storage/arrays.js';
import { madeVolume } from './engine.mjs';

/** A level horizon half way down a volume. */
async function madeHorizon(store, { binGrid, vertical, domain, madeBy }, id) {
  const shape = [binGrid.inline.count, binGrid.crossline.count];
  const level = vertical.first + (vertical.count >> 1) * vertical.step;
  const values = new Float32Array(shape[0] * shape[1]).fill(level);
  const horizon = {
    id,
    kind: 'horizon',
    name: id,
    revision: '1',
    stage: 'interpret',
    madeBy,
    domain,
    binGrid,
    values: await writeWhole(store, `${id}/values`, shape, values, ['inline', 'crossline']),
    range: [level, level],
    filled: 1,
  };
  await store.commit({ put: [horizon] });
  return horizon;
}

/** Seconds that ages of a volume take at a level. */
async function seconds(dir, shape, level) {
  const store = await folderStore(join(dir, `ages-${shape.join('-')}-${level}`), { name: 'bench' });
  const volume = await madeVolume(store, shape);
  const horizon = await madeHorizon(store, volume, 'level-bed');
  const began = performance.now();
  await runStep(
    { step: 'interpret.age', inputs: { seismic: [volume.id], horizons: [horizon.id] }, params: { level } },
    store,
  );
  return (performance.now() - began) / 1000;
}

export async function measure({ dir }) {
  const what = (level) => `interpret.age, ${level}, of 14 million samples stored in a folder`;
  const low = await seconds(dir, [200, 140, 500], 'low');
  const full = await seconds(dir, [200, 140, 500], 'full');
  const eighth = await seconds(dir, [100, 70, 250], 'full');
  return [
    { what: what('low'), value: low, unit: 's' },
    { what: what('full'), value: full, unit: 's' },
    {
      what: 'interpret.age, full, of eight times the samples, each of them',
      value: (1e6 * full) / 14e6,
      unit: 'µs',
      ratio: full / 8 / eighth,
      against: 'that of an eighth',
    },
  ];
}
