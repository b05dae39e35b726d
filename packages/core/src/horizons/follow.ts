import { sampleAt, type Traces } from './event.ts';
import { type PickEvent, pickableIn } from './pick.ts';

/** A place on a section: trace and time (vertical unit). */
export type OnSection = [trace: number, time: number];

export interface FollowOptions {
  event: PickEvent;
  /** How far from the straight line between its ends the path may lead, vertical unit. */
  corridor: number;
  /** Departure from one trace to the next that counts as one whole mismatch, vertical unit. */
  jump: number;
  /** Half of the waveform that is compared, vertical unit. */
  halfWindow: number;
  /** Pieces of faults, trace and time of both ends: no path crosses one. */
  walls: [number, number, number, number][];
}

interface Node {
  trace: number;
  time: number;
  strength: number;
  shape: Float64Array;
  cost: number;
  before: Node | null;
}

/** Traces without an event that a path may leap. */
const LEAP = 4;

const side = (ax: number, ay: number, bx: number, by: number, px: number, py: number) =>
  (bx - ax) * (py - ay) - (by - ay) * (px - ax);

function walled(a: Node, b: Node, walls: FollowOptions['walls']): boolean {
  return walls.some(
    ([x0, y0, x1, y1]) =>
      Math.max(x0, x1) >= a.trace &&
      Math.min(x0, x1) <= b.trace &&
      side(a.trace, a.time, b.trace, b.time, x0, y0) * side(a.trace, a.time, b.trace, b.time, x1, y1) <= 0 &&
      side(x0, y0, x1, y1, a.trace, a.time) * side(x0, y0, x1, y1, b.trace, b.time) <= 0,
  );
}

/** The waveform round an event, without its mean and at unit length; zeros where there is none. */
function shapeAt(traces: Traces, trace: number, time: number, half: number): Float64Array {
  const k = (time - traces.first) / traces.step;
  const n = Math.max(2, Math.round(half / traces.step));
  const out = Float64Array.from({ length: 2 * n + 1 }, (_, m) => sampleAt(traces, trace, k + m - n));
  if (out.some(Number.isNaN)) return out.fill(0);
  const mean = out.reduce((s, v) => s + v, 0) / out.length;
  let square = 0;
  for (let m = 0; m < out.length; m++) {
    out[m] -= mean;
    square += out[m] * out[m];
  }
  const length = Math.sqrt(square);
  if (length === 0) return out;
  for (let m = 0; m < out.length; m++) out[m] /= length;
  return out;
}

/**
 * The best path of one event between two places on a section: of all chains of events in the corridor the one whose events
 * are as strong as those at its ends, whose waveforms are alike from trace to trace, and which bends little (Viterbi 1967, IEEE Trans. Inf. Theory
 * 13, 260–269). Where faults stand between the ends it leads from each end to the fault.
 * @returns a place on every trace that it passes, both ends among them as they were given, from left to right; traces that it
 * leaps are filled along a straight line, traces behind a wall are left out
 */
export function followEvent(traces: Traces, from: OnSection, to: OnSection, options: FollowOptions): OnSection[] {
  const [left, right] = from[0] <= to[0] ? [from, to] : [to, from];
  const [t0, t1] = [Math.round(left[0]), Math.round(right[0])];
  if (t1 <= t0) return [left];
  const columns: Node[][] = [];
  const node = (trace: number, time: number, strength: number): Node => ({
    trace,
    time,
    strength,
    shape: shapeAt(traces, trace, time, options.halfWindow),
    cost: Number.POSITIVE_INFINITY,
    before: null,
  });
  for (let t = t0; t <= t1; t++) {
    const middle = left[1] + ((right[1] - left[1]) * (t - t0)) / (t1 - t0);
    const events =
      t === t0 || t === t1
        ? [{ time: t === t0 ? left[1] : right[1], strength: 0 }]
        : pickableIn(traces, t, options.event, middle - options.corridor, middle + options.corridor);
    columns.push(events.map(({ time, strength }) => node(t, time, strength)));
  }
  // an event as strong as that which was picked is sought, not the strongest
  const picked = [left, right].flatMap(([t, time]) =>
    pickableIn(traces, Math.round(t), options.event, time - 2 * traces.step, time + 2 * traces.step).slice(0, 1),
  );
  const usual = picked.reduce((s, e) => s + e.strength, 0) / picked.length || 1;
  const unlike = (strength: number) => Math.min(2, Math.abs(Math.log((strength || 1e-9) / usual)));
  const slope = (right[1] - left[1]) / (t1 - t0);

  /** Costs of the best chains from the first of some columns to every node, and their last nodes. */
  const reach = (all: Node[][], turn: 1 | -1): Node[] => {
    for (const n of all.flat()) [n.cost, n.before] = [Number.POSITIVE_INFINITY, null];
    all[0][0].cost = 0;
    for (let c = 1; c < all.length; c++)
      for (const n of all[c])
        for (let leap = 1; leap <= Math.min(LEAP, c); leap++)
          for (const b of all[c - leap]) {
            if (b.cost === Number.POSITIVE_INFINITY) continue;
            const [l, r] = turn === 1 ? [b, n] : [n, b];
            if (options.walls.length > 0 && walled(l, r, options.walls)) continue;
            let like = 0;
            for (let m = 0; m < n.shape.length; m++) like += n.shape[m] * b.shape[m];
            const off = (r.time - l.time - slope * leap) / options.jump;
            const cost = b.cost + (1 - like) + (off * off) / leap + 0.5 * unlike(n.strength) + 1.5 * (leap - 1);
            if (cost < n.cost) [n.cost, n.before] = [cost, b];
          }
    return all.findLast((column) => column.some((n) => n.cost < Number.POSITIVE_INFINITY)) ?? [];
  };
  const chain = (last: Node[]): OnSection[] => {
    const out: OnSection[] = [];
    let at: Node | null = last.reduce<Node | null>((a, n) => (!a || n.cost < a.cost ? n : a), null);
    for (; at; at = at.before) out.push([at.trace, at.time]);
    return out;
  };
  const whole = chain(reach(columns, 1)).reverse();
  if (whole[whole.length - 1][0] === t1) return filled(whole);
  // what lies behind the wall is reached from the other end
  const back = chain(reach([...columns].reverse(), -1));
  return [...filled(whole), ...filled(back.filter(([t]) => t > whole[whole.length - 1][0]))];
}

/** A chain of places with those of the traces that it leaps. */
function filled(chain: OnSection[]): OnSection[] {
  return chain.flatMap(([t, time], n): OnSection[] => {
    const next = chain[n + 1];
    if (!next) return [[t, time]];
    return Array.from({ length: next[0] - t }, (_, k) => [t + k, time + ((next[1] - time) * k) / (next[0] - t)]);
  });
}
