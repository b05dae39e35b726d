import { type Sparse, solveMultigrid } from '../numerics/multigrid.ts';
import { heed } from '../numerics/stop.ts';

/** Which links between neighbouring nodes are cut, per node: bit 1 to the next row, bit 2 to the next column. */
export type Cuts = Uint8Array;

/** How far a filling came. */
export interface Filling {
  /** What is left over of the equations, as a part of what the known nodes put in. */
  residual: number;
  iterations: number;
  /** Nodes that stayed empty, as nothing known leads to them. */
  empty: number;
}

/** Left over at most, as a part, when a surface counts as found. */
const TOLERANCE = 1e-9;

/**
 * Fill the gaps of a grid with the surface of least curvature and tension through what is known: continuous curvature
 * splines in tension (Smith & Wessel 1990, Geophysics 55, 293–305), as the minimum of
 * `(1 − T)·Σ(second differences)² + T·Σ(first differences)²` over the unknown nodes, by multigrid.
 * Differences that a cut goes through are left out, so that a fault is no bridge; a block that holds nothing known, and that
 * nothing leads into, stays empty.
 * @param values `[row][column]`, NaN where unknown; known nodes are kept exactly
 * @param tension 0 (least curvature) to 1 (a membrane)
 * @param aspect distance between rows over that between columns; @param say told how far it came
 */
export function fillGaps(
  values: Float32Array,
  rows: number,
  columns: number,
  tension = 0.25,
  cuts?: Cuts,
  { aspect = 1, say }: { aspect?: number; say?: (filling: Filling) => void } = {},
): Float32Array {
  const n = rows * columns;
  const x = Float64Array.from(values);
  let [sum, known] = [0, 0];
  for (let k = 0; k < n; k++)
    if (!Number.isNaN(x[k])) {
      sum += x[k];
      known++;
    }
  if (known === 0 || known === n) {
    say?.({ residual: 0, iterations: 0, empty: n - known });
    return values.slice();
  }
  startFromNearest(x, rows, columns, cuts);
  const mean = sum / known;
  const number = new Int32Array(n).fill(-1);
  const free: number[] = [];
  for (let k = 0; k < n; k++) {
    if (!Number.isNaN(values[k]) || Number.isNaN(x[k])) continue;
    number[k] = free.length;
    free.push(k);
  }
  const { matrix, right } = equations(
    values,
    columns,
    number,
    free,
    mean,
    differences(rows, columns, tension, aspect, cuts),
  );
  // a plate neither stretches nor bends where it is raised or tilted
  const at = (of: (k: number) => number) => Float64Array.from(free, of);
  const near = [
    at(() => 1),
    at((k) => (2 * Math.floor(k / columns)) / rows - 1),
    at((k) => (2 * (k % columns)) / columns - 1),
  ];
  const start = at((k) => x[k] - mean);
  const { x: found, residual, iterations } = solveMultigrid(matrix, right, near, start, { tolerance: TOLERANCE });
  const out = values.slice();
  free.forEach((k, m) => {
    out[k] = found[m] + mean;
  });
  say?.({ residual, iterations, empty: n - known - free.length });
  return out;
}

/** The equations of the unknown nodes: the matrix of all differences, and what the known nodes put in. */
function equations(
  values: Float32Array,
  columns: number,
  number: Int32Array,
  free: number[],
  mean: number,
  terms: Terms[],
): { matrix: Sparse; right: Float64Array } {
  // nodes that a difference can join lie two rows or columns apart at most
  const [reach, wide] = [2, 5];
  const dense = new Float64Array(free.length * wide * wide);
  const right = new Float64Array(free.length);
  for (const { nodes, weights, width } of terms)
    for (let t = 0; t < nodes.length; t += width) {
      if (t % (4096 * width) === 0) heed();
      for (let a = 0; a < width; a++) {
        const p = nodes[t + a];
        const row = number[p];
        if (row < 0) continue;
        for (let b = 0; b < width; b++) {
          const q = nodes[t + b];
          const w = weights[a] * weights[b];
          if (number[q] < 0) {
            right[row] -= w * (values[q] - mean);
            continue;
          }
          const di = Math.floor(q / columns) - Math.floor(p / columns);
          dense[row * wide * wide + (di + reach) * wide + (q - p - di * columns) + reach] += w;
        }
      }
    }
  const from = new Int32Array(free.length + 1);
  for (let m = 0; m < free.length; m++) {
    let count = 0;
    for (let e = 0; e < wide * wide; e++) if (dense[m * wide * wide + e] !== 0) count++;
    from[m + 1] = from[m] + count;
  }
  const column = new Int32Array(from[free.length]);
  const value = new Float64Array(from[free.length]);
  for (let m = 0, e = 0; m < free.length; m++)
    for (let s = 0; s < wide * wide; s++) {
      const v = dense[m * wide * wide + s];
      if (v === 0) continue;
      column[e] = number[free[m] + (Math.floor(s / wide) - reach) * columns + (s % wide) - reach];
      value[e++] = v;
    }
  return { matrix: { rows: free.length, columns: free.length, from, column, value }, right };
}

/** A first guess: each unknown node takes the value of the nearest known one that can be reached. */
function startFromNearest(x: Float64Array, rows: number, columns: number, cuts?: Cuts): void {
  let front: number[] = [];
  for (let k = 0; k < x.length; k++) if (!Number.isNaN(x[k])) front.push(k);
  while (front.length > 0) {
    const next: number[] = [];
    for (const k of front) {
      const [i, j] = [Math.floor(k / columns), k % columns];
      const spread = (to: number, at: number, bit: number) => {
        if (cuts && (cuts[at] & bit) !== 0) return;
        if (!Number.isNaN(x[to])) return;
        x[to] = x[k];
        next.push(to);
      };
      if (i > 0) spread(k - columns, k - columns, 1);
      if (i < rows - 1) spread(k + columns, k, 1);
      if (j > 0) spread(k - 1, k - 1, 2);
      if (j < columns - 1) spread(k + 1, k, 2);
    }
    front = next;
  }
}

interface Terms {
  nodes: Int32Array;
  weights: number[];
  width: number;
}

function differences(rows: number, columns: number, tension: number, aspect: number, cuts?: Cuts): Terms[] {
  const at = (i: number, j: number) => i * columns + j;
  const cut = (i: number, j: number, bit: number) => cuts !== undefined && (cuts[at(i, j)] & bit) !== 0;
  // along rows and along columns, as their spacings differ
  const first: [number[], number[]] = [[], []];
  const second: [number[], number[]] = [[], []];
  const twist: number[] = [];
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++) {
      if (i + 1 < rows && !cut(i, j, 1)) first[0].push(at(i, j), at(i + 1, j));
      if (j + 1 < columns && !cut(i, j, 2)) first[1].push(at(i, j), at(i, j + 1));
      if (i + 2 < rows && !cut(i, j, 1) && !cut(i + 1, j, 1)) second[0].push(at(i, j), at(i + 1, j), at(i + 2, j));
      if (j + 2 < columns && !cut(i, j, 2) && !cut(i, j + 1, 2)) second[1].push(at(i, j), at(i, j + 1), at(i, j + 2));
      if (i + 1 < rows && j + 1 < columns && !cut(i, j, 1) && !cut(i, j, 2) && !cut(i + 1, j, 2) && !cut(i, j + 1, 1))
        twist.push(at(i, j), at(i + 1, j), at(i, j + 1), at(i + 1, j + 1));
    }
  const a = Math.sqrt(1 - tension);
  const b = Math.sqrt(tension);
  // spacings about their geometric mean, so that square bins are as they were
  const spacing = [Math.sqrt(aspect), 1 / Math.sqrt(aspect)];
  return [
    ...second.map((nodes, way) => {
      const w = a / spacing[way] ** 2;
      return { nodes: Int32Array.from(nodes), weights: [w, -2 * w, w], width: 3 };
    }),
    // the mixed derivative counts twice
    {
      nodes: Int32Array.from(twist),
      weights: [a * Math.SQRT2, -a * Math.SQRT2, -a * Math.SQRT2, a * Math.SQRT2],
      width: 4,
    },
    ...first.map((nodes, way) => {
      const w = b / spacing[way];
      return { nodes: Int32Array.from(nodes), weights: [w, -w], width: 2 };
    }),
  ];
}
