import { MaxHeap } from '../numerics/heap.ts';

/** A closure of a surface in depth: its highest place, and where what fills it would run out. */
export interface Closure {
  /** Bin of the highest place, and its depth, m. */
  crest: number;
  crestM: number;
  /** Bin over which it spills, and its depth. */
  spill: number;
  spillM: number;
  /** Bins above the spill that hang together with the crest. */
  bins: number;
  /** What lies beyond the spill: another high, or the end of what is known. */
  beyond: 'a higher place' | 'the edge of the surface';
}

/**
 * The closure of a surface around its highest place: the least deep way out, found by flooding from there in order of depth
 * (Barnes et al. 2014, Computers & Geosciences 62, 117–127). A bin at the edge or beside one without a depth is a way out.
 * @param depth `[inline][crossline]`, m; @param from bins among which the highest is sought; all where left out
 */
export function closureOf(
  depth: ArrayLike<number>,
  rows: number,
  columns: number,
  from?: (bin: number) => boolean,
): Closure | null {
  let crest = -1;
  for (let n = 0; n < rows * columns; n++)
    if (depth[n] === depth[n] && (!from || from(n)) && (crest < 0 || depth[n] < depth[crest])) crest = n;
  if (crest < 0) return null;
  const seen = new Uint8Array(rows * columns);
  const heap = new MaxHeap();
  heap.push(-depth[crest], crest);
  seen[crest] = 1;
  let spill = crest;
  const inside: number[] = [];
  const result = (beyond: Closure['beyond']): Closure => ({
    crest,
    crestM: depth[crest],
    spill,
    spillM: depth[spill],
    bins: inside.filter((n) => depth[n] < depth[spill]).length,
    beyond,
  });
  for (let at = heap.pop(); at >= 0; at = heap.pop()) {
    if (depth[at] > depth[spill]) spill = at;
    // below the crest itself lies nothing but the way to another
    if (depth[at] < depth[crest]) return result('a higher place');
    inside.push(at);
    const [i, j] = [Math.floor(at / columns), at % columns];
    for (const [di, dj] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ]) {
      const [a, b] = [i + di, j + dj];
      const next = a * columns + b;
      if (a < 0 || b < 0 || a >= rows || b >= columns || Number.isNaN(depth[next]))
        return result('the edge of the surface');
      if (seen[next]) continue;
      seen[next] = 1;
      heap.push(-depth[next], next);
    }
  }
  return result('the edge of the surface');
}
