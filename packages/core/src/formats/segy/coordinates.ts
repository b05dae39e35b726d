import type { SegyHeaders } from './headers.ts';
import type { HeaderSample } from './positions.ts';

/** How coordinates that are angles are written (trace header bytes 89–90): 2, 3 and 4 of SEG-Y rev 1, table 3. */
export type Angles = 'seconds' | 'degrees' | 'dms';

const ANGLES: Record<number, Angles> = { 2: 'seconds', 3: 'degrees', 4: 'dms' };
/** What no longitude exceeds, as it is written. */
const MOST: Record<Angles, number> = { seconds: 360 * 3600, degrees: 360, dms: 360e4 };

/** Factor that a scalar of coordinates stands for: negative divides, nought is one. */
export function factorOf(scalar: number): number {
  return scalar === 0 ? 1 : scalar > 0 ? scalar : -1 / scalar;
}

/** A scaled coordinate as degrees. */
export function degreesFrom(angles: Angles, value: number): number {
  if (angles === 'degrees') return value;
  if (angles === 'seconds') return value / 3600;
  // DDDMMSS.ss
  const size = Math.abs(value);
  const degrees = Math.floor(size / 1e4 + 1e-9);
  const minutes = Math.floor((size - 1e4 * degrees) / 100 + 1e-9);
  const seconds = size - 1e4 * degrees - 100 * minutes;
  return Math.sign(value) * (degrees + minutes / 60 + seconds / 3600);
}

/** What the first trace says of its coordinates, or null where they are lengths or cannot be angles. */
export function anglesOf(trace: DataView, littleEndian: boolean): { angles: Angles | null; says: string | null } {
  const angles = ANGLES[trace.getInt16(88, littleEndian)];
  if (!angles) return { angles: null, says: null };
  const scale = factorOf(trace.getInt16(70, littleEndian));
  const largest = [73, 77, 81, 85, 181, 185].reduce(
    (most, at) => Math.max(most, Math.abs(scale * trace.getInt32(at - 1, littleEndian))),
    0,
  );
  if (largest <= MOST[angles]) return { angles, says: null };
  return {
    angles: null,
    says: `Its first trace says that coordinates are angles, but ${largest.toPrecision(7)} is none: they were taken for lengths.`,
  };
}

/** The scalar that most traces have, of those that give one; 0 where none does. */
export function usualScalar(scalars: Iterable<number>): number {
  const counts = new Map<number, number>();
  for (const scalar of scalars) if (scalar !== 0) counts.set(scalar, (counts.get(scalar) ?? 0) + 1);
  let [usual, most] = [0, 0];
  for (const [scalar, count] of counts) if (count > most) [usual, most] = [scalar, count];
  return usual;
}

/** The scalar of every trace of a sample, that of the others where one gives none. */
export function scalarsOf(sample: HeaderSample, littleEndian: boolean): Int16Array {
  const own = Int16Array.from(sample.views, (view) => view.getInt16(70, littleEndian));
  const usual = usualScalar(own);
  return own.map((scalar) => scalar || usual);
}

/** What is to be said of scalars that are not the same on every trace that has a place. */
export function scalarProblems(scalars: ArrayLike<number>, lives: (n: number) => boolean): string[] {
  let none = 0;
  const counts = new Map<number, number>();
  for (let n = 0; n < scalars.length; n++) {
    if (!lives(n)) continue;
    if (scalars[n] === 0) none++;
    else counts.set(scalars[n], (counts.get(scalars[n]) ?? 0) + 1);
  }
  const out: string[] = [];
  const usual = usualScalar(Int16Array.from({ length: scalars.length }, (_, n) => scalars[n]));
  if (none > 0 && counts.size > 0)
    out.push(
      `${none} ${none === 1 ? 'trace gives' : 'traces give'} no scalar for coordinates; that of the others (${usual}) was taken.`,
    );
  if (counts.size > 1)
    out.push(
      `Scalars for coordinates differ from trace to trace (${[...counts.keys()].slice(0, 4).join(', ')}); each trace’s own was taken.`,
    );
  return out;
}

/** Coordinates of a sample's traces at byte positions `at` and `at + 4`: in the file's unit, or degrees where they are angles. */
export function coordinatesOf(
  sample: HeaderSample,
  { littleEndian, angles }: Pick<SegyHeaders, 'littleEndian' | 'angles'>,
  at: number,
  scalars: ArrayLike<number> = scalarsOf(sample, littleEndian),
): { x: Float64Array; y: Float64Array } {
  const read = (p: number) =>
    Float64Array.from(sample.views, (view, n) => {
      const value = factorOf(scalars[n]) * view.getInt32(p - 1, littleEndian);
      return angles ? degreesFrom(angles, value) : value;
    });
  return { x: read(at), y: read(at + 4) };
}

/** Metres in a degree of latitude, near enough for telling whether places lie evenly. */
const METRES_OF_DEGREE = 111_000;

/** Lays degrees out flat, in metres, about a latitude. */
export function flattened(latitude: number): (lon: number, lat: number) => [number, number] {
  const east = METRES_OF_DEGREE * Math.cos((Math.PI / 180) * latitude);
  return (lon, lat) => [east * lon, METRES_OF_DEGREE * lat];
}

/** `coordinatesOf`, with degrees laid out flat, so that bins and steps can be judged alike. */
export function flatCoordinates(
  sample: HeaderSample,
  headers: Pick<SegyHeaders, 'littleEndian' | 'angles'>,
  at: number,
  scalars?: ArrayLike<number>,
): { x: Float64Array; y: Float64Array } {
  const { x, y } = coordinatesOf(sample, headers, at, scalars);
  if (headers.angles) {
    const flat = flattened(y[0]);
    for (let n = 0; n < x.length; n++) [x[n], y[n]] = flat(x[n], y[n]);
  }
  return { x, y };
}
