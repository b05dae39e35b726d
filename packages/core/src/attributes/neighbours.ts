import { type Kernels, type Room, roomIn } from '@lithagon/kernels';
import type { Block, Halo, Shape3 } from '../numerics/block.ts';
import type { Slopes } from './tensorDip.ts';

/** Traces round each trace of a block, moved along the slope of the reflections there. */
export interface Neighbours {
  room: Room;
  /** Rows one after the other, lines within them, and how long each is: a multiple of four. */
  rows: number;
  count: number;
  wide: number;
  /** Where a row's samples of those wanted begin, and how many slopes there are below and above. */
  first: number;
}

/**
 * Visit every trace that is wanted with its neighbours moved to it: `visit` finds rows in the memory of the kernels, trace
 * `(di + radius) · (2 radius + 1) + dj + radius` in its place, and the trace's number among those wanted.
 * @param slopes of what is wanted and `more.sample` samples above and below
 */
export function eachMoved(
  kernels: Kernels,
  block: Pick<Block, 'data' | 'size' | 'halo'>,
  radius: number,
  slopes: Slopes,
  more: Halo,
  prepare: (room: Room, wide: number) => void,
  visit: (at: Neighbours, trace: number) => void,
): void {
  const { data, size, halo } = block;
  const [, mj, mk] = size;
  const [ni, nj]: Shape3 = [size[0] - 2 * halo.inline, mj - 2 * halo.crossline, 0];
  const [si, sj, sk] = slopes.size;
  const room = roomIn(kernels);
  const width = 2 * radius + 1;
  const count = width * width;
  const wide = (mk + 3) & ~3;
  // lines that are at hand at once
  const lines = room.take(width * mj * wide);
  const [p, q, rows] = [room.take(wide), room.take(wide), room.take(count * wide)];
  prepare(room, wide);
  const held = room.floats(lines, width * mj * wide).fill(Number.NaN);
  const [ps, qs] = [room.floats(p, wide).fill(0), room.floats(q, wide).fill(0)];
  const load = (line: number) => {
    const slot = (line % width) * mj;
    for (let j = 0; j < mj; j++) {
      const from = (line * mj + j) * mk;
      held.set(data.subarray(from, from + mk), (slot + j) * wide);
    }
  };
  const [oi, oj] = [(si - ni) >> 1, (sj - nj) >> 1];
  const ok = halo.sample - more.sample;
  for (let line = halo.inline - radius; line < halo.inline + radius; line++) load(line);
  for (let i = 0; i < ni; i++) {
    load(i + halo.inline + radius);
    for (let j = 0; j < nj; j++) {
      const from = ((i + oi) * sj + j + oj) * sk;
      ps.set(slopes.p.subarray(from, from + sk), ok);
      qs.set(slopes.q.subarray(from, from + sk), ok);
      for (let di = -radius; di <= radius; di++)
        for (let dj = -radius; dj <= radius; dj++) {
          const source = lines + 4 * (((i + halo.inline + di) % width) * mj + j + halo.crossline + dj) * wide;
          const to = rows + 4 * ((di + radius) * width + dj + radius) * wide;
          kernels.moved(source, p, q, di, dj, to, wide);
        }
      visit({ room, rows, count, wide, first: halo.sample }, i * nj + j);
    }
  }
}
