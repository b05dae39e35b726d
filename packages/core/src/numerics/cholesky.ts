import { heed } from './stop.ts';

/**
 * Lower factor L of a symmetric positive matrix, A = L·Lᵀ (Golub & Van Loan 2013, Matrix Computations, algorithm 4.2.1); null where it is not
 * positive.
 * @param a `[row][column]` of n × n, left as it is
 */
export function cholesky(a: Float64Array, n: number): Float64Array | null {
  const l = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    if (i % 32 === 0) heed();
    const oi = i * n;
    for (let j = 0; j <= i; j++) {
      const oj = j * n;
      let sum = a[oi + j];
      for (let k = 0; k < j; k++) sum -= l[oi + k] * l[oj + k];
      if (i === j) {
        if (!(sum > 0)) return null;
        l[oi + i] = Math.sqrt(sum);
      } else l[oi + j] = sum / l[oj + j];
    }
  }
  return l;
}

/** Solve L·x = b for each row of right sides, in place; rows hold n values. */
export function forwardRows(l: Float64Array, n: number, rows: Float64Array, count: number): void {
  for (let r = 0; r < count; r++) {
    if (r % 32 === 0) heed();
    const o = r * n;
    for (let i = 0; i < n; i++) {
      let sum = rows[o + i];
      const oi = i * n;
      for (let k = 0; k < i; k++) sum -= l[oi + k] * rows[o + k];
      rows[o + i] = sum / l[oi + i];
    }
  }
}

/** Solve Lᵀ·x = b for each row of right sides, in place. */
export function backwardRows(l: Float64Array, n: number, rows: Float64Array, count: number): void {
  // the factor turned over is read along its rows
  const t = new Float64Array(n * n);
  for (let i = 0; i < n; i++) for (let k = 0; k <= i; k++) t[k * n + i] = l[i * n + k];
  for (let r = 0; r < count; r++) {
    if (r % 32 === 0) heed();
    const o = r * n;
    for (let i = n - 1; i >= 0; i--) {
      let sum = rows[o + i];
      const oi = i * n;
      for (let k = i + 1; k < n; k++) sum -= t[oi + k] * rows[o + k];
      rows[o + i] = sum / l[i * n + i];
    }
  }
}

/** C = A·Bᵀ with rows of A and B of length n. */
export function timesTransposed(
  a: Float64Array,
  rowsA: number,
  b: Float64Array,
  rowsB: number,
  n: number,
): Float64Array {
  const out = new Float64Array(rowsA * rowsB);
  for (let i = 0; i < rowsA; i++) {
    if (i % 32 === 0) heed();
    const oi = i * n;
    for (let j = 0; j < rowsB; j++) {
      const oj = j * n;
      let sum = 0;
      for (let k = 0; k < n; k++) sum += a[oi + k] * b[oj + k];
      out[i * rowsB + j] = sum;
    }
  }
  return out;
}

/** The logarithm of the determinant of the matrix that was factored. */
export function logDeterminant(l: Float64Array, n: number): number {
  let sum = 0;
  for (let i = 0; i < n; i++) sum += Math.log(l[i * n + i]);
  return 2 * sum;
}
