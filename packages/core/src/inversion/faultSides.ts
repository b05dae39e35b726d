import type { Place } from './kriging.ts';

/** Where a fault runs at one level: corners of a line in map coordinates. */
export type FaultTrace = [number, number][];

/** A fault's sticks at a level, or at their nearest end where they do not reach it, in the order of its line. */
export function faultTrace(sticks: [number, number, number][][], level: number): FaultTrace {
  const at = sticks
    .filter((s) => s.length > 0)
    .map((stick): [number, number] => {
      const s = [...stick].sort((a, b) => a[2] - b[2]);
      if (level <= s[0][2]) return [s[0][0], s[0][1]];
      for (let n = 1; n < s.length; n++)
        if (level <= s[n][2]) {
          const f = (level - s[n - 1][2]) / (s[n][2] - s[n - 1][2] || 1);
          return [s[n - 1][0] + f * (s[n][0] - s[n - 1][0]), s[n - 1][1] + f * (s[n][1] - s[n - 1][1])];
        }
      const last = s[s.length - 1];
      return [last[0], last[1]];
    });
  // sticks may come in any order: along the direction in which they are spread most
  const mean = [0, 1].map((c) => at.reduce((sum, p) => sum + p[c], 0) / (at.length || 1));
  let [xx, yy, xy] = [0, 0, 0];
  for (const [x, y] of at) {
    xx += (x - mean[0]) ** 2;
    yy += (y - mean[1]) ** 2;
    xy += (x - mean[0]) * (y - mean[1]);
  }
  const along = 0.5 * Math.atan2(2 * xy, xx - yy);
  const place = ([x, y]: [number, number]) => x * Math.cos(along) + y * Math.sin(along);
  return at.sort((a, b) => place(a) - place(b));
}

/** How far beyond its tips a fault still parts what lies beside it, m. */
const FADE_M = 500;

/**
 * A coordinate that tells on which side of a fault a place lies: half of `apartM` on either side of it, fading beyond its tips. Distances
 * that count it among the others make places on two sides further apart, and leave every covariance of distance a covariance.
 */
export function sideOf(trace: FaultTrace, apartM: number, x: number, y: number): number {
  let [near, side, beyond] = [Number.POSITIVE_INFINITY, 0, 0];
  for (let n = 0; n + 1 < trace.length; n++) {
    const [a, b] = [trace[n], trace[n + 1]];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const length = Math.hypot(dx, dy);
    if (length === 0) continue;
    const t = ((x - a[0]) * dx + (y - a[1]) * dy) / (length * length);
    const held = Math.max(0, Math.min(1, t));
    const far = Math.hypot(x - a[0] - held * dx, y - a[1] - held * dy);
    if (far >= near) continue;
    near = far;
    side = Math.sign((x - a[0]) * dy - (y - a[1]) * dx);
    const first = n === 0 && t < 0;
    const last = n + 2 === trace.length && t > 1;
    beyond = first ? -t * length : last ? (t - 1) * length : 0;
  }
  return 0.5 * apartM * side * Math.max(0, 1 - beyond / FADE_M);
}

/** A place with its side of every fault. */
export const placeAt = (traces: FaultTrace[], apartM: number, x: number, y: number): Place => [
  x,
  y,
  ...traces.map((t) => sideOf(t, apartM, x, y)),
];
