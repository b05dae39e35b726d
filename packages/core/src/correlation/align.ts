/**
 * Alignment of the logs of two wells by dynamic programming with bounded stretch and squeeze and with gaps for section
 * that one of them misses, after Smith & Waterman (1980), Journal of Geology 88, 451–457 (gaps), Lineman, Mendelson &
 * Toksöz (1987), SPWLA 28th Symposium (warping of several curves) and Sakoe & Chiba (1978), IEEE Transactions on
 * Acoustics, Speech and Signal Processing 26, 43–49 (slope limits).
 *
 *   const cost = differences(reference, target, weights);
 *   const found = align(cost, reference[0].length, target[0].length, OPTIONS);
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
  /** Most samples that two that match may lie apart, after `offset`. */
  mostShift: number;
  /** Where sample 0 of the reference would lie in the target if nothing were moved. */
  offset: number;
}

/** What has not been told costs as much as a fair match. */
export const UNKNOWN = 0.8;
/** A difference beyond this counts no more: two standard deviations, squared. */
const CAP = 4;

/**
 * Difference of each pair of samples `[reference][target]`: the weighted mean over curves of the squared difference in
 * units of the curves' spread, so that samples that have nothing to do with each other differ by about 2.
 * @param reference, target curves in the same order, scaled to unit spread, NaN null
 */
export function differences(reference: Float32Array[], target: Float32Array[], weights: number[]): Float32Array {
  const [n, m] = [reference[0].length, target[0].length];
  const out = new Float32Array(n * m);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < m; j++) {
      let [sum, weight] = [0, 0];
      for (let c = 0; c < weights.length; c++) {
        const d = reference[c][i] - target[c][j];
        if (d !== d) continue;
        sum += weights[c] * Math.min(CAP, d * d);
        weight += weights[c];
      }
      out[i * m + j] = weight > 0 ? sum / weight : UNKNOWN;
    }
  return out;
}

/** Steps that a path may take within a stretch. */
function movesFor(mostStretch: number): [number, number][] {
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
    if (b / a <= mostStretch + 1e-9) moves.push([a, b], [b, a]);
  return moves;
}

/** Least cost of paths that end at each pair of samples, by the state that they end in. */
interface Costs {
  /** Matched, in a gap of the target (reference goes on), in a gap of the reference (target goes on). */
  match: Float32Array;
  missing: Float32Array;
  extra: Float32Array;
  from: Uint8Array | null;
}

const [MISSING, EXTRA, START] = [250, 251, 252];

function forward(cost: Float32Array, n: number, m: number, o: AlignOptions, offset: number, keep: boolean): Costs {
  const match = new Float32Array(n * m).fill(Number.POSITIVE_INFINITY);
  const missing = new Float32Array(n * m).fill(Number.POSITIVE_INFINITY);
  const extra = new Float32Array(n * m).fill(Number.POSITIVE_INFINITY);
  const from = keep ? new Uint8Array(n * m) : null;
  const moves = movesFor(o.mostStretch);
  // samples that a step passes, at the nearest pair, with their part of the step's length
  const passed = moves.map(([a, b]) => {
    const parts = Math.max(a, b);
    return Array.from({ length: parts + 1 }, (_, k) => ({
      di: a - Math.round((a * k) / parts),
      dj: b - Math.round((b * k) / parts),
      weight: ((k === 0 || k === parts ? 0.5 : 1) / parts) * 0.5 * (a + b),
    }));
  });
  for (let i = 0; i < n; i++) {
    const [low, high] = [Math.max(0, i + offset - o.mostShift), Math.min(m - 1, i + offset + o.mostShift)];
    for (let j = Math.ceil(low); j <= high; j++) {
      const at = i * m + j;
      // a path begins where either well does, past what the other has above it
      let best = i === 0 || j === 0 ? o.endSample * (i + j) : Number.POSITIVE_INFINITY;
      let way = START;
      for (let q = 0; q < moves.length; q++) {
        const [a, b] = moves[q];
        if (a > i || b > j) continue;
        const before = at - a * m - b;
        const start = Math.min(match[before], missing[before], extra[before]);
        if (!(start < best)) continue;
        let along = o.stretchSample * Math.abs(a - b);
        for (const { di, dj, weight } of passed[q]) along += weight * cost[at - di * m - dj];
        if (start + along < best) {
          best = start + along;
          way = q;
        }
      }
      match[at] = best;
      if (from) from[at] = way;
      if (i > 0)
        missing[at] = Math.min(Math.min(match[at - m], extra[at - m]) + o.gapOpen, missing[at - m]) + o.gapSample;
      if (j > 0)
        extra[at] = Math.min(Math.min(match[at - 1], missing[at - 1]) + o.gapOpen, extra[at - 1]) + o.gapSample;
    }
  }
  return { match, missing, extra, from };
}

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

/** Reverse both axes of a grid. */
function turned(grid: Float32Array): Float32Array {
  return grid.slice().reverse();
}

/** The best alignment, and what any other would cost. */
export function align(cost: Float32Array, n: number, m: number, options: AlignOptions): Alignment {
  const ahead = forward(cost, n, m, options, options.offset, true);
  // from the other end: sample i is n − 1 − i there
  const back = forward(turned(cost), n, m, options, m - n - options.offset, false);
  // a path ends where either well does
  let [total, end] = [Number.POSITIVE_INFINITY, -1];
  for (let i = 0; i < n; i++)
    for (let j = i === n - 1 ? 0 : m - 1; j < m; j++) {
      const c = ahead.match[i * m + j] + options.endSample * (n - 1 - i + (m - 1 - j));
      if (c < total) [total, end] = [c, i * m + j];
    }
  const path = new Float64Array(n).fill(Number.NaN);
  const gap = new Uint8Array(n);
  if (end >= 0) trace(ahead, end, m, options, path, gap);
  return {
    path,
    gap,
    total,
    through(i) {
      return Float32Array.from({ length: m }, (_, j) => {
        const c = ahead.match[i * m + j] + back.match[(n - 1 - i) * m + (m - 1 - j)];
        return c - total;
      });
    },
    without(from, to) {
      const beside = Math.min(6, Math.floor((to - from) / 5));
      let best = Number.POSITIVE_INFINITY;
      for (let j = 0; j + 1 < m; j++) {
        let above = Number.POSITIVE_INFINITY;
        for (let a = Math.max(1, from - beside); a <= from + beside; a++)
          above = Math.min(above, ahead.match[(a - 1) * m + j] - options.gapSample * a);
        let below = Number.POSITIVE_INFINITY;
        for (let b = Math.max(1, to - beside); b <= Math.min(n - 1, to + beside); b++)
          below = Math.min(below, back.match[(n - 1 - b) * m + (m - 2 - j)] + options.gapSample * b);
        best = Math.min(best, above + below);
      }
      return best + options.gapOpen - total;
    },
  };
}

/** Walk a best path back from its end. */
function trace(costs: Costs, end: number, m: number, o: AlignOptions, path: Float64Array, gap: Uint8Array): void {
  const { match, missing, extra, from } = costs;
  if (!from) return;
  const moves = movesFor(o.mostStretch);
  let at = end;
  let state = 0;
  for (;;) {
    const [i, j] = [Math.floor(at / m), at % m];
    if (state === MISSING) {
      gap[i] = 1;
      const open = Math.min(match[at - m], extra[at - m]) + o.gapOpen;
      if (open <= missing[at - m]) state = match[at - m] <= extra[at - m] ? 0 : EXTRA;
      at -= m;
      continue;
    }
    if (state === EXTRA) {
      const open = Math.min(match[at - 1], missing[at - 1]) + o.gapOpen;
      if (open <= extra[at - 1]) state = match[at - 1] <= missing[at - 1] ? 0 : MISSING;
      at -= 1;
      continue;
    }
    path[i] = j;
    const way = from[at];
    if (way === START) return;
    const [a, b] = moves[way];
    const before = at - a * m - b;
    // samples between two matched ones lie evenly between them
    for (let k = 1; k < a; k++) path[i - k] = j - (b * k) / a;
    const start = Math.min(match[before], missing[before], extra[before]);
    state = start === match[before] ? 0 : start === missing[before] ? MISSING : EXTRA;
    if (state !== 0) path[i - a] = Number.NaN;
    at = before;
  }
}
