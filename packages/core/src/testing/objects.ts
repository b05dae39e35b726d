import type { Lattice } from '../earth/lattice.ts';
import type { EarthObject, Frame, Horizon, MadeBy, Volume } from '../earth/objects.ts';
import { RunningStatistics } from '../numerics/statistics.ts';
import { writeWhole } from '../storage/arrays.ts';
import type { Store } from '../storage/store.ts';
import { volumeWriter } from '../storage/volumes.ts';

/** The frame of a project. */
export const FRAME: Frame = {
  crs: 'EPSG:32740',
  crsName: 'WGS 84 / UTM zone 40S',
  unit: 'm',
  datumM: 0,
  replacementVelocity: 1500,
  polarity: 'harder-positive',
  display: 'metric',
};

/** A trail for objects that tests make up. */
export const MADE: MadeBy = {
  step: 'data.load',
  version: 1,
  params: {},
  inputs: {},
  started: '2026-01-01T00:00:00.000Z',
  tookMs: 1,
  warnings: [],
  engine: 'test',
};

const axis = (first: number, count: number) => ({ first, step: 1, count });

/** Bins of 25 m, turned by about 23°. */
export const TURNED: Lattice = {
  inline: axis(1000, 12),
  crossline: axis(2000, 15),
  origin: [512400, 7641900],
  perInline: [-9.768, 23.013],
  perCrossline: [23.013, 9.768],
};

/** A horizon from a function of line indexes, put in a store. */
export async function madeHorizon(
  store: Store,
  name: string,
  domain: 'twt' | 'depth',
  at: (i: number, j: number) => number,
  lattice = TURNED,
): Promise<Horizon> {
  const [ni, nj] = [lattice.inline.count, lattice.crossline.count];
  const values = Float32Array.from({ length: ni * nj }, (_, n) => at(Math.floor(n / nj), n % nj));
  const id = `horizon-${name.toLowerCase().replaceAll(' ', '-')}-${domain}`;
  const known = values.filter((v) => !Number.isNaN(v));
  const horizon: Horizon = {
    id,
    kind: 'horizon',
    name,
    revision: `${id}-1`,
    stage: 'interpret',
    madeBy: MADE,
    domain,
    lattice,
    values: await writeWhole(store, `${id}/values`, [ni, nj], values, ['inline', 'crossline']),
    range: [Math.min(...known), Math.max(...known)],
    filled: known.length / values.length,
  };
  await store.commit({ put: [horizon] });
  return horizon;
}

/** A volume in time from a function of line and sample indexes, put in a store. */
export async function madeVolume(
  store: Store,
  name: string,
  samples: { step: number; count: number },
  at: (i: number, j: number, k: number) => number,
  lattice = TURNED,
): Promise<Volume> {
  const shape: [number, number, number] = [lattice.inline.count, lattice.crossline.count, samples.count];
  const [ni, nj, nk] = shape;
  const id = `volume-${name.toLowerCase().replaceAll(' ', '-')}`;
  const writer = await volumeWriter(store, id, shape);
  const statistics = new RunningStatistics();
  let missing = 0;
  for (let a = 0; a < ni; a += writer.slab) {
    const slab = new Float32Array(writer.slab * nj * nk).fill(Number.NaN);
    const lines = Math.min(writer.slab, ni - a);
    for (let n = 0; n < lines * nj * nk; n++)
      slab[n] = at(a + Math.floor(n / (nj * nk)), Math.floor(n / nk) % nj, n % nk);
    for (let t = 0; t < lines * nj; t++) if (slab.subarray(t * nk, (t + 1) * nk).every(Number.isNaN)) missing++;
    statistics.add(slab.subarray(0, lines * nj * nk));
    await writer.write(a, slab);
  }
  await writer.finish();
  const volume: Volume = {
    id,
    kind: 'volume',
    name,
    revision: `${id}-1`,
    stage: 'data',
    madeBy: MADE,
    domain: 'twt',
    quantity: 'amplitude',
    unit: '',
    polarity: 'harder-positive',
    lattice,
    vertical: { first: 0, ...samples },
    layouts: writer.layouts,
    statistics: statistics.finish(),
    traces: { live: ni * nj - missing, missing, duplicate: 0 },
  };
  await store.commit({ put: [volume] });
  return volume;
}

/** Something of a project by its name; fails where it is not there. */
export async function named<O extends EarthObject>(store: Store, name: string): Promise<O> {
  const found = (await store.list()).find((o) => o.name === name);
  if (!found) throw new Error(`nothing is called ${name}`);
  return found as O;
}
