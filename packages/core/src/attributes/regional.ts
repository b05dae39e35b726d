import { roomIn, threadKernels } from '@lithagon/kernels';
import type { Shape3 } from '../numerics/block.ts';
import { gaussian, REACH, tensorsOf } from './tensorDip.ts';

/** Values on a lattice of cells of a volume, `[inline][crossline][sample]` of cells, each standing at the middle of its cell. */
export interface Lattice {
  /** Lines, traces and samples of a cell. */
  cell: Shape3;
  size: Shape3;
}

/** What is the same over many traces and samples: how beds dip there, how plane they are, and how strong. */
export interface Regional extends Lattice {
  /** Samples that reflections drop towards the next inline and the next crossline. */
  p: Float32Array;
  q: Float32Array;
  /** From 0, without order, to 1, a plane. */
  plane: Float32Array;
  /** Mean square of the samples. */
  energy: Float32Array;
}

/** A lattice over so many lines, traces and samples. */
export const latticeOver = (shape: Shape3, cell: Shape3): Lattice => ({
  cell,
  size: shape.map((n, axis) => Math.ceil(n / cell[axis])) as Shape3,
});

/** Sums over cells while a volume is read slab by slab. */
export interface RegionalSums extends Lattice {
  shape: Shape3;
  tensors: Float64Array[];
  squares: Float64Array;
  counts: Float64Array;
}

export function regionalSums(shape: Shape3, cell: Shape3): RegionalSums {
  const lattice = latticeOver(shape, cell);
  const length = lattice.size.reduce((a, n) => a * n, 1);
  const made = () => new Float64Array(length);
  return { ...lattice, shape, tensors: Array.from({ length: 6 }, made), squares: made(), counts: made() };
}

/** Lines around a slab that its gradients need. */
export const REGIONAL_REACH = REACH;

/**
 * Add the lines from `from` to `to` (excluded) of a volume; `data` holds those and `REGIONAL_REACH` on each side, NaN where there is
 * none. Gradients that touch a missing sample do not count.
 */
export function addToRegional(sums: RegionalSums, data: Float32Array, from: number, to: number): void {
  const kernels = threadKernels();
  const room = roomIn(kernels);
  const [, nj, nk] = sums.shape;
  const size: Shape3 = [to - from + 2 * REACH, nj, nk];
  const { tensors, row } = tensorsOf(kernels, room, data, size);
  const rows = [0, 1, 2, 3, 4, 5].map((n) => room.floats(tensors + 4 * n * row, row));
  const [ci, cj, ck] = sums.cell;
  const [, lj, lk] = sums.size;
  for (let i = 0; i < to - from; i++) {
    const a = Math.floor((from + i) / ci);
    for (let j = 0; j < nj; j++) {
      const edge = j < REACH || j >= nj - REACH;
      const line = ((i + REACH) * nj + j) * nk;
      const cellRow = (a * lj + Math.floor(j / cj)) * lk;
      for (let k = 0; k < nk; k++) {
        const n = line + k;
        const v = data[n];
        if (v !== v) continue;
        const cell = cellRow + Math.floor(k / ck);
        sums.squares[cell] += v * v;
        sums.counts[cell]++;
        const xx = rows[0][n];
        if (edge || k < REACH || k >= nk - REACH || xx !== xx) continue;
        sums.tensors[0][cell] += xx;
        for (let c = 1; c < 6; c++) sums.tensors[c][cell] += rows[c][n];
      }
    }
  }
}

/** Smooth values of a lattice by Gaussians of so many cells along each axis; at its sides of what there is. */
export function smoothLattice(
  values: Float64Array | Float32Array,
  size: Shape3,
  sigma: [number, number, number],
): Float64Array {
  let from = Float64Array.from(values);
  const strides = [size[1] * size[2], size[2], 1];
  for (let axis = 0; axis < 3; axis++) {
    if (!(sigma[axis] > 0)) continue;
    const radius = Math.max(1, Math.ceil(2.5 * sigma[axis]));
    const weights = gaussian(sigma[axis], radius);
    const to = new Float64Array(from.length);
    const [count, stride] = [size[axis], strides[axis]];
    for (let n = 0; n < from.length; n++) {
      const at = Math.floor(n / stride) % count;
      let [sum, total] = [0, 0];
      for (let d = Math.max(-radius, -at); d <= Math.min(radius, count - 1 - at); d++) {
        sum += weights[d + radius] * from[n + d * stride];
        total += weights[d + radius];
      }
      to[n] = sum / total;
    }
    from = to;
  }
  return from;
}

/**
 * Regional dips: products of gradients averaged over cells and smoothed from cell to cell, and the normal that most of their energy is
 * along (structure tensor: van Vliet & Verbeek 1995, Proc. ASCI’95, 442–449). What breaks beds within a few traces, as a fault does, is
 * averaged out.
 * @param sigma cells over which they are smoothed
 * @param steepest samples a trace beyond which no dip is believed
 */
export function finishRegional(sums: RegionalSums, sigma: [number, number, number], steepest: number): Regional {
  const { cell, size } = sums;
  const length = sums.squares.length;
  const row = (length + 3) & ~3;
  const kernels = threadKernels();
  const room = roomIn(kernels);
  const tensors = room.take(6 * row);
  const [p, q, chaos] = [room.take(row), room.take(row), room.take(row)];
  for (const [c, own] of sums.tensors.entries()) {
    room.floats(tensors + 4 * c * row, row).fill(0);
    room.floats(tensors + 4 * c * row, length).set(smoothLattice(own, size, sigma));
  }
  kernels.normals(tensors, p, q, chaos, row, row);
  const clamp = (v: number) => (v === v ? Math.max(-steepest, Math.min(steepest, v)) : 0);
  const squares = smoothLattice(sums.squares, size, sigma);
  const counts = smoothLattice(sums.counts, size, sigma);
  return {
    cell,
    size,
    p: Float32Array.from(room.floats(p, length), clamp),
    q: Float32Array.from(room.floats(q, length), clamp),
    plane: Float32Array.from(room.floats(chaos, length), (v) => (v === v ? 1 - v : 0)),
    energy: Float32Array.from(squares, (v, n) => (counts[n] > 0 ? v / counts[n] : 0)),
  };
}

/**
 * Values of a lattice down a trace, between cells by straight lines, beyond the outermost as they are there.
 * @param out one value for each sample from `k0`
 */
export function latticeTrace(
  values: Float32Array,
  { cell, size }: Lattice,
  i: number,
  j: number,
  k0: number,
  out: Float32Array,
): void {
  const place = (n: number, axis: number): [number, number] => {
    const at = Math.max(0, Math.min(size[axis] - 1, (n + 0.5) / cell[axis] - 0.5));
    const low = Math.min(Math.floor(at), Math.max(0, size[axis] - 2));
    return [low, at - low];
  };
  const [a, fa] = place(i, 0);
  const [b, fb] = place(j, 1);
  const lk = size[2];
  const rows = [0, 1, 2, 3].map((n) => {
    const [da, db] = [n >> 1, n & 1];
    return {
      at: (Math.min(size[0] - 1, a + da) * size[1] + Math.min(size[1] - 1, b + db)) * lk,
      w: (da ? fa : 1 - fa) * (db ? fb : 1 - fb),
    };
  });
  const level = (c: number) =>
    rows[0].w * values[rows[0].at + c] +
    rows[1].w * values[rows[1].at + c] +
    rows[2].w * values[rows[2].at + c] +
    rows[3].w * values[rows[3].at + c];
  let held = -1;
  let [low, high] = [0, 0];
  for (let k = 0; k < out.length; k++) {
    const [c, f] = place(k0 + k, 2);
    if (c !== held) {
      low = level(c);
      high = level(Math.min(lk - 1, c + 1));
      held = c;
    }
    out[k] = low + f * (high - low);
  }
}

/** The value of a lattice at one place, between cells by straight lines. */
export function latticeAt(values: Float32Array, { cell, size }: Lattice, i: number, j: number, k: number): number {
  let out = 0;
  const at = [i, j, k].map((n, axis) => Math.max(0, Math.min(size[axis] - 1, (n + 0.5) / cell[axis] - 0.5)));
  const low = at.map((v, axis) => Math.min(Math.floor(v), Math.max(0, size[axis] - 2)));
  for (let corner = 0; corner < 8; corner++) {
    let [w, n] = [1, 0];
    for (let axis = 0; axis < 3; axis++) {
      const far = (corner >> (2 - axis)) & 1;
      const f = at[axis] - low[axis];
      w *= far ? f : 1 - f;
      n = n * size[axis] + Math.min(size[axis] - 1, low[axis] + far);
    }
    if (w > 0) out += w * values[n];
  }
  return out;
}
