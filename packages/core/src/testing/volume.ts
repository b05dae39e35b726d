import type { BinGrid } from '../earth/binGrid.ts';
import { RunningStatistics } from '../numerics/statistics.ts';
import type { Store } from '../storage/store.ts';
import { type StoredVolume, volumeWriter } from '../storage/volumes.ts';
import { MADE, TURNED } from './objects.ts';

/** A volume from a function of inline, crossline and sample indexes, put in a store. */
export async function madeVolume(
  store: Store,
  at: (i: number, j: number, k: number) => number,
  { binGrid = TURNED, samples = 20, first = 100, step = 4, name = 'Made' } = {} as Partial<{
    binGrid: BinGrid;
    samples: number;
    first: number;
    step: number;
    name: string;
  }>,
): Promise<StoredVolume> {
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  const id = `volume-${name.replace(/[^A-Za-z0-9]+/g, '-').slice(0, 60)}`;
  const writer = await volumeWriter(store, id, [ni, nj, samples]);
  const statistics = new RunningStatistics();
  let live = 0;
  for (let i0 = 0; i0 < ni; i0 += writer.slab) {
    const slab = new Float32Array(writer.slab * nj * samples).fill(Number.NaN);
    for (let i = i0; i < Math.min(ni, i0 + writer.slab); i++)
      for (let j = 0; j < nj; j++) {
        let there = false;
        for (let k = 0; k < samples; k++) {
          const v = at(i, j, k);
          slab[((i - i0) * nj + j) * samples + k] = v;
          if (v === v) there = true;
        }
        if (there) live++;
      }
    statistics.add(slab.subarray(0, Math.min(writer.slab, ni - i0) * nj * samples));
    await writer.write(i0, slab);
  }
  await writer.finish();
  const volume: StoredVolume = {
    id,
    kind: 'volume',
    name,
    revision: `${id}-1`,
    stage: 'data',
    madeBy: MADE,
    binGrid,
    domain: 'twt',
    quantity: 'amplitude',
    unit: '',
    polarity: 'harder-positive',
    vertical: { first, step, count: samples },
    layouts: writer.layouts,
    statistics: statistics.finish(),
    traces: { live, missing: ni * nj - live, duplicate: 0 },
  };
  await store.commit({ put: [volume] });
  return volume;
}
