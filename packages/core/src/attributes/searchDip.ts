import { roomIn, threadKernels } from '@lithagon/kernels';
import type { Block, Halo, Shape3 } from '../numerics/block.ts';
import type { Slopes } from './tensorDip.ts';

export interface SearchSpec {
  /** Traces to each side, samples to each side of the window, and the steepest slope looked for, samples a trace. */
  radius: number;
  half: number;
  most: number;
}

/** Slopes are tried every so many samples a trace. */
const EVERY = 0.5;

/** What a search needs around it. */
export function searchHalo({ radius, half, most }: SearchSpec): Halo {
  return { inline: radius, crossline: radius, sample: half + Math.ceil(radius * most) + 2 };
}

/**
 * Slopes of a block by search: along each axis that slope along which the semblance of the traces beside, over a window, is
 * greatest, refined by a parabola (Marfurt, Kirlin, Farmer & Bahorich 1998, Geophysics 63, 1150–1165; Marfurt 2006, Geophysics 71, P29–P40).
 * @param more how far beyond what is wanted slopes are given too
 */
export function searchSlopes(block: Pick<Block, 'data' | 'size' | 'halo'>, spec: SearchSpec, more: Halo): Slopes {
  const { data, size, halo } = block;
  const { radius, half, most } = spec;
  const [, mj, mk] = size;
  const [ci, cj, ck] = [halo.inline - more.inline, halo.crossline - more.crossline, halo.sample - more.sample];
  const wanted: Shape3 = [size[0] - 2 * ci, mj - 2 * cj, mk - 2 * ck];
  const [ni, nj, nk] = wanted;
  const kernels = threadKernels();
  const room = roomIn(kernels);
  const wide = (mk + 3) & ~3;
  const traces = 2 * radius + 1;
  const [source, rows] = [room.take(traces * wide), room.take(traces * wide)];
  const [lag, none] = [room.take(wide), room.take(wide)];
  const folds = room.take(3 * wide);
  const boxed = [room.take(wide), room.take(wide)];
  const ones = room.take(2 * half + 1);
  const steps = 2 * Math.ceil(most / EVERY) + 1;
  const scores = new Float32Array(steps * nk);
  room.floats(none, wide).fill(0);
  room.floats(ones, 2 * half + 1).fill(1);
  room.floats(source, traces * wide).fill(Number.NaN);
  const out = {
    p: new Float32Array(ni * nj * nk),
    q: new Float32Array(ni * nj * nk),
    chaos: new Float32Array(ni * nj * nk),
  };
  const [lags, sums, squares, counts] = [
    room.floats(lag, wide),
    room.floats(folds, wide),
    room.floats(folds + 4 * wide, wide),
    room.floats(folds + 8 * wide, wide),
  ];
  const [tops, bottoms] = boxed.map((at) => room.floats(at, wide));
  const into = room.floats(source, traces * wide);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++)
      for (const [axis, to] of [out.p, out.q].entries()) {
        for (let d = -radius; d <= radius; d++) {
          const from = ((i + ci + (axis === 0 ? d : 0)) * mj + j + cj + (axis === 1 ? d : 0)) * mk;
          into.set(data.subarray(from, from + mk), (d + radius) * wide);
        }
        for (let l = 0; l < steps; l++) {
          lags.fill((l - (steps >> 1)) * EVERY);
          for (let d = -radius; d <= radius; d++)
            kernels.moved(source + 4 * (d + radius) * wide, lag, none, d, 0, rows + 4 * (d + radius) * wide, wide);
          kernels.foldRows(rows, traces, wide, folds, folds + 4 * wide, folds + 8 * wide);
          for (let k = 0; k < wide; k++) {
            sums[k] = counts[k] > 1 ? (sums[k] * sums[k]) / counts[k] : 0;
            if (counts[k] < 2) squares[k] = 0;
          }
          kernels.weigh(folds, boxed[0] + 4 * half, wide - 2 * half, 1, ones, 2 * half + 1);
          kernels.weigh(folds + 4 * wide, boxed[1] + 4 * half, wide - 2 * half, 1, ones, 2 * half + 1);
          for (let k = 0; k < nk; k++) scores[l * nk + k] = bottoms[k + ck] > 0 ? tops[k + ck] / bottoms[k + ck] : 0;
        }
        const at = (i * nj + j) * nk;
        for (let k = 0; k < nk; k++) {
          let top = steps >> 1;
          for (let l = 0; l < steps; l++) if (scores[l * nk + k] > scores[top * nk + k] + 1e-6) top = l;
          let found = top;
          if (top > 0 && top < steps - 1) {
            const [a, b, c] = [top - 1, top, top + 1].map((l) => scores[l * nk + k]);
            const bend = a - 2 * b + c;
            if (bend < 0) found += Math.max(-0.5, Math.min(0.5, (0.5 * (a - c)) / bend));
          }
          to[at + k] = (found - (steps >> 1)) * EVERY;
          out.chaos[at + k] = Math.max(out.chaos[at + k], 1 - scores[top * nk + k]);
        }
      }
  return { ...out, size: wanted };
}
