import { backwardRows, cholesky, forwardRows, logDeterminant } from '../numerics/cholesky.ts';
import { corrected, correctionsFor, type Spread, type Tie } from './correct.ts';
import { type Box, smoothFields } from './field.ts';
import { type Model, type ModelParts, modelOf } from './model.ts';

/** What is not known of a model: one standard deviation of each. */
export interface Doubt {
  /** Of the TWT of a layer's base at a place, ms, and how far it hangs together, m. */
  timeMs(x: number, y: number, layer: number): number;
  timeRangeM: number;
  /** Of the logarithm of the velocity of layers, where no well tells. */
  velocity: number;
  /** Of the depth of tops in wells, m. */
  topM: number;
  /** How wells are heard, by which every realization honours them as the model does. */
  spread: Spread;
}

/** What is thought of the scatter of velocities before wells tell: the middle of its logarithm, and how far off that may be. */
const BEFORE = { middle: Math.log(0.025), spread: 0.6 };
/** Scatters that are tried: parts of a velocity. */
const TRIED = Array.from({ length: 60 }, (_, n) => 0.003 * 1.075 ** n);

/**
 * How much the velocities of layers are off where no well is, as a standard deviation of their logarithm: from the factors that wells ask
 * for, by residual likelihood (Patterson & Thompson 1971, Biometrika 58, 545–554). Wells near each other tell less of it, and what errors of
 * picks and tops make of thin layers is none of it. One value for all layers, since each has few wells.
 * @param parts the model without corrections
 */
export function scatterOf(
  parts: ModelParts,
  ties: Tie[],
  spread: Spread,
  { timeMs, topM }: Pick<Doubt, 'timeMs' | 'topM'>,
): { scatter: number; wells: number } {
  const { corrections } = correctionsFor(parts, ties, { ...spread, far: 'mean of the wells' });
  const model = modelOf(parts);
  const layers = corrections.flatMap((correction, layer) => {
    const points = correction?.points ?? [];
    if (points.length < 2) return [];
    const noise = points.map((p) => {
      const { dt, dz } = layerAt(model, p.x, p.y, layer);
      const picked = timeMs(p.x, p.y, layer) ** 2 + (layer > 0 ? timeMs(p.x, p.y, layer - 1) ** 2 : 0);
      return picked / Math.max(1, dt) ** 2 + 2 * (topM / Math.max(1, dz)) ** 2;
    });
    const together = points.map((a) =>
      points.map((b) => Math.exp((-3 * Math.hypot(a.x - b.x, a.y - b.y)) / spread.rangeM)),
    );
    return [{ values: points.map((p) => p.value), noise, together }];
  });
  let [sum, total] = [0, 0];
  let best = Number.NEGATIVE_INFINITY;
  const scores = TRIED.map((s) => {
    const prior = -0.5 * ((Math.log(s) - BEFORE.middle) / BEFORE.spread) ** 2;
    const score = layers.reduce((l, one) => l + residualLikelihood(one, s * s), prior);
    best = Math.max(best, score);
    return score;
  });
  TRIED.forEach((s, n) => {
    const weight = Math.exp(scores[n] - best);
    sum += weight * s * s;
    total += weight;
  });
  return { scatter: Math.sqrt(sum / total), wells: layers.reduce((n, l) => n + l.values.length, 0) };
}

/** Logarithm of the likelihood of values about a mean that is not known. */
function residualLikelihood(
  { values, noise, together }: { values: number[]; noise: number[]; together: number[][] },
  variance: number,
): number {
  const n = values.length;
  const cov = Float64Array.from({ length: n * n }, (_, m) => {
    const [a, b] = [Math.floor(m / n), m % n];
    return variance * together[a][b] + (a === b ? noise[a] + 1e-10 : 0);
  });
  const factor = cholesky(cov, n);
  if (!factor) return Number.NEGATIVE_INFINITY;
  // the inverse of the covariance applied to ones and to the values
  const rows = Float64Array.from([...values.map(() => 1), ...values]);
  forwardRows(factor, n, rows, 2);
  backwardRows(factor, n, rows, 2);
  const ones = rows.subarray(0, n).reduce((s, v) => s + v, 0);
  const mean = rows.subarray(n).reduce((s, v) => s + v, 0) / ones;
  const squares = values.reduce((s, v, m) => s + (v - mean) * (rows[n + m] - mean * rows[m]), 0);
  return -0.5 * (logDeterminant(factor, n) + Math.log(ones) + squares);
}

/** TWT (ms) and thickness (m) of a layer at a place; NaN where the model does not reach. */
function layerAt(model: Model, x: number, y: number, layer: number): { dt: number; dz: number } {
  const column = model.column(x, y);
  if (!column) return { dt: Number.NaN, dz: Number.NaN };
  const top = layer > 0 ? column.boundaries[layer - 1] : { t: column.t[0], z: column.z[0] };
  return { dt: column.boundaries[layer].t - top.t, dz: column.boundaries[layer].z - top.z };
}
/**
 * One realization of a model: boundaries and velocities differ by smooth errors, and the tops of wells, by theirs, are honoured
 * as the model honours them; so that errors are small at wells and grow away from them (conditioning by kriging: Journel & Huijbregts 1978,
 * Mining Geostatistics, 495).
 * @param parts the model as it stands, with its own corrections
 */
export function realizationOf(
  parts: ModelParts,
  ties: Tie[],
  doubt: Doubt,
  box: Box,
  seed: number,
  realization: number,
): Model {
  const count = parts.layers.length;
  const time = smoothFields(seed, 2 * realization, count, box, doubt.timeRangeM);
  const velocity = smoothFields(seed, 2 * realization + 1, count, box, doubt.spread.rangeM);
  const differs: ModelParts = {
    ...parts,
    errors: {
      time: (x, y, layer) => doubt.timeMs(x, y, layer) * time(x, y, layer),
      velocity: (x, y, layer) => doubt.velocity * velocity(x, y, layer),
    },
  };
  // tops of a well are off independently of each other
  const off = smoothFields(seed + 1, realization, ties.length + 1, { x: [0, 0], y: [0, 0] }, 1);
  const told = ties.map((tie, n) => ({ ...tie, z: tie.z + doubt.topM * off(0, 0, n) }));
  const { corrections } = correctionsFor(differs, told, doubt.spread);
  return modelOf(corrected(differs, corrections));
}
