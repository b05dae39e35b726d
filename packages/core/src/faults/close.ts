import { cubicBetween } from '../numerics/cubic.ts';

/** A piece of a fault on a section: trace and level of its two ends. */
export type CutPiece = [trace: number, level: number, trace: number, level: number];

/** Samples of a section, `[trace][sample]`. */
export interface SectionSamples {
  data: Float32Array;
  traces: number;
  count: number;
  /** TWT or depth of the first sample, and from one to the next. */
  first: number;
  step: number;
}

/** A fault on a section: where it is at each sample, NaN where it is not, and on which side the hanging wall lies (1: greater traces). */
export interface CutDown {
  at: Float64Array;
  hanging: 1 | -1;
}

/** Traces beside a fault that are compared: beyond the blur of its plane. */
const BESIDE = [2, 3, 4];
/** Traces from a fault at which a pair of picks stands. */
const PAIR = 3;

/** The pieces of a fault as one line down a section; null where it crosses fewer than two samples. */
export function cutDown(
  pieces: CutPiece[],
  { count, first, step }: Pick<SectionSamples, 'count' | 'first' | 'step'>,
): CutDown | null {
  const at = new Float64Array(count).fill(Number.NaN);
  let [n, sk, st, skt] = [0, 0, 0, 0];
  for (const [a, va, b, vb] of pieces) {
    const [low, high] = va < vb ? [va, vb] : [vb, va];
    for (let k = Math.max(0, Math.ceil((low - first) / step)); k <= Math.min(count - 1, (high - first) / step); k++) {
      const level = first + k * step;
      const f = vb === va ? 0 : (level - va) / (vb - va);
      at[k] = a + f * (b - a);
    }
  }
  for (let k = 0; k < count; k++) {
    if (at[k] !== at[k]) continue;
    n++;
    sk += k;
    st += at[k];
    skt += k * at[k];
  }
  if (n < 2) return null;
  // the hanging wall lies to the side that the fault goes to with depth
  return { at, hanging: n * skt - sk * st < 0 ? -1 : 1 };
}

/** A sample of a trace between its samples; NaN beyond its ends. */
function sampleAt({ data, count }: SectionSamples, trace: number, k: number): number {
  const low = Math.floor(k);
  if (low < 0 || low + 1 >= count) return low + 1 === count && k === low ? data[trace * count + low] : Number.NaN;
  const n = trace * count + low;
  if (k === low) return data[n];
  if (low < 1 || low + 2 >= count) return data[n] + (k - low) * (data[n + 1] - data[n]);
  return cubicBetween(data[n - 1], data[n], data[n + 1], data[n + 2], k - low);
}

/** The section with the hanging wall put back by a throw, as far down as the fault is on it. */
export function closedBy(section: SectionSamples, { at, hanging }: CutDown, thrown: number): Float32Array {
  const { data, traces, count, step } = section;
  const out = data.slice();
  const by = thrown / step;
  for (let trace = 0; trace < traces; trace++)
    for (let k = 0; k < count; k++)
      if ((trace - at[k]) * hanging > 0) out[trace * count + k] = sampleAt(section, trace, k + by);
  return out;
}

/** How well the two sides match for each throw. */
export interface ThrowMatch {
  throws: number[];
  /** Correlation from −1 to 1; NaN where too little of one side is there. */
  match: number[];
  /** Throws at which it is greatest among those beside them, the best first. */
  peaks: number[];
}

/**
 * The match of the two sides of a fault about a level against throw: the bed whose two ends are centred there.
 * @param at level of the middle; @param height over which they are compared; @param most throw that is looked for, both ways
 */
export function matchByThrow(
  section: SectionSamples,
  cut: CutDown,
  at: number,
  height: number,
  most: number,
): ThrowMatch {
  const { traces, count, first, step } = section;
  const beside = (side: number) =>
    Float64Array.from({ length: count }, (_, k) => {
      let [sum, n] = [0, 0];
      for (const d of BESIDE) {
        const trace = Math.round(cut.at[k] + side * d);
        if (!(trace >= 0 && trace < traces)) continue;
        const v = section.data[trace * count + k];
        if (v !== v) continue;
        sum += v;
        n++;
      }
      return n > 0 ? sum / n : Number.NaN;
    });
  const [foot, hanging] = [beside(-cut.hanging), beside(cut.hanging)];
  const between = (side: Float64Array, k: number) => {
    const low = Math.floor(k);
    const f = k - low;
    return f === 0 ? side[low] : (1 - f) * side[low] + f * side[low + 1];
  };
  const half = Math.max(2, Math.round(height / step / 2));
  const middle = (at - first) / step;
  const lags = Math.round(most / step);
  const throws: number[] = [];
  const match: number[] = [];
  for (let lag = -lags; lag <= lags; lag++) {
    let [ab, aa, bb, n] = [0, 0, 0, 0];
    for (let u = -half; u <= half; u++) {
      const [a, b] = [between(foot, middle - lag / 2 + u), between(hanging, middle + lag / 2 + u)];
      if (!(a * b === a * b)) continue;
      ab += a * b;
      aa += a * a;
      bb += b * b;
      n++;
    }
    throws.push(lag * step);
    match.push(n > half && aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : Number.NaN);
  }
  const peaks = throws
    .filter((_, n) => match[n] > 0 && match[n] >= (match[n - 1] ?? -1) && match[n] > (match[n + 1] ?? -1))
    .sort((a, b) => match[throws.indexOf(b)] - match[throws.indexOf(a)]);
  return { throws, match, peaks };
}

/** The two places of one bed beside a fault, footwall first: trace and level; null where the fault is not at one of them. */
export function pairAcross(
  { count, first, step }: Pick<SectionSamples, 'count' | 'first' | 'step'>,
  cut: CutDown,
  at: number,
  thrown: number,
): [trace: number, level: number][] | null {
  const ends = [-1, 1].map((side): [number, number] => {
    const level = at + (side * thrown) / 2;
    const k = Math.round((level - first) / step);
    return [k >= 0 && k < count ? cut.at[k] + side * cut.hanging * PAIR : Number.NaN, level];
  });
  return ends.some(([trace]) => Number.isNaN(trace)) ? null : ends;
}
