import type { BinGrid } from '../earth/binGrid.ts';
import type { EarthObject, Frame, Horizon, MadeBy } from '../earth/objects.ts';
import { writeWhole } from '../storage/arrays.ts';
import type { Store } from '../storage/store.ts';

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
export const TURNED: BinGrid = {
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
  binGrid = TURNED,
): Promise<Horizon> {
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
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
    binGrid,
    values: await writeWhole(store, `${id}/values`, [ni, nj], values, ['inline', 'crossline']),
    range: [Math.min(...known), Math.max(...known)],
    filled: known.length / values.length,
  };
  await store.commit({ put: [horizon] });
  return horizon;
}

/** Something of a project by its name; fails where it is not there. */
export async function named<O extends EarthObject>(store: Store, name: string): Promise<O> {
  const found = (await store.list()).find((o) => o.name === name);
  if (!found) throw new Error(`nothing is called ${name}`);
  return found as O;
}

/** The same object under another id, its arrays under that id too. */
export function twinOf<T extends EarthObject>(object: T, id: string): T {
  const text = JSON.stringify({ ...object, id });
  return JSON.parse(text.replace(/"key":"[^"/]+\//g, `"key":"${id}/`)) as T;
}
