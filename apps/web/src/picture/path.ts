import { line } from 'd3-shape';

const drawn = line<[number, number]>()
  .defined(([x, y]) => Number.isFinite(x) && Number.isFinite(y))
  .digits(1);

/** A path on the screen through points, broken where there is none; closed where it goes round something. */
export const pathText = (points: [number, number][], closed = false): string =>
  `${drawn(points) ?? ''}${closed && points.length > 0 ? 'Z' : ''}`;
