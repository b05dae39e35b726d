/** The integral of the standard normal density, to 1.5e-7 (Abramowitz & Stegun 1964, Handbook of Mathematical Functions, 7.1.26). */
export function normalBelow(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const sum = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const beyond = 0.5 * sum * Math.exp(-x * x);
  return z > 0 ? 1 - beyond : beyond;
}

/** Probability that a value whose logarithm is normal lies in a range. */
export function probabilityOfRange(median: number, spread: number, from: number, to: number): number {
  if (!(median > 0)) return Number.NaN;
  const below = (v: number) =>
    v <= 0 ? 0 : spread > 0 ? normalBelow(Math.log(v / median) / spread) : median < v ? 1 : 0;
  return Math.max(0, below(to) - below(from));
}

/** Rock of one class, as wells have it: how its logarithm lies to the background. */
export interface RockClass {
  prior: number;
  mean: number;
  deviation: number;
  count: number;
}

/**
 * Probability of the first of two classes of rock, from what an inversion found under a prior without classes: that prior is divided out
 * again, and what is left is weighed by each class (Bayes; Avseth, Mukerji & Mavko 2005, Quantitative Seismic Interpretation, chapter 3).
 * @param found mean of the logarithm less the background, and its deviation; @param expected deviation before data
 * @param part of rock of the first class before data, where that is known better than by the classes themselves
 */
export function probabilityOfClass(
  found: number,
  deviation: number,
  expected: number,
  classes: [RockClass, RockClass],
  part = classes[0].prior / (classes[0].prior + classes[1].prior),
): number {
  const [own, before] = [1 / deviation ** 2, 1 / expected ** 2];
  const precision = own - before;
  const [a, b] = classes;
  // data that say nothing leave what was known before
  if (!(precision > 1e-6 * before)) return part;
  const mean = (found * own) / precision;
  const log = (c: RockClass, before: number) => {
    const variance = c.deviation ** 2 + 1 / precision;
    return Math.log(before) - 0.5 * Math.log(variance) - (0.5 * (mean - c.mean) ** 2) / variance;
  };
  return 1 / (1 + Math.exp(log(b, 1 - part) - log(a, part)));
}
