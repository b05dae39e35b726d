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

/** A sample of a well: how its logarithm lies to the model, whether it is of the kind, and whether it lies inside the zone. */
export interface RockSample {
  well: string;
  value: number;
  own: boolean;
  inside: boolean;
}

/** What wells say of rock inside a zone, or beside it. */
export interface RockStatistics {
  /** Rock of the kind, and the rest. */
  classes: [RockClass, RockClass];
  /** Part of rock of the kind before data. */
  part: number;
}

/** So many samples of all the rest count beside those that lie where it is asked for. */
const BORROWED = 10;

/**
 * Rock of the kind and the rest as wells have it, inside a zone and beside it. Wells are drilled where there is much of the kind in the
 * zone, so in it each is one witness, however many samples it has, and half a well of each is had before any; beside it, where nobody
 * looked for anything, samples count, and half a sample of each. The rest is not the same rock in the zone as beside it: its own few samples
 * count, and some of all of it.
 */
export function rockStatistics(samples: RockSample[]): { inside: RockStatistics; beside: RockStatistics } {
  const classOf = (values: number[], prior: number): RockClass => {
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    const square = values.reduce((s, v) => s + (v - mean) ** 2, 0) / Math.max(1, values.length - 1);
    return { prior, mean, deviation: Math.sqrt(square), count: values.length };
  };
  const of = (own: boolean, inside?: boolean) =>
    samples.flatMap((s) => (s.own === own && (inside === undefined || s.inside === inside) ? [s.value] : []));
  const [kind, rest] = [of(true), of(false)];
  const total = samples.length;
  const [all, others] = [classOf(kind, kind.length / total), classOf(rest, rest.length / total)];
  const at = (inside: boolean): RockStatistics => {
    const wells = new Map<string, [own: number, all: number]>();
    for (const s of samples) {
      if (s.inside !== inside) continue;
      const key = inside ? s.well : '';
      const [own, count] = wells.get(key) ?? [0, 0];
      wells.set(key, [own + (s.own ? 1 : 0), count + 1]);
    }
    const witnesses = [...wells.values()];
    const parts = inside ? witnesses.map(([own, count]) => own / count) : witnesses.map(([own]) => own);
    const count = inside ? parts.length : (witnesses[0]?.[1] ?? 0);
    const here = of(false, inside);
    const near = here.length > 1 ? classOf(here, others.prior) : others;
    const f = here.length / (here.length + BORROWED);
    const mean = f * near.mean + (1 - f) * others.mean;
    // of a mixture of both, about their common mean
    const square =
      f * (near.deviation ** 2 + (near.mean - mean) ** 2) +
      (1 - f) * (others.deviation ** 2 + (others.mean - mean) ** 2);
    return {
      classes: [all, { ...others, mean, deviation: Math.sqrt(square), count: here.length }],
      part: (parts.reduce((a, b) => a + b, 0) + 0.5) / (count + 1),
    };
  };
  return { inside: at(true), beside: at(false) };
}
