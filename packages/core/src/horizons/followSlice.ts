import { MaxHeap } from '../numerics/heap.ts';
import type { PickEvent } from './pick.ts';

/** A bin, by its indexes along inlines and crosslines. */
export type Bin = [i: number, j: number];

/** A piece of wall between two places, in fractional bins. */
export type Wall = [i0: number, j0: number, i1: number, j1: number];

export interface Slice {
  /** Samples of one time, `rows · columns`, crosslines side by side; NaN where there are none. */
  values: Float32Array;
  rows: number;
  columns: number;
}

/** What a bin costs beyond its length where the event is as plain as it gets, and where there is none of it. */
const [LEAST, MOST] = [0.06, 1];

/** How far round the straight line a path may lead, as a part of its length, and at least, bins. */
const ROUND = { part: 0.5, least: 16 };

const NEIGHBOURS: Bin[] = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [1, -1],
  [-1, 1],
  [-1, -1],
];

const side = (a: Bin, b: Bin, p: Bin) => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);

/** Whether a wall stands between two places of a slice. */
export function walledOff(from: Bin, to: Bin, walls: Wall[]): boolean {
  return walls.some(([i0, j0, i1, j1]) => {
    if (Math.max(i0, i1) < Math.min(from[0], to[0]) || Math.min(i0, i1) > Math.max(from[0], to[0])) return false;
    if (Math.max(j0, j1) < Math.min(from[1], to[1]) || Math.min(j0, j1) > Math.max(from[1], to[1])) return false;
    return (
      side(from, to, [i0, j0]) * side(from, to, [i1, j1]) <= 0 &&
      side([i0, j0], [i1, j1], from) * side([i0, j0], [i1, j1], to) <= 0
    );
  });
}

/** How little of an event the samples of a slice show, from 0 where it is as strong as where it was picked to 1. */
function lackOf(
  { values, rows, columns }: Slice,
  event: PickEvent,
  from: Bin,
  to: Bin,
): (i: number, j: number) => number {
  const at = (i: number, j: number) =>
    i < 0 || j < 0 || i >= rows || j >= columns ? Number.NaN : values[i * columns + j];
  if (event === 'zero rising' || event === 'zero falling')
    return (i, j) => {
      const v = at(i, j);
      if (Number.isNaN(v)) return v;
      // how much of the way to a neighbour of the other sign its zero lies
      const ways = [at(i + 1, j), at(i - 1, j), at(i, j + 1), at(i, j - 1)]
        .filter((n) => n * v < 0)
        .map((n) => Math.abs(v) / (Math.abs(v) + Math.abs(n)));
      return v === 0 ? 0 : Math.min(1, ...ways);
    };
  const sought = {
    peak: at,
    trough: (i: number, j: number) => -at(i, j),
    envelope: (i: number, j: number) => Math.abs(at(i, j)),
    'largest gradient': (i: number, j: number) => Math.hypot(at(i + 1, j) - at(i - 1, j), at(i, j + 1) - at(i, j - 1)),
  }[event];
  const strong = [from, to].map(([i, j]) => sought(i, j)).filter((v) => v > 0);
  const usual = strong.reduce((s, v) => s + v, 0) / strong.length || 1;
  return (i, j) => {
    const v = sought(i, j);
    return Number.isNaN(v) ? Number.NaN : 1 - Math.max(0, Math.min(1, v / usual));
  };
}

/**
 * The path between two bins of a slice along which an event is plainest: the least sum of length times lack of the event (Dijkstra
 * 1959, Numerische Mathematik 1, 269–271). Walls are not passed; bins without samples neither.
 * @returns bins from one to the other, both included; null where no path leads there
 */
export function followOnSlice(slice: Slice, event: PickEvent, from: Bin, to: Bin, walls: Wall[] = []): Bin[] | null {
  const { rows, columns } = slice;
  const round = Math.max(ROUND.least, ROUND.part * Math.hypot(to[0] - from[0], to[1] - from[1]));
  const i0 = Math.max(0, Math.floor(Math.min(from[0], to[0]) - round));
  const i1 = Math.min(rows - 1, Math.ceil(Math.max(from[0], to[0]) + round));
  const j0 = Math.max(0, Math.floor(Math.min(from[1], to[1]) - round));
  const j1 = Math.min(columns - 1, Math.ceil(Math.max(from[1], to[1]) + round));
  const wide = j1 - j0 + 1;
  const id = ([i, j]: Bin) => (i - i0) * wide + (j - j0);
  const near = walls.filter(
    (w) =>
      Math.max(w[0], w[2]) >= i0 &&
      Math.min(w[0], w[2]) <= i1 &&
      Math.max(w[1], w[3]) >= j0 &&
      Math.min(w[1], w[3]) <= j1,
  );
  const lack = lackOf(slice, event, from, to);
  const cost = new Float64Array((i1 - i0 + 1) * wide).fill(Number.POSITIVE_INFINITY);
  const before = new Int32Array(cost.length).fill(-1);
  const done = new Uint8Array(cost.length);
  const heap = new MaxHeap();
  cost[id(from)] = 0;
  heap.push(0, id(from));
  while (heap.size > 0) {
    const here = heap.pop();
    if (done[here]) continue;
    done[here] = 1;
    if (here === id(to)) break;
    const [i, j] = [i0 + Math.floor(here / wide), j0 + (here % wide)];
    for (const [di, dj] of NEIGHBOURS) {
      const next: Bin = [i + di, j + dj];
      if (next[0] < i0 || next[0] > i1 || next[1] < j0 || next[1] > j1 || done[id(next)]) continue;
      const bad = lack(...next);
      if (Number.isNaN(bad) || (near.length > 0 && walledOff([i, j], next, near))) continue;
      const far = cost[here] + Math.hypot(di, dj) * (LEAST + (MOST - LEAST) * bad);
      if (far >= cost[id(next)]) continue;
      cost[id(next)] = far;
      before[id(next)] = here;
      heap.push(-far, id(next));
    }
  }
  if (!Number.isFinite(cost[id(to)])) return null;
  const path: Bin[] = [];
  for (let n = id(to); n >= 0; n = before[n]) path.push([i0 + Math.floor(n / wide), j0 + (n % wide)]);
  return path.reverse();
}
