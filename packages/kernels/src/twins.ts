// The kernels of attributes in plain TypeScript: what they are tested and measured against. Rows of one length lie one after the
// other, as in the memory of the kernels.

/** `to[n] = Σ_d weights[d] · from[n + d · stride]`. */
export function weighTwin(from: Float32Array, to: Float32Array, stride: number, weights: Float32Array): void {
  for (let n = 0; n < to.length; n++) {
    let sum = 0;
    for (let d = 0; d < weights.length; d++) sum += weights[d] * from[n + d * stride];
    to[n] = sum;
  }
}

/** Slopes `p`, `q` and disorder from tensors whose six entries lie in rows: by Jacobi rotations. */
export function normalsTwin(tensors: Float32Array, p: Float32Array, q: Float32Array, chaos: Float32Array): void {
  const length = p.length;
  for (let n = 0; n < length; n++) {
    const [xx, xy, xz, yy, yz, zz] = [0, 1, 2, 3, 4, 5].map((r) => tensors[r * length + n]);
    if (!(xx + yy + zz > 1e-30)) {
      p[n] = q[n] = chaos[n] = 0;
      continue;
    }
    const { values, vectors } = eigen([
      [xx, xy, xz],
      [xy, yy, yz],
      [xz, yz, zz],
    ]);
    const [first, second, third] = [0, 1, 2].sort((a, b) => values[b] - values[a]);
    const [x, y, z] = [vectors[0][first], vectors[1][first], vectors[2][first]];
    p[n] = -x / z;
    q[n] = -y / z;
    chaos[n] = Math.min(1, (2 * Math.max(0, values[second])) / (values[first] + Math.max(0, values[third])));
  }
}

/** Eigenvalues and, in columns, eigenvectors of a symmetric matrix (Jacobi 1846; Golub & Van Loan 2013, ch. 8.5). */
export function eigen(matrix: number[][]): { values: number[]; vectors: number[][] } {
  const count = matrix.length;
  const a = matrix.map((row) => [...row]);
  const v: number[][] = a.map((_, i) => a.map((__, j) => (i === j ? 1 : 0)));
  for (let sweep = 0; sweep < 60; sweep++) {
    let off = 0;
    for (let i = 0; i < count; i++) for (let j = i + 1; j < count; j++) off += a[i][j] ** 2;
    let size = 0;
    for (let i = 0; i < count; i++) size += a[i][i] ** 2;
    if (off <= 1e-24 * size) break;
    for (let i = 0; i < count; i++)
      for (let j = i + 1; j < count; j++) {
        if (a[i][j] === 0) continue;
        const theta = (a[j][j] - a[i][i]) / (2 * a[i][j]);
        const t = Math.sign(theta || 1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
        const c = 1 / Math.sqrt(t * t + 1);
        const s = t * c;
        for (let k = 0; k < count; k++) {
          [a[k][i], a[k][j]] = [c * a[k][i] - s * a[k][j], s * a[k][i] + c * a[k][j]];
          [v[k][i], v[k][j]] = [c * v[k][i] - s * v[k][j], s * v[k][i] + c * v[k][j]];
        }
        for (let k = 0; k < count; k++) [a[i][k], a[j][k]] = [c * a[i][k] - s * a[j][k], s * a[i][k] + c * a[j][k]];
      }
  }
  return { values: a.map((row, i) => row[i]), vectors: v };
}

/** A trace at `k + di · p[k] + dj · q[k]`. */
export function movedTwin(
  from: Float32Array,
  p: Float32Array,
  q: Float32Array,
  di: number,
  dj: number,
  to: Float32Array,
): void {
  const count = from.length;
  for (let k = 0; k < count; k++) {
    // positions in single precision, as the kernel has them: a sample is met or missed alike
    const lag = Math.fround(Math.fround(di * p[k]) + Math.fround(dj * q[k]));
    const i = k + Math.floor(lag);
    if (!(i >= 1 && i <= count - 3)) {
      to[k] = Number.NaN;
      continue;
    }
    const f = lag - Math.floor(lag);
    const [a, b, c, d] = [from[i - 1], from[i], from[i + 1], from[i + 2]];
    const value = b + 0.5 * f * (c - a + f * (2 * a - 5 * b + 4 * c - d + f * (3 * (b - c) + d - a)));
    to[k] = f === 0 ? b : Number.isNaN(value) ? b + f * (c - b) : value;
  }
}

/** Part of the energy of rows that their first principal component has, over `half` samples above and below; NaN where there is none. */
export function firstPartTwin(rows: Float32Array, count: number, half: number, out: Float32Array): void {
  const samples = rows.length / count;
  for (let k = 0; k < samples; k++) {
    const covariance = Array.from({ length: count }, () => new Array<number>(count).fill(0));
    for (let j = 0; j < count; j++)
      for (let l = 0; l < count; l++)
        for (let t = Math.max(0, k - half); t <= Math.min(samples - 1, k + half); t++) {
          const [a, b] = [rows[j * samples + t], rows[l * samples + t]];
          if (!Number.isNaN(a) && !Number.isNaN(b)) covariance[j][l] += a * b;
        }
    const { values } = eigen(covariance);
    const sum = values.reduce((s, v) => s + v, 0);
    out[k] = sum > 0 ? Math.max(...values) / sum : Number.NaN;
  }
}

/** Medians of rows; what is no number is taken as the middle row's. */
export function medianTwin(rows: Float32Array, count: number, out: Float32Array): void {
  const samples = out.length;
  const middle = count >> 1;
  for (let k = 0; k < samples; k++) {
    const own = rows[middle * samples + k];
    const values = Array.from({ length: count }, (_, j) => rows[j * samples + k]).map((v) =>
      Number.isNaN(v) ? own : v,
    );
    out[k] = Number.isNaN(own) ? own : values.sort((a, b) => a - b)[middle];
  }
}

/** Mean of the calmest of several sets of rows. */
export function calmestTwin(rows: Float32Array, sets: number[][], out: Float32Array): void {
  const samples = out.length;
  for (let k = 0; k < samples; k++) {
    let best = Number.POSITIVE_INFINITY;
    out[k] = Number.NaN;
    for (const set of sets) {
      const values = set.map((j) => rows[j * samples + k]).filter((v) => !Number.isNaN(v));
      if (values.length === 0) continue;
      const mean = values.reduce((s, v) => s + v, 0) / values.length;
      const spread = values.reduce((s, v) => s + v * v, 0) / values.length - mean * mean;
      if (spread < best) [best, out[k]] = [spread, mean];
    }
  }
}
