import { averageWeights, smoothNoise } from '../inversion/realizations.ts';

/** Spacing of the lattice on which a smooth field is drawn, as a part of its range: between its points it is read by straight lines. */
const SPACING = 1 / 12;

export interface Box {
  x: [number, number];
  y: [number, number];
}

/**
 * Smooth random fields over the map, each with mean nothing, variance one and a Gaussian correlation of a range (to 5 %); several at once that do not
 * know of each other. Read between lattice points they keep their variance to some per cent.
 */
export function smoothFields(
  seed: number,
  realization: number,
  channels: number,
  { x: [x0, x1], y: [y0, y1] }: Box,
  rangeM: number,
): (x: number, y: number, channel: number) => number {
  const step = rangeM * SPACING;
  const [ni, nj] = [Math.ceil((y1 - y0) / step) + 2, Math.ceil((x1 - x0) / step) + 2];
  const weights = averageWeights(1 / SPACING);
  const noise = smoothNoise(seed, realization, [0, ni], [0, nj], channels, weights, weights);
  const hold = (v: number, most: number) => Math.max(0, Math.min(most, v));
  return (x, y, channel) => {
    const [i, j] = [hold((y - y0) / step, ni - 1.001), hold((x - x0) / step, nj - 1.001)];
    const [a, b] = [Math.floor(i), Math.floor(j)];
    const [f, g] = [i - a, j - b];
    const at = (p: number, q: number) => noise[(p * nj + q) * channels + channel];
    return (1 - f) * ((1 - g) * at(a, b) + g * at(a, b + 1)) + f * ((1 - g) * at(a + 1, b) + g * at(a + 1, b + 1));
  };
}
