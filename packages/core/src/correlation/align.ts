import {
  halfBand,
  PATH_START,
  type PairCosts,
  type PathCosts,
  type PathProblem,
  type PathStep,
  pairAt,
  pathCosts,
  pathCostsOnward,
  rowOf,
  threadKernels,
} from '@lithagon/kernels';

/**
 * Alignment of the logs of two wells by dynamic programming with bounded stretch and squeeze and with gaps for section
 * that one of them misses, after Smith & Waterman (1980), Journal of Geology 88, 451–457 (gaps), Lineman, Mendelson &
 * Toksöz (1987), SPWLA 28th Symposium (warping of several curves) and Sakoe & Chiba (1978), IEEE Transactions on
 * Acoustics, Speech and Signal Processing 26, 43–49 (slope limits).
 *
 *   const pairs = differences(reference, target, weights, { offset: 0, mostShift: 300 });
 *   const found = align(pairs, OPTIONS);
 *   found.path[i]; // sample of the target that sample i of the reference lies at, or NaN where it is missing there
 */
export interface AlignOptions {
  /** Most that section may be thicker or thinner than its counterpart: 1.5 is from two thirds to one and a half. */
  mostStretch: number;
  /** Cost of each sample by which a step is stretched or squeezed, so that what is missing is a gap and no squeeze. */
  stretchSample: number;
  /** Cost of beginning a gap, and of each sample in it, in units of `differences`. */
  gapOpen: number;
  gapSample: number;
  /** Cost of each sample that one well has above or below the other's. */
  endSample: number;
}

/** What has not been told costs as much as a fair match. */
export const UNKNOWN = 0.8;
/** A difference beyond this counts no more: two standard deviations, squared. */
const CAP = 4;

/**
 * Difference of each pair of samples: the weighted mean over curves of the squared difference in units of the curves'
 * spread, so that samples that have nothing to do with each other differ by about 2.
 * @param reference, target curves in the same order, scaled to unit spread, NaN null
 * @param near `offset`: where sample 0 of the reference would lie in the target if nothing were moved; `mostShift`: most
 *   samples that two that match may lie apart from there. Any may match any where it is not given
 */
export function differences(
  reference: Float32Array[],
  target: Float32Array[],
  weights: number[],
  near: { offset: number; mostShift: number } = { offset: 0, mostShift: Number.POSITIVE_INFINITY },
): PairCosts {
  const band = { n: reference[0].length, m: target[0].length, ...near };
  const half = halfBand(band);
  const cost = new Float32Array(band.n * (2 * half + 1));
  for (let i = 0; i < band.n; i++) {
    const [low, high] = rowOf(band, i, half);
    let at = pairAt(band, i, low);
    for (let j = low; j <= high; j++, at++) {
      let [sum, weight] = [0, 0];
      for (let c = 0; c < weights.length; c++) {
        const d = reference[c][i] - target[c][j];
        if (d !== d) continue;
        sum += weights[c] * Math.min(CAP, d * d);
        weight += weights[c];
      }
      cost[at] = weight > 0 ? sum / weight : UNKNOWN;
    }
  }
  return { ...band, cost };
}

/** Steps that a path may take within a stretch. */
export function stepsFor(o: Pick<AlignOptions, 'mostStretch' | 'stretchSample'>): PathStep[] {
  const moves: [number, number][] = [[1, 1]];
  for (const [a, b] of [
    [4, 5],
    [3, 4],
    [2, 3],
    [3, 5],
    [1, 2],
    [2, 5],
    [1, 3],
  ])
    if (b / a <= o.mostStretch + 1e-9) moves.push([a, b], [b, a]);
  return moves.map(([a, b]) => {
    const along = Math.max(a, b);
    // samples that a step passes, at the nearest pair, with their part of the step's length
    const parts = Array.from({ length: along + 1 }, (_, k) => ({
      di: a - Math.round((a * k) / along),
      dj: b - Math.round((b * k) / along),
      weight: ((k === 0 || k === along ? 0.5 : 1) / along) * 0.5 * (a + b),
    }));
    return { a, b, bend: o.stretchSample * Math.abs(a - b), parts };
  });
}

/** States that a path is in beside a match. */
const [MISSING, EXTRA] = [1, 2];

export interface Alignment {
  /** Where each sample of the reference lies in the target, fractional; NaN where it is missing or beyond its ends. */
  path: Float64Array;
  /** Whether a sample of the reference is missing in the target. */
  gap: Uint8Array;
  total: number;
  /** Least cost of paths that match a sample of the reference with each of the target's, over the best of all. */
  through(i: number): Float32Array;
  /**
   * Least cost of paths that leave out the samples of the reference from one to before another, over the best of all. The gap may
   * begin and end a little beside them, as the boundaries of a bed are not sharp.
   */
  without(from: number, to: number): number;
}

/** The best alignment, and what any other would cost. */
export function align(pairs: PairCosts, options: AlignOptions): Alignment {
  const { n, m } = pairs;
  const problem: PathProblem = { ...pairs, ...options, steps: stepsFor(options) };
  const kernels = threadKernels();
  const ahead = pathCosts(kernels, problem);
  const onward = pathCostsOnward(kernels, problem);
  const of = (costs: Float32Array, i: number, j: number) => {
    const at = pairAt(pairs, i, j);
    return at < 0 ? Number.POSITIVE_INFINITY : costs[at];
  };
  // a path ends where either well does
  let [total, last] = [Number.POSITIVE_INFINITY, [-1, -1]];
  for (let i = 0; i < n; i++)
    for (let j = i === n - 1 ? 0 : m - 1; j < m; j++) {
      const c = of(ahead.match, i, j) + options.endSample * (n - 1 - i + (m - 1 - j));
      if (c < total) [total, last] = [c, [i, j]];
    }
  const path = new Float64Array(n).fill(Number.NaN);
  const gap = new Uint8Array(n);
  if (last[0] >= 0) trace(ahead, problem, last[0], last[1], path, gap);
  return {
    path,
    gap,
    total,
    through: (i) => Float32Array.from({ length: m }, (_, j) => of(ahead.match, i, j) + of(onward, i, j) - total),
    without(from, to) {
      const beside = Math.min(6, Math.floor((to - from) / 5));
      let best = Number.POSITIVE_INFINITY;
      for (let j = 0; j + 1 < m; j++) {
        let above = Number.POSITIVE_INFINITY;
        for (let a = Math.max(1, from - beside); a <= from + beside; a++)
          above = Math.min(above, of(ahead.match, a - 1, j) - options.gapSample * a);
        let below = Number.POSITIVE_INFINITY;
        for (let b = Math.max(1, to - beside); b <= Math.min(n - 1, to + beside); b++)
          below = Math.min(below, of(onward, b, j + 1) + options.gapSample * b);
        best = Math.min(best, above + below);
      }
      return best + options.gapOpen - total;
    },
  };
}

/** Walk a best path back from the pair that it ends at. */
function trace(
  { match, missing, extra, ways }: PathCosts,
  problem: PathProblem,
  i: number,
  j: number,
  path: Float64Array,
  gap: Uint8Array,
): void {
  const { steps, gapOpen } = problem;
  // a pair one sample up the reference stands so many before; one up the target, one
  const up = 2 * halfBand(problem);
  let at = pairAt(problem, i, j);
  let state = 0;
  for (;;) {
    if (state === MISSING) {
      gap[i] = 1;
      const open = Math.min(match[at - up], extra[at - up]) + gapOpen;
      if (open <= missing[at - up]) state = match[at - up] <= extra[at - up] ? 0 : EXTRA;
      at -= up;
      i--;
      continue;
    }
    if (state === EXTRA) {
      const open = Math.min(match[at - 1], missing[at - 1]) + gapOpen;
      if (open <= extra[at - 1]) state = match[at - 1] <= missing[at - 1] ? 0 : MISSING;
      at -= 1;
      j--;
      continue;
    }
    path[i] = j;
    const way = ways[at];
    if (way === PATH_START) return;
    const { a, b } = steps[way];
    // samples between two matched ones lie evenly between them
    for (let k = 1; k < a; k++) path[i - k] = j - (b * k) / a;
    at -= a * up + b;
    i -= a;
    j -= b;
    const start = Math.min(match[at], missing[at], extra[at]);
    state = start === match[at] ? 0 : start === missing[at] ? MISSING : EXTRA;
    if (state !== 0) path[i] = Number.NaN;
  }
}
