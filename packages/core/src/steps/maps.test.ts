import { beforeAll, describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import type { Horizon, QuantityMap, Volume } from '../earth/objects.ts';
import { readWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import type { Store } from '../storage/store.ts';
import { madeHorizon, TURNED } from '../testing/objects.ts';
import { madeVolume } from '../testing/volume.ts';
import { runStep } from './index.ts';

const BIN_GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1000, step: 1, count: 21 },
  crossline: { first: 2000, step: 2, count: 26 },
};
const COLUMNS = BIN_GRID.crossline.count;
const SPACING = [Math.hypot(...BIN_GRID.perInline), Math.hypot(...BIN_GRID.perCrossline)];

/** TWT of the horizons, ms. */
const top = (i: number, j: number) => 300.7 + 3.3 * i - 1.1 * j;
const base = (i: number, j: number) => top(i, j) + 40 + i;

let store: Store;
let seismic: Volume;
let horizons: Horizon[];

beforeAll(async () => {
  store = memoryStore();
  // a ramp down each trace from its own top: what is found there tells where it was read
  seismic = await madeVolume(store, (i, j, k) => 100 + 2 * k - top(i, j), {
    binGrid: BIN_GRID,
    samples: 260,
    first: 100,
    step: 2,
    name: 'Ramp',
  });
  horizons = [
    await madeHorizon(store, 'Top', 'twt', (i, j) => (i === 3 && j === 4 ? Number.NaN : top(i, j)), BIN_GRID),
    await madeHorizon(store, 'Base', 'twt', base, BIN_GRID),
  ];
});

async function mapOf(step: string, inputs: Record<string, string[]>, params: Record<string, unknown>) {
  const [made] = (await runStep({ step, inputs, params }, store)) as QuantityMap[];
  return { map: made, values: await readWhole(store, made.values) };
}
const onTop = (params: Record<string, unknown>, more: Record<string, string[]> = {}) =>
  mapOf('attributes.onHorizon', { horizon: [horizons[0].id], volume: [seismic.id], ...more }, params);

/** Every bin but the one that the horizon has not. */
function everywhere(values: Float32Array, want: (i: number, j: number) => number, within: number): void {
  for (let n = 0; n < values.length; n++) {
    const [i, j] = [Math.floor(n / COLUMNS), n % COLUMNS];
    if (i === 3 && j === 4) expect(values[n]).toBeNaN();
    else expect(Math.abs(values[n] - want(i, j))).toBeLessThan(within);
  }
}

describe('a volume on a horizon', () => {
  test('is read between samples, exactly at it', async () => {
    const { values, map } = await onTop({ gives: 'value' });
    everywhere(values, () => 0, 1e-3);
    expect([map.quantity, map.unit]).toEqual(['amplitude', '']);
  });
  test('is averaged over the window that is asked for, above, below and around', async () => {
    everywhere((await onTop({ gives: 'mean', above: 10, below: 10 })).values, () => 0, 1e-3);
    everywhere((await onTop({ gives: 'mean', above: -10, below: 30 })).values, () => 20, 1e-3);
    everywhere((await onTop({ gives: 'greatest', above: 4, below: 8 })).values, () => 8, 1e-3);
    everywhere((await onTop({ gives: 'least', above: 4, below: 8 })).values, () => -4, 1e-3);
    everywhere((await onTop({ gives: 'rms', above: 0, below: 4 })).values, () => Math.sqrt(20 / 3), 1e-3);
    everywhere((await onTop({ gives: 'part above', above: 4, below: 4, threshold: 1 })).values, () => 2 / 5, 1e-6);
    everywhere((await onTop({ gives: 'percentile', percentile: 50, above: 0, below: 20 })).values, () => 10, 1e-3);
  });
  test('is followed to the base where one is given', async () => {
    const { values } = await onTop({ gives: 'greatest', above: 0, below: 0 }, { base: [horizons[1].id] });
    everywhere(values, (i) => 2 * Math.floor((40 + i) / 2 + 1e-6), 1e-3);
  });
  test('of an attribute that is not stored is the same as of one that is', async () => {
    const made = async (live: boolean) =>
      (
        await runStep(
          { step: 'attributes.trace', inputs: { seismic: [seismic.id] }, params: { kind: 'rms', windowMs: 20 }, live },
          store,
        )
      )[0].id;
    const [stored, live] = [await made(false), await made(true)];
    const a = await onTop({ gives: 'mean' }, { volume: [stored] });
    const b = await onTop({ gives: 'mean' }, { volume: [live] });
    for (let n = 0; n < a.values.length; n++)
      if (n !== 3 * COLUMNS + 4) expect(b.values[n]).toBeCloseTo(a.values[n], 4);
    expect(a.map.quantity).toBe('envelope');
  });
  test('says what it lacks', async () => {
    const said = (params: Record<string, unknown>, inputs: Record<string, string[]>) =>
      mapOf('attributes.onHorizon', inputs, params).then(
        () => '',
        (cause) => cause.message as string,
      );
    expect(await said({ gives: 'rms' }, { horizon: [horizons[0].id] })).toContain('none is given');
    expect(await said({ gives: 'thickness' }, { horizon: [horizons[0].id] })).toContain('needs a base');
    expect(
      await said({ gives: 'rms', above: 500, below: -400 }, { horizon: [horizons[0].id], volume: [seismic.id] }),
    ).toContain('No bin got a value');
  });
});

describe('a surface', () => {
  test('has its thickness to another', async () => {
    const { values, map } = await mapOf(
      'attributes.onHorizon',
      { horizon: [horizons[0].id], base: [horizons[1].id] },
      { gives: 'thickness' },
    );
    everywhere(values, (i) => 40 + i, 1e-3);
    expect(map.unit).toBe('ms');
  });
  test('has the dip and azimuth of its plane, by the velocity that is given', async () => {
    const slope = [(3.3 * 2.5) / 2 / SPACING[0], (-1.1 * 2.5) / 2 / SPACING[1]];
    const { values } = await mapOf(
      'attributes.onHorizon',
      { horizon: [horizons[0].id] },
      { gives: 'dip', velocity: 2500 },
    );
    const want = (Math.atan(Math.hypot(...slope)) * 180) / Math.PI;
    everywhere(values, () => want, 0.02);
    const { values: azimuth } = await mapOf(
      'attributes.onHorizon',
      { horizon: [horizons[0].id] },
      { gives: 'azimuth', velocity: 2500 },
    );
    const [ux, uy] = BIN_GRID.perInline.map((v) => v / SPACING[0]);
    const [vx, vy] = BIN_GRID.perCrossline.map((v) => v / SPACING[1]);
    const [x, y] = [slope[0] * ux + slope[1] * vx, slope[0] * uy + slope[1] * vy];
    everywhere(azimuth, () => ((Math.atan2(x, y) * 180) / Math.PI + 360) % 360, 0.1);
  });
  test('of a dome has the curvature of its radius, holes left as they are', async () => {
    const R = 900;
    const at = (i: number, j: number) => 500 + (((i - 10) * SPACING[0]) ** 2 + ((j - 12) * SPACING[1]) ** 2) / (2 * R);
    const dome = await madeHorizon(
      store,
      'Dome',
      'depth',
      (i, j) => (i === 3 && j === 4 ? Number.NaN : at(i, j)),
      BIN_GRID,
    );
    const { values, map } = await mapOf(
      'attributes.onHorizon',
      { horizon: [dome.id] },
      { gives: 'most positive', scale: 3 },
    );
    everywhere(values, () => 1 / R, 2e-5);
    expect([map.quantity, map.unit]).toEqual(['curvature', '1/m']);
  });
});

describe('arithmetic of maps', () => {
  test('is of horizons by name, with units', async () => {
    const { values, map } = await mapOf(
      'attributes.mapFormula',
      { horizons: horizons.map((h) => h.id) },
      { formula: 'Base - Top' },
    );
    everywhere(values, (i) => 40 + i, 1e-2);
    expect([map.quantity, map.unit]).toEqual(['two-way time', 'ms']);
  });
  test('refuses what has no meaning, and says so', async () => {
    await expect(
      mapOf('attributes.mapFormula', { horizons: [horizons[0].id] }, { formula: 'Top + Crest' }),
    ).rejects.toThrow('There is no curve “Crest”');
    await expect(mapOf('attributes.mapFormula', { horizons: [horizons[0].id] }, { formula: 'Top +' })).rejects.toThrow(
      'cannot be read',
    );
  });
});
