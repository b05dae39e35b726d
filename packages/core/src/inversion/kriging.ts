import { solve } from '../numerics/leastSquares.ts';
import { correlationOf, type Variogram } from './variogram.ts';

/** A place with further coordinates that tell on which side of faults it lies, all in metres. */
export type Place = number[];

const apart = (a: Place, b: Place): number => {
  let sum = 0;
  for (let n = 0; n < a.length; n++) sum += (a[n] - b[n]) ** 2;
  return Math.sqrt(sum);
};

/**
 * Kriging weights of values at places (Chilès & Delfiner 2012, Geostatistics, chapter 3): ordinary, whose weights add up to one and
 * whose mean is that of the values around; or simple, about a mean of nothing.
 */
export interface Kriger {
  /** Weights at a place are written into `out`; @returns variance as a part of the sill */
  at(place: Place, out: Float64Array): number;
}

/** Places nearer to each other than this part of the range count as one for the sake of the system. */
const NUGGET = 1e-9;

export function krigerOf(
  places: Place[],
  { shape, range }: Omit<Variogram, 'sill'>,
  mean: 'unknown' | 'nothing',
): Kriger {
  const n = places.length;
  const size = mean === 'unknown' ? n + 1 : n;
  const matrix = Array.from({ length: size }, (_, a) =>
    Array.from({ length: size }, (_, b) => {
      if (a < n && b < n) return correlationOf(shape, range, apart(places[a], places[b])) + (a === b ? NUGGET : 0);
      return a === n && b === n ? 0 : 1;
    }),
  );
  // the inverse, a column at a time: there are as few places as wells
  const inverse = Array.from({ length: size }, (_, c) =>
    solve(
      matrix,
      Array.from({ length: size }, (_, r) => (r === c ? 1 : 0)),
    ),
  );
  if (inverse.some((column) => column === null)) throw new Error('places that differ make a regular system');
  const flat = Float64Array.from(inverse.flatMap((column) => column as number[]));
  const right = new Float64Array(size);
  return {
    at(place, out) {
      for (let a = 0; a < n; a++) right[a] = correlationOf(shape, range, apart(place, places[a]));
      if (mean === 'unknown') right[n] = 1;
      let explained = 0;
      for (let a = 0; a < size; a++) {
        let sum = 0;
        for (let b = 0; b < size; b++) sum += flat[a * size + b] * right[b];
        if (a < n) out[a] = sum;
        explained += sum * right[a];
      }
      return Math.max(0, 1 - explained);
    },
  };
}
