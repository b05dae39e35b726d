import { type BinGrid, toIndex, toMap } from '../earth/binGrid.ts';

/** Where maps of a model have their values: bins, or traces of a 2D line. */
export type Nodes = { binGrid: BinGrid } | { path: [number, number][] };

export const countOf = (nodes: Nodes): number =>
  'path' in nodes ? nodes.path.length : nodes.binGrid.inline.count * nodes.binGrid.crossline.count;

/** Where nodes lie on the map. */
export const placesOf = (nodes: Nodes): [number, number][] =>
  'path' in nodes
    ? nodes.path
    : Array.from({ length: countOf(nodes) }, (_, n) => {
        const columns = nodes.binGrid.crossline.count;
        return toMap(nodes.binGrid, Math.floor(n / columns), n % columns);
      });

/** A place between nodes: their numbers and parts. */
export interface Between {
  nodes: number[];
  parts: number[];
}

/** How far beyond its last bin a map is held, in bins, and beside its traces a 2D line, in distances between them. */
const BEYOND = 1.01;
const BESIDE = 2;

/** Weights of the bins around a place; null outside. */
function amongBins({ inline, crossline, ...binGrid }: BinGrid, x: number, y: number): Between | null {
  const [rows, columns] = [inline.count, crossline.count];
  const [i, j] = toIndex({ inline, crossline, ...binGrid }, x, y);
  if (!(i >= -BEYOND && j >= -BEYOND && i <= rows - 1 + BEYOND && j <= columns - 1 + BEYOND)) return null;
  const side = (p: number, count: number): [number, number, number] => {
    const held = Math.max(0, Math.min(count - 1, p));
    const low = Math.min(Math.max(0, count - 2), Math.floor(held));
    return [low, Math.min(count - 1, low + 1), held - low];
  };
  const [a, b, f] = side(i, rows);
  const [c, d, g] = side(j, columns);
  return {
    nodes: [a * columns + c, a * columns + d, b * columns + c, b * columns + d],
    parts: [(1 - f) * (1 - g), (1 - f) * g, f * (1 - g), f * g],
  };
}

/** Trace of a path nearest to a place, between traces, and how far off that is. */
export function nearestOnPath(path: [number, number][], x: number, y: number): { trace: number; off: number } {
  let best = { trace: 0, off: Math.hypot(x - path[0][0], y - path[0][1]) };
  for (let n = 0; n + 1 < path.length; n++) {
    const [dx, dy] = [path[n + 1][0] - path[n][0], path[n + 1][1] - path[n][1]];
    const length = dx * dx + dy * dy;
    const f = length > 0 ? Math.max(0, Math.min(1, ((x - path[n][0]) * dx + (y - path[n][1]) * dy) / length)) : 0;
    const off = Math.hypot(x - path[n][0] - f * dx, y - path[n][1] - f * dy);
    if (off < best.off) best = { trace: n + f, off };
  }
  return best;
}

/** Weights of the nodes around a place; null where the maps do not reach. */
export function between(nodes: Nodes, x: number, y: number): Between | null {
  if ('binGrid' in nodes) return amongBins(nodes.binGrid, x, y);
  const { path } = nodes;
  const { trace, off } = nearestOnPath(path, x, y);
  const n = Math.min(Math.max(0, path.length - 2), Math.floor(trace));
  const m = Math.min(path.length - 1, n + 1);
  const apart = Math.hypot(path[m][0] - path[n][0], path[m][1] - path[n][1]);
  if (off > BESIDE * apart + 1e-6) return null;
  return { nodes: [n, m], parts: [1 - (trace - n), trace - n] };
}

/** Value of a map at a place between its nodes; those that are not there do not count, NaN where none is. */
export function valueAmong(values: ArrayLike<number>, { nodes, parts }: Between): number {
  let [sum, total] = [0, 0];
  for (let n = 0; n < nodes.length; n++) {
    const v = values[nodes[n]];
    if (parts[n] === 0 || Number.isNaN(v)) continue;
    sum += parts[n] * v;
    total += parts[n];
  }
  return total > 0 ? sum / total : Number.NaN;
}

/** A map at other nodes; NaN where it does not reach. */
export function onNodes(values: Float32Array, from: Nodes, to: Nodes): Float32Array {
  return Float32Array.from(placesOf(to), ([x, y]) => {
    const at = between(from, x, y);
    return at ? valueAmong(values, at) : Number.NaN;
  });
}
