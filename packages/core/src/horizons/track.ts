import { type Barrier, blocked } from '../faults/barrier.ts';
import { MaxHeap } from '../numerics/heap.ts';
import { heed } from '../numerics/stop.ts';
import { type EventKind, eventsIn, sampleAt, type Traces } from './event.ts';

export interface Seed {
  i: number;
  j: number;
  /** In the vertical unit of the traces. */
  time: number;
}

export interface TrackOptions {
  kind: EventKind;
  /** Half height of the waveform that is compared, in the vertical unit. */
  halfWindow: number;
  /** Least correlation of the waveform with its neighbour's, 0 to 1. */
  leastMatch: number;
  /** Largest departure from the local dip between neighbouring traces, in the vertical unit. */
  largestJump: number;
  /** Traces on each side that are stacked along the local dip when the time is read; 0 reads single traces. */
  stack: number;
  /** Least likeness to the seeds, 0 to 1: what is less like them is let go when the front has stopped. */
  leastLike?: number;
  barrier?: Barrier;
  /** Part that each bin belongs to, `[inline][crossline]`: a front stays in the part that its seed lies in. */
  parts?: Uint8Array;
  signal?: AbortSignal;
  /** Told now and then how many traces are tracked, with a copy of the times so far. */
  onProgress?: (tracked: number, times: () => Float32Array) => void;
}

export interface Tracked {
  /** `[inline][crossline]`, NaN where not tracked. */
  times: Float32Array;
  /**
   * Waveform match with the neighbour that it was reached from, weakened where it disagrees with what is around, and never
   * more than its likeness to the seeds bears out.
   */
  confidence: Float32Array;
  tracked: number;
  /** Traces that were let go because the event is lost there. */
  lost: number;
}

const NEIGHBOURS = [
  [-1, 0],
  [1, 0],
  [0, -1],
  [0, 1],
] as const;

/**
 * Follow an event through a volume from seeds, surest way first: each trace is reached by the path from a seed along
 * which waveforms change least, so that a seed speaks for what lies near it even where the event is weak there (the
 * least-cost front of Dijkstra 1959, Numerische Mathematik 1, 269–271). Times are foretold along the local dip, and a trace that would disagree
 * with any of its tracked neighbours by more than the largest jump is left out, so that the front cannot meet itself a
 * cycle apart. Faults are not crossed.
 */
export function trackEvent(
  traces: Traces,
  rows: number,
  columns: number,
  seeds: Seed[],
  options: TrackOptions,
): Tracked {
  const { kind, barrier, leastMatch, parts, signal } = options;
  const n = rows * columns;
  const times = new Float32Array(n).fill(Number.NaN);
  const confidence = new Float32Array(n).fill(Number.NaN);
  const half = Math.max(2, Math.round(options.halfWindow / traces.step));
  const jump = options.largestJump / traces.step;
  // candidates wait with the time and match that they were offered with
  const heap = new MaxHeap();
  const offered: { trace: number; k: number; match: number; cost: number }[] = [];
  const offer = (trace: number, k: number, match: number, cost: number) => {
    offered.push({ trace, k, match, cost });
    heap.push(-cost, offered.length - 1);
  };
  const position = new Float32Array(n).fill(Number.NaN);
  for (const seed of seeds) offer(seed.i * columns + seed.j, (seed.time - traces.first) / traces.step, 2, 0);
  let tracked = 0;
  const open = (i: number, j: number, di: number, dj: number, k: number) =>
    i + di >= 0 &&
    j + dj >= 0 &&
    i + di < rows &&
    j + dj < columns &&
    (!parts || parts[i * columns + j] === parts[(i + di) * columns + j + dj]) &&
    !(barrier && blocked(barrier, i, j, di, dj, traces.first + k * traces.step));

  while (heap.size > 0) {
    const { trace, k, match, cost } = offered[heap.pop()];
    if (!Number.isNaN(position[trace])) continue;
    const i = Math.floor(trace / columns);
    const j = trace - i * columns;
    let agrees = true;
    for (const [di, dj] of NEIGHBOURS) {
      if (!open(i, j, di, dj, k)) continue;
      const near = position[(i + di) * columns + j + dj];
      if (near !== undefined && Math.abs(near - k) > 1.6 * jump + 0.5) {
        agrees = false;
        // two fronts meet a cycle apart: one of them is wrong, and nothing here says which
        confidence[(i + di) * columns + j + dj] *= 0.5;
      }
    }
    if (!agrees && match < 2) continue;
    position[trace] = k;
    confidence[trace] = Math.min(1, match);
    tracked++;
    if (tracked % 200 === 0) heed();
    if (tracked % 2000 === 0) {
      if (signal?.aborted) break;
      options.onProgress?.(tracked, () => position.map((k) => traces.first + k * traces.step));
    }
    const [slopeI, slopeJ] = localDip(position, rows, columns, i, j, open);
    for (const [di, dj] of NEIGHBOURS) {
      const next = (i + di) * columns + j + dj;
      if (!open(i, j, di, dj, k) || !Number.isNaN(position[next])) continue;
      const foretold = k + di * slopeI + dj * slopeJ;
      let best = -1;
      let at = Number.NaN;
      const base = next * traces.samples;
      const value = (q: number) => (q < 0 || q >= traces.samples ? Number.NaN : traces.data[base + q]);
      for (const candidate of eventsIn(value, kind, foretold - jump, foretold + jump)) {
        const r = correlation(traces, trace, k, next, candidate, half) - 0.05 * (Math.abs(candidate - foretold) / jump);
        if (r > best) {
          best = r;
          at = candidate;
        }
      }
      if (best >= leastMatch) offer(next, at, best, cost + costOf(best));
    }
  }
  if (options.stack > 0) readOnStack(traces, rows, columns, position, kind, options.stack, jump, open);
  const like = likenessToSeeds(traces, rows, columns, position, seeds, half, 1.6 * jump + 0.5);
  let lost = 0;
  heed();
  for (let q = 0; q < n; q++) {
    if (Number.isNaN(position[q])) continue;
    if (like[q] < (options.leastLike ?? 0)) {
      position[q] = Number.NaN;
      confidence[q] = Number.NaN;
      lost++;
      continue;
    }
    confidence[q] = Math.min(confidence[q], Math.max(0, Math.min(1, SURE * like[q])));
  }
  for (let q = 0; q < n; q++) times[q] = traces.first + position[q] * traces.step;
  return { times, confidence, tracked: tracked - lost, lost };
}

/** What a likeness is multiplied by to be a confidence: waveforms are never all alike, noise and beds see to that. */
const SURE = 1.2;

/**
 * How like the event of each tracked trace is to that of the seeds, its strength too: 2·a·b over a² + b² of the waveforms
 * about their times, each averaged over the traces beside it. One that dies out is unlike them however alike neighbours are;
 * a match with the trace before cannot see that.
 * @param position samples, NaN where not tracked; @param apart neighbours further off than this many samples are another event
 * @returns −1 to 1, NaN where not tracked
 */
function likenessToSeeds(
  traces: Traces,
  rows: number,
  columns: number,
  position: Float32Array,
  seeds: Seed[],
  half: number,
  apart: number,
): Float32Array {
  const width = 2 * half + 1;
  const wave = new Float64Array(width);
  const waveAt = (i: number, j: number) => {
    wave.fill(0);
    const centre = position[i * columns + j];
    let count = 0;
    for (let a = Math.max(0, i - 1); a <= Math.min(rows - 1, i + 1); a++)
      for (let b = Math.max(0, j - 1); b <= Math.min(columns - 1, j + 1); b++) {
        const k = position[a * columns + b];
        if (!(Math.abs(k - centre) <= apart)) continue;
        count++;
        for (let d = 0; d < width; d++) {
          const v = sampleAt(traces, a * columns + b, k + d - half);
          if (!Number.isNaN(v)) wave[d] += v;
        }
      }
    for (let d = 0; d < width; d++) wave[d] /= count;
  };
  const reference = new Float64Array(width);
  let spoken = 0;
  for (const { i, j } of seeds) {
    if (Number.isNaN(position[i * columns + j])) continue;
    waveAt(i, j);
    for (let d = 0; d < width; d++) reference[d] += wave[d];
    spoken++;
  }
  const energy = (reference.reduce((sum, v) => sum + v * v, 0) || 1) / Math.max(1, spoken) ** 2;
  const out = new Float32Array(rows * columns).fill(Number.NaN);
  for (let i = 0; i < rows; i++) {
    heed();
    for (let j = 0; j < columns; j++) {
      if (Number.isNaN(position[i * columns + j])) continue;
      waveAt(i, j);
      let [both, own] = [0, 0];
      for (let d = 0; d < width; d++) {
        both += (wave[d] * reference[d]) / Math.max(1, spoken);
        own += wave[d] * wave[d];
      }
      out[i * columns + j] = (2 * both) / (own + energy);
    }
  }
  return out;
}

/** What a step to the next trace adds to its way from a seed: little where waveforms are alike, much where not. */
function costOf(match: number): number {
  return 0.2 + ((1 - match) / 0.1) ** 2;
}

type Open = (i: number, j: number, di: number, dj: number, k: number) => boolean;

/** Slope of the tracked surface near a bin, in samples a bin, from tracked neighbours up to three bins away. */
function localDip(
  position: Float32Array,
  rows: number,
  columns: number,
  i: number,
  j: number,
  open: Open,
): [number, number] {
  const along = (di: number, dj: number): number => {
    let sum = 0;
    let weight = 0;
    for (const sign of [-1, 1]) {
      let [a, b] = [i, j];
      const k = position[i * columns + j];
      for (let d = 1; d <= 3; d++) {
        if (!open(a, b, sign * di, sign * dj, k)) break;
        a += sign * di;
        b += sign * dj;
        if (a < 0 || b < 0 || a >= rows || b >= columns) break;
        const there = position[a * columns + b];
        if (Number.isNaN(there)) break;
        sum += sign * (there - k) * d;
        weight += d * d;
      }
    }
    return weight > 0 ? sum / weight : 0;
  };
  return [along(1, 0), along(0, 1)];
}

/** Normalized correlation of two traces about two times, over `half` samples each way. */
function correlation(traces: Traces, a: number, ka: number, b: number, kb: number, half: number): number {
  let [sa, sb, saa, sbb, sab, n] = [0, 0, 0, 0, 0, 0];
  for (let d = -half; d <= half; d++) {
    const va = sampleAt(traces, a, ka + d);
    const vb = sampleAt(traces, b, kb + d);
    if (Number.isNaN(va) || Number.isNaN(vb)) continue;
    sa += va;
    sb += vb;
    saa += va * va;
    sbb += vb * vb;
    sab += va * vb;
    n++;
  }
  if (n < half) return -1;
  const spread = (saa - (sa * sa) / n) * (sbb - (sb * sb) / n);
  return spread > 0 ? (sab - (sa * sb) / n) / Math.sqrt(spread) : -1;
}

/** Read each time anew on a stack of the traces around it, laid along the tracked dip: noise falls, the event stays. */
function readOnStack(
  traces: Traces,
  rows: number,
  columns: number,
  position: Float32Array,
  kind: EventKind,
  radius: number,
  jump: number,
  open: Open,
): void {
  const from = position.slice();
  const reach = Math.max(1.5, jump);
  const half = Math.ceil(reach) + 2;
  const stacked = new Float64Array(2 * half + 1);
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++) {
      if (j === 0) heed();
      const centre = from[i * columns + j];
      if (Number.isNaN(centre)) continue;
      // a plane through the tracked times around, by least squares on a symmetric window
      const members: { trace: number; da: number; db: number; k: number; weight: number }[] = [];
      for (let da = -radius; da <= radius; da++)
        for (let db = -radius; db <= radius; db++) {
          const [a, b] = [i + da, j + db];
          if (a < 0 || b < 0 || a >= rows || b >= columns) continue;
          const k = from[a * columns + b];
          if (Number.isNaN(k) || Math.abs(k - centre) > 1.6 * jump * Math.max(1, Math.abs(da) + Math.abs(db))) continue;
          if (!reachable(i, j, da, db, centre, open)) continue;
          members.push({
            trace: a * columns + b,
            da,
            db,
            k,
            weight: 1 / (1 + (da * da + db * db) / (radius * radius)),
          });
        }
      if (members.length < 3) continue;
      const [level, slopeA, slopeB] = plane(members);
      stacked.fill(0);
      for (const m of members)
        for (let d = -half; d <= half; d++) {
          const v = sampleAt(traces, m.trace, level + slopeA * m.da + slopeB * m.db + d);
          if (!Number.isNaN(v)) stacked[d + half] += m.weight * v;
        }
      const value = (q: number) => (q < 0 || q > 2 * half ? Number.NaN : stacked[q]);
      let best = Number.NaN;
      for (const at of eventsIn(value, kind, half - reach, half + reach))
        if (Number.isNaN(best) || Math.abs(at - half) < Math.abs(best - half)) best = at;
      if (!Number.isNaN(best)) position[i * columns + j] = level + best - half;
    }
}

/** Whether a bin can be reached from another by a straight-ish path that crosses no fault. */
function reachable(i: number, j: number, da: number, db: number, k: number, open: Open): boolean {
  let [a, b] = [i, j];
  while (a !== i + da) {
    const step = Math.sign(i + da - a);
    if (!open(a, b, step, 0, k)) return false;
    a += step;
  }
  while (b !== j + db) {
    const step = Math.sign(j + db - b);
    if (!open(a, b, 0, step, k)) return false;
    b += step;
  }
  return true;
}

/** Weighted least-squares plane `k = level + a·da + b·db`. */
function plane(members: { da: number; db: number; k: number; weight: number }[]): [number, number, number] {
  let [w, wa, wb, waa, wbb, wab, wk, wak, wbk] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  for (const { da, db, k, weight: q } of members) {
    w += q;
    wa += q * da;
    wb += q * db;
    waa += q * da * da;
    wbb += q * db * db;
    wab += q * da * db;
    wk += q * k;
    wak += q * da * k;
    wbk += q * db * k;
  }
  const [saa, sbb, sab] = [waa - (wa * wa) / w, wbb - (wb * wb) / w, wab - (wa * wb) / w];
  const [sak, sbk] = [wak - (wa * wk) / w, wbk - (wb * wk) / w];
  const det = saa * sbb - sab * sab;
  if (det < 1e-9 * Math.max(1, saa * sbb)) return [wk / w, 0, 0];
  const a = (sak * sbb - sbk * sab) / det;
  const b = (sbk * saa - sak * sab) / det;
  return [(wk - a * wa - b * wb) / w, a, b];
}
