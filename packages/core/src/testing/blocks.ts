import type { Block, Halo } from '../numerics/block.ts';

/** A block of so many samples wanted, with its halo, of values by line, trace and sample counted from the first that is wanted. */
export function madeBlock(
  wanted: [number, number, number],
  halo: Halo,
  at: (i: number, j: number, k: number) => number,
): Block {
  const size: Block['size'] = [
    wanted[0] + 2 * halo.inline,
    wanted[1] + 2 * halo.crossline,
    wanted[2] + 2 * halo.sample,
  ];
  const data = new Float32Array(size[0] * size[1] * size[2]);
  let n = 0;
  for (let i = 0; i < size[0]; i++)
    for (let j = 0; j < size[1]; j++)
      for (let k = 0; k < size[2]; k++) data[n++] = at(i - halo.inline, j - halo.crossline, k - halo.sample);
  return { data, size, halo, stepMs: 4, from: [0, 0, 0], shape: size };
}
