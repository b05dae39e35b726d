/** A well path as computed positions at survey stations. */
export interface WellPath {
  /** Measured depth of each station, metres from the kelly bushing. */
  md: Float64Array;
  x: Float64Array;
  y: Float64Array;
  /** Depth below mean sea level, metres, positive down. */
  tvdss: Float64Array;
  /** Unit tangent at each station: east, north, down. */
  tangent: Float64Array;
}

const RAD = Math.PI / 180;

/**
 * Path by minimum curvature (Taylor & Mason 1972, SPE 3362; Sawaryn & Thorogood 2005, SPE 84246).
 * @param stations `[md, inclination, azimuth]`, metres and degrees from grid north, any order; none gives a vertical well
 * @param kbM elevation of the kelly bushing above mean sea level
 */
export function wellPath(
  headX: number,
  headY: number,
  kbM: number,
  stations: [number, number, number][],
  totalMdM = 0,
): WellPath {
  const sorted = [...stations].sort((a, b) => a[0] - b[0]);
  if (sorted.length === 0 || sorted[0][0] > 0) sorted.unshift([0, 0, 0]);
  const last = sorted[sorted.length - 1];
  if (totalMdM > last[0] + 1e-6) sorted.push([totalMdM, last[1], last[2]]);
  if (sorted.length === 1) sorted.push([sorted[0][0] + 1, 0, 0]);
  const n = sorted.length;
  const path: WellPath = {
    md: new Float64Array(n),
    x: new Float64Array(n),
    y: new Float64Array(n),
    tvdss: new Float64Array(n),
    tangent: new Float64Array(3 * n),
  };
  for (let k = 0; k < n; k++) {
    const [md, inclination, azimuth] = sorted[k];
    path.md[k] = md;
    path.tangent[3 * k] = Math.sin(inclination * RAD) * Math.sin(azimuth * RAD);
    path.tangent[3 * k + 1] = Math.sin(inclination * RAD) * Math.cos(azimuth * RAD);
    path.tangent[3 * k + 2] = Math.cos(inclination * RAD);
    if (k === 0) {
      path.x[0] = headX;
      path.y[0] = headY;
      path.tvdss[0] = md - kbM;
      continue;
    }
    const step = alongArc(path, k - 1, 1, md - path.md[k - 1]);
    path.x[k] = path.x[k - 1] + step[0];
    path.y[k] = path.y[k - 1] + step[1];
    path.tvdss[k] = path.tvdss[k - 1] + step[2];
  }
  return path;
}

/** Displacement (east, north, down) from station `k` along a part `f` of the arc of length `d` to the next station. */
function alongArc(path: WellPath, k: number, f: number, d: number): [number, number, number] {
  const t = path.tangent;
  const [a, b] = [3 * k, 3 * k + 3];
  const [sx, sy, sz] = [t[b] - t[a], t[b + 1] - t[a + 1], t[b + 2] - t[a + 2]];
  // from the lengths of difference and sum: the cosine of a small bend is one to all its places
  const bend =
    2 * Math.atan2(Math.hypot(sx, sy, sz), Math.hypot(t[a] + t[b], t[a + 1] + t[b + 1], t[a + 2] + t[b + 2]));
  // the tangent turns evenly from one station's to the next's; its integral, written with no difference of cosines
  const s = Math.sin(bend);
  const small = bend < 1e-7;
  const half = Math.sin((f * bend) / 2);
  const ca = small ? f * (1 - f / 2) : (2 * Math.sin((1 - f / 2) * bend) * half) / (bend * s);
  const cb = small ? (f * f) / 2 : (2 * half * half) / (bend * s);
  return [d * (ca * t[a] + cb * t[b]), d * (ca * t[a + 1] + cb * t[b + 1]), d * (ca * t[a + 2] + cb * t[b + 2])];
}

export interface PathPoint {
  x: number;
  y: number;
  tvdss: number;
}

/** Position at a measured depth, along the arc; beyond the last station the path goes straight on. */
export function pointAtMd(path: WellPath, md: number): PathPoint {
  const n = path.md.length;
  let k = 0;
  while (k < n - 2 && path.md[k + 1] < md) k++;
  const d = path.md[k + 1] - path.md[k];
  const f = (md - path.md[k]) / d;
  if (f > 1) {
    const over = md - path.md[k + 1];
    const b = 3 * (k + 1);
    return {
      x: path.x[k + 1] + path.tangent[b] * over,
      y: path.y[k + 1] + path.tangent[b + 1] * over,
      tvdss: path.tvdss[k + 1] + path.tangent[b + 2] * over,
    };
  }
  const step = alongArc(path, k, f, d);
  return { x: path.x[k] + step[0], y: path.y[k] + step[1], tvdss: path.tvdss[k] + step[2] };
}

/**
 * Measured depth (m) at which a path first comes to a TVDSS (m): in a well that rises again, the shallower along hole.
 * Straight on beyond the last station; NaN where the path never comes there.
 */
export function mdAtTvdss(path: WellPath, tvdss: number): number {
  const { md, tvdss: at, tangent } = path;
  const n = md.length;
  const down = tangent[3 * n - 1];
  if (tvdss < at[0]) return Number.NaN;
  let k = 1;
  while (k < n && at[k] < tvdss) k++;
  if (k === n) return down > 1e-6 ? md[n - 1] + (tvdss - at[n - 1]) / down : Number.NaN;
  // the crossing lies between two stations: halve it down, as the arc has no short inverse
  let [low, high] = [md[k - 1], md[k]];
  for (let turn = 0; turn < 60 && high - low > 1e-9; turn++) {
    const middle = (low + high) / 2;
    if (pointAtMd(path, middle).tvdss < tvdss) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
