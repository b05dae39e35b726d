/** Samples of rock with what was measured of them, and the class that a person gave to each. */
export interface Samples {
  /** `[sample][feature]`. */
  features: Float64Array;
  count: number;
  width: number;
  /** Index of the class of each. */
  labels: Int32Array;
  classes: number;
}

/** A trained classifier: probabilities of the classes of samples, `[sample][class]`. */
export type Classifier = (features: Float64Array, count: number) => Float64Array;

/** Mean and spread of each feature. */
export interface Scaling {
  mean: Float64Array;
  spread: Float64Array;
}

export function scalingOf(features: Float64Array, count: number, width: number): Scaling {
  const mean = new Float64Array(width);
  const spread = new Float64Array(width);
  for (let n = 0; n < count; n++) for (let f = 0; f < width; f++) mean[f] += features[n * width + f] / count;
  for (let n = 0; n < count; n++)
    for (let f = 0; f < width; f++) spread[f] += (features[n * width + f] - mean[f]) ** 2 / count;
  for (let f = 0; f < width; f++) spread[f] = Math.sqrt(spread[f]) || 1;
  return { mean, spread };
}

export function scaled(features: Float64Array, { mean, spread }: Scaling): Float64Array {
  const width = mean.length;
  return features.map((v, n) => (v - mean[n % width]) / spread[n % width]);
}

/** Prior probability of each class: as often as it was seen, or even. */
export type Prior = 'as seen' | 'even';

export function priors(samples: Samples, prior: Prior): Float64Array {
  const seen = new Float64Array(samples.classes);
  for (const label of samples.labels) seen[label]++;
  if (prior === 'even') return seen.map((n) => (n > 0 ? 1 : 0) / seen.reduce((s, v) => s + (v > 0 ? 1 : 0), 0));
  return seen.map((n) => n / samples.count);
}

/** Even numbers between 0 and 1 from a seed. */
export function randomFrom(seed: number): () => number {
  let state = (seed ^ 0x9e3779b9) >>> 0;
  return () => {
    // Marsaglia (2003), Journal of Statistical Software 8(14): xorshift, after a stir
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    state >>>= 0;
    return (state + 0.5) / 2 ** 32;
  };
}

/** Some of the samples. */
export function subset(samples: Samples, take: number[]): Samples {
  const { width } = samples;
  const features = new Float64Array(take.length * width);
  const labels = new Int32Array(take.length);
  take.forEach((n, k) => {
    features.set(samples.features.subarray(n * width, (n + 1) * width), k * width);
    labels[k] = samples.labels[n];
  });
  return { ...samples, features, labels, count: take.length };
}
