import { toIndex } from '../earth/binGrid.ts';
import type { Volume } from '../earth/objects.ts';
import { shapeOf } from '../storage/planes.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';

/** The trace of a volume whose bin a place lies in; null outside. */
export async function traceAt(store: Store, volume: Volume, i: number, j: number): Promise<Float32Array | null> {
  const [ni, nj, nk] = shapeOf(volume);
  return i >= 0 && j >= 0 && i < ni && j < nj
    ? readRegion(store, volume, { i: [i, i + 1], j: [j, j + 1], k: [0, nk] })
    : null;
}

/** The bins that a path passes at each sample of a volume, `[i, j]`; what is outside is outside. */
export function binsAlong(volume: Volume, place: (ms: number) => [number, number]): [number, number][] {
  const { first, step, count } = volume.vertical;
  return Array.from(
    { length: count },
    (_, k) => toIndex(volume.binGrid, ...place(first + k * step)).map(Math.round) as [number, number],
  );
}

/** Samples of a volume down a path: of each sample the bin that the path is in there; NaN outside. */
export async function samplesAlong(store: Store, volume: Volume, bins: [number, number][]): Promise<Float64Array> {
  const traces = new Map<string, Float32Array | null>();
  const out = new Float64Array(bins.length).fill(Number.NaN);
  for (const [k, [i, j]] of bins.entries()) {
    const key = `${i} ${j}`;
    if (!traces.has(key)) traces.set(key, await traceAt(store, volume, i, j));
    out[k] = traces.get(key)?.[k] ?? Number.NaN;
  }
  return out;
}

/** Traces of a volume spread evenly over it, whole ones without a null where there are such; `[trace][sample]` and their bins. */
export async function spreadTraces(
  store: Store,
  volume: Volume,
  lines: number,
  each: number,
): Promise<{ data: Float32Array; bins: [number, number][] }> {
  const [ni, nj, nk] = shapeOf(volume);
  const [data, bins]: [Float32Array[], [number, number][]] = [[], []];
  for (let n = 0; n < Math.min(lines, ni); n++) {
    const i = Math.min(ni - 1, Math.floor(((n + 0.5) * ni) / Math.min(lines, ni)));
    const line = await readRegion(store, volume, { i: [i, i + 1], j: [0, nj], k: [0, nk] });
    for (let m = 0; m < Math.min(each, nj); m++) {
      const j = Math.min(nj - 1, Math.floor(((m + 0.5) * nj) / Math.min(each, nj)));
      const trace = line.slice(j * nk, (j + 1) * nk);
      if (trace.some((v) => v !== v)) continue;
      data.push(trace);
      bins.push([i, j]);
    }
  }
  const all = new Float32Array(data.length * nk);
  for (const [n, trace] of data.entries()) all.set(trace, n * nk);
  return { data: all, bins };
}
