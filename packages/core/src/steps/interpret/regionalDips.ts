import { APART_REACH, addApart, apartSums, withApart } from '../../attributes/apartDip.ts';
import {
  addToRegional,
  finishRegional,
  REGIONAL_REACH,
  type Regional,
  regionalSums,
} from '../../attributes/regional.ts';
import { stopIf } from '../../earth/errors.ts';
import type { Volume } from '../../earth/objects.ts';
import { shapeOfGrid } from '../../engine/local.ts';
import type { Shape3 } from '../../numerics/block.ts';
import { during } from '../../numerics/stop.ts';
import { readRegion } from '../../storage/regions.ts';
import type { Store } from '../../storage/store.ts';

/** Cells of the dips and how far they are smoothed; samples of a trace beyond which no dip is believed. */
const CELL: Shape3 = [2, 2, 4];
const SMOOTH: [number, number, number] = [1.2, 1.2, 1.5];
const STEEPEST = 4;
/** How often dips are moved by what traces further apart say: they change little after that. */
const MOVES = 3;
const SLAB = 32;

/** Go through a volume by slabs of whole lines, with so many more on each side. */
export async function bySlabs(
  store: Store,
  volume: Volume,
  reach: number,
  signal: AbortSignal | undefined,
  visit: (data: Float32Array, from: number, to: number) => void,
): Promise<void> {
  const [ni, nj, nk] = shapeOfGrid(volume);
  for (let i = 0; i < ni; i += SLAB) {
    stopIf(signal);
    const to = Math.min(ni, i + SLAB);
    const data = await readRegion(store, volume, { i: [i - reach, to + reach], j: [0, nj], k: [0, nk] });
    during(signal, () => visit(data, i, to));
  }
}

/** How the beds of a whole volume dip, slab by slab. */
export async function regionalDips(store: Store, seismic: Volume, signal?: AbortSignal): Promise<Regional> {
  const shape = shapeOfGrid(seismic);
  const sums = regionalSums(shape, CELL);
  await bySlabs(store, seismic, REGIONAL_REACH, signal, (data, from, to) => addToRegional(sums, data, from, to));
  let dips = finishRegional(sums, SMOOTH, STEEPEST);
  for (let n = 0; n < MOVES; n++) {
    const apart = apartSums(shape, dips);
    const known = dips;
    await bySlabs(store, seismic, APART_REACH, signal, (data, from, to) => addApart(apart, known, data, from, to));
    dips = withApart(dips, apart, SMOOTH, STEEPEST);
  }
  return dips;
}
