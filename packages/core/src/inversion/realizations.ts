import { heed } from '../numerics/stop.ts';

/** Mixes 32 bits (Appleby 2008, finalizer of MurmurHash3). */
function mix(h: number): number {
  let v = h ^ (h >>> 16);
  v = Math.imul(v, 0x85ebca6b);
  v ^= v >>> 13;
  v = Math.imul(v, 0xc2b2ae35);
  return v ^ (v >>> 16);
}

/** Independent standard normal draws, by place alone: the same whichever region is asked for (Box & Muller 1958). */
export function whiteTrace(seed: number, realization: number, i: number, j: number, out: Float64Array): void {
  let h = mix(seed + 0x9e3779b9);
  h = mix(h ^ Math.imul(realization + 1, 0x27d4eb2f));
  h = mix(h ^ Math.imul(i + 100003, 0x165667b1));
  h = mix(h ^ Math.imul(j + 700001, 0x1b873593));
  for (let k = 0; k < out.length; k += 2) {
    const a = mix(h ^ Math.imul(2 * k + 1, 0x9e3779b1)) >>> 0;
    const b = mix(h ^ Math.imul(2 * k + 2, 0x85ebca77)) >>> 0;
    const radius = Math.sqrt(-2 * Math.log((a + 1) / 4294967297));
    const turn = (2 * Math.PI * b) / 4294967296;
    out[k] = radius * Math.cos(turn);
    if (k + 1 < out.length) out[k + 1] = radius * Math.sin(turn);
  }
}

/**
 * Weights of a moving average that gives white noise a Gaussian correlation of a range (to 5 %), in bins: a Gaussian of a range that is less
 * by the root of two (Le Ravalec et al. 2000, Mathematical Geology 32, 701–723). Their squares add up to one.
 */
export function averageWeights(rangeBins: number): Float64Array {
  if (!(rangeBins > 0.5)) return Float64Array.of(1);
  const reach = Math.ceil(0.9 * rangeBins);
  const w = Float64Array.from({ length: 2 * reach + 1 }, (_, n) => Math.exp(-6 * ((n - reach) / rangeBins) ** 2));
  const norm = Math.sqrt(w.reduce((s, v) => s + v * v, 0));
  return w.map((v) => v / norm);
}

/**
 * Noise that is white down every trace and smooth from trace to trace, over a rectangle of traces.
 * @param along, across weights of the moving average along inline and crossline index
 * @returns `[inline][crossline][sample]`
 */
export function smoothNoise(
  seed: number,
  realization: number,
  [i0, i1]: [number, number],
  [j0, j1]: [number, number],
  nk: number,
  along: Float64Array,
  across: Float64Array,
): Float32Array {
  const [ri, rj] = [along.length >> 1, across.length >> 1];
  const [ni, nj] = [i1 - i0, j1 - j0];
  const out = new Float32Array(ni * nj * nk);
  const white = new Float64Array(nk);
  const wide = new Float64Array((nj + 2 * rj) * nk);
  const row = new Float64Array(nj * nk);
  for (let i = i0 - ri; i < i1 + ri; i++) {
    heed();
    for (let j = 0; j < nj + 2 * rj; j++) {
      whiteTrace(seed, realization, i, j0 + j - rj, white);
      wide.set(white, j * nk);
    }
    row.fill(0);
    for (let j = 0; j < nj; j++)
      for (let q = 0; q < across.length; q++) {
        const w = across[q];
        const [from, to] = [(j + q) * nk, j * nk];
        for (let k = 0; k < nk; k++) row[to + k] += w * wide[from + k];
      }
    for (let a = Math.max(i0, i - ri); a <= Math.min(i1 - 1, i + ri); a++) {
      const w = along[i - a + ri];
      const to = (a - i0) * nj * nk;
      for (let n = 0; n < row.length; n++) out[to + n] += w * row[n];
    }
  }
  return out;
}
