import { expect, test } from 'vitest';
import type { Volume } from '../earth/objects.ts';
import type { Shape3 } from '../numerics/block.ts';
import { MADE, TURNED } from '../testing/objects.ts';
import { madeVolume } from '../testing/volume.ts';
import { memoryStore } from './memory.ts';
import { readCoarsePlane, readPlane } from './planes.ts';
import { storedOf } from './regions.ts';
import { coarseBy, PLANES, remakePlanes, volumeWriter } from './volumes.ts';

const SHAPE: Shape3 = [13, 11, 8];
/** Even along both lines, so that interpolation between kept traces gives it back. */
const at = (i: number, j: number, k: number) => 100 * i + 7 * j + Math.sin(k);

/** A small volume that is taken for a large one. */
async function large() {
  const store = memoryStore();
  const [ni, nj, nk] = SHAPE;
  const writer = await volumeWriter(store, 'v', SHAPE, { large: 1000 });
  for (let i0 = 0; i0 < ni; i0 += writer.slab) {
    const slab = new Float32Array(writer.slab * nj * nk).fill(Number.NaN);
    for (let i = i0; i < Math.min(ni, i0 + writer.slab); i++)
      for (let j = 0; j < nj; j++) for (let k = 0; k < nk; k++) slab[((i - i0) * nj + j) * nk + k] = at(i, j, k);
    await writer.write(i0, slab);
  }
  await writer.finish();
  const axis = (count: number) => ({ first: 1, step: 1, count });
  const volume = {
    ...(await madeVolume(memoryStore(), () => 0)),
    id: 'v',
    binGrid: { ...TURNED, inline: axis(ni), crossline: axis(nj) },
    vertical: { first: 0, step: 4, count: nk },
    layouts: writer.layouts,
    madeBy: MADE,
  } as Volume;
  return { store, volume };
}

test('a large volume keeps every fourth or eighth trace, a small one nothing beside itself', () => {
  expect(coarseBy([500, 400, 500])).toBeNull();
  expect(coarseBy([1000, 1000, 500])).toBe(4);
  expect(coarseBy([2000, 2000, 2000])).toBe(8);
});

test('a first look is the plane itself where its traces are kept, and between them by interpolation', async () => {
  const { store, volume } = await large();
  expect(storedOf(volume).coarse?.by).toBe(4);
  for (const [plane, index] of [
    ['inline', 8],
    ['crossline', 4],
    ['slice', 3],
  ] as const) {
    const whole = await readPlane(store, volume, plane, index);
    const first = await readCoarsePlane(store, volume, plane, index);
    expect(first?.length).toBe(whole.length);
    // beyond the last kept trace it is held
    const [ni, nj, nk] = SHAPE;
    const width = plane === 'slice' ? nj : nk;
    for (let n = 0; n < whole.length; n++) {
      const [row, column] = [Math.floor(n / width), n % width];
      const inside =
        plane === 'inline' ? row <= 8 : plane === 'crossline' ? row <= 12 && row < ni : column <= 8 && row <= 12;
      if (inside) expect(first?.[n]).toBeCloseTo(whole[n], 3);
    }
  }
});

test('it is made again with the other copies, as when a parcel is opened', async () => {
  const { store, volume } = await large();
  const before = await Promise.all(PLANES.map((plane) => readCoarsePlane(store, volume, plane, 5)));
  await store.removeArrays('v/coarse');
  await store.removeArrays('v/crossline');
  await remakePlanes(store, storedOf(volume));
  const after = await Promise.all(PLANES.map((plane) => readCoarsePlane(store, volume, plane, 5)));
  expect(after).toEqual(before);
});
