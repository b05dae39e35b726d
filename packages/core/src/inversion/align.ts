import { sincAt } from '../numerics/sinc.ts';
import { heed } from '../numerics/stop.ts';

export interface AlignSpec {
  /** Samples of a window down the trace; windows overlap by half. */
  window: number;
  /** Largest shift either way, samples. */
  most: number;
  /** Traces to each side that are matched together. */
  radius: number;
}

/** Traces of a block, `[inline][crossline][sample]`. */
export interface Traces {
  data: Float32Array;
  size: readonly [number, number, number];
}

/** Windows down a trace: their middles overlap by half a window. */
export const nodesOf = (nk: number, window: number): number[] => {
  const half = Math.max(4, window >> 1);
  const count = Math.max(1, Math.floor((nk - 1) / half));
  return Array.from({ length: count }, (_, n) => Math.round((n + 0.5) * ((nk - 1) / count)));
};

/** What a window has to hold of the strongest one's energy to say anything. */
const LEAST_ENERGY = 1e-4;

/**
 * How far another stack lies below the reference, by windows down every trace of the inner part of a block: the peak of the cross-correlation
 * over traces around it (between lags by a parabola), not beyond a bound, even in time (three windows).
 * @returns `[inline][crossline][node]`, samples
 */
export function shiftsOf(reference: Traces, other: Traces, spec: AlignSpec): { nodes: number[]; shifts: Float32Array } {
  const [mi, mj, nk] = reference.size;
  const { radius: r, window } = spec;
  const [ni, nj] = [mi - 2 * r, mj - 2 * r];
  const nodes = nodesOf(nk, window);
  const lags = Math.ceil(spec.most) + 1;
  const width = 2 * lags + 1;
  // cross-correlations of every trace, then their sums over the square around it
  const own = new Float64Array(mi * mj * nodes.length * width);
  const half = Math.max(4, window >> 1);
  const taper = Float64Array.from(
    { length: 2 * half + 1 },
    (_, n) => 0.5 + 0.5 * Math.cos((Math.PI * (n - half)) / (half + 1)),
  );
  for (let t = 0; t < mi * mj; t++) {
    if (t % 64 === 0) heed();
    const o = t * nk;
    for (const [n, middle] of nodes.entries())
      for (let lag = -lags; lag <= lags; lag++) {
        let sum = 0;
        for (let k = Math.max(0, middle - half, -lag); k <= Math.min(nk - 1, middle + half, nk - 1 - lag); k++) {
          const v = reference.data[o + k] * other.data[o + k + lag];
          if (v === v) sum += taper[k - middle + half] * v;
        }
        own[(t * nodes.length + n) * width + lag + lags] = sum;
      }
  }
  const row = nodes.length * width;
  const shifts = new Float32Array(ni * nj * nodes.length);
  // sums along one direction, then along the other
  const along = new Float64Array(ni * mj * row);
  for (let i = 0; i < ni; i++) {
    heed();
    for (let a = i; a <= i + 2 * r; a++)
      for (let q = 0, from = a * mj * row, to = i * mj * row; q < mj * row; q++) along[to + q] += own[from + q];
  }
  const sums = new Float64Array(row);
  const found = new Float64Array(nodes.length);
  const weight = new Float64Array(nodes.length);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      sums.fill(0);
      for (let b = j; b <= j + 2 * r; b++)
        for (let q = 0, from = (i * mj + b) * row; q < row; q++) sums[q] += along[from + q];
      let strongest = 0;
      for (let n = 0; n < nodes.length; n++) {
        let at = 0;
        for (let q = 1; q < width; q++) if (sums[n * width + q] > sums[n * width + at]) at = q;
        const peak = sums[n * width + at];
        let lag = at - lags;
        if (at > 0 && at < width - 1) {
          const [a, b] = [sums[n * width + at - 1], sums[n * width + at + 1]];
          const bend = a - 2 * peak + b;
          if (bend < 0) lag += (0.5 * (a - b)) / bend;
        }
        found[n] = Math.max(-spec.most, Math.min(spec.most, lag));
        weight[n] = Math.max(0, peak);
        strongest = Math.max(strongest, weight[n]);
      }
      for (let n = 0; n < nodes.length; n++) {
        let [s, w] = [0, 0];
        for (let q = Math.max(0, n - 1); q <= Math.min(nodes.length - 1, n + 1); q++) {
          const v = (q === n ? 2 : 1) * (weight[q] > LEAST_ENERGY * strongest ? weight[q] : 0);
          s += v * found[q];
          w += v;
        }
        shifts[(i * nj + j) * nodes.length + n] = w > 0 ? s / w : 0;
      }
    }
  return { nodes, shifts };
}

/** Shift between the middles of windows; beyond the first and last as there. */
export function shiftAt(nodes: number[], shifts: Float32Array, offset: number, k: number): number {
  const last = nodes.length - 1;
  if (k <= nodes[0]) return shifts[offset];
  if (k >= nodes[last]) return shifts[offset + last];
  let n = 0;
  while (nodes[n + 1] < k) n++;
  const f = (k - nodes[n]) / (nodes[n + 1] - nodes[n]);
  return shifts[offset + n] + f * (shifts[offset + n + 1] - shifts[offset + n]);
}

/** The other stack with its shifts taken out, the inner part of the block. */
export function aligned(other: Traces, radius: number, nodes: number[], shifts: Float32Array): Float32Array {
  const [mi, mj, nk] = other.size;
  const [ni, nj] = [mi - 2 * radius, mj - 2 * radius];
  const out = new Float32Array(ni * nj * nk);
  for (let t = 0; t < ni * nj; t++) {
    const from = ((Math.floor(t / nj) + radius) * mj + (t % nj) + radius) * nk;
    for (let k = 0; k < nk; k++) {
      const at = k + shiftAt(nodes, shifts, t * nodes.length, k);
      out[t * nk + k] = sincAt(other.data, from, nk, Math.max(0, Math.min(nk - 1, at)));
    }
  }
  return out;
}
