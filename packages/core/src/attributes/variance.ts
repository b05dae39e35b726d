import { threadKernels, varianceBlock } from '@lithagon/kernels';
import type { Block } from '../numerics/block.ts';
import { dipsOf, sampleAt } from './dip.ts';

/**
 * Variance of a block: how much neighbouring traces differ from their mean, over a vertical window, as a part of their
 * energy (0 alike, 1 unlike); NaN where there is no trace. Each sample is compared among the traces that have it.
 * Source: Marfurt et al. (1998), Geophysics 63, 1150–1165.
 * @param half samples above and below each
 */
export function variance({ data, size, halo, from, shape }: Block, half: number): Float32Array {
  const [ni, nj, nk] = [size[0] - 2 * halo.inline, size[1] - 2 * halo.crossline, size[2] - 2 * halo.sample];
  const out = new Float32Array(ni * nj * nk);
  const top = from[2] - halo.sample;
  const rows: [number, number] = [Math.max(0, -top), Math.min(size[2], shape[2] - top)];
  varianceBlock(threadKernels(), { data, size, radius: halo.inline, half, margin: halo.sample, rows }, out);
  return out;
}

/**
 * The same along the reflections: neighbours are moved by the local dip before they are compared, so that beds which only
 * dip are alike and what breaks them is not. Neighbours without a sample there are left out.
 * @param half samples above and below each
 * @param most steepest dip that is followed, samples a trace; the halo holds what neighbours are moved by and the dip's window
 */
export function varianceAlongDip(block: Block, half: number, most: number): Float32Array {
  const { data, size, halo } = block;
  const [mi, mj, mk] = size;
  const [ni, nj, nk] = [mi - 2 * halo.inline, mj - 2 * halo.crossline, mk - 2 * halo.sample];
  const radius = halo.inline;
  const out = new Float32Array(ni * nj * nk).fill(Number.NaN);
  const sum = new Float64Array(mk);
  const squares = new Float64Array(mk);
  const live = new Float64Array(mk);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const [ci, cj] = [i + halo.inline, j + halo.crossline];
      const dips = dipsOf(block, ci, cj, most, 2 * half);
      sum.fill(0);
      squares.fill(0);
      live.fill(0);
      for (let a = -radius; a <= radius; a++)
        for (let b = -radius; b <= radius; b++) {
          const at = ((ci + a) * mj + cj + b) * mk;
          for (let k = 0; k < mk; k++) {
            const v = sampleAt(data, at, mk, k + a * dips.inline[k] + b * dips.crossline[k]);
            if (v !== v) continue;
            sum[k] += v;
            squares[k] += v * v;
            live[k]++;
          }
        }
      const own = (ci * mj + cj) * mk;
      const to = (i * nj + j) * nk;
      let [spread, energy] = [0, 0];
      const add = (k: number, sign: number) => {
        if (k < 0 || k >= mk || live[k] < 2) return;
        spread += sign * (squares[k] - (sum[k] * sum[k]) / live[k]);
        energy += sign * squares[k];
      };
      for (let k = halo.sample - half; k < halo.sample + half; k++) add(k, 1);
      for (let k = 0; k < nk; k++) {
        const here = k + halo.sample;
        add(here + half, 1);
        const value = data[own + here];
        if (value === value && live[here] >= 2)
          out[to + k] = energy > 0 ? Math.min(1, Math.max(0, spread / energy)) : 0;
        add(here - half, -1);
      }
    }
  return out;
}
