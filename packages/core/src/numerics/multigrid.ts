import { heed } from './stop.ts';

/** A sparse matrix by rows: entries of row `n` stand from `from[n]` to before `from[n + 1]`. */
export interface Sparse {
  rows: number;
  columns: number;
  from: Int32Array;
  column: Int32Array;
  value: Float64Array;
}

/** How well a system was solved. */
export interface Solved {
  x: Float64Array;
  /** Length of what is left over, as a part of the right side. */
  residual: number;
  iterations: number;
}

/** A level of the hierarchy: its matrix, the way up from the next coarser one, and that way turned round. */
interface Level {
  a: Sparse;
  diagonal: Float64Array;
  up: Sparse | null;
  down: Sparse | null;
}

const COARSEST = 400;
/** Links weaker than this, of what their ends have, do not make an aggregate; half of it a level further down. */
const STRONG = 0.08;

export function multiply({ rows, from, column, value }: Sparse, x: Float64Array, out: Float64Array): void {
  heed();
  for (let n = 0; n < rows; n++) {
    let sum = 0;
    for (let e = from[n]; e < from[n + 1]; e++) sum += value[e] * x[column[e]];
    out[n] = sum;
  }
}

/** A matrix from its rows, each a list of columns and values in turn. */
function sparseOf(columns: number, rows: [columns: number[], values: number[]][]): Sparse {
  const from = new Int32Array(rows.length + 1);
  rows.forEach(([c], n) => {
    from[n + 1] = from[n] + c.length;
  });
  const column = new Int32Array(from[rows.length]);
  const value = new Float64Array(from[rows.length]);
  rows.forEach(([c, v], n) => {
    column.set(c, from[n]);
    value.set(v, from[n]);
  });
  return { rows: rows.length, columns, from, column, value };
}

function transposed(m: Sparse): Sparse {
  const from = new Int32Array(m.columns + 1);
  for (const c of m.column) from[c + 1]++;
  for (let n = 0; n < m.columns; n++) from[n + 1] += from[n];
  const at = from.slice();
  const column = new Int32Array(m.column.length);
  const value = new Float64Array(m.column.length);
  for (let n = 0; n < m.rows; n++)
    for (let e = m.from[n]; e < m.from[n + 1]; e++) {
      const to = at[m.column[e]]++;
      column[to] = n;
      value[to] = m.value[e];
    }
  return { rows: m.columns, columns: m.rows, from, column, value };
}

/** The product of two matrices, row by row (Gustavson 1978, ACM Trans. Math. Software 4, 250–269). */
function product(a: Sparse, b: Sparse): Sparse {
  const sum = new Float64Array(b.columns);
  const seen = new Int32Array(b.columns).fill(-1);
  const out: [number[], number[]][] = new Array(a.rows);
  for (let n = 0; n < a.rows; n++) {
    if (n % 256 === 0) heed();
    const list: number[] = [];
    for (let e = a.from[n]; e < a.from[n + 1]; e++) {
      const [k, v] = [a.column[e], a.value[e]];
      for (let f = b.from[k]; f < b.from[k + 1]; f++) {
        const c = b.column[f];
        if (seen[c] !== n) {
          seen[c] = n;
          sum[c] = 0;
          list.push(c);
        }
        sum[c] += v * b.value[f];
      }
    }
    out[n] = [list, list.map((c) => sum[c])];
  }
  return sparseOf(b.columns, out);
}

function diagonalOf({ rows, from, column, value }: Sparse): Float64Array {
  const out = new Float64Array(rows).fill(1);
  for (let n = 0; n < rows; n++) for (let e = from[n]; e < from[n + 1]; e++) if (column[e] === n) out[n] = value[e];
  return out;
}

/** Number of the aggregate that each unknown belongs to: a root with all that it is strongly linked to. */
function aggregated(a: Sparse, diagonal: Float64Array, strong: number): { of: Int32Array; count: number } {
  const { rows, from, column, value } = a;
  const of = new Int32Array(rows).fill(-1);
  const linked = (n: number, e: number) =>
    column[e] !== n && value[e] ** 2 > strong ** 2 * Math.abs(diagonal[n] * diagonal[column[e]]);
  let count = 0;
  for (let n = 0; n < rows; n++) {
    if (of[n] >= 0) continue;
    let alone = true;
    for (let e = from[n]; e < from[n + 1] && alone; e++) if (linked(n, e) && of[column[e]] >= 0) alone = false;
    if (!alone) continue;
    of[n] = count;
    for (let e = from[n]; e < from[n + 1]; e++) if (linked(n, e)) of[column[e]] = count;
    count++;
  }
  // what is left joins the aggregate that it is linked to most
  const joined = of.slice();
  for (let n = 0; n < rows; n++) {
    if (of[n] >= 0) continue;
    let most = 0;
    for (let e = from[n]; e < from[n + 1]; e++)
      if (linked(n, e) && of[column[e]] >= 0 && Math.abs(value[e]) > most) {
        most = Math.abs(value[e]);
        joined[n] = of[column[e]];
      }
  }
  for (let n = 0; n < rows; n++) {
    if (joined[n] >= 0) continue;
    joined[n] = count;
    for (let e = from[n]; e < from[n + 1]; e++) if (linked(n, e) && joined[column[e]] < 0) joined[column[e]] = count;
    count++;
  }
  return { of: joined, count };
}

/** The largest eigenvalue of D⁻¹A, near enough, by powers. */
function largestOf(a: Sparse, diagonal: Float64Array): number {
  let x = Float64Array.from({ length: a.rows }, (_, n) => 1 + ((n * 7919) % 101) / 101);
  const y = new Float64Array(a.rows);
  let largest = 1;
  for (let turn = 0; turn < 12; turn++) {
    multiply(a, x, y);
    let size = 0;
    for (let n = 0; n < a.rows; n++) {
      y[n] /= diagonal[n];
      size = Math.max(size, Math.abs(y[n]));
    }
    largest = size;
    x = y.map((v) => v / (size || 1));
  }
  return 1.1 * largest;
}

/**
 * The way up from aggregates: each carries what the near-null vectors are on it, made orthogonal, smoothed by one step of
 * Jacobi so that it bends as the matrix has it.
 */
function wayUp(a: Sparse, diagonal: Float64Array, near: Float64Array[], strong: number) {
  const { of, count } = aggregated(a, diagonal, strong);
  const members: number[][] = Array.from({ length: count }, () => []);
  for (let n = 0; n < a.rows; n++) members[of[n]].push(n);
  const rows: [number[], number[]][] = Array.from({ length: a.rows }, () => [[], []]);
  const coarse: number[][] = near.map(() => []);
  let columns = 0;
  for (const [n, nodes] of members.entries()) {
    if (n % 512 === 0) heed();
    const basis: Float64Array[] = [];
    const first = columns;
    const parts: number[][] = near.map(() => []);
    near.forEach((vector, v) => {
      const own = Float64Array.from(nodes, (n) => vector[n]);
      const before = Math.hypot(...own);
      basis.forEach((q, b) => {
        let dot = 0;
        for (let m = 0; m < own.length; m++) dot += q[m] * own[m];
        for (let m = 0; m < own.length; m++) own[m] -= dot * q[m];
        parts[v][b] = dot;
      });
      const size = Math.hypot(...own);
      // a vector that others make up on this aggregate adds nothing
      if (size <= 1e-8 * (before || 1)) return;
      parts[v][basis.length] = size;
      basis.push(own.map((x) => x / size));
    });
    basis.forEach((q) => {
      nodes.forEach((n, m) => {
        rows[n][0].push(columns);
        rows[n][1].push(q[m]);
      });
      columns++;
    });
    near.forEach((_, v) => {
      for (let b = 0; b < columns - first; b++) coarse[v].push(parts[v][b] ?? 0);
    });
  }
  const tentative = sparseOf(columns, rows);
  const step = 4 / 3 / largestOf(a, diagonal);
  const bent = product(a, tentative);
  for (let n = 0; n < a.rows; n++)
    for (let e = bent.from[n]; e < bent.from[n + 1]; e++) bent.value[e] *= -step / diagonal[n];
  // every entry of the tentative way is among those of the bent one: the diagonal of A is
  for (let n = 0; n < a.rows; n++)
    for (let t = tentative.from[n]; t < tentative.from[n + 1]; t++)
      for (let e = bent.from[n]; e < bent.from[n + 1]; e++)
        if (bent.column[e] === tentative.column[t]) bent.value[e] += tentative.value[t];
  return { up: bent, near: coarse.map((v) => Float64Array.from(v)) };
}

/** Cholesky factor of a small dense matrix, by rows; directions in which it is flat are held where they are. */
function factored(a: Sparse): Float64Array {
  const n = a.rows;
  const out = new Float64Array(n * n);
  for (let r = 0; r < n; r++) for (let e = a.from[r]; e < a.from[r + 1]; e++) out[r * n + a.column[e]] += a.value[e];
  let most = 0;
  for (let r = 0; r < n; r++) most = Math.max(most, out[r * n + r]);
  for (let c = 0; c < n; c++) {
    if (c % 64 === 0) heed();
    let d = out[c * n + c];
    for (let k = 0; k < c; k++) d -= out[c * n + k] ** 2;
    const root = d > 1e-13 * most ? Math.sqrt(d) : Math.sqrt(most) * 1e6;
    out[c * n + c] = root;
    for (let r = c + 1; r < n; r++) {
      let v = out[r * n + c];
      for (let k = 0; k < c; k++) v -= out[r * n + k] * out[c * n + k];
      out[r * n + c] = v / root;
    }
  }
  return out;
}

function backSolved(factor: Float64Array, b: Float64Array, x: Float64Array): void {
  const n = b.length;
  for (let r = 0; r < n; r++) {
    let v = b[r];
    for (let c = 0; c < r; c++) v -= factor[r * n + c] * x[c];
    x[r] = v / factor[r * n + r];
  }
  for (let r = n - 1; r >= 0; r--) {
    let v = x[r];
    for (let c = r + 1; c < n; c++) v -= factor[c * n + r] * x[c];
    x[r] = v / factor[r * n + r];
  }
}

/** A sweep of Gauss and Seidel, downwards or upwards. */
function sweep({ a, diagonal }: Level, b: Float64Array, x: Float64Array, upwards: boolean): void {
  const { rows, from, column, value } = a;
  heed();
  for (let s = 0; s < rows; s++) {
    const n = upwards ? rows - 1 - s : s;
    let v = b[n];
    for (let e = from[n]; e < from[n + 1]; e++) v -= value[e] * x[column[e]];
    x[n] += v / diagonal[n];
  }
}

/**
 * Solve a symmetric positive system by conjugate gradients with a cycle of smoothed-aggregation multigrid before each
 * step (Vaněk, Mandel & Brezina 1996, Computing 56, 179–196): the work grows with the number of unknowns, not faster.
 * @param near vectors that the matrix brings nearly to nothing: constants, and for plates slopes
 * @param start first guess
 */
export function solveMultigrid(
  a: Sparse,
  b: Float64Array,
  near: Float64Array[],
  start: Float64Array,
  { tolerance = 1e-9, most = 200 } = {},
): Solved {
  const levels: Level[] = [{ a, diagonal: diagonalOf(a), up: null, down: null }];
  let vectors = near;
  while (levels[levels.length - 1].a.rows > COARSEST && levels.length < 12) {
    const level = levels[levels.length - 1];
    const made = wayUp(level.a, level.diagonal, vectors, STRONG * 0.5 ** (levels.length - 1));
    if (made.up.columns >= 0.9 * level.a.rows) break;
    level.up = made.up;
    level.down = transposed(made.up);
    const coarse = product(level.down, product(level.a, level.up));
    levels.push({ a: coarse, diagonal: diagonalOf(coarse), up: null, down: null });
    vectors = made.near;
  }
  const last = levels[levels.length - 1];
  const factor = last.a.rows <= 4 * COARSEST ? factored(last.a) : null;
  const cycle = (n: number, right: Float64Array): Float64Array => {
    const level = levels[n];
    const x = new Float64Array(level.a.rows);
    if (!level.up || !level.down) {
      if (factor) backSolved(factor, right, x);
      else for (let turn = 0; turn < 10; turn++) for (const upwards of [false, true]) sweep(level, right, x, upwards);
      return x;
    }
    sweep(level, right, x, false);
    const left = new Float64Array(x.length);
    multiply(level.a, x, left);
    for (let k = 0; k < left.length; k++) left[k] = right[k] - left[k];
    const small = new Float64Array(level.down.rows);
    multiply(level.down, left, small);
    const lifted = new Float64Array(x.length);
    multiply(level.up, cycle(n + 1, small), lifted);
    for (let k = 0; k < x.length; k++) x[k] += lifted[k];
    sweep(level, right, x, true);
    return x;
  };
  const dot = (u: Float64Array, v: Float64Array) => {
    let sum = 0;
    for (let k = 0; k < u.length; k++) sum += u[k] * v[k];
    return sum;
  };
  const x = start.slice();
  const r = new Float64Array(x.length);
  multiply(a, x, r);
  for (let k = 0; k < r.length; k++) r[k] = b[k] - r[k];
  const whole = Math.sqrt(dot(b, b)) || Math.sqrt(dot(r, r)) || 1;
  const ap = new Float64Array(x.length);
  let z = cycle(0, r);
  let p = z.slice();
  let rz = dot(r, z);
  let iterations = 0;
  while (iterations < most && Math.sqrt(dot(r, r)) > tolerance * whole) {
    multiply(a, p, ap);
    const pap = dot(p, ap);
    if (!(pap > 0)) break;
    const alpha = rz / pap;
    for (let k = 0; k < x.length; k++) {
      x[k] += alpha * p[k];
      r[k] -= alpha * ap[k];
    }
    z = cycle(0, r);
    const next = dot(r, z);
    const beta = next / rz;
    rz = next;
    p = z.map((v, k) => v + beta * p[k]);
    iterations++;
  }
  return { x, residual: Math.sqrt(dot(r, r)) / whole, iterations };
}
