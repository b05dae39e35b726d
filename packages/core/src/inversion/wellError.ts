import { backwardRows, cholesky, forwardRows, logDeterminant } from '../numerics/cholesky.ts';

/** What a well adds to what seismic gives beside it. */
export interface Honoured {
  /** What is added at each unknown of the well's own trace. */
  values: Float64Array;
  /** Part of the variance that it takes away, by unknown. */
  certainty: Float64Array;
  /** Unknowns that are logged, and the matrix by which what is found at them carries to all, `[unknown][logged]`. */
  logged: Int32Array;
  carry: Float32Array;
}

/** Unknowns at which there is a residual. */
export const loggedOf = (residual: Float64Array): Int32Array =>
  Int32Array.from(Array.from(residual.keys()).filter((u) => residual[u] === residual[u]));

function part(
  covariance: Float64Array,
  unknowns: number,
  rows: ArrayLike<number>,
  columns: ArrayLike<number>,
): Float64Array {
  const out = new Float64Array(rows.length * columns.length);
  for (let r = 0; r < rows.length; r++)
    for (let c = 0; c < columns.length; c++) out[r * columns.length + c] = covariance[rows[r] * unknowns + columns[c]];
  return out;
}

const raised = (square: Float64Array, n: number, by: number): Float64Array => {
  const out = square.slice();
  for (let k = 0; k < n; k++) out[k * n + k] += by;
  return out;
};

/** Errors that are tried: from a third of a per cent to a fifth. */
const TRIED = { from: 0.003, to: 0.2, factor: 1.25 };

/**
 * How far logs are off as seismic would see them: by their ties, by what was measured, by what a trace is beside a borehole. It is what makes
 * their residuals most likely beside the covariance that the data leave (marginal likelihood).
 */
export function likeliestLogError(
  wells: { residual: Float64Array; covariance: Float64Array }[],
  unknowns: number,
): number {
  const rows = wells.map(({ residual, covariance }) => {
    const logged = loggedOf(residual);
    return {
      n: logged.length,
      own: part(covariance, unknowns, logged, logged),
      r: Float64Array.from(logged, (u) => residual[u]),
    };
  });
  let best = { error: TRIED.to, value: Number.NEGATIVE_INFINITY };
  for (let error = TRIED.from; error <= TRIED.to; error *= TRIED.factor) {
    let value = 0;
    for (const { n, own, r } of rows) {
      const l = cholesky(raised(own, n, error * error), n);
      if (!l) {
        value = Number.NEGATIVE_INFINITY;
        break;
      }
      const x = r.slice();
      forwardRows(l, n, x, 1);
      value -= 0.5 * (x.reduce((s, v) => s + v * v, 0) + logDeterminant(l, n));
    }
    if (value > best.value) best = { error, value };
  }
  return best.error;
}

/** What a well's residuals come to where logs are off by an error: what seismic leaves open follows them, what it knows hardly does. */
export function honouredBy(
  residual: Float64Array,
  covariance: Float64Array,
  unknowns: number,
  error: number,
): Honoured {
  const logged = loggedOf(residual);
  const n = logged.length;
  const all = Int32Array.from({ length: unknowns }, (_, u) => u);
  const l = cholesky(raised(part(covariance, unknowns, logged, logged), n, error * error), n);
  if (!l) throw new Error('a covariance with an error on its diagonal has a factor');
  const rows = part(covariance, unknowns, all, logged);
  forwardRows(l, n, rows, unknowns);
  const certainty = Float64Array.from({ length: unknowns }, (_, u) => {
    let sum = 0;
    for (let k = 0; k < n; k++) sum += rows[u * n + k] ** 2;
    const own = covariance[u * unknowns + u];
    return own > 0 ? Math.min(1, sum / own) : 0;
  });
  backwardRows(l, n, rows, unknowns);
  const carry = Float32Array.from(rows);
  return {
    values: carried(
      { logged, carry },
      Float64Array.from(logged, (u) => residual[u]),
    ),
    certainty,
    logged,
    carry,
  };
}

/** What is found at logged unknowns carried to all of them. */
export function carried({ logged, carry }: Pick<Honoured, 'logged' | 'carry'>, at: Float64Array): Float64Array {
  const n = logged.length;
  return Float64Array.from({ length: carry.length / n }, (_, u) => {
    let sum = 0;
    for (let k = 0; k < n; k++) sum += carry[u * n + k] * at[k];
    return sum;
  });
}
