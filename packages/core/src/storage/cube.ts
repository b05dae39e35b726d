import { stopIf } from '../earth/errors.ts';
import type { Volume } from '../earth/objects.ts';
import { readInlines, shapeOf } from './planes.ts';
import type { Store } from './store.ts';

/** A volume thinned to few samples, to be looked through. */
export interface CoarseCube {
  /** `[inline][crossline][sample]`. */
  data: Float32Array;
  shape: [number, number, number];
}

/**
 * A volume thinned evenly to at most so many samples along each axis. Of each block the sample of the greatest size stands for
 * it where values swing about zero, so that a thin bright event stays; their mean elsewhere. Read slab by slab.
 */
export async function readCoarseCube(
  store: Store,
  volume: Volume,
  most: [number, number, number],
  signed: boolean,
  signal?: AbortSignal,
): Promise<CoarseCube> {
  const [ni, nj, nk] = shapeOf(volume);
  const by = [ni, nj, nk].map((n, axis) => Math.ceil(n / most[axis]));
  const shape = [ni, nj, nk].map((n, axis) => Math.ceil(n / by[axis])) as [number, number, number];
  const [, cj, ck] = shape;
  const data = new Float32Array(shape[0] * cj * ck);
  const counts = new Uint16Array(cj * ck);
  for (let i = 0; i < shape[0]; i++) {
    stopIf(signal);
    const [from, to] = [i * by[0], Math.min(ni, (i + 1) * by[0])];
    const lines = await readInlines(store, volume, from, to);
    const out = data.subarray(i * cj * ck, (i + 1) * cj * ck);
    counts.fill(0);
    for (let n = 0; n < (to - from) * nj; n++) {
      const row = Math.floor((n % nj) / by[1]) * ck;
      for (let k = 0; k < nk; k++) {
        const v = lines[n * nk + k];
        if (v !== v) continue;
        const at = row + Math.floor(k / by[2]);
        if (!signed) out[at] += v;
        else if (counts[at] === 0 || Math.abs(v) > Math.abs(out[at])) out[at] = v;
        counts[at]++;
      }
    }
    for (let at = 0; at < out.length; at++)
      if (counts[at] === 0) out[at] = Number.NaN;
      else if (!signed) out[at] /= counts[at];
  }
  return { data, shape };
}
