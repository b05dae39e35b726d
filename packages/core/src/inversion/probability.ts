/** The integral of the standard normal density (Abramowitz & Stegun 1964, 7.1.26, by its complementary error function). */
export function normalBelow(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  // Numerical recipes' rational form, relative error below 1.2e-7
  const t = 1 / (1 + 0.5 * x);
  const erfc =
    t *
    Math.exp(
      -x * x -
        1.26551223 +
        t *
          (1.00002368 +
            t *
              (0.37409196 +
                t *
                  (0.09678418 +
                    t *
                      (-0.18628806 +
                        t *
                          (0.27886807 + t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277)))))))),
    );
  return z > 0 ? 1 - erfc / 2 : erfc / 2;
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
