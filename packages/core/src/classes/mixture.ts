import { heed } from '../numerics/stop.ts';
import { countOf, nearestCentres, type PointSet } from './kinds.ts';
import { kMeans } from './kMeans.ts';

/** A mixture of normal distributions, each with variances of its own along every dimension. */
export interface Mixture {
  weights: Float64Array;
  centres: Float64Array;
  variances: Float64Array;
  /** Bayes' information criterion: the lower the better (Schwarz 1978, Annals of Statistics 6, 461–464). */
  bic: number;
  logLikelihood: number;
}

const TURNS = 120;

/** Log density of each component at a point, weights in it. */
function densities(
  { values, dimensions: d }: PointSet,
  p: number,
  { weights, centres, variances }: Pick<Mixture, 'weights' | 'centres' | 'variances'>,
  out: Float64Array,
): number {
  let most = Number.NEGATIVE_INFINITY;
  for (let c = 0; c < weights.length; c++) {
    let log = Math.log(weights[c]) - 0.5 * d * Math.log(2 * Math.PI);
    for (let m = 0; m < d; m++) {
      const v = variances[c * d + m];
      log -= 0.5 * (Math.log(v) + (values[p * d + m] - centres[c * d + m]) ** 2 / v);
    }
    out[c] = log;
    if (log > most) most = log;
  }
  let sum = 0;
  for (let c = 0; c < weights.length; c++) sum += Math.exp(out[c] - most);
  return most + Math.log(sum);
}

/** Probability of each component at every point, `[point][component]`. */
export function membership(points: PointSet, mixture: Mixture): Float32Array {
  const k = mixture.weights.length;
  const n = countOf(points);
  const out = new Float32Array(n * k);
  const logs = new Float64Array(k);
  for (let p = 0; p < n; p++) {
    const whole = densities(points, p, mixture, logs);
    for (let c = 0; c < k; c++) out[p * k + c] = Math.exp(logs[c] - whole);
  }
  return out;
}

/** Fit a mixture by expectation and maximization (Dempster, Laird & Rubin 1977, J. Royal Statistical Society B 39, 1–38), begun by k-means. */
export function fitMixture(points: PointSet, count: number, seed: number): Mixture {
  const { values, dimensions: d } = points;
  const n = countOf(points);
  const { centres } = kMeans(points, count, seed);
  const { first } = nearestCentres(points, centres);
  const whole = new Float64Array(d);
  const mean = new Float64Array(d);
  for (let p = 0; p < n; p++) for (let m = 0; m < d; m++) mean[m] += values[p * d + m] / n;
  for (let p = 0; p < n; p++) for (let m = 0; m < d; m++) whole[m] += (values[p * d + m] - mean[m]) ** 2 / n;
  // no component closes on a single point
  const least = whole.map((v) => Math.max(1e-12, 1e-3 * v));
  let mixture: Mixture = {
    weights: new Float64Array(count),
    centres,
    variances: new Float64Array(count * d),
    bic: 0,
    logLikelihood: Number.NEGATIVE_INFINITY,
  };
  let share: Float32Array = new Float32Array(n * count);
  for (let p = 0; p < n; p++) share[p * count + first[p]] = 1;
  for (let turn = 0; turn < TURNS; turn++) {
    heed();
    const [weights, next, variances] = [
      new Float64Array(count),
      new Float64Array(count * d),
      new Float64Array(count * d),
    ];
    for (let p = 0; p < n; p++)
      for (let c = 0; c < count; c++) {
        const w = share[p * count + c];
        weights[c] += w;
        for (let m = 0; m < d; m++) next[c * d + m] += w * values[p * d + m];
      }
    for (let c = 0; c < count; c++)
      for (let m = 0; m < d; m++)
        next[c * d + m] = weights[c] > 1e-9 ? next[c * d + m] / weights[c] : centres[c * d + m];
    for (let p = 0; p < n; p++)
      for (let c = 0; c < count; c++) {
        const w = share[p * count + c];
        for (let m = 0; m < d; m++) variances[c * d + m] += w * (values[p * d + m] - next[c * d + m]) ** 2;
      }
    for (let c = 0; c < count; c++) {
      for (let m = 0; m < d; m++)
        variances[c * d + m] = Math.max(least[m], weights[c] > 1e-9 ? variances[c * d + m] / weights[c] : whole[m]);
      weights[c] = Math.max(1e-9, weights[c] / n);
    }
    const logs = new Float64Array(count);
    let likelihood = 0;
    const made = { weights, centres: next, variances };
    share = new Float32Array(n * count);
    for (let p = 0; p < n; p++) {
      const log = densities(points, p, made, logs);
      likelihood += log;
      for (let c = 0; c < count; c++) share[p * count + c] = Math.exp(logs[c] - log);
    }
    const free = count * 2 * d + count - 1;
    const better = likelihood - mixture.logLikelihood;
    mixture = { ...made, logLikelihood: likelihood, bic: free * Math.log(n) - 2 * likelihood };
    if (Math.abs(better) < 1e-6 * Math.abs(likelihood)) break;
  }
  return mixture;
}
