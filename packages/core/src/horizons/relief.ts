import type { BinGrid } from '../earth/binGrid.ts';

/** Where the light comes from: degrees from north, and over the horizon. */
const [AZIMUTH, ALTITUDE] = [315, 45];

/**
 * How brightly each bin of a surface is lit from the north-west (Horn 1981, Proceedings of the IEEE 69, 14–47).
 * @param values `[inline][crossline]`, time or depth downwards, or any quantity; NaN where missing
 * @param steepness by which slopes are multiplied; null takes one by which the median slope stands at 22 degrees
 * @returns from 0 (in shadow) to 1, `Math.SQRT1_2` where level; NaN where a bin or all its neighbours are missing
 */
export function relief(values: Float32Array, binGrid: BinGrid, steepness: number | null = null): Float32Array {
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  const { perInline: a, perCrossline: b } = binGrid;
  const det = a[0] * b[1] - a[1] * b[0];
  const [dx, dy] = [new Float32Array(ni * nj), new Float32Array(ni * nj)];
  const slopes: number[] = [];
  /** Change from one bin to the next, from those neighbours that there are. */
  const change = (n: number, step: number, before: boolean, after: boolean) => {
    const here = values[n];
    const low = before ? values[n - step] : Number.NaN;
    const high = after ? values[n + step] : Number.NaN;
    if (!Number.isNaN(low) && !Number.isNaN(high)) return (high - low) / 2;
    return Number.isNaN(high) ? here - low : high - here;
  };
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const n = i * nj + j;
      const [u, v] = [change(n, nj, i > 0, i + 1 < ni), change(n, 1, j > 0, j + 1 < nj)];
      // slopes along the bins' axes become slopes to the east and to the north
      dx[n] = (u * b[1] - v * a[1]) / det;
      dy[n] = (v * a[0] - u * b[0]) / det;
      const slope = Math.hypot(dx[n], dy[n]);
      if (slope > 0) slopes.push(slope);
    }
  const middle = slopes.length > 0 ? slopes.sort((p, q) => p - q)[slopes.length >> 1] : 1;
  const times = steepness ?? Math.tan((22 * Math.PI) / 180) / middle;
  const [azimuth, altitude] = [(AZIMUTH * Math.PI) / 180, (ALTITUDE * Math.PI) / 180];
  const [lx, ly, lz] = [
    Math.sin(azimuth) * Math.cos(altitude),
    Math.cos(azimuth) * Math.cos(altitude),
    Math.sin(altitude),
  ];
  const out = new Float32Array(ni * nj);
  for (let n = 0; n < out.length; n++) {
    // values grow downwards: the surface rises where they fall
    const [p, q] = [dx[n] * times, dy[n] * times];
    out[n] = Number.isNaN(values[n]) ? Number.NaN : Math.max(0, (p * lx + q * ly + lz) / Math.sqrt(1 + p * p + q * q));
  }
  return out;
}
