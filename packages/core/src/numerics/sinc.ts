/** Points on each side of a position, fractions of a sample that are tabulated, and the shape of the Kaiser window. */
const HALF = 8;
const FRACTIONS = 1024;
const BETA = 9;

/** Modified Bessel function of the first kind, order zero, by its series. */
function bessel0(x: number): number {
  let [sum, term] = [1, 1];
  for (let k = 1; k < 40; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

let table: Float64Array | null = null;

/** Weights `[fraction][point]` of a sinc under a Kaiser window (Kaiser & Schafer 1980, IEEE Trans. ASSP 28, 105–107). */
function weights(): Float64Array {
  if (table) return table;
  const width = 2 * HALF;
  table = new Float64Array((FRACTIONS + 1) * width);
  for (let f = 0; f <= FRACTIONS; f++) {
    let sum = 0;
    for (let p = 0; p < width; p++) {
      const x = f / FRACTIONS - (p - HALF + 1);
      const window = Math.abs(x) < HALF ? bessel0(BETA * Math.sqrt(1 - (x / HALF) ** 2)) / bessel0(BETA) : 0;
      const w = x === 0 ? 1 : (Math.sin(Math.PI * x) / (Math.PI * x)) * window;
      table[f * width + p] = w;
      sum += w;
    }
    // a constant stays what it is
    for (let p = 0; p < width; p++) table[f * width + p] /= sum;
  }
  return table;
}

/**
 * Value of a band-limited series between its samples, by a windowed sinc of 16 points; ends are held.
 * @param values series with `count` samples from `offset`; @param at position in samples
 * @returns NaN outside the series or where one of the two samples beside the position is null
 */
export function sincAt(values: Float32Array, offset: number, count: number, at: number): number {
  if (!(at >= 0 && at <= count - 1)) return Number.NaN;
  const k = Math.min(count - 2, Math.floor(at));
  const near = values[offset + k] + values[offset + k + 1];
  if (Number.isNaN(near)) return Number.NaN;
  const w = weights();
  const row = Math.round((at - k) * FRACTIONS) * 2 * HALF;
  let sum = 0;
  for (let p = 0; p < 2 * HALF; p++) {
    const q = k + p - HALF + 1;
    let v = values[offset + (q < 0 ? 0 : q >= count ? count - 1 : q)];
    // a null farther off counts as the sample beside the position
    if (Number.isNaN(v)) v = values[offset + (p < HALF ? k : k + 1)];
    sum += w[row + p] * v;
  }
  return sum;
}

/**
 * The same where samples come out further apart than they went in: frequencies that the new interval cannot hold are kept
 * out, by a sinc that is as much wider.
 * @param ratio input samples in an output sample there; up to 1 it is `sincAt`
 */
export function sincWidened(values: Float32Array, offset: number, count: number, at: number, ratio: number): number {
  if (!(ratio > 1)) return sincAt(values, offset, count, at);
  if (!(at >= 0 && at <= count - 1)) return Number.NaN;
  const k = Math.min(count - 2, Math.floor(at));
  if (Number.isNaN(values[offset + k] + values[offset + k + 1])) return Number.NaN;
  const reach = HALF * ratio;
  let [sum, total] = [0, 0];
  for (let q = Math.max(0, Math.ceil(at - reach)); q <= Math.min(count - 1, Math.floor(at + reach)); q++) {
    const v = values[offset + q];
    if (Number.isNaN(v)) continue;
    const w = kernel((at - q) / ratio);
    sum += w * v;
    total += w;
  }
  return sum / total;
}

/** The windowed sinc at a distance in samples, from the table. */
function kernel(x: number): number {
  const far = Math.abs(x);
  if (far >= HALF) return 0;
  const whole = Math.floor(far);
  return weights()[Math.round((far - whole) * FRACTIONS) * 2 * HALF + (HALF - 1 - whole)];
}

/**
 * Values at rising positions, one less than there are positions: each is as wide as the way to the next asks for.
 * @param at positions in samples; @param out from `to` on
 */
export function sincDown(
  values: Float32Array,
  offset: number,
  count: number,
  at: Float64Array,
  out: Float32Array,
  to: number,
): void {
  for (let k = 0; k + 1 < at.length; k++) out[to + k] = sincWidened(values, offset, count, at[k], at[k + 1] - at[k]);
}
