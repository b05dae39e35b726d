import { threadKernels } from '@lithagon/kernels';
import type { Block } from '../numerics/block.ts';
import { eachMoved } from './neighbours.ts';
import type { Slopes } from './tensorDip.ts';

export const COHERENCE_MEASURES = ['semblance', 'eigenstructure', 'variance'] as const;
export type CoherenceMeasure = (typeof COHERENCE_MEASURES)[number];

/**
 * Likeness of neighbouring traces along the slopes of reflections, over a window: semblance (Marfurt et al. 1998, Geophysics 63,
 * 1150–1165) and eigenstructure (Gersztenkorn & Marfurt 1999, Geophysics 64, 1468–1479) from 0 to 1, alike; variance (one less
 * semblance) from 0, alike. Traces that have no sample there are left out; NaN where fewer than two have one.
 * @param slopes of what is wanted with `half` samples above and below
 */
export function coherence(
  block: Pick<Block, 'data' | 'size' | 'halo'>,
  slopes: Slopes,
  radius: number,
  half: number,
  measure: CoherenceMeasure,
): Float32Array {
  const { size, halo } = block;
  const nk = size[2] - 2 * halo.sample;
  const out = new Float32Array((size[0] - 2 * halo.inline) * (size[1] - 2 * halo.crossline) * nk);
  const kernels = threadKernels();
  const count = (2 * radius + 1) ** 2;
  const pairs = (count * (count + 1)) / 2;
  let [folds, top, bottom, ones, products, boxed, scratch, value] = [0, 0, 0, 0, 0, 0, 0, 0];
  eachMoved(
    kernels,
    block,
    radius,
    slopes,
    { inline: 0, crossline: 0, sample: half },
    (room, wide) => {
      folds = room.take(3 * wide);
      [top, bottom, ones] = [room.take(wide), room.take(wide), room.take(2 * half + 1)];
      if (measure === 'eigenstructure') {
        [products, boxed] = [room.take(pairs * wide), room.take(pairs * wide)];
        [scratch, value] = [room.take(8 * count), room.take(wide)];
      }
      room.floats(ones, 2 * half + 1).fill(1);
    },
    ({ room, rows, wide, first }, trace) => {
      const to = trace * nk;
      const live = room.floats(folds + 8 * wide, wide);
      kernels.foldRows(rows, count, wide, folds, folds + 4 * wide, folds + 8 * wide);
      if (measure === 'eigenstructure') {
        kernels.pairProducts(rows, count, wide, products);
        kernels.weigh(products, boxed + 4 * half, pairs * wide - 2 * half, 1, ones, 2 * half + 1);
        kernels.firstPart(boxed, count, wide, first, nk, scratch, value);
        const held = room.floats(value, nk);
        for (let k = 0; k < nk; k++) out[to + k] = live[first + k] < 2 ? Number.NaN : held[k];
        return;
      }
      const [sums, squares] = [room.floats(folds, wide), room.floats(folds + 4 * wide, wide)];
      for (let k = 0; k < wide; k++)
        if (live[k] < 2) sums[k] = squares[k] = 0;
        else sums[k] = (sums[k] * sums[k]) / live[k];
      kernels.weigh(folds, top + 4 * half, wide - 2 * half, 1, ones, 2 * half + 1);
      kernels.weigh(folds + 4 * wide, bottom + 4 * half, wide - 2 * half, 1, ones, 2 * half + 1);
      const [a, b] = [room.floats(top, wide), room.floats(bottom, wide)];
      for (let k = 0; k < nk; k++) {
        const at = first + k;
        const part = b[at] > 0 ? Math.min(1, Math.max(0, a[at] / b[at])) : 1;
        out[to + k] = live[at] < 2 ? Number.NaN : measure === 'variance' ? 1 - part : part;
      }
    },
  );
  return out;
}
