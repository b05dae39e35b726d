import { threadKernels } from '@lithagon/kernels';
import type { Block, Halo } from '../numerics/block.ts';
import { eachMoved } from './neighbours.ts';
import { cutOut, type Slopes } from './tensorDip.ts';

const NONE: Halo = { inline: 0, crossline: 0, sample: 0 };

/** Median of each sample and its neighbours along the reflections: what is out of line goes, edges stay. */
export function medianAlong(
  block: Pick<Block, 'data' | 'size' | 'halo'>,
  slopes: Slopes,
  radius: number,
): Float32Array {
  return filtered(block, slopes, radius, (kernels, rows, count, wide, to) => kernels.medianRows(rows, count, wide, to));
}

/**
 * Mean of the calmest of the windows that hold a sample, along the reflections: noise goes, and no window that is taken reaches over an
 * edge (Luo et al. 2002, The Leading Edge 21, 136–158).
 */
export function edgePreserving(
  block: Pick<Block, 'data' | 'size' | 'halo'>,
  slopes: Slopes,
  radius: number,
): Float32Array {
  const width = 2 * radius + 1;
  const sets: number[][] = [];
  // windows of half the width whose corners, sides or middle the sample is
  for (let a = 0; a <= radius; a++)
    for (let b = 0; b <= radius; b++) {
      const set: number[] = [];
      for (let i = 0; i <= radius; i++) for (let j = 0; j <= radius; j++) set.push((a + i) * width + b + j);
      sets.push(set);
    }
  let list = 0;
  return filtered(
    block,
    slopes,
    radius,
    (kernels, rows, _, wide, to) => kernels.calmest(rows, wide, list, sets.length, sets[0].length, to),
    (room) => {
      list = room.take(sets.length * sets[0].length);
      room.ints(list, sets.length * sets[0].length).set(sets.flat());
    },
  );
}

type Filter = (
  kernels: ReturnType<typeof threadKernels>,
  rows: number,
  count: number,
  wide: number,
  to: number,
) => void;

function filtered(
  block: Pick<Block, 'data' | 'size' | 'halo'>,
  slopes: Slopes,
  radius: number,
  filter: Filter,
  prepare: (room: Parameters<Parameters<typeof eachMoved>[5]>[0]) => void = () => undefined,
): Float32Array {
  const { size, halo } = block;
  const nk = size[2] - 2 * halo.sample;
  const out = new Float32Array((size[0] - 2 * halo.inline) * (size[1] - 2 * halo.crossline) * nk);
  const kernels = threadKernels();
  let to = 0;
  eachMoved(
    kernels,
    block,
    radius,
    slopes,
    NONE,
    (room, wide) => {
      to = room.take(wide);
      prepare(room);
    },
    ({ room, rows, count, wide, first }, trace) => {
      filter(kernels, rows, count, wide, to);
      out.set(room.floats(to + 4 * first, nk), trace * nk);
    },
  );
  return out;
}

/**
 * Diffusion along the reflections: each turn draws samples to their eight neighbours there, the less the more disorder there is, so
 * that faults are not smoothed over (Fehmers & Höcker 2003, Geophysics 68, 1286–1293).
 * @param slopes of the whole block less one trace and two samples on each side for each turn before the last
 * @param hold the power of order by which a sample is trusted: none smooths everywhere alike
 */
export function diffusionAlong(
  block: Pick<Block, 'data' | 'size' | 'halo'>,
  slopes: Slopes,
  turns: number,
  hold: number,
  samplesATurn: number,
): Float32Array {
  const kernels = threadKernels();
  let { data, size, halo } = block;
  for (let turn = 0; turn < turns; turn++) {
    const left = turns - 1 - turn;
    const more: Halo = { inline: left, crossline: left, sample: left * samplesATurn };
    const wanted: [number, number, number] = [
      size[0] - 2 * (halo.inline - more.inline),
      size[1] - 2 * (halo.crossline - more.crossline),
      size[2] - 2 * (halo.sample - more.sample),
    ];
    const here: Slopes = {
      p: cutOut(slopes.p, slopes.size, wanted),
      q: cutOut(slopes.q, slopes.size, wanted),
      chaos: cutOut(slopes.chaos, slopes.size, wanted),
      size: wanted,
    };
    const inner: Halo = {
      inline: halo.inline - more.inline,
      crossline: halo.crossline - more.crossline,
      sample: halo.sample - more.sample,
    };
    const next = new Float32Array(wanted[0] * wanted[1] * wanted[2]);
    let [u, trust, to] = [0, 0, 0];
    eachMoved(
      kernels,
      { data, size, halo: inner },
      1,
      here,
      NONE,
      (room, wide) => {
        [u, trust, to] = [room.take(wide), room.take(wide), room.take(wide)];
      },
      ({ room, rows, count, wide, first }, trace) => {
        const at = trace * wanted[2];
        // the row in the middle is the trace itself
        room.floats(u, wide).set(room.floats(rows + 4 * (count >> 1) * wide, wide));
        const trusts = room.floats(trust, wide).fill(0);
        for (let k = 0; k < wanted[2]; k++) trusts[first + k] = (1 - here.chaos[at + k]) ** hold;
        kernels.diffuse(u, rows, count, wide, trust, 1 / 9, to);
        next.set(room.floats(to + 4 * first, wanted[2]), at);
      },
    );
    [data, size, halo] = [next, wanted, more];
  }
  return data;
}
