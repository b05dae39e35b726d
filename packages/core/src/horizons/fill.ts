/** Which links between neighbouring nodes are cut, per node: bit 1 to the next row, bit 2 to the next column. */
export type Cuts = Uint8Array;

/**
 * Fill the gaps of a grid with the surface of least curvature and tension through what is known: continuous curvature
 * splines in tension (Smith & Wessel 1990, Geophysics 55, 293–305), as the minimum of
 * `(1 − T)·Σ(second differences)² + T·Σ(first differences)²` over the unknown nodes, by conjugate gradients.
 * Differences that a cut goes through are left out, so that a fault is no bridge; a block that holds nothing known, and that
 * nothing leads into, stays empty.
 * @param values `[row][column]`, NaN where unknown; known nodes are kept exactly
 * @param tension 0 (least curvature) to 1 (a membrane)
 */
export function fillGaps(
  values: Float32Array,
  rows: number,
  columns: number,
  tension = 0.25,
  cuts?: Cuts,
): Float32Array {
  const n = rows * columns;
  const x = Float64Array.from(values);
  const unknown: number[] = [];
  let sum = 0;
  for (let k = 0; k < n; k++) {
    if (Number.isNaN(x[k])) unknown.push(k);
    else sum += x[k];
  }
  if (unknown.length === 0 || unknown.length === n) return values.slice();
  startFromNearest(x, rows, columns, cuts);
  const mean = sum / (n - unknown.length);
  const reached = unknown.filter((k) => !Number.isNaN(x[k]));
  for (let k = 0; k < n; k++) x[k] = Number.isNaN(x[k]) ? 0 : x[k] - mean;
  const terms = differences(rows, columns, tension, cuts);
  /** Gradient of the energy: AᵀA·x, restricted to unknown nodes. */
  const apply = (v: Float64Array, out: Float64Array) => {
    out.fill(0);
    for (const { nodes, weights, width } of terms)
      for (let t = 0; t < nodes.length; t += width) {
        let r = 0;
        for (let w = 0; w < width; w++) r += weights[w] * v[nodes[t + w]];
        for (let w = 0; w < width; w++) out[nodes[t + w]] += weights[w] * r;
      }
  };
  const free = new Uint8Array(n);
  for (const k of reached) free[k] = 1;
  const r = new Float64Array(n);
  const ap = new Float64Array(n);
  apply(x, r);
  for (let k = 0; k < n; k++) r[k] = free[k] ? -r[k] : 0;
  const p = r.slice();
  let rr = r.reduce((a, b) => a + b * b, 0);
  const goal = rr * 1e-14 + 1e-12;
  for (let iteration = 0; iteration < 3000 && rr > goal; iteration++) {
    apply(p, ap);
    let pap = 0;
    for (const k of reached) pap += p[k] * ap[k];
    if (pap <= 0) break;
    const alpha = rr / pap;
    let next = 0;
    for (const k of reached) {
      x[k] += alpha * p[k];
      r[k] -= alpha * ap[k];
      next += r[k] * r[k];
    }
    const beta = next / rr;
    rr = next;
    for (const k of reached) p[k] = r[k] + beta * p[k];
  }
  const out = values.slice();
  for (const k of reached) out[k] = x[k] + mean;
  return out;
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

function differences(rows: number, columns: number, tension: number, cuts?: Cuts): Terms[] {
  const at = (i: number, j: number) => i * columns + j;
  const cut = (i: number, j: number, bit: number) => cuts !== undefined && (cuts[at(i, j)] & bit) !== 0;
  const first: number[] = [];
  const second: number[] = [];
  const twist: number[] = [];
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++) {
      if (i + 1 < rows && !cut(i, j, 1)) first.push(at(i, j), at(i + 1, j));
      if (j + 1 < columns && !cut(i, j, 2)) first.push(at(i, j), at(i, j + 1));
      if (i + 2 < rows && !cut(i, j, 1) && !cut(i + 1, j, 1)) second.push(at(i, j), at(i + 1, j), at(i + 2, j));
      if (j + 2 < columns && !cut(i, j, 2) && !cut(i, j + 1, 2)) second.push(at(i, j), at(i, j + 1), at(i, j + 2));
      if (i + 1 < rows && j + 1 < columns && !cut(i, j, 1) && !cut(i, j, 2) && !cut(i + 1, j, 2) && !cut(i, j + 1, 1))
        twist.push(at(i, j), at(i + 1, j), at(i, j + 1), at(i + 1, j + 1));
    }
  const a = Math.sqrt(1 - tension);
  const b = Math.sqrt(tension);
  return [
    { nodes: Int32Array.from(second), weights: [a, -2 * a, a], width: 3 },
    // the mixed derivative counts twice
    {
      nodes: Int32Array.from(twist),
      weights: [a * Math.SQRT2, -a * Math.SQRT2, -a * Math.SQRT2, a * Math.SQRT2],
      width: 4,
    },
    { nodes: Int32Array.from(first), weights: [b, -b], width: 2 },
  ];
}
