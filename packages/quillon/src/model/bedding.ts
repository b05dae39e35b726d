import type { Random } from './random.ts';

const STEP_M = 0.25;

/** Fine conformable bedding of one layer: three independent logs that are blended differently from place to place. */
export interface Bedding {
  /** Relative perturbation of impedance at stratigraphic height `s` (m) with blend weights `w` (sum of squares 1). */
  at(s: number, w: ArrayLike<number>): number;
  /** A value uniform in [0, 1] that is constant within thin beds of 0.5 to 3 m: used for sand–shale interbedding. */
  bedRank(s: number, w: ArrayLike<number>): number;
}

/**
 * Impedance whose spectrum falls by a power law, so that reflectivity rises with frequency (Walden & Hosken 1985,
 * Geophysical Prospecting 33, 400–435): equal variance per octave from `finest` to `coarsest` metres.
 */
function powerLawLog(random: Random, length: number, finest: number, coarsest: number): Float32Array {
  const out = new Float32Array(length);
  for (let spacing = finest; spacing <= coarsest; spacing *= 2) {
    const knots = new Float64Array(Math.ceil((length * STEP_M) / spacing) + 4);
    for (let k = 0; k < knots.length; k++) knots[k] = random.normal();
    const gain = (spacing / finest) ** 0.1;
    for (let i = 0; i < length; i++) {
      const x = (i * STEP_M) / spacing;
      const k = Math.floor(x);
      const f = x - k;
      const g = f * f * (3 - 2 * f);
      out[i] += gain * (knots[k] * (1 - g) + knots[k + 1] * g);
    }
  }
  let sum = 0;
  for (const value of out) sum += value * value;
  const scale = 1 / Math.sqrt(sum / length);
  for (let i = 0; i < length; i++) out[i] *= scale;
  return out;
}

/** Beds of random thickness, each with a normal value. */
function bedLog(random: Random, length: number): Float32Array {
  const out = new Float32Array(length);
  let i = 0;
  while (i < length) {
    const beds = Math.max(2, Math.round((0.5 + -1.1 * Math.log(1 - random())) / STEP_M));
    const value = random.normal();
    for (const end = Math.min(length, i + beds); i < end; i++) out[i] = value;
  }
  return out;
}

/** Normal deviate to rank (Abramowitz & Stegun 26.2.17). */
function normalRank(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    0.3989422804 *
    Math.exp((-x * x) / 2) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x > 0 ? 1 - tail : tail;
}

export function makeBedding(random: Random, heightM: number, finestM = 1, coarsestM = 64): Bedding {
  const length = Math.ceil(heightM / STEP_M);
  const logs = [0, 1, 2].map(() => powerLawLog(random, length, finestM, coarsestM));
  const beds = [0, 1, 2].map(() => bedLog(random, length));
  const wrap = (s: number) => {
    const x = s / STEP_M;
    return x - Math.floor(x / (length - 1)) * (length - 1);
  };
  return {
    at(s, w) {
      const x = wrap(s);
      const i = Math.floor(x);
      const f = x - i;
      let sum = 0;
      for (let k = 0; k < 3; k++) sum += w[k] * (logs[k][i] * (1 - f) + logs[k][i + 1] * f);
      return sum;
    },
    bedRank(s, w) {
      const i = Math.floor(wrap(s));
      return normalRank(w[0] * beds[0][i] + w[1] * beds[1][i] + w[2] * beds[2][i]);
    },
  };
}
