/** Solve a small dense system in place by Gaussian elimination with partial pivoting; null where it is singular. */
export function solve(matrix: number[][], right: number[]): number[] | null {
  const n = right.length;
  const a = matrix.map((row, i) => [...row, right[i]]);
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(a[r][c]) > Math.abs(a[pivot][c])) pivot = r;
    if (Math.abs(a[pivot][c]) < 1e-12 * Math.max(1, Math.abs(a[0][0]))) return null;
    [a[c], a[pivot]] = [a[pivot], a[c]];
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const f = a[r][c] / a[c][c];
      if (f !== 0) for (let k = c; k <= n; k++) a[r][k] -= f * a[c][k];
    }
  }
  return a.map((row, i) => row[n] / row[i]);
}

/** Least squares of `y ≈ Σ c_k·basis_k` by normal equations; rows of `design` are observations. Null where underdetermined. */
export function leastSquares(design: number[][], y: number[]): number[] | null {
  const m = design[0]?.length ?? 0;
  const normal = Array.from({ length: m }, () => new Array<number>(m).fill(0));
  const right = new Array<number>(m).fill(0);
  design.forEach((row, n) => {
    for (let a = 0; a < m; a++) {
      right[a] += row[a] * y[n];
      for (let b = 0; b < m; b++) normal[a][b] += row[a] * row[b];
    }
  });
  return solve(normal, right);
}
