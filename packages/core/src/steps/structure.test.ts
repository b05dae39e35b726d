import { beforeAll, describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import type { Volume } from '../earth/objects.ts';
import { memoryStore } from '../storage/memory.ts';
import { shapeOf } from '../storage/planes.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import { TURNED } from '../testing/objects.ts';
import { madeVolume } from '../testing/volume.ts';
import { runStep } from './index.ts';

const BIN_GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1000, step: 1, count: 25 },
  crossline: { first: 2000, step: 1, count: 25 },
};
const [SAMPLES, STEP, RADIUS] = [120, 4, 1500];
/** Beds of many frequencies, at any depth in metres. */
const beds = (z: number) => {
  let v = 0;
  for (let n = 1; n <= 12; n++) v += Math.sin(0.0275 * n * z + 1.7 * n * n) / (1 + 0.05 * n);
  return v;
};

let store: Store;
let dome: Volume;
beforeAll(async () => {
  store = memoryStore();
  const [a, b] = [BIN_GRID.perInline, BIN_GRID.perCrossline];
  // beds in depth about a crest in the middle: z = z₀ + r² / 2R
  dome = await madeVolume(
    store,
    (i, j, k) => {
      const [x, y] = [0, 1].map((c) => (i - 12) * a[c] + (j - 12) * b[c]);
      return beds(k * STEP - (x * x + y * y) / (2 * RADIUS));
    },
    { binGrid: BIN_GRID, samples: SAMPLES, first: 0, step: STEP, name: 'Dome' },
  );
  dome = { ...dome, domain: 'depth', revision: 'dome-in-depth' };
  await store.commit({ put: [dome] });
});

const run = async (step: string, params: Record<string, unknown>, more: Record<string, string[]> = {}) =>
  (await runStep({ step, inputs: { seismic: [dome.id], ...more }, params }, store)) as Volume[];
async function samples(volume: Volume) {
  const [ni, nj, nk] = shapeOf(volume);
  const data = await readRegion(store, volume, { i: [0, ni], j: [0, nj], k: [0, nk] });
  return (i: number, j: number, k: number) => data[(i * nj + j) * nk + k];
}
/** Well inside the volume, where derivatives have all that they need. */
const INSIDE = [
  [12, 12, 60],
  [10, 14, 50],
  [14, 9, 70],
];

describe('structure on a turned grid', () => {
  test('a dome has the curvature of its radius, and the dip and azimuth of its flank', async () => {
    const [crest] = await run('attributes.curvature', { kind: 'most positive' });
    const at = await samples(crest);
    let [sum, count, worst] = [0, 0, 0];
    for (let i = 9; i <= 15; i++)
      for (let j = 9; j <= 15; j++)
        for (let k = 35; k < 85; k++) {
          const part = at(i, j, k) * RADIUS;
          sum += part;
          count++;
          worst = Math.max(worst, Math.abs(part - 1));
        }
    // reflections that change in strength along a bed lead the smoothed slopes a little astray, to both sides
    expect(Math.abs(sum / count - 1)).toBeLessThan(0.03);
    expect(worst).toBeLessThan(0.3);
    expect(crest.unit).toBe('1/m');
    const [a, b] = [BIN_GRID.perInline, BIN_GRID.perCrossline];
    const dip = await samples((await run('attributes.curvature', { kind: 'dip' }))[0]);
    const azimuth = await samples((await run('attributes.curvature', { kind: 'azimuth' }))[0]);
    for (const [i, j, k] of INSIDE.slice(1)) {
      const [x, y] = [0, 1].map((c) => (i - 12) * a[c] + (j - 12) * b[c]);
      expect(Math.abs(dip(i, j, k) - (Math.atan(Math.hypot(x, y) / RADIUS) * 180) / Math.PI)).toBeLessThan(0.5);
      const off = Math.abs(azimuth(i, j, k) - (((Math.atan2(x, y) * 180) / Math.PI + 360) % 360));
      expect(Math.min(off, 360 - off)).toBeLessThan(5);
    }
  });

  test('dips that are given steer as those that are worked out on the way', async () => {
    const [inline, crossline] = await run('attributes.dip', {});
    const given = { inlineDip: [inline.id], crosslineDip: [crossline.id] };
    for (const [step, params] of [
      ['attributes.coherence', {}],
      ['attributes.smooth', { way: 'median', radius: 1 }],
    ] as const) {
      const own = await samples((await run(step, params))[0]);
      const steered = await samples((await run(step, params, given))[0]);
      for (const [i, j, k] of INSIDE) expect(steered(i, j, k)).toBeCloseTo(own(i, j, k), 3);
    }
    await expect(run('attributes.coherence', {}, { inlineDip: [inline.id] })).rejects.toThrow('one of the two counts');
  });

  test('a formula of volumes keeps the unit that it works out to', async () => {
    const [dip] = await run('attributes.dip', {});
    const velocity = { ...dip, id: 'velocity', name: 'Velocity', quantity: 'interval velocity', unit: 'm/s' } as Volume;
    await store.commit({ put: [velocity] });
    const unitOf = async (formula: string) =>
      (
        (await runStep(
          { step: 'attributes.formula', inputs: { A: ['velocity'] }, params: { formula } },
          store,
        )) as Volume[]
      )[0].unit;
    expect(await unitOf('2 * A')).toBe('m/s');
    expect(await unitOf('1 / A')).toBe('s/m');
    expect(await unitOf('A / A')).toBe('');
  });
});
