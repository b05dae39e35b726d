// Impedance with its spread over 14 million samples stored in a folder, on all threads, and what a realization of it takes; and the same of
// an eighth of the traces.
import { join } from 'node:path';
import { runStep } from '@lithagon/core';
import { folderStore } from '@lithagon/core/node';
import { lanes } from '../apps/cli/dist/lanes.js';
import { writeWhole } from '../packages/core/dist/storage/arrays.js';
import { ricker } from '../packages/core/dist/tie/wavelet.js';
import { madeVolume } from './engine.mjs';
import { noise } from './support.mjs';

/** Logs of a well by half a metre, in which a metre below the sea is a millisecond; and the relation that says so. */
async function madeWell(store, { binGrid, madeBy }, n, [i, j]) {
  const [well, count] = [`W-${n}`, 3600];
  const random = noise(40 + n);
  let drift = 0;
  const velocity = Float32Array.from({ length: count }, (_, k) => {
    if (k % 6 === 0) drift = 0.7 * drift + 0.08 * random();
    return (1800 + 0.5 * k) * Math.exp(drift);
  });
  const base = { revision: '1', stage: 'wells', madeBy };
  const curve = async (mnemonic, name, unit, data) => ({
    mnemonic,
    class: name,
    unit,
    fileUnit: unit,
    description: '',
    data: await writeWhole(store, `${well}-logs/${mnemonic}`, [count], data, ['sample']),
    min: 0,
    max: 1,
    nulls: 0,
  });
  return [
    {
      ...base,
      id: well,
      kind: 'well',
      name: well,
      x: binGrid.perCrossline[0] * j,
      y: binGrid.perInline[1] * i,
      kbM: 0,
      totalMdM: 2000,
    },
    {
      ...base,
      id: `${well}-logs`,
      kind: 'logs',
      name: `${well} logs`,
      well,
      depth: { firstM: 100, stepM: 0.5, count },
      curves: [
        await curve(
          'DT',
          'sonic',
          'us/m',
          velocity.map((v) => 1e6 / v),
        ),
        await curve(
          'RHOB',
          'density',
          'kg/m3',
          velocity.map((v) => 310 * v ** 0.25),
        ),
      ],
    },
    {
      ...base,
      id: `${well}-tie`,
      kind: 'time-depth relation',
      name: `${well} tie`,
      well,
      pairs: [
        [0, 0],
        [3000, 3000],
      ],
      knees: [],
      shiftMs: 0,
      phaseDeg: 0,
      correlation: 1,
      windowMs: [0, 3000],
    },
  ];
}

/** Seconds that an inversion takes, and two realizations of it. */
async function seconds(dir, shape) {
  const store = await folderStore(join(dir, `inversion-${shape.join('-')}`), { name: 'bench' });
  const volume = await madeVolume(store, shape);
  const [ni, nj] = shape;
  const wells = (
    await Promise.all(
      [
        [0.2, 0.2],
        [0.8, 0.3],
        [0.5, 0.8],
      ].map(([a, b], n) => madeWell(store, volume, n + 1, [Math.floor(a * ni), Math.floor(b * nj)])),
    )
  ).flat();
  const { stepMs, firstMs, samples } = ricker(25, 120);
  const { madeBy, binGrid } = volume;
  const wavelet = {
    id: 'wavelet',
    kind: 'wavelet',
    name: 'Wavelet',
    revision: '1',
    stage: 'tie',
    madeBy,
    stepMs,
    firstMs,
    samples: [...samples],
    method: 'Ricker',
    phaseDeg: 0,
  };
  const level = new Float32Array(ni * nj).fill(900);
  const horizon = {
    id: 'level-bed',
    kind: 'horizon',
    name: 'Level',
    revision: '1',
    stage: 'interpret',
    madeBy,
    domain: 'twt',
    binGrid,
    values: await writeWhole(store, 'level-bed/values', [ni, nj], level, ['inline', 'crossline']),
    range: [900, 900],
    filled: 1,
  };
  await store.commit({ put: [...wells, wavelet, horizon] });
  const own = ['W-1', 'W-2', 'W-3'];
  const timed = async (step, inputs, params) => {
    const began = performance.now();
    const made = await runStep({ step, inputs, params }, store, { runner: lanes });
    return { made, took: (performance.now() - began) / 1000 };
  };
  const model = await timed('invert.background', { like: [volume.id], wells: own, horizons: ['level-bed'] }, {});
  const [background, deviation] = model.made.map((o) => o.id);
  const inverted = await timed(
    'invert.impedance',
    { seismic: [volume.id], wavelet: ['wavelet'], background: [background], deviation: [deviation], wells: own },
    {},
  );
  const drawn = await timed('invert.realizations', { of: [inverted.made[0].id] }, { count: 2 });
  return { impedance: inverted.took, realization: drawn.took / 2 };
}

export async function measure({ dir }) {
  const whole = await seconds(dir, [200, 140, 500]);
  const eighth = await seconds(dir, [50, 70, 500]);
  lanes.stop();
  return [
    { what: 'invert.impedance of 14 million samples stored in a folder', value: whole.impedance, unit: 's' },
    {
      what: 'invert.impedance of eight times the traces, each of them',
      value: (1e6 * whole.impedance) / 28000,
      unit: 'µs',
      ratio: whole.impedance / 8 / eighth.impedance,
      against: 'that of an eighth',
    },
    { what: 'a realization of it, of two', value: whole.realization, unit: 's' },
  ];
}
