import { heed } from '../numerics/stop.ts';
import { type Classifier, type Prior, priors, type Samples } from './samples.ts';

/** A class as a normal distribution. */
export interface NormalClass {
  mean: Float64Array;
  /** Lower triangle of the Cholesky factor of its covariance, `[row][column]`. */
  factor: Float64Array;
  logDeterminant: number;
  count: number;
}

/** Cholesky factor of a symmetric matrix, or null where it is not positive. */
function cholesky(a: Float64Array, n: number): Float64Array | null {
  const l = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = a[i * n + j];
      for (let k = 0; k < j; k++) sum -= l[i * n + k] * l[j * n + k];
      if (i === j) {
        if (!(sum > 1e-12)) return null;
        l[i * n + i] = Math.sqrt(sum);
      } else l[i * n + j] = sum / l[j * n + j];
    }
  return l;
}

/**
 * Normal distributions of the classes, each covariance drawn towards the pooled one by as much as its class is small
 * (Friedman 1989, Journal of the American Statistical Association 84, 165–175).
 */
export function normalClasses(samples: Samples): (NormalClass | null)[] {
  const { width: w, classes, labels, features, count } = samples;
  const counts = new Float64Array(classes);
  const means = Array.from({ length: classes }, () => new Float64Array(w));
  for (let n = 0; n < count; n++) {
    counts[labels[n]]++;
    for (let f = 0; f < w; f++) means[labels[n]][f] += features[n * w + f];
  }
  means.forEach((m, c) => {
    for (let f = 0; f < w; f++) m[f] /= Math.max(1, counts[c]);
  });
  const own = Array.from({ length: classes }, () => new Float64Array(w * w));
  const pooled = new Float64Array(w * w);
  for (let n = 0; n < count; n++) {
    const c = labels[n];
    for (let a = 0; a < w; a++)
      for (let b = 0; b < w; b++) {
        const v = (features[n * w + a] - means[c][a]) * (features[n * w + b] - means[c][b]);
        own[c][a * w + b] += v / Math.max(1, counts[c]);
        pooled[a * w + b] += v / count;
      }
  }
  return own.map((covariance, c) => {
    if (counts[c] < 2) return null;
    const lean = Math.min(1, (3 * w) / counts[c]);
    const mixed = covariance.map((v, n) => (1 - lean) * v + lean * pooled[n]);
    // curves that say the same make a covariance flat
    for (let f = 0; f < w; f++) mixed[f * w + f] += 1e-3;
    const factor = cholesky(mixed, w);
    if (!factor) return null;
    let logDeterminant = 0;
    for (let f = 0; f < w; f++) logDeterminant += 2 * Math.log(factor[f * w + f]);
    return { mean: means[c], factor, logDeterminant, count: counts[c] };
  });
}

/** Squared Mahalanobis distance of a sample from a class. */
export function squaredDistance(c: NormalClass, features: Float64Array, at: number): number {
  const w = c.mean.length;
  const y = new Float64Array(w);
  let sum = 0;
  for (let i = 0; i < w; i++) {
    let v = features[at + i] - c.mean[i];
    for (let k = 0; k < i; k++) v -= c.factor[i * w + k] * y[k];
    y[i] = v / c.factor[i * w + i];
    sum += y[i] * y[i];
  }
  return sum;
}

/** Gaussian discriminant (Fisher 1936; quadratic as in Hastie, Tibshirani & Friedman 2009, The Elements of Statistical Learning, 4.3). */
export function trainGaussian(samples: Samples, prior: Prior): Classifier {
  const classes = normalClasses(samples);
  const p = priors(samples, prior);
  return (features, count) => {
    const out = new Float64Array(count * samples.classes);
    const logs = new Float64Array(samples.classes);
    for (let n = 0; n < count; n++) {
      if (n % 1024 === 0) heed();
      let top = Number.NEGATIVE_INFINITY;
      classes.forEach((c, k) => {
        logs[k] = c
          ? Math.log(p[k] || 1e-300) - 0.5 * (squaredDistance(c, features, n * samples.width) + c.logDeterminant)
          : Number.NEGATIVE_INFINITY;
        top = Math.max(top, logs[k]);
      });
      let sum = 0;
      for (let k = 0; k < logs.length; k++) sum += Math.exp(logs[k] - top);
      for (let k = 0; k < logs.length; k++) out[n * logs.length + k] = Math.exp(logs[k] - top) / sum;
    }
    return out;
  };
}
