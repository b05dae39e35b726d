import { HEAP_BASE, type Kernels, reserve } from './load.ts';

/** A block of traces around those wanted, `[inline][crossline][sample]`, NaN where there is none. */
export interface VarianceBlock {
  data: Float32Array;
  /** Size with what surrounds it. */
  size: [number, number, number];
  /** Neighbours on each side, in lines and traces; the block holds as many more. */
  radius: number;
  /** Samples above and below that the window takes in. */
  half: number;
  /** Samples at the top and bottom of the block that nothing is wanted for. */
  margin: number;
  /** Rows of the block that the volume has, ends excluded: what lies beyond is no gap. */
  rows: [number, number];
}

const outOf = ({ size: [mi, mj, mk], radius, margin }: VarianceBlock): [number, number, number] => [
  mi - 2 * radius,
  mj - 2 * radius,
  mk - 2 * margin,
];

/** Where things lie in the memory of the kernels, bytes. */
function placesFor({ size, radius, margin }: VarianceBlock) {
  const [, mj, mk] = size;
  const nj = mj - 2 * radius;
  const ring = 4 * (2 * radius + 1) * nj * mk;
  const line = HEAP_BASE;
  const mask = line + 4 * mj * mk;
  const sums = (mask + 4 * mj * mk + 15) & ~15;
  const squares = sums + ring;
  const gaps = squares + ring;
  const counts = gaps + ring;
  const scratch = (counts + 4 * nj + 15) & ~15;
  const out = scratch + 8 * mk;
  return { line, mask, sums, squares, gaps, counts, scratch, out, end: out + 4 * nj * (mk - 2 * margin) };
}

/**
 * Variance of a block by the compiled kernel: 0 (alike) to 1, NaN where there is no trace or fewer than two have a sample.
 * Sums along lines are made once a line and kept for the lines beside it.
 * @param out `[inline][crossline][sample]` of what is wanted
 */
export function varianceBlock(kernels: Kernels, block: VarianceBlock, out: Float32Array): void {
  const { data, size, radius, half, margin, rows } = block;
  const [ni, nj, nk] = outOf(block);
  const [mi, mj, mk] = size;
  if (data.length !== mi * mj * mk)
    throw new RangeError(`a block of ${size.join(' × ')} has not ${data.length} samples`);
  if (out.length !== ni * nj * nk) throw new RangeError(`${ni} × ${nj} × ${nk} samples are wanted, not ${out.length}`);
  const lines = 2 * radius + 1;
  const lineBytes = 4 * nj * mk;
  const at = placesFor(block);
  reserve(kernels, at.end);
  const { buffer } = kernels.memory;
  const line = new Float32Array(buffer, at.line, mj * mk);
  const mask = new Float32Array(buffer, at.mask, mj * mk);
  const made = new Float32Array(buffer, at.out, nj * nk);
  const counts = new Int32Array(buffer, at.counts, nj);
  const live = new Uint8Array(mi * mj);
  /** Whether the counts by sample of a line are in the ring, and whether it has gaps. */
  const counted = new Uint8Array(mi);
  const gappy = new Uint8Array(mi);
  for (let i = 0; i < mi; i++) {
    line.set(data.subarray(i * mj * mk, (i + 1) * mj * mk));
    for (let j = 0; j < mj; j++) {
      const samples = kernels.liveSamples(at.line + 4 * (j * mk + rows[0]), rows[1] - rows[0]);
      live[i * mj + j] = samples > 0 ? 1 : 0;
      if (samples > 0 && samples < rows[1] - rows[0]) gappy[i] = 1;
    }
    kernels.withoutNulls(at.line, gappy[i] ? at.mask : 0, mj * mk);
    const slot = i % lines;
    kernels.rowSums(at.line, nj, mk, radius, at.sums + slot * lineBytes, at.squares + slot * lineBytes);
    if (gappy[i]) {
      kernels.rowCounts(at.mask, nj, mk, radius, at.gaps + slot * lineBytes);
      counted[i] = 1;
    }
    if (i < 2 * radius) continue;
    const from = i - 2 * radius;
    const withGaps = gappy.subarray(from, i + 1).includes(1);
    if (withGaps)
      for (let n = from; n <= i; n++) {
        if (counted[n]) continue;
        for (let j = 0; j < mj; j++) mask.fill(live[n * mj + j], j * mk, (j + 1) * mk);
        kernels.rowCounts(at.mask, nj, mk, radius, at.gaps + (n % lines) * lineBytes);
        counted[n] = 1;
      }
    countLive(live, from, mj, radius, counts);
    const { sums, squares, scratch } = at;
    const gaps = withGaps ? at.gaps : 0;
    const oldest = (slot + 1) % lines;
    kernels.slidingRatio(sums, squares, at.counts, gaps, scratch, at.out, nj, mk, lines, oldest, half, margin, nk);
    out.set(made, from * nj * nk);
  }
}

/** How many traces each window of a line has; 0 where its own trace is missing. */
function countLive(live: Uint8Array, i: number, mj: number, radius: number, counts: Int32Array): void {
  for (let j = 0; j < counts.length; j++) {
    counts[j] = 0;
    if (!live[(i + radius) * mj + j + radius]) continue;
    for (let di = 0; di <= 2 * radius; di++)
      for (let dj = 0; dj <= 2 * radius; dj++) counts[j] += live[(i + di) * mj + j + dj];
  }
}

/** The same in plain TypeScript, every window summed anew: what the kernel is tested and measured against. */
export function varianceBlockTwin(block: VarianceBlock, out: Float32Array): void {
  const { data, size, radius, half, margin, rows } = block;
  const [ni, nj, nk] = outOf(block);
  const [, mj, mk] = size;
  const width = 2 * radius + 1;
  const spread = new Float32Array(mk);
  const squares = new Float32Array(mk);
  const count = new Float32Array(mk);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      spread.fill(0);
      squares.fill(0);
      count.fill(0);
      for (let di = 0; di < width; di++)
        for (let dj = 0; dj < width; dj++) {
          const at = ((i + di) * mj + j + dj) * mk;
          for (let k = 0; k < mk; k++) {
            const v = data[at + k];
            if (v !== v) continue;
            spread[k] += v;
            squares[k] += v * v;
            count[k]++;
          }
        }
      const own = ((i + radius) * mj + j + radius) * mk;
      const to = (i * nj + j) * nk;
      if (!data.subarray(own + rows[0], own + rows[1]).some((v) => v === v)) {
        out.fill(Number.NaN, to, to + nk);
        continue;
      }
      for (let k = 0; k < mk; k++) {
        spread[k] = count[k] < 2 ? 0 : squares[k] - (spread[k] * spread[k]) / count[k];
        if (count[k] < 2) squares[k] = 0;
      }
      let a = 0;
      let b = 0;
      const add = (k: number, sign: number) => {
        if (k < 0 || k >= mk) return;
        a += sign * spread[k];
        b += sign * squares[k];
      };
      for (let k = margin - half; k < margin + half; k++) add(k, 1);
      for (let k = 0; k < nk; k++) {
        add(margin + k + half, 1);
        const value = b > 0 ? Math.min(1, Math.max(0, a / b)) : 0;
        out[to + k] = count[margin + k] < 2 ? Number.NaN : value;
        add(margin + k - half, -1);
      }
    }
}
