import { eigen } from '@lithagon/kernels';
import { countOf, type PointSet } from './kinds.ts';

export interface Principal {
  mean: Float64Array;
  /** Unit vectors, the one of greatest variance first: `[component][dimension]`. */
  vectors: Float64Array;
  variances: Float64Array;
  /** Variance of all dimensions together. */
  total: number;
}

/** Principal components of points (Pearson 1901, Philosophical Magazine 2, 559–572). */
export function principal(points: PointSet, most: number): Principal {
  const { values, dimensions: d } = points;
  const n = countOf(points);
  const mean = new Float64Array(d);
  for (let p = 0; p < n; p++) for (let c = 0; c < d; c++) mean[c] += values[p * d + c] / n;
  const covariance = Array.from({ length: d }, () => new Array<number>(d).fill(0));
  for (let p = 0; p < n; p++)
    for (let a = 0; a < d; a++) {
      const v = (values[p * d + a] - mean[a]) / Math.max(1, n - 1);
      for (let b = a; b < d; b++) covariance[a][b] += v * (values[p * d + b] - mean[b]);
    }
  for (let a = 0; a < d; a++) for (let b = 0; b < a; b++) covariance[a][b] = covariance[b][a];
  const { values: lambda, vectors } = eigen(covariance);
  const order = lambda.map((_, c) => c).sort((a, b) => lambda[b] - lambda[a]);
  const kept = order.slice(0, Math.min(most, d));
  const out = new Float64Array(kept.length * d);
  for (const [c, from] of kept.entries()) {
    // of both signs that in which the first large entry is positive
    let sign = 1;
    for (let a = 0; a < d; a++)
      if (Math.abs(vectors[a][from]) > 1e-6) {
        sign = Math.sign(vectors[a][from]);
        break;
      }
    for (let a = 0; a < d; a++) out[c * d + a] = sign * vectors[a][from];
  }
  return {
    mean,
    vectors: out,
    variances: Float64Array.from(kept, (c) => Math.max(0, lambda[c])),
    total: lambda.reduce((s, v) => s + Math.max(0, v), 0),
  };
}

/** Points by their components. */
export function projected({ values, dimensions: d }: PointSet, { mean, vectors }: Principal): PointSet {
  const k = vectors.length / d;
  const n = values.length / d;
  const out = new Float32Array(n * k);
  for (let p = 0; p < n; p++)
    for (let c = 0; c < k; c++) {
      let sum = 0;
      for (let a = 0; a < d; a++) sum += (values[p * d + a] - mean[a]) * vectors[c * d + a];
      out[p * k + c] = sum;
    }
  return { values: out, dimensions: k };
}
