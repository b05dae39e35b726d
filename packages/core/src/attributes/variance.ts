import { threadKernels, varianceLine } from '@lithagon/kernels';
import type { Block } from '../steps/define.ts';

/**
 * Variance of a block: how much neighbouring traces differ from their mean, over a vertical window, as a part of their
 * energy (0 alike, 1 unlike); NaN where there is no trace or no sample. Halo samples that are not numbers count as zero.
 * Source: Marfurt et al. (1998), Geophysics 63, 1150–1165.
 * @param half samples above and below each
 */
export function variance(block: Block, half: number): Float32Array {
  const kernels = threadKernels();
  const { data, size, halo } = block;
  const radius = halo.inline;
  const [mi, mj, mk] = size;
  const ni = mi - 2 * halo.inline;
  const nj = mj - 2 * halo.crossline;
  const nk = mk - 2 * halo.sample;
  const live = new Uint8Array(mi * mj);
  const filled = new Float32Array(data.length);
  for (let n = 0; n < live.length; n++)
    for (let k = 0; k < mk; k++) {
      const value = data[n * mk + k];
      if (Number.isNaN(value)) continue;
      filled[n * mk + k] = value;
      live[n] = 1;
    }
  const out = new Float32Array(ni * nj * nk);
  const line = new Float32Array(nj * mk);
  const lines = 2 * radius + 1;
  for (let i = 0; i < ni; i++) {
    varianceLine(
      kernels,
      {
        data: filled.subarray(i * mj * mk, (i + lines) * mj * mk),
        live: live.subarray(i * mj, (i + lines) * mj),
        traces: nj,
        samples: mk,
        radius,
        half,
      },
      line,
    );
    for (let j = 0; j < nj; j++) {
      const to = (i * nj + j) * nk;
      out.set(line.subarray(j * mk + halo.sample, j * mk + halo.sample + nk), to);
      // what has no sample has no variance, whatever is around it
      const from = ((i + halo.inline) * mj + j + halo.crossline) * mk + halo.sample;
      for (let k = 0; k < nk; k++) if (Number.isNaN(data[from + k])) out[to + k] = Number.NaN;
    }
  }
  return out;
}
