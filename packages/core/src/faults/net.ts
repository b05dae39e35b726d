import { type Orientation, poleOf } from './orientation.ts';

/** Equal-area projection of a lower-hemisphere direction (east, north, down) onto the unit disc: x to the east, y to the north (Lambert 1772). */
export function toNet([east, north, down]: readonly [number, number, number]): [x: number, y: number] {
  const r = Math.sqrt(1 / (1 + Math.min(1, Math.max(0, down))));
  return [east * r, north * r];
}

/** The direction at a place of the net; null outside it. */
export function offNet(x: number, y: number): [east: number, north: number, down: number] | null {
  const square = x * x + y * y;
  if (square > 1) return null;
  const r = Math.sqrt(2 - square);
  return [x * r, y * r, 1 - square];
}

/** Density of poles on the net, `[y][x]` from the south-west over a square around it, NaN outside; in standard deviations of what an even spread would give. */
export interface Kamb {
  size: number;
  values: Float32Array;
  most: number;
}

/**
 * Density of poles by Kamb's counting circles, as large as an even spread leaves three standard deviations in each (Kamb 1959,
 * J. Geophys. Res. 64, 1891–1909), with exponential weights instead of a hard edge (Vollmer 1995, Computers & Geosciences 21, 31–49).
 */
export function kambDensity(poles: Orientation[], weights: number[], size = 61, sigma = 3): Kamb {
  const total = weights.reduce((a, b) => a + b, 0);
  // weights count as so many poles of the same weight (Kish 1965)
  const n = total > 0 ? total ** 2 / weights.reduce((a, b) => a + b * b, 0) : 0;
  const values = new Float32Array(size * size).fill(Number.NaN);
  if (n === 0) return { size, values, most: 0 };
  const f = 2 * (1 + n / sigma ** 2);
  const spread = Math.sqrt(n * (f / 2 - 1)) / f;
  const directions = poles.map(poleOf);
  let most = 0;
  for (let a = 0; a < size; a++)
    for (let b = 0; b < size; b++) {
      const at = offNet((2 * b) / (size - 1) - 1, (2 * a) / (size - 1) - 1);
      if (!at) continue;
      let count = 0;
      for (let m = 0; m < poles.length; m++) {
        const d = directions[m];
        const cos = Math.abs(at[0] * d[0] + at[1] * d[1] + at[2] * d[2]);
        count += (weights[m] / total) * n * Math.exp(f * (cos - 1));
      }
      const v = (count - 0.5) / spread;
      values[a * size + b] = v;
      if (v > most) most = v;
    }
  return { size, values, most };
}

/** Part of the weight by strike, in `count` sectors from north over east to south: a strike has no sense. */
export function roseOf(all: Orientation[], weights: number[], count = 18): number[] {
  const out = new Array<number>(count).fill(0);
  const total = weights.reduce((a, b) => a + b, 0) || 1;
  for (const [n, { azimuth }] of all.entries()) {
    const strike = (azimuth + 90) % 180;
    out[Math.floor((strike / 180) * count) % count] += weights[n] / total;
  }
  return out;
}
