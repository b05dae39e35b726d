import { roomIn, threadKernels } from '@lithagon/kernels';
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
const REACH = 3;

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
  const smooth = {
    across: gaussian(spec.lateral, radiusOf(spec.lateral)),
    down: gaussian(spec.vertical, radiusOf(spec.vertical)),
  };
  const narrow = gaussian(SIGMA, REACH);
  const slope = derivative(SIGMA, REACH);
  // rows of tensors begin on a multiple of four
  const row = (length + 3) & ~3;
  const at = {
    data: room.take(row),
    a: room.take(row),
    b: room.take(row),
    x: room.take(row),
    y: room.take(row),
    z: room.take(row),
  };
  const tensors = room.take(6 * row);
  const lists = [narrow, slope, smooth.across, smooth.down];
  const weights = lists.map((w) => room.take(w.length));
  const result = [room.take(row), room.take(row), room.take(row)];
  for (const [n, w] of lists.entries()) room.floats(weights[n], w.length).set(w);
  room.floats(at.data, length).set(data);
  const strides = [mj * mk, mk, 1];
  /** One pass along an axis, its values where those of `from` are. */
  const pass = (from: number, to: number, axis: number, list: number) => {
    const half = lists[list].length >> 1;
    const stride = strides[axis];
    const inner = length - 2 * half * stride;
    if (inner > 0) kernels.weigh(from, to + 4 * half * stride, inner, stride, weights[list], 2 * half + 1);
  };
  // the derivative along one axis, smoothed along the others
  for (const [axis, to] of [at.x, at.y, at.z].entries()) {
    room.floats(to, row).fill(0);
    room.floats(at.a, row).fill(Number.NaN);
    room.floats(at.b, row).fill(Number.NaN);
    pass(at.data, at.a, 0, axis === 0 ? 1 : 0);
    pass(at.a, at.b, 1, axis === 1 ? 1 : 0);
    pass(at.b, to, 2, axis === 2 ? 1 : 0);
  }
  kernels.products(at.x, at.y, at.z, tensors, row);
  for (let n = 0; n < 6; n++) {
    const own = tensors + 4 * n * row;
    room.floats(at.a, row).fill(0);
    room.floats(at.b, row).fill(0);
    pass(own, at.a, 0, 2);
    pass(at.a, at.b, 1, 2);
    room.floats(own, row).fill(0);
    pass(at.b, own, 2, 3);
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
