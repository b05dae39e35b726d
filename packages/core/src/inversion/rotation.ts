/**
 * Intercept and gradient turned by an angle (extended elastic impedance, Geophysics 67, 2002, 63–67): at 0° it is
 * the intercept, at 90° the gradient.
 * @param degrees −90 to 90
 */
export function turned(
  intercept: ArrayLike<number>,
  gradient: ArrayLike<number>,
  degrees: number,
  out: Float32Array,
): Float32Array {
  const [c, s] = weights(degrees);
  for (let n = 0; n < out.length; n++) out[n] = c * intercept[n] + s * gradient[n];
  return out;
}

/** What intercept and gradient are multiplied by. */
export function weights(degrees: number): [intercept: number, gradient: number] {
  const a = (degrees * Math.PI) / 180;
  // exactly one of them where the other is left out
  if (degrees === 0) return [1, 0];
  if (Math.abs(degrees) === 90) return [0, Math.sign(degrees)];
  return [Math.cos(a), Math.sin(a)];
}

/** Mean squares and products of pairs of intercept and gradient. */
export interface PairMoments {
  aa: number;
  bb: number;
  ab: number;
  count: number;
}

export function momentsOf(intercept: ArrayLike<number>, gradient: ArrayLike<number>): PairMoments {
  let [aa, bb, ab, count] = [0, 0, 0, 0];
  for (let n = 0; n < intercept.length; n++) {
    const [a, b] = [intercept[n], gradient[n]];
    if (!(a - a === 0 && b - b === 0)) continue;
    aa += a * a;
    bb += b * b;
    ab += a * b;
    count++;
  }
  return { aa: aa / (count || 1), bb: bb / (count || 1), ab: ab / (count || 1), count };
}

/** The line B = slope·A through the background, its correlation, and the angle that washes the background out. */
export interface Background {
  slope: number;
  correlation: number;
  /** Degrees. */
  angle: number;
}

/**
 * The trend of the background: the major axis of the pairs, of which those far from it are left out again and again (trimmed least
 * squares, Rousseeuw 1984, Journal of the American Statistical Association 79, 871–880), so that fluids do not pull at it. The angle of
 * least background is square to it.
 */
export function backgroundOf(intercept: ArrayLike<number>, gradient: ArrayLike<number>, keep = 0.8): Background | null {
  let use: Uint8Array | null = null;
  let found: Background | null = null;
  const n = intercept.length;
  for (let turn = 0; turn < 8; turn++) {
    let [aa, bb, ab, count] = [0, 0, 0, 0];
    for (let k = 0; k < n; k++) {
      if (use && !use[k]) continue;
      const [a, b] = [intercept[k], gradient[k]];
      if (!(a - a === 0 && b - b === 0)) continue;
      aa += a * a;
      bb += b * b;
      ab += a * b;
      count++;
    }
    if (count < 10 || !(aa > 0 && bb > 0)) return found;
    // the direction along which the pairs are spread most
    const along = 0.5 * Math.atan2(2 * ab, aa - bb);
    const [c, s] = [Math.cos(along), Math.sin(along)];
    let angle = (along * 180) / Math.PI + 90;
    if (angle > 90) angle -= 180;
    found = { slope: s / c, correlation: ab / Math.sqrt(aa * bb), angle };
    const away = new Float64Array(n);
    for (let k = 0; k < n; k++) away[k] = Math.abs(-s * intercept[k] + c * gradient[k]);
    const sorted = away.filter((v) => v - v === 0).sort();
    const most = sorted[Math.min(sorted.length - 1, Math.floor(keep * sorted.length))];
    use = Uint8Array.from(away, (v) => (v <= most ? 1 : 0));
  }
  return found;
}

/** Correlation with a log by angle, −90 to 90 in steps of one degree. */
export interface AngleCurve {
  /** Correlation at each angle. */
  values: number[];
  /** The angle that fits best, and the correlation there; angles that fit no worse than chance would tell apart. */
  best: { angle: number; correlation: number; from: number; to: number };
}

export const CURVE_ANGLES = Array.from({ length: 181 }, (_, n) => n - 90);

/**
 * Correlation of the turned pair with a log at each angle. Its width is that of angles whose correlation lies within one standard error
 * of the best (Fisher 1921, Metron 1, 3–32) for so many independent samples.
 */
export function angleCurve(
  intercept: ArrayLike<number>,
  gradient: ArrayLike<number>,
  log: ArrayLike<number>,
  independent: number,
): AngleCurve | null {
  let [n, sa, sb, sl, aa, bb, ll, ab, al, bl] = new Array<number>(10).fill(0);
  for (let k = 0; k < log.length; k++) {
    const [a, b, l] = [intercept[k], gradient[k], log[k]];
    if (!(a - a === 0 && b - b === 0 && l - l === 0)) continue;
    n++;
    sa += a;
    sb += b;
    sl += l;
    aa += a * a;
    bb += b * b;
    ll += l * l;
    ab += a * b;
    al += a * l;
    bl += b * l;
  }
  if (n < 8) return null;
  const cov = (p: number, x: number, y: number) => p / n - (x / n) * (y / n);
  const [vaa, vbb, vll] = [cov(aa, sa, sa), cov(bb, sb, sb), cov(ll, sl, sl)];
  const [vab, val, vbl] = [cov(ab, sa, sb), cov(al, sa, sl), cov(bl, sb, sl)];
  const values = CURVE_ANGLES.map((angle) => {
    const [c, s] = weights(angle);
    const power = c * c * vaa + s * s * vbb + 2 * c * s * vab;
    return power > 0 && vll > 0 ? (c * val + s * vbl) / Math.sqrt(power * vll) : 0;
  });
  // a log may go against the turned pair as well as with it
  let at = 0;
  for (let k = 0; k < values.length; k++) if (Math.abs(values[k]) > Math.abs(values[at])) at = k;
  const z = Math.atanh(Math.min(0.999999, Math.abs(values[at])));
  const least = Math.tanh(Math.max(0, z - 1 / Math.sqrt(Math.max(1, independent - 3))));
  const fits = (k: number) =>
    k >= 0 && k < values.length && Math.sign(values[k]) === Math.sign(values[at]) && Math.abs(values[k]) >= least;
  let [low, high] = [at, at];
  while (fits(low - 1)) low--;
  while (fits(high + 1)) high++;
  return {
    values,
    best: { angle: CURVE_ANGLES[at], correlation: values[at], from: CURVE_ANGLES[low], to: CURVE_ANGLES[high] },
  };
}
