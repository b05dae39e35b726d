import { HEAP_BASE, type Kernels, reserve } from './load.ts';

/** A step that a path may take: so many samples on in either log, at the cost of its bend and of the pairs it passes. */
export interface PathStep {
  a: number;
  b: number;
  bend: number;
  /** Pairs passed, samples back from where the step ends, with their part of its length. */
  parts: { di: number; dj: number; weight: number }[];
}

/**
 * What each pair of samples of two logs costs, for pairs that lie near a line on which the logs match: a row for each
 * sample of the first log, as wide as the band. `pairAt` says where a pair stands.
 */
export interface PairCosts {
  n: number;
  m: number;
  /** Where sample 0 of the first log would lie in the second (whole samples), and how far from there a pair may lie. */
  offset: number;
  mostShift: number;
  /** `[n][2 · halfBand + 1]`, no NaN. */
  cost: Float32Array;
}

/** What paths through the pairs of samples of two logs may do. */
export interface PathProblem extends PairCosts {
  /** None goes back further than seven samples. */
  steps: PathStep[];
  endSample: number;
  gapOpen: number;
  gapSample: number;
}

/** Least cost of paths that end at each pair, laid out as `cost`, by the state that they end in; infinite where none does. */
export interface PathCosts {
  match: Float32Array;
  /** In a gap of the second log (the first goes on), and of the first. */
  missing: Float32Array;
  extra: Float32Array;
  /** The step by which a match is reached, or `PATH_START`. */
  ways: Uint8Array;
}

/** A path begins here. */
export const PATH_START = 252;
/** Samples that a step may go back: one less than the rows that are held. */
const FURTHEST = 7;
const [RING, PAD, RINGS] = [8, 8, 5];
const [STEP, PART] = [20, 16];

type Band = Omit<PairCosts, 'cost'>;

/** Samples on either side of the line that a band holds: a step may pass pairs beside those that match. */
export const halfBand = ({ n, m, offset, mostShift }: Band): number =>
  Math.min(Math.floor(mostShift), n + m + Math.abs(offset)) + FURTHEST;

/** Index of a pair in what is laid out by a band, or −1 beside it. */
export function pairAt(band: Band, i: number, j: number): number {
  const half = halfBand(band);
  const k = j - i - band.offset + half;
  return k < 0 || k > 2 * half ? -1 : i * (2 * half + 1) + k;
}

/** First and last sample of the second log that lie so near to where a sample of the first would. */
export const rowOf = ({ m, offset }: Band, i: number, within: number): [number, number] => [
  Math.max(0, Math.ceil(i + offset - within)),
  Math.min(m - 1, Math.floor(i + offset + within)),
];

const never = (band: Band) => new Float32Array(band.n * (2 * halfBand(band) + 1)).fill(Number.POSITIVE_INFINITY);
const blank = (p: PathProblem): PathCosts => ({
  match: never(p),
  missing: never(p),
  extra: never(p),
  ways: new Uint8Array(p.cost.length),
});

/** What a row of the kernel has found: its states and ways, from a sample of the second log on. */
interface Row {
  low: number;
  high: number;
  state(which: 'match' | 'missing' | 'extra'): Float32Array;
  ways: Uint8Array;
}

/**
 * Run the compiled kernel over a problem, a row at a time, so that its memory is that of a few rows.
 * @param costs puts the costs of a row, from one sample of the second log to another, into what it is given
 */
function eachRow(
  kernels: Kernels,
  p: PathProblem,
  costs: (i: number, from: number, to: number, into: Float32Array) => void,
  take: (i: number, row: Row) => void,
): void {
  const { n, m, steps } = p;
  const half = halfBand(p);
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
  const ringOf = { match: 2, missing: 3, extra: 4 };
  for (let i = 0; i < n; i++) {
    const [from, to] = rowOf(p, i, half);
    if (from <= to) costs(i, from, to, rings.subarray(held(0, i) + from, held(0, i) + to + 1));
    const [low, high] = rowOf(p, i, p.mostShift);
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
    if (low > high) continue;
    const state: Row['state'] = (which) => {
      const start = held(ringOf[which], i);
      return rings.subarray(start + low, start + high + 1);
    };
    take(i, { low, high, state, ways: ways.subarray(low, high + 1) });
  }
}

/** Least costs of paths from where either log begins. */
export function pathCosts(kernels: Kernels, p: PathProblem): PathCosts {
  const out = blank(p);
  eachRow(
    kernels,
    p,
    (i, from, to, into) => into.set(p.cost.subarray(pairAt(p, i, from), pairAt(p, i, to) + 1)),
    (i, row) => {
      const at = pairAt(p, i, row.low);
      for (const which of ['match', 'missing', 'extra'] as const) out[which].set(row.state(which), at);
      out.ways.set(row.ways, at);
    },
  );
  return out;
}

/** Least cost of paths that match a pair and go on from it to where either log ends, laid out as `cost`. */
export function pathCostsOnward(kernels: Kernels, p: PathProblem): Float32Array {
  const { n, m } = p;
  const out = never(p);
  // the same logs upside down: sample i is n − 1 − i there, and a row runs the other way
  const turned = { ...p, offset: m - n - p.offset };
  eachRow(
    kernels,
    turned,
    (i, from, to, into) => {
      const last = pairAt(p, n - 1 - i, m - 1 - from);
      for (let j = from; j <= to; j++) into[j - from] = p.cost[last - (j - from)];
    },
    (i, { low, high, state }) => {
      const last = pairAt(p, n - 1 - i, m - 1 - low);
      const match = state('match');
      for (let j = low; j <= high; j++) out[last - (j - low)] = match[j - low];
    },
  );
  return out;
}

/** `pathCosts` in plain TypeScript: what the kernel is tested and measured against. */
export function pathCostsTwin(p: PathProblem): PathCosts {
  const { n, steps, cost } = p;
  const out = blank(p);
  const { match, missing, extra, ways } = out;
  const half = halfBand(p);
  // a pair one sample up the first log stands so many before, one up the second stands one before
  const up = 2 * half;
  const within = (along: number) => along >= 0 && along <= up;
  for (let i = 0; i < n; i++) {
    const [low, high] = rowOf(p, i, p.mostShift);
    for (let j = low; j <= high; j++) {
      const along = j - i - p.offset + half;
      const at = i * (up + 1) + along;
      // a path begins where either log does, past what the other has above it
      let best = i === 0 || j === 0 ? p.endSample * (i + j) : Number.POSITIVE_INFINITY;
      let way = PATH_START;
      for (let q = 0; q < steps.length; q++) {
        const { a, b, bend, parts } = steps[q];
        if (a > i || b > j || !within(along + a - b)) continue;
        const before = at - a * up - b;
        const start = Math.min(match[before], missing[before], extra[before]);
        if (!(start < best)) continue;
        let passed = start + bend;
        for (const { di, dj, weight } of parts) passed += weight * cost[at - di * up - dj];
        if (passed < best) {
          best = passed;
          way = q;
        }
      }
      match[at] = best;
      ways[at] = way;
      if (i > 0 && within(along + 1)) {
        const above = at - up;
        missing[at] = Math.min(Math.min(match[above], extra[above]) + p.gapOpen, missing[above]) + p.gapSample;
      }
      if (j > 0 && within(along - 1)) {
        const left = at - 1;
        extra[at] = Math.min(Math.min(match[left], missing[left]) + p.gapOpen, extra[left]) + p.gapSample;
      }
    }
  }
  return out;
}
