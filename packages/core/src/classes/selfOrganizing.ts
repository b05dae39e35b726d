import { heed } from '../numerics/stop.ts';
import { countOf, nearestCentres, type PointSet } from './kinds.ts';
import { principal } from './principal.ts';

const TURNS = 40;

/**
 * Centres of a chain of classes by a self-organizing map (Kohonen 1982, Biological Cybernetics 43, 59–69), all points at once in each
 * turn: each centre is the mean of the points of its class and, the less the farther along the chain, of its neighbours'. It is begun along
 * the first principal component, so that the chain has its ends where the data have theirs.
 * @param onTurn told how far it is and the centres as they stand
 */
export function selfOrganizingMap(
  points: PointSet,
  count: number,
  onTurn: (part: number, centres: Float64Array) => void = () => undefined,
): { centres: Float64Array; within: number } {
  const { values, dimensions: d } = points;
  const n = countOf(points);
  const { mean, vectors, variances } = principal(points, 1);
  const centres = new Float64Array(count * d);
  const reach = 2 * Math.sqrt(variances[0] ?? 0);
  for (let c = 0; c < count; c++)
    for (let m = 0; m < d; m++)
      centres[c * d + m] = mean[m] + (count > 1 ? (2 * c) / (count - 1) - 1 : 0) * reach * vectors[m];
  const from = Math.max(0.6, count / 4);
  for (let turn = 0; turn < TURNS; turn++) {
    heed();
    // the neighbourhood closes to the class itself
    const sigma = from * (0.3 / from) ** (turn / (TURNS - 1));
    const { first } = nearestCentres(points, centres);
    const sums = new Float64Array(count * d);
    const counts = new Float64Array(count);
    for (let p = 0; p < n; p++) {
      counts[first[p]]++;
      for (let m = 0; m < d; m++) sums[first[p] * d + m] += values[p * d + m];
    }
    for (let c = 0; c < count; c++) {
      let weight = 0;
      const next = new Float64Array(d);
      for (let e = 0; e < count; e++) {
        const w = Math.exp(-((c - e) ** 2) / (2 * sigma * sigma));
        weight += w * counts[e];
        for (let m = 0; m < d; m++) next[m] += w * sums[e * d + m];
      }
      if (weight > 1e-9) for (let m = 0; m < d; m++) centres[c * d + m] = next[m] / weight;
    }
    onTurn((turn + 1) / TURNS, centres);
  }
  return { centres, within: nearestCentres(points, centres).square.reduce((s, v) => s + v, 0) };
}
