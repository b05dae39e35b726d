import { type Kernels, type Room, roomIn, threadKernels } from '@lithagon/kernels';
import type { Block, Halo, Shape3 } from '../numerics/block.ts';

/** Slopes of reflections, samples that they drop from a trace to the next, and their disorder. */
export interface Slopes {
  /** Towards the next inline and the next crossline. */
  p: Float32Array;
  q: Float32Array;
  /** From 0, a plane, to 1. */
  chaos: Float32Array;
  size: Shape3;
}

/** Over what a tensor is smoothed: standard deviations in traces and samples. */
export interface TensorSpec {
  lateral: number;
  vertical: number;
}

/** Derivatives are those of a Gaussian of one sample, the same along every axis: so they are in proportion at every frequency. */
const SIGMA = 1;
export const REACH = 3;

const radiusOf = (sigma: number) => Math.max(1, Math.ceil(2.5 * sigma));

/** What a tensor needs around it. */
export function tensorHalo({ lateral, vertical }: TensorSpec): Halo {
  const across = REACH + radiusOf(lateral);
  return { inline: across, crossline: across, sample: REACH + radiusOf(vertical) };
}

/** Weights of a Gaussian, of sum one. */
export function gaussian(sigma: number, radius: number): Float32Array {
  const w = Float32Array.from({ length: 2 * radius + 1 }, (_, n) =>
    Math.exp(-((n - radius) ** 2) / (2 * sigma * sigma)),
  );
  const sum = w.reduce((s, v) => s + v, 0);
  return w.map((v) => v / sum);
}

/** Weights of its derivative, as `weigh` wants them: a slope of one gives one. */
function derivative(sigma: number, radius: number): Float32Array {
  const w = gaussian(sigma, radius).map((v, n) => v * (n - radius));
  const gain = w.reduce((s, v, n) => s + v * (n - radius), 0);
  return w.map((v) => v / gain);
}

/** Products of the gradients of a block in the memory of the kernels: six rows, `xx xy xz yy yz zz`, 0 within `REACH` of its sides. */
export function tensorsOf(kernels: Kernels, room: Room, data: Float32Array, [mi, mj, mk]: Shape3) {
  const length = mi * mj * mk;
  const narrow = gaussian(SIGMA, REACH);
  const slope = derivative(SIGMA, REACH);
  // rows of tensors begin on a multiple of four
  const row = (length + 3) & ~3;
  const [from, a, b, x, y, z] = Array.from({ length: 6 }, () => room.take(row));
  const tensors = room.take(6 * row);
  const [narrowAt, slopeAt] = [room.take(narrow.length), room.take(slope.length)];
  room.floats(narrowAt, narrow.length).set(narrow);
  room.floats(slopeAt, slope.length).set(slope);
  room.floats(from, length).set(data);
  const strides = [mj * mk, mk, 1];
  /** One pass of weights along an axis, its values where those of `from` are. */
  const pass = (source: number, to: number, axis: number, weights: number, count: number) => {
    const half = count >> 1;
    const inner = length - 2 * half * strides[axis];
    if (inner > 0) kernels.weigh(source, to + 4 * half * strides[axis], inner, strides[axis], weights, count);
  };
  // the derivative along one axis, smoothed along the others
  for (const [axis, to] of [x, y, z].entries()) {
    room.floats(to, row).fill(0);
    room.floats(a, row).fill(Number.NaN);
    room.floats(b, row).fill(Number.NaN);
    const weightsOf = (along: number) => (along === axis ? slopeAt : narrowAt);
    pass(from, a, 0, weightsOf(0), slope.length);
    pass(a, b, 1, weightsOf(1), slope.length);
    pass(b, to, 2, weightsOf(2), slope.length);
  }
  kernels.products(x, y, z, tensors, row);
  return { tensors, row, a, b, pass };
}

/**
 * Slopes of a block by the structure tensor: gradients by derivatives of a Gaussian, their products smoothed, and the normal that most
 * of their energy is along (van Vliet & Verbeek 1995, Proc. ASCI’95, 442–449; Fehmers & Höcker 2003, Geophysics 68, 1286–1293).
 * @param more how far beyond what is wanted slopes are given too; the block holds that and `tensorHalo` around it
 */
export function tensorSlopes(block: Pick<Block, 'data' | 'size' | 'halo'>, spec: TensorSpec, more: Halo): Slopes {
  const { data, size, halo } = block;
  const [mi, mj, mk] = size;
  const length = mi * mj * mk;
  const kernels = threadKernels();
  const room = roomIn(kernels);
  const { tensors, row, a, b, pass } = tensorsOf(kernels, room, data, size);
  const lists = [gaussian(spec.lateral, radiusOf(spec.lateral)), gaussian(spec.vertical, radiusOf(spec.vertical))];
  const result = [room.take(row), room.take(row), room.take(row)];
  const weights = lists.map((w) => room.take(w.length));
  for (const [n, w] of lists.entries()) room.floats(weights[n], w.length).set(w);
  const smooth = (from: number, to: number, axis: number, list: number) =>
    pass(from, to, axis, weights[list], lists[list].length);
  for (let n = 0; n < 6; n++) {
    const own = tensors + 4 * n * row;
    room.floats(a, row).fill(0);
    room.floats(b, row).fill(0);
    smooth(own, a, 0, 0);
    smooth(a, b, 1, 0);
    room.floats(own, row).fill(0);
    smooth(b, own, 2, 1);
  }
  const wanted: Shape3 = [
    mi - 2 * (halo.inline - more.inline),
    mj - 2 * (halo.crossline - more.crossline),
    mk - 2 * (halo.sample - more.sample),
  ];
  kernels.normals(tensors, result[0], result[1], result[2], row, row);
  const [p, q, chaos] = result.map((from) => cutOut(room.floats(from, length), size, wanted));
  return { p, q, chaos, size: wanted };
}

/** The middle of a block. */
export function cutOut(values: Float32Array, [mi, mj, mk]: Shape3, [ni, nj, nk]: Shape3): Float32Array {
  const out = new Float32Array(ni * nj * nk);
  const [di, dj, dk] = [(mi - ni) >> 1, (mj - nj) >> 1, (mk - nk) >> 1];
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const from = ((i + di) * mj + j + dj) * mk + dk;
      out.set(values.subarray(from, from + nk), (i * nj + j) * nk);
    }
  return out;
}
