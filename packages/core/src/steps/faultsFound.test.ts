import { beforeAll, describe, expect, test } from 'vitest';
import { type BinGrid, toIndex, toMap } from '../earth/binGrid.ts';
import type { Fault, Volume } from '../earth/objects.ts';
import { angleBetween } from '../faults/orientation.ts';
import { memoryStore } from '../storage/memory.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import { TURNED } from '../testing/objects.ts';
import { normal } from '../testing/random.ts';
import { madeVolume } from '../testing/volume.ts';
import { runStep, stepOf } from './index.ts';
import { tryPlane } from './local.ts';

const GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1000, step: 1, count: 60 },
  crossline: { first: 2000, step: 1, count: 64 },
};
const [SAMPLES, STEP] = [110, 5];
const PLANES = [
  { dip: 58, azimuth: 255, throwM: 40 },
  { dip: 50, azimuth: 30, throwM: 30 },
];
const RAD = Math.PI / 180;

/** Beds of many frequencies, at any depth in metres. */
const beds = (z: number) => {
  let v = 0;
  for (let n = 1; n <= 14; n++) v += Math.sin(0.021 * n * z + 2.3 * n * n) / (1 + 0.04 * n);
  return v;
};

/** Metres that a place lies beyond a plane through the middle of the grid, along its azimuth. */
const beyond = ({ dip, azimuth }: { dip: number; azimuth: number }, x: number, y: number, z: number) => {
  const [mx, my] = toMap(GRID, 30, 32);
  return (
    (x - mx) * Math.sin(azimuth * RAD) +
    (y - my) * Math.cos(azimuth * RAD) -
    (z - (SAMPLES / 2) * STEP) / Math.tan(dip * RAD)
  );
};

/** Beds that dip by 3°, with noise, dropped on one side of a plane. */
async function broken(store: Store, plane: (typeof PLANES)[number], name: string, noise = 0.25): Promise<Volume> {
  const random = normal(11);
  const volume = await madeVolume(
    store,
    (i, j, k) => {
      const [x, y] = toMap(GRID, i, j);
      const z = k * STEP;
      const drop = beyond(plane, x, y, z) > 0 ? plane.throwM : 0;
      return beds(z - drop - 0.05 * 25 * i) + noise * random();
    },
    { binGrid: GRID, samples: SAMPLES, first: 0, step: STEP, name },
  );
  const deep = { ...volume, domain: 'depth' as const, revision: `${name}-in-depth` };
  await store.commit({ put: [deep] });
  return deep;
}

describe.each(PLANES)('a fault that dips $dip° towards $azimuth°', (plane) => {
  let store: Store;
  let made: Volume[];
  let faults: Fault[];
  let seismic: Volume;
  beforeAll(async () => {
    store = memoryStore();
    seismic = await broken(store, plane, 'Broken');
    made = (await runStep(
      { step: 'interpret.faultStrength', inputs: { volume: [seismic.id] }, params: { length: 400, height: 180 } },
      store,
    )) as Volume[];
    const [strength, dip, azimuth] = made;
    const [ridges] = await runStep(
      {
        step: 'interpret.faultRidges',
        inputs: { strength: [strength.id], azimuth: [azimuth.id] },
        params: { least: 0.2 },
      },
      store,
    );
    const all = await runStep(
      {
        step: 'interpret.faultSurfaces',
        inputs: { ridges: [ridges.id], strength: [strength.id], dip: [dip.id], azimuth: [azimuth.id] },
        params: { smallest: 0.1, leastMean: 0.25 },
      },
      store,
    );
    faults = all.filter((o): o is Fault => o.kind === 'fault');
  }, 60000);

  test('comes back as one surface within 2° and one bin', () => {
    expect(faults).toHaveLength(1);
    const [{ found, sticks }] = faults;
    expect(found && angleBetween(found, plane)).toBeLessThan(2);
    // where it leaves the volume there is nothing on its other side
    const inside = ([x, y, z]: [number, number, number]) => {
      const [i, j] = toIndex(GRID, x, y);
      return i > 4 && j > 4 && i < 55 && j < 59 && z > 60 && z < 490;
    };
    const far = sticks
      .flat()
      .filter(inside)
      .map(([x, y, z]) => Math.abs(beyond(plane, x, y, z)))
      .sort((a, b) => a - b);
    expect(far.length).toBeGreaterThan(300);
    expect(far[Math.floor(0.5 * far.length)]).toBeLessThan(8);
    expect(far[Math.floor(0.98 * far.length)]).toBeLessThan(25);
  });

  test('is found over the most of what lies inside the volume', () => {
    const places = new Set(
      faults[0].sticks.flatMap((s) =>
        s.map(([x, y]) =>
          toIndex(GRID, x, y)
            .map((v) => Math.round(v / 4))
            .join(' '),
        ),
      ),
    );
    expect(places.size).toBeGreaterThan(60);
  });

  test('is tried on a line and a slice as it is stored', async () => {
    const step = stepOf('interpret.faultStrength');
    if (!step) throw new Error('no step');
    const params = step.params.parse({ length: 400, height: 180 });
    for (const [plane, index] of [
      ['inline', 21],
      ['crossline', 40],
      ['slice', 55],
    ] as const) {
      const { values } = await tryPlane(step, { volume: seismic }, params, store, plane, index);
      const at = { inline: 'i', crossline: 'j', slice: 'k' }[plane];
      const region = { i: [0, 60], j: [0, 64], k: [0, SAMPLES], [at]: [index, index + 1] } as never;
      const stored = await readRegion(store, made[0], region);
      expect(Math.max(...stored)).toBeGreaterThan(0.5);
      let most = 0;
      for (let n = 0; n < stored.length; n++) most = Math.max(most, Math.abs(stored[n] - values.strength[n]));
      expect(most).toBeLessThan(1e-6);
    }
  });
});

describe('what is no fault', () => {
  test('beds that only dip, fold or are noisy give no surface', async () => {
    const store = memoryStore();
    const seismic = await broken(store, { dip: 60, azimuth: 90, throwM: 0 }, 'Whole', 0.5);
    const [strength, dip, azimuth] = await runStep(
      { step: 'interpret.faultStrength', inputs: { volume: [seismic.id] }, params: { length: 400, height: 180 } },
      store,
    );
    const [ridges] = await runStep(
      { step: 'interpret.faultRidges', inputs: { strength: [strength.id], azimuth: [azimuth.id] }, params: {} },
      store,
    );
    await expect(
      runStep(
        {
          step: 'interpret.faultSurfaces',
          inputs: { ridges: [ridges.id], strength: [strength.id], dip: [dip.id], azimuth: [azimuth.id] },
          params: {},
        },
        store,
      ),
    ).rejects.toThrow('No ridge grows to a surface');
  });

  test('a fault outside the chosen dips or directions is not called', async () => {
    const store = memoryStore();
    const seismic = await broken(store, PLANES[0], 'Broken');
    const along = async (params: Record<string, number>) => {
      const [strength] = (await runStep(
        {
          step: 'interpret.faultStrength',
          inputs: { volume: [seismic.id] },
          params: { length: 400, height: 180, ...params },
        },
        store,
      )) as Volume[];
      const all = await readRegion(store, strength, { i: [0, 60], j: [0, 64], k: [0, SAMPLES] });
      // along the plane itself, inside the volume
      let [sum, count] = [0, 0];
      for (let i = 10; i < 50; i++)
        for (let j = 10; j < 54; j++)
          for (let k = 25; k < 85; k++) {
            const [x, y] = toMap(GRID, i, j);
            if (Math.abs(beyond(PLANES[0], x, y, k * STEP)) > 10) continue;
            sum += all[(i * 64 + j) * SAMPLES + k];
            count++;
          }
      return sum / count;
    };
    expect(await along({})).toBeGreaterThan(0.6);
    expect(await along({ dipFrom: 72, dipTo: 85 })).toBeLessThan(0.3);
    expect(await along({ towardsFrom: 20, towardsTo: 120 })).toBeLessThan(0.45);
  });
});

test('a variance volume is scanned as it is', async () => {
  const store = memoryStore();
  const seismic = await broken(store, PLANES[0], 'Broken', 0.1);
  const [variance] = await runStep(
    { step: 'attributes.variance', inputs: { seismic: [seismic.id] }, params: { along: 'along dip' } },
    store,
  );
  const [strength, dip, azimuth] = (await runStep(
    { step: 'interpret.faultStrength', inputs: { volume: [variance.id] }, params: { length: 400, height: 180 } },
    store,
  )) as Volume[];
  const at = { i: [30, 31] as [number, number], j: [32, 33] as [number, number], k: [55, 56] as [number, number] };
  const [s] = await readRegion(store, strength, at);
  const [d] = await readRegion(store, dip, at);
  const [a] = await readRegion(store, azimuth, at);
  expect(s).toBeGreaterThan(0.1);
  expect(angleBetween({ dip: d, azimuth: a }, PLANES[0])).toBeLessThan(12);
});
