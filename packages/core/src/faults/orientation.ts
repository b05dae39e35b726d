import type { BinGrid } from '../earth/binGrid.ts';

/** How a plane lies: dip below the horizontal and the azimuth that it dips towards, degrees, clockwise from grid north. */
export interface Orientation {
  dip: number;
  azimuth: number;
}

/** A plane in indexes, as a height over one axis of bins: `across = c + along · a + down · k`. */
export interface IndexPlane {
  /** Along which axis of bins the surface is followed, the one nearer to its strike; across is the other. */
  along: 'inline' | 'crossline';
  /** Bins across from one row along to the next, and from one sample down to the next. */
  perRow: number;
  perSample: number;
}

const RAD = Math.PI / 180;

/** Metres of a step of depth or, of time, of what sound goes there at a velocity (m/s). */
export const metresOfStep = (domain: string, step: number, velocity: number): number =>
  domain === 'depth' ? step : (step * velocity) / 2000;

/** A plane of known orientation in indexes. @param sampleM metres from a sample down to the next */
export function toIndexPlane(
  { dip, azimuth }: Orientation,
  { perInline, perCrossline }: BinGrid,
  sampleM: number,
): IndexPlane {
  const towards = [Math.sin(azimuth * RAD), Math.cos(azimuth * RAD)];
  const gi = towards[0] * perInline[0] + towards[1] * perInline[1];
  const gj = towards[0] * perCrossline[0] + towards[1] * perCrossline[1];
  const shift = sampleM / Math.tan(dip * RAD);
  return Math.abs(gj) >= Math.abs(gi)
    ? { along: 'inline', perRow: -gi / gj, perSample: shift / gj }
    : { along: 'crossline', perRow: -gj / gi, perSample: shift / gi };
}

/** The orientation of a plane that is known in indexes. */
export function ofIndexPlane(
  { along, perRow, perSample }: IndexPlane,
  { perInline, perCrossline }: BinGrid,
  sampleM: number,
): Orientation {
  const [row, across] = along === 'inline' ? [perInline, perCrossline] : [perCrossline, perInline];
  const strike = [row[0] + perRow * across[0], row[1] + perRow * across[1]];
  const length = Math.hypot(strike[0], strike[1]);
  // what it moves by across its strike while it goes down one sample
  const [mx, my] = [perSample * across[0], perSample * across[1]];
  const off = (mx * strike[1] - my * strike[0]) / length;
  const sign = off < 0 ? -1 : 1;
  const azimuth = Math.atan2((sign * strike[1]) / length, (-sign * strike[0]) / length) / RAD;
  return { dip: Math.atan2(sampleM, Math.abs(off)) / RAD, azimuth: (azimuth + 360) % 360 };
}

/** Angle between the poles of two planes, degrees from 0 to 90. */
export function angleBetween(a: Orientation, b: Orientation): number {
  const [p, q] = [poleOf(a), poleOf(b)];
  return Math.acos(Math.min(1, Math.abs(p[0] * q[0] + p[1] * q[1] + p[2] * q[2]))) / RAD;
}

/** The pole of a plane as a unit vector pointing down: east, north, down. */
export function poleOf({ dip, azimuth }: Orientation): [east: number, north: number, down: number] {
  const s = Math.sin(dip * RAD);
  return [-s * Math.sin(azimuth * RAD), -s * Math.cos(azimuth * RAD), Math.cos(dip * RAD)];
}

/** The plane of a pole, whichever way that points. */
export function ofPole([east, north, down]: [number, number, number]): Orientation {
  const size = Math.hypot(east, north, down);
  const sign = down < 0 ? -1 : 1;
  const dip = Math.acos(Math.min(1, Math.abs(down) / size)) / RAD;
  return { dip, azimuth: (Math.atan2(-sign * east, -sign * north) / RAD + 360) % 360 };
}

/** The axis that weighted directions without a sense lie closest to (Mardia & Jupp 2000, Directional Statistics, §9.3), and the mean of cos² to it. */
export function principalAxis(
  directions: [number, number, number][],
  weights: ArrayLike<number>,
): { axis: [number, number, number]; mean: number } {
  const m = [0, 0, 0, 0, 0, 0];
  let [total, heaviest] = [0, 0];
  for (const [n, [x, y, z]] of directions.entries()) {
    total += weights[n];
    if (weights[n] > weights[heaviest]) heaviest = n;
    for (const [c, v] of [x * x, x * y, x * z, y * y, y * z, z * z].entries()) m[c] += weights[n] * v;
  }
  let axis = directions[heaviest] ?? [0, 0, 1];
  for (let n = 0; n < 200; n++) {
    const next: [number, number, number] = [
      m[0] * axis[0] + m[1] * axis[1] + m[2] * axis[2],
      m[1] * axis[0] + m[3] * axis[1] + m[4] * axis[2],
      m[2] * axis[0] + m[4] * axis[1] + m[5] * axis[2],
    ];
    const size = Math.hypot(...next) || 1;
    axis = [next[0] / size, next[1] / size, next[2] / size];
  }
  let mean = 0;
  for (const [n, [x, y, z]] of directions.entries())
    mean += weights[n] * (x * axis[0] + y * axis[1] + z * axis[2]) ** 2;
  return { axis, mean: total > 0 ? mean / total : 1 / 3 };
}

/** The orientation that several have on the whole. */
export const meanOrientation = (all: Orientation[], weights: number[] = all.map(() => 1)): Orientation =>
  ofPole(principalAxis(all.map(poleOf), weights).axis);
