import { heed } from '../numerics/stop.ts';
import { countOf, nearestCentres, type PointSet, randomOf, squareTo } from './kinds.ts';

/** How often it is begun anew, and turns of each; the best is kept. */
const [BEGINNINGS, TURNS] = [4, 60];

/**
 * Centres of `count` classes by k-means, begun by k-means++ (Arthur & Vassilvitskii 2007, Proc. SODA, 1027–1035).
 * @returns centres as points lie, and the sum of squares within classes
 */
export function kMeans(points: PointSet, count: number, seed: number): { centres: Float64Array; within: number } {
  const random = randomOf(seed);
  let best: { centres: Float64Array; within: number } | null = null;
  for (let n = 0; n < BEGINNINGS; n++) {
    const found = settled(points, begun(points, count, random));
    if (!best || found.within < best.within) best = found;
  }
  return best as { centres: Float64Array; within: number };
}

/** First centres: each drawn among the points by the square of its distance from those that there are. */
function begun(points: PointSet, count: number, random: () => number): Float64Array {
  const { values, dimensions: d } = points;
  const n = countOf(points);
  const centres = new Float64Array(count * d);
  const square = new Float64Array(n).fill(Number.POSITIVE_INFINITY);
  let at = Math.min(n - 1, Math.floor(random() * n));
  for (let c = 0; c < count; c++) {
    for (let k = 0; k < d; k++) centres[c * d + k] = values[at * d + k];
    let sum = 0;
    for (let p = 0; p < n; p++) {
      square[p] = Math.min(square[p], squareTo(values, p * d, centres, c * d, d));
      sum += square[p];
    }
    let left = random() * sum;
    at = n - 1;
    for (let p = 0; p < n; p++) {
      left -= square[p];
      if (left <= 0) {
        at = p;
        break;
      }
    }
  }
  return centres;
}

function settled(points: PointSet, begin: Float64Array): { centres: Float64Array; within: number } {
  const { values, dimensions: d } = points;
  const n = countOf(points);
  const k = begin.length / d;
  const centres = begin.slice();
  let before = Number.POSITIVE_INFINITY;
  for (let turn = 0; turn < TURNS; turn++) {
    heed();
    const { first, square } = nearestCentres(points, centres);
    const within = square.reduce((s, v) => s + v, 0);
    if (before - within <= 1e-7 * before) break;
    before = within;
    const sums = new Float64Array(k * d);
    const counts = new Float64Array(k);
    for (let p = 0; p < n; p++) {
      counts[first[p]]++;
      for (let c = 0; c < d; c++) sums[first[p] * d + c] += values[p * d + c];
    }
    for (let c = 0; c < k; c++) {
      if (counts[c] === 0) continue;
      for (let m = 0; m < d; m++) centres[c * d + m] = sums[c * d + m] / counts[c];
    }
  }
  return { centres, within: nearestCentres(points, centres).square.reduce((s, v) => s + v, 0) };
}
