import { cubicBetween, type Volume } from '@lithagon/core';

type Vertical = Volume['vertical'];

/**
 * What one section has more than another, trace by trace: the second is read at the samples of the first, between its own by a
 * cubic. NaN where either has none.
 */
export function differenceOf(a: Float32Array, va: Vertical, b: Float32Array, vb: Vertical): Float32Array {
  const traces = Math.min(a.length / va.count, b.length / vb.count);
  const out = new Float32Array(a.length).fill(Number.NaN);
  const alike = va.first === vb.first && va.step === vb.step;
  for (let t = 0; t < traces; t++)
    for (let k = 0; k < va.count; k++) {
      const n = t * va.count + k;
      if (alike) {
        if (k < vb.count) out[n] = a[n] - b[t * vb.count + k];
        continue;
      }
      const x = (va.first + k * va.step - vb.first) / vb.step;
      const i = Math.floor(x);
      if (i < 0 || i > vb.count - 1) continue;
      const at = (m: number) => b[t * vb.count + Math.max(0, Math.min(vb.count - 1, m))];
      out[n] = a[n] - (x === i ? at(i) : cubicBetween(at(i - 1), at(i), at(i + 1), at(i + 2), x - i));
    }
  return out;
}

/** The size that a part of the samples does not exceed. */
export function percentileOf(data: Float32Array, percent: number): number {
  const every = Math.max(1, Math.floor(data.length / 40000));
  const sizes: number[] = [];
  for (let n = 0; n < data.length; n += every) if (!Number.isNaN(data[n])) sizes.push(Math.abs(data[n]));
  sizes.sort((a, b) => a - b);
  return sizes[Math.min(sizes.length - 1, Math.floor((percent / 100) * (sizes.length - 1)))] || 1;
}
