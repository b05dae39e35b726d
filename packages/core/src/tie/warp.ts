import { type Series, seriesAt } from './match.ts';

/** A time of the calibrated sonic, and what is added to it there: how a person or the alignment stretches a tie. */
export interface Pin {
  twt: number;
  shiftMs: number;
}

/**
 * What is added to calibrated times: through the pins by monotone cubics (Fritsch & Carlson 1980, SIAM Journal on
 * Numerical Analysis 17, 238–246), so that velocity has no jump and no pin is overshot; constant beyond the ends.
 */
export function shiftThrough(pins: Pin[]): (twt: number) => number {
  const p = [...pins].sort((a, b) => a.twt - b.twt);
  if (p.length === 0) return () => 0;
  if (p.length === 1) return () => p[0].shiftMs;
  const slopes = p.slice(1).map((q, n) => (q.shiftMs - p[n].shiftMs) / Math.max(1e-6, q.twt - p[n].twt));
  const tangents = p.map((_, n) => {
    const [a, b] = [slopes[n - 1], slopes[n]];
    // flat at the ends, where the shift goes on unchanged
    if (a === undefined || b === undefined || a * b <= 0) return 0;
    return (2 * a * b) / (a + b);
  });
  return (twt) => {
    if (twt <= p[0].twt) return p[0].shiftMs;
    if (twt >= p[p.length - 1].twt) return p[p.length - 1].shiftMs;
    let n = 0;
    while (p[n + 1].twt < twt) n++;
    const h = p[n + 1].twt - p[n].twt;
    const t = (twt - p[n].twt) / h;
    return (
      (1 + 2 * t) * (1 - t) ** 2 * p[n].shiftMs +
      t * (1 - t) ** 2 * h * tangents[n] +
      t * t * (3 - 2 * t) * p[n + 1].shiftMs +
      t * t * (t - 1) * h * tangents[n + 1]
    );
  };
}

export interface AlignTimes {
  fromMs: number;
  toMs: number;
  /** Distance of the knots, ms. */
  knotMs: number;
  mostShiftMs: number;
  /** Most that velocity may be changed by, part: 0.03 is three per cent. */
  mostChange: number;
}

/**
 * Align a synthetic to a trace by dynamic programming over shifts at sparse knots, straight between them, with bounded
 * strain (Hale 2013, Geophysics 78, S105–S115; Compton & Hale 2014, SEG Annual Meeting; for ties Herrera & van der
 * Baan 2014, Geophysics 79, V47–V54): paths are smooth by construction and velocity stays within its bound.
 * @returns pins at the knots; their shifts are what the synthetic is moved by
 */
export function alignTimes(seismic: Series, made: Series, o: AlignTimes): Pin[] {
  const count = Math.max(2, Math.round((o.toMs - o.fromMs) / o.knotMs) + 1);
  const knots = Array.from({ length: count }, (_, n) => o.fromMs + ((o.toMs - o.fromMs) * n) / (count - 1));
  const step = 0.5;
  const half = Math.round(o.mostShiftMs / step);
  const shifts = Array.from({ length: 2 * half + 1 }, (_, n) => (n - half) * step);
  const first = Math.ceil((o.fromMs - seismic.firstMs) / seismic.stepMs);
  const last = Math.floor((o.toMs - seismic.firstMs) / seismic.stepMs);
  const times: number[] = [];
  for (let k = Math.max(0, first); k <= Math.min(seismic.values.length - 1, last); k++)
    if (!Number.isNaN(seismic.values[k])) times.push(k);
  // both at unit power in the window, so that errors count alike
  let [d2, s2] = [0, 0];
  for (const k of times) {
    d2 += seismic.values[k] ** 2;
    const s = seriesAt(made, seismic.firstMs + k * seismic.stepMs);
    if (!Number.isNaN(s)) s2 += s * s;
  }
  const [gd, gs] = [1 / Math.sqrt(d2 || 1), 1 / Math.sqrt(s2 || 1)];
  const errors = times.map((k) => {
    const t = seismic.firstMs + k * seismic.stepMs;
    return Float64Array.from(shifts, (shift) => {
      const s = seriesAt(made, t - shift);
      return Number.isNaN(s) ? (seismic.values[k] * gd) ** 2 : (seismic.values[k] * gd - s * gs) ** 2;
    });
  });
  const gap = knots[1] - knots[0];
  // v' = v / (1 + strain)
  const reach = Math.max(0, Math.floor((o.mostChange * gap) / (1 + o.mostChange) / step));
  let cost = new Float64Array(shifts.length);
  const from: Int16Array[] = [];
  for (let n = 1; n < count; n++) {
    const [a, b] = [knots[n - 1], knots[n]];
    const inside = times.flatMap((k, q) => {
      const t = seismic.firstMs + k * seismic.stepMs;
      return t >= a && (t < b || n === count - 1) ? [{ q, f: (t - a) / (b - a) }] : [];
    });
    const next = new Float64Array(shifts.length).fill(Number.POSITIVE_INFINITY);
    const way = new Int16Array(shifts.length);
    for (let y = 0; y < shifts.length; y++)
      for (let x = Math.max(0, y - reach); x <= Math.min(shifts.length - 1, y + reach); x++) {
        // a little stiffness: strain must pay for itself
        let sum = cost[x] + 2e-4 * (y - x) ** 2;
        for (const { q, f } of inside) {
          const at = x + f * (y - x);
          const low = Math.floor(at);
          const g = at - low;
          sum += errors[q][low] * (1 - g) + (g > 0 ? errors[q][low + 1] * g : 0);
        }
        if (sum < next[y]) {
          next[y] = sum;
          way[y] = x;
        }
      }
    cost = next;
    from.push(way);
  }
  let at = cost.reduce((best, v, n) => (v < cost[best] ? n : best), 0);
  const pins: Pin[] = [];
  for (let n = count - 1; n >= 0; n--) {
    pins.unshift({ twt: knots[n] - shifts[at], shiftMs: shifts[at] });
    if (n > 0) at = from[n - 1][at];
  }
  return pins;
}

/** Greatest change of velocity (part) that shifts make between two times of the calibrated sonic, and where. */
export function greatestChange(
  shift: (twt: number) => number,
  fromMs: number,
  toMs: number,
): { part: number; twt: number } {
  let [part, at] = [0, fromMs];
  for (let t = fromMs; t < toMs; t += 4) {
    const strain = (shift(t + 4) - shift(t)) / 4;
    const change = 1 / (1 + strain) - 1;
    if (Math.abs(change) > Math.abs(part)) [part, at] = [change, t];
  }
  return { part, twt: at };
}
