import { heed } from '../numerics/stop.ts';
import { trainForest } from './forest.ts';
import { normalClasses, squaredDistance, trainGaussian } from './gaussian.ts';
import { trainNetwork } from './network.ts';
import { type Classifier, type Prior, type Samples, type Scaling, scaled, scalingOf, subset } from './samples.ts';

export const METHODS = ['Gaussian discriminant', 'random forest', 'neural network'] as const;
export type Method = (typeof METHODS)[number];

export interface TrainOptions {
  method: Method;
  prior: Prior;
  seed: number;
}

/** Train on samples in their own units. */
export function train(samples: Samples, o: TrainOptions): Classifier {
  const scaling = scalingOf(samples.features, samples.count, samples.width);
  const inside = { ...samples, features: scaled(samples.features, scaling) };
  const classifier =
    o.method === 'Gaussian discriminant'
      ? trainGaussian(inside, o.prior)
      : o.method === 'random forest'
        ? trainForest(inside, { trees: 60, leaf: 4, deepest: 14, seed: o.seed, prior: o.prior })
        : trainNetwork(inside, { hidden: 12, epochs: 60, decay: 1e-3, seed: o.seed, prior: o.prior });
  return (features, count) => classifier(scaled(features, scaling), count);
}

/** Class with the greatest probability of each sample. */
export function winners(probabilities: Float64Array, classes: number): Int32Array {
  return Int32Array.from({ length: probabilities.length / classes }, (_, n) => {
    let best = 0;
    for (let c = 1; c < classes; c++) if (probabilities[n * classes + c] > probabilities[n * classes + best]) best = c;
    return best;
  });
}

/** How a classifier does on wells that it was not trained on. */
export interface Validation {
  /** Times that a class (row) was taken for another (column). */
  confusion: number[][];
  accuracy: number;
  /** Part of the samples that the commonest class has: what guessing it always would reach. */
  majority: number;
  byWell: { well: string; accuracy: number; majority: number; samples: number }[];
  /** Loss of accuracy when one feature is shuffled among samples. */
  importance: number[];
  /** Mean probability of the winner and how often it was right, in tenths; exponents are those of the other wells. */
  reliability: { said: number; right: number; samples: number }[];
  /** Mean difference of the two, weighted by samples. */
  calibrationError: number;
  /** Exponent that brings probabilities to what they are worth; 1 where they were. */
  temper: number;
}

/** Probabilities to a power, made to sum to 1 (Guo et al. 2017, International Conference on Machine Learning, temperature scaling). */
export function tempered(probabilities: Float64Array, classes: number, temper: number): Float64Array {
  const out = new Float64Array(probabilities.length);
  for (let n = 0; n < out.length; n += classes) {
    let sum = 0;
    for (let c = 0; c < classes; c++) {
      out[n + c] = Math.max(1e-9, probabilities[n + c]) ** temper;
      sum += out[n + c];
    }
    for (let c = 0; c < classes; c++) out[n + c] /= sum;
  }
  return out;
}

/** The exponent under which the right classes are likeliest, between a tenth and twice. */
export function bestTemper(probabilities: Float64Array, labels: Int32Array, classes: number): number {
  let [best, least] = [1, Number.POSITIVE_INFINITY];
  for (let q = 0; q <= 40; q++) {
    heed();
    const temper = 0.1 * 20 ** (q / 40);
    const p = tempered(probabilities, classes, temper);
    let loss = 0;
    for (let n = 0; n < labels.length; n++) loss -= Math.log(p[n * classes + labels[n]]);
    if (loss < least) [best, least] = [temper, loss];
  }
  return best;
}

/**
 * Probabilities of each well under the exponent that the other wells ask for: what is measured on them was not fitted to
 * them. With two wells each has that of the other.
 */
function crossTempered(
  probabilities: Float64Array,
  labels: Int32Array,
  wells: string[],
  classes: number,
): Float64Array {
  const out = new Float64Array(probabilities.length);
  const pick = (of: number[]) => {
    const p = new Float64Array(of.length * classes);
    of.forEach((n, k) => {
      p.set(probabilities.subarray(n * classes, (n + 1) * classes), k * classes);
    });
    return p;
  };
  for (const well of new Set(wells)) {
    const own: number[] = [];
    const others: number[] = [];
    wells.forEach((w, n) => {
      (w === well ? own : others).push(n);
    });
    const temper =
      others.length > 0
        ? bestTemper(
            pick(others),
            Int32Array.from(others, (n) => labels[n]),
            classes,
          )
        : 1;
    const made = tempered(pick(own), classes, temper);
    own.forEach((n, k) => {
      out.set(made.subarray(k * classes, (k + 1) * classes), n * classes);
    });
  }
  return out;
}

/**
 * Leave out one well after the other, never single samples: neighbours in a well are alike, and would tell each other.
 * @param wells name of the well of each sample
 */
export function validate(samples: Samples, wells: string[], o: TrainOptions): Validation {
  const { classes, width } = samples;
  const names = [...new Set(wells)];
  const confusion = Array.from({ length: classes }, () => new Array<number>(classes).fill(0));
  const probabilities = new Float64Array(samples.count * classes);
  const lost = new Array<number>(width).fill(0);
  const byWell = names.map((well) => {
    const own: number[] = [];
    const others: number[] = [];
    wells.forEach((w, n) => {
      (w === well ? own : others).push(n);
    });
    const blind = subset(samples, own);
    const classifier = train(subset(samples, others), o);
    const p = classifier(blind.features, blind.count);
    own.forEach((n, k) => {
      probabilities.set(p.subarray(k * classes, (k + 1) * classes), n * classes);
    });
    const won = winners(p, classes);
    let right = 0;
    const seen = new Float64Array(classes);
    won.forEach((c, k) => {
      confusion[blind.labels[k]][c]++;
      seen[blind.labels[k]]++;
      if (c === blind.labels[k]) right++;
    });
    for (let f = 0; f < width; f++) {
      // a shuffle that is the same each time: every sample takes the feature of another far from it
      const moved = blind.features.slice();
      const by = Math.max(1, Math.floor(blind.count * 0.382));
      for (let n = 0; n < blind.count; n++)
        moved[n * width + f] = blind.features[((n * 7 + by) % blind.count) * width + f];
      const then = winners(classifier(moved, blind.count), classes);
      let still = 0;
      then.forEach((c, k) => {
        if (c === blind.labels[k]) still++;
      });
      lost[f] += right - still;
    }
    return { well, accuracy: right / own.length, majority: Math.max(...seen) / own.length, samples: own.length };
  });
  const seen = new Float64Array(classes);
  for (const label of samples.labels) seen[label]++;
  const temper = bestTemper(probabilities, samples.labels, classes);
  const sure = crossTempered(probabilities, samples.labels, wells, classes);
  const won = winners(sure, classes);
  const tenths = Array.from({ length: 10 }, () => ({ said: 0, right: 0, samples: 0 }));
  won.forEach((c, n) => {
    const tenth = tenths[Math.min(9, Math.floor(10 * sure[n * classes + c]))];
    tenth.said += sure[n * classes + c];
    tenth.right += c === samples.labels[n] ? 1 : 0;
    tenth.samples++;
  });
  const reliability = tenths
    .filter((t) => t.samples > 0)
    .map((t) => ({ said: t.said / t.samples, right: t.right / t.samples, samples: t.samples }));
  return {
    confusion,
    accuracy: confusion.reduce((s, row, c) => s + row[c], 0) / samples.count,
    majority: Math.max(...seen) / samples.count,
    byWell,
    importance: lost.map((n) => n / samples.count),
    reliability,
    calibrationError: reliability.reduce((s, t) => s + t.samples * Math.abs(t.said - t.right), 0) / samples.count,
    temper,
  };
}

/** How far samples lie from what a classifier was trained on. */
export interface Novelty {
  scaling: Scaling;
  /** Distance beyond which only one in a hundred of the training samples lies. */
  limit: number;
  /** Mahalanobis distance to the nearest class. */
  distance(features: Float64Array, count: number): Float64Array;
}

export function noveltyOf(samples: Samples): Novelty {
  const scaling = scalingOf(samples.features, samples.count, samples.width);
  const classes = normalClasses({ ...samples, features: scaled(samples.features, scaling) });
  const distance = (features: Float64Array, count: number) => {
    const inside = scaled(features, scaling);
    return Float64Array.from({ length: count }, (_, n) => {
      let least = Number.POSITIVE_INFINITY;
      for (const c of classes) if (c) least = Math.min(least, squaredDistance(c, inside, n * samples.width));
      return Math.sqrt(least);
    });
  };
  const own = distance(samples.features, samples.count).sort();
  return { scaling, limit: 1.15 * own[Math.floor(0.99 * (own.length - 1))], distance };
}
