import { HEAP_BASE, type Kernels, reserve } from './load.ts';

/** A step that a path may take: so many samples on in either log, at the cost of its bend and of the pairs it passes. */
export interface PathStep {
  a: number;
  b: number;
  bend: number;
  /** Pairs passed, samples back from where the step ends, with their part of its length. */
  parts: { di: number; dj: number; weight: number }[];
}

/** What paths through the pairs of samples of two logs cost. */
export interface PathProblem {
  /** Of each pair, `[n][m]`, no NaN. */
  cost: Float32Array;
  n: number;
  m: number;
  /** Where sample 0 of the first log would lie in the second, and how far from there a pair may lie. */
  offset: number;
  mostShift: number;
  /** None goes back further than `FURTHEST` samples. */
  steps: PathStep[];
  endSample: number;
  gapOpen: number;
  gapSample: number;
}

/** Least cost of paths that end at each pair, `[n][m]`, by the state that they end in; infinite where none does. */
export interface PathCosts {
  match: Float32Array;
  /** In a gap of the second log (the first goes on), and of the first. */
  missing: Float32Array;
  extra: Float32Array;
  /** The step by which a match is reached, or `PATH_START`; null where it was not asked for. */
  ways: Uint8Array | null;
}

/** A path begins here. */
export const PATH_START = 252;
/** Samples that a step may go back: one less than the rows that are held. */
export const FURTHEST = 7;
const [RING, PAD, RINGS] = [8, 8, 5];
const [STEP, PART] = [20, 16];

/** First and last sample of the second log that may match a sample of the first. */
const bandOf = ({ m, offset, mostShift }: PathProblem, i: number): [number, number] => [
  Math.max(0, Math.ceil(i + offset - mostShift)),
  Math.min(m - 1, Math.floor(i + offset + mostShift)),
];

function blank(p: PathProblem, keep: boolean): PathCosts {
  const never = () => new Float32Array(p.n * p.m).fill(Number.POSITIVE_INFINITY);
  return { match: never(), missing: never(), extra: never(), ways: keep ? new Uint8Array(p.n * p.m) : null };
}

/** Least costs of paths by the compiled kernel, a row at a time, so that its memory is that of a few rows. */
export function pathCosts(kernels: Kernels, p: PathProblem, keep: boolean): PathCosts {
  const { n, m, steps } = p;
  const out = blank(p, keep);
  const stride = (m + 2 * PAD + 3) & ~3;
  const stepsAt = HEAP_BASE;
  const size = steps.reduce((sum, s) => sum + STEP + PART * s.parts.length, 0);
  const waysAt = (stepsAt + size + 15) & ~15;
  const ringsAt = (waysAt + stride + 15) & ~15;
  reserve(kernels, ringsAt + 4 * RINGS * RING * stride);
  const { buffer } = kernels.memory;
  const view = new DataView(buffer);
  let at = stepsAt;
  for (const { a, b, bend, parts } of steps) {
    view.setInt32(at, a, true);
    view.setInt32(at + 4, b, true);
    view.setFloat32(at + 8, bend, true);
    view.setInt32(at + 12, parts.length, true);
    at += STEP;
    for (const { di, dj, weight } of parts) {
      view.setInt32(at, di, true);
      view.setInt32(at + 4, dj, true);
      view.setFloat32(at + 8, weight, true);
      at += PART;
    }
  }
  const rings = new Float32Array(buffer, ringsAt, RINGS * RING * stride);
  // of rows before the first there are no paths; their costs count for nothing
  rings.fill(0, 0, RING * stride).fill(Number.POSITIVE_INFINITY, RING * stride);
  const ways = new Uint8Array(buffer, waysAt, m);
  const held = (ring: number, i: number) => (ring * RING + (i & (RING - 1))) * stride + PAD;
  for (let i = 0; i < n; i++) {
    const [low, high] = bandOf(p, i);
    rings.set(p.cost.subarray(i * m, (i + 1) * m), held(0, i));
    kernels.pathRow(
      ringsAt,
      waysAt,
      i,
      low,
      high,
      stride,
      stepsAt,
      steps.length,
      p.endSample,
      p.gapOpen,
      p.gapSample,
      PATH_START,
    );
    if (high < low) continue;
    const put = (to: Float32Array, ring: number) => {
      const from = held(ring, i);
      to.set(rings.subarray(from + low, from + high + 1), i * m + low);
    };
    put(out.match, 2);
    put(out.missing, 3);
    put(out.extra, 4);
    out.ways?.set(ways.subarray(low, high + 1), i * m + low);
  }
  return out;
}

/** The same in plain TypeScript: what the kernel is tested and measured against. */
export function pathCostsTwin(p: PathProblem, keep: boolean): PathCosts {
  const { n, m, steps, cost } = p;
  const out = blank(p, keep);
  const { match, missing, extra, ways } = out;
  for (let i = 0; i < n; i++) {
    const [low, high] = bandOf(p, i);
    for (let j = low; j <= high; j++) {
      const at = i * m + j;
      // a path begins where either log does, past what the other has above it
      let best = i === 0 || j === 0 ? p.endSample * (i + j) : Number.POSITIVE_INFINITY;
      let way = PATH_START;
      for (let q = 0; q < steps.length; q++) {
        const { a, b, bend, parts } = steps[q];
        if (a > i || b > j) continue;
        const before = at - a * m - b;
        const start = Math.min(match[before], missing[before], extra[before]);
        if (!(start < best)) continue;
        let along = start + bend;
        for (const { di, dj, weight } of parts) along += weight * cost[at - di * m - dj];
        if (along < best) {
          best = along;
          way = q;
        }
      }
      match[at] = best;
      if (ways) ways[at] = way;
      if (i > 0)
        missing[at] = Math.min(Math.min(match[at - m], extra[at - m]) + p.gapOpen, missing[at - m]) + p.gapSample;
      if (j > 0)
        extra[at] = Math.min(Math.min(match[at - 1], missing[at - 1]) + p.gapOpen, extra[at - 1]) + p.gapSample;
    }
  }
  return out;
}
