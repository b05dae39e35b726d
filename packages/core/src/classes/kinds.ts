/** Points of a space, side by side: `[point][dimension]`. */
export interface PointSet {
  values: Float32Array;
  dimensions: number;
}

export const countOf = ({ values, dimensions }: PointSet): number => values.length / dimensions;

/** Seeded numbers, even between nought and one (Marsaglia 2003, J. Statistical Software 8, 14). */
export function randomOf(seed: number): () => number {
  let [x, y, z, w] = [123456789, 362436069, 521288629, (seed * 2654435761) >>> 0 || 1];
  const next = () => {
    const t = x ^ (x << 11);
    [x, y, z] = [y, z, w];
    w = (w ^ (w >>> 19) ^ t ^ (t >>> 8)) >>> 0;
    return (w + 0.5) / 4294967296;
  };
  // numbers of neighbouring seeds are alike at first
  for (let n = 0; n < 20; n++) next();
  return next;
}

/** Square of the distance of a point from a centre. */
export function squareTo(values: Float32Array, at: number, centre: ArrayLike<number>, from: number, d: number): number {
  let sum = 0;
  for (let c = 0; c < d; c++) {
    const off = values[at + c] - centre[from + c];
    sum += off * off;
  }
  return sum;
}

/** The nearest centre of each point, and the one after it; centres lie as points do. */
export function nearestCentres(
  { values, dimensions: d }: PointSet,
  centres: Float64Array,
): { first: Uint16Array; second: Uint16Array; square: Float64Array } {
  const n = values.length / d;
  const k = centres.length / d;
  const [first, second, square] = [new Uint16Array(n), new Uint16Array(n), new Float64Array(n)];
  for (let p = 0; p < n; p++) {
    let [a, b, da, db] = [0, 0, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
    for (let c = 0; c < k; c++) {
      const off = squareTo(values, p * d, centres, c * d, d);
      if (off < da) [b, db, a, da] = [a, da, c, off];
      else if (off < db) [b, db] = [c, off];
    }
    [first[p], second[p], square[p]] = [a, b, da];
  }
  return { first, second, square };
}
