import type { Block } from '../numerics/block.ts';
import { cubicBetween } from '../numerics/cubic.ts';

/** Reflector dips of one trace: samples that a reflection drops from a trace to the next, by sample. */
export interface TraceDips {
  /** Towards the next inline and towards the next crossline. */
  inline: Float32Array;
  crossline: Float32Array;
}

/** Value of a trace between its samples by a cubic (Catmull & Rom 1974); NaN beyond its ends or beside a null. */
export function sampleAt(data: Float32Array, at: number, count: number, x: number): number {
  const k = Math.floor(x);
  const f = x - k;
  if (f < 1e-6) return k >= 0 && k < count ? data[at + k] : Number.NaN;
  if (k < 1 || k + 2 >= count) {
    if (k < 0 || k + 1 >= count) return Number.NaN;
    return data[at + k] * (1 - f) + data[at + k + 1] * f;
  }
  const [a, b, c, d] = [data[at + k - 1], data[at + k], data[at + k + 1], data[at + k + 2]];
  return cubicBetween(a, b, c, d, f);
}

/**
 * Dip along one direction by the best match of a trace with the traces before and behind it: for every lag the product
 * with the one behind moved down and the one before moved up, over a window, relative to their energy; the peak refined by
 * a parabola. (Local cross-correlation, as in Marfurt et al. 1998, Geophysics 63, 1150–1165.)
 * @param at first samples of the trace, of the one before and the one behind; −1 where there is none
 */
function dipAlong(
  data: Float32Array,
  count: number,
  at: { own: number; before: number; behind: number },
  most: number,
  half: number,
  out: Float32Array,
): void {
  const lags = 2 * most + 1;
  const scores = new Float32Array(lags * count);
  const product = new Float64Array(count);
  const energy = new Float64Array(count);
  const of = (base: number, k: number) => (base < 0 || k < 0 || k >= count ? Number.NaN : data[base + k]);
  for (let l = 0; l < lags; l++) {
    const lag = l - most;
    for (let k = 0; k < count; k++) {
      const v = data[at.own + k];
      const [p, q] = [of(at.behind, k + lag), of(at.before, k - lag)];
      let [sum, both] = [0, 0];
      if (v === v && p === p) {
        sum += v * p;
        both += 0.5 * (v * v + p * p);
      }
      if (v === v && q === q) {
        sum += v * q;
        both += 0.5 * (v * v + q * q);
      }
      product[k] = sum;
      energy[k] = both;
    }
    let [a, b] = [0, 0];
    for (let k = 0; k < Math.min(half, count); k++) {
      a += product[k];
      b += energy[k];
    }
    for (let k = 0; k < count; k++) {
      if (k + half < count) {
        a += product[k + half];
        b += energy[k + half];
      }
      if (k - half - 1 >= 0) {
        a -= product[k - half - 1];
        b -= energy[k - half - 1];
      }
      scores[l * count + k] = b > 0 ? a / b : -1;
    }
  }
  for (let k = 0; k < count; k++) {
    let top = most;
    for (let l = 0; l < lags; l++) if (scores[l * count + k] > scores[top * count + k] + 1e-6) top = l;
    let dip = top - most;
    if (top > 0 && top < lags - 1) {
      const [x, y, z] = [top - 1, top, top + 1].map((l) => scores[l * count + k]);
      const bend = x - 2 * y + z;
      if (bend < 0) dip += Math.max(-0.5, Math.min(0.5, (0.5 * (x - z)) / bend));
    }
    out[k] = dip;
  }
}

/**
 * Dips of a trace of a block.
 * @param i line and @param j trace in the block, halo counted
 * @param most steepest dip looked for, samples a trace; @param half samples above and below over which traces are matched
 */
export function dipsOf(
  block: Pick<Block, 'data' | 'size'>,
  i: number,
  j: number,
  most: number,
  half: number,
): TraceDips {
  const [mi, mj, mk] = block.size;
  const base = (a: number, b: number) => (a < 0 || b < 0 || a >= mi || b >= mj ? -1 : (a * mj + b) * mk);
  const [inline, crossline] = [new Float32Array(mk), new Float32Array(mk)];
  const own = base(i, j);
  dipAlong(block.data, mk, { own, before: base(i - 1, j), behind: base(i + 1, j) }, most, half, inline);
  dipAlong(block.data, mk, { own, before: base(i, j - 1), behind: base(i, j + 1) }, most, half, crossline);
  return { inline, crossline };
}
