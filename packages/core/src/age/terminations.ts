/** How reflections end, by number from 1. */
export const LAPS = ['onlap', 'downlap', 'toplap', 'truncation'] as const;

/**
 * Where ages of a trace jump, or are drawn together: places half way between two samples where they rise by more than `gap`, each the
 * greatest rise among those next to it.
 */
export function jumpsOf(ages: ArrayLike<number>, from: number, count: number, gap: number): number[] {
  const rise = (k: number) => {
    const v = k >= 0 && k + 1 < count ? ages[from + k + 1] - ages[from + k] : Number.NaN;
    return v === v ? v : Number.NEGATIVE_INFINITY;
  };
  const out: number[] = [];
  for (let k = 0; k + 1 < count; k++) {
    const own = rise(k);
    if (own > gap && own >= rise(k - 1) && own > rise(k + 1)) out.push(k + 0.5);
  }
  return out;
}

/** The jump of a trace that is nearest to a place, no further than `reach`; NaN where there is none. */
export function nearestJump(jumps: number[], at: number, reach: number): number {
  let best = Number.NaN;
  for (const k of jumps) if (Math.abs(k - at) <= reach && !(Math.abs(best - at) <= Math.abs(k - at))) best = k;
  return best;
}

/**
 * How beds end at a surface (Mitchum, Vail & Thompson 1977, AAPG Memoir 26, 117–133), from what each drops to the next line and trace.
 * Above a surface they lap onto it up their own dip (onlap) or down it (downlap); below one they end at a low angle (toplap) or are cut
 * (truncation).
 * @param bed, surface drops along the two counts, in one unit
 * @param least angle below which they go along with it; @param steep angle from which what ends below is cut
 * @returns the number of the way from 1; 0 where they go along
 */
export function lapOf(
  bed: [number, number],
  surface: [number, number],
  above: boolean,
  least: number,
  steep: number,
): number {
  const [x, y] = [bed[0] - surface[0], bed[1] - surface[1]];
  const angle = Math.hypot(x, y);
  if (!(angle >= least)) return 0;
  if (!above) return angle >= steep ? 4 : 3;
  // on the way to where it meets the surface beneath, a bed goes down (downlap), or up or level (onlap)
  return bed[0] * x + bed[1] * y > 0.15 * angle * angle && Math.hypot(...bed) > 0.5 * angle ? 2 : 1;
}

/** Jumps that go on from trace to trace, as one surface: samples on the bins, NaN where it is not. */
export interface Gathered {
  at: Float32Array;
  bins: number;
}

/** Surfaces of jumps: grown from trace to trace while they move by no more than `reach` samples; the largest first. */
export function gatherJumps(jumps: number[][], ni: number, nj: number, reach: number, fewest: number): Gathered[] {
  const taken = jumps.map((own) => new Uint8Array(own.length));
  const out: Gathered[] = [];
  for (let start = 0; start < jumps.length; start++)
    for (let m = 0; m < jumps[start].length; m++) {
      if (taken[start][m]) continue;
      taken[start][m] = 1;
      const at = new Float32Array(ni * nj).fill(Number.NaN);
      const left: [number, number][] = [[start, m]];
      let bins = 0;
      for (let next = left.pop(); next; next = left.pop()) {
        const [t, own] = next;
        // of two jumps of one trace the first that is met belongs to it
        if (at[t] === at[t]) continue;
        at[t] = jumps[t][own];
        bins++;
        const [i, j] = [Math.floor(t / nj), t % nj];
        for (const [di, dj] of [
          [1, 0],
          [-1, 0],
          [0, 1],
          [0, -1],
        ]) {
          if (i + di < 0 || j + dj < 0 || i + di >= ni || j + dj >= nj) continue;
          const to = (i + di) * nj + j + dj;
          if (at[to] === at[to]) continue;
          let [best, far] = [-1, reach];
          for (const [q, k] of jumps[to].entries())
            if (!taken[to][q] && Math.abs(k - at[t]) <= far) [best, far] = [q, Math.abs(k - at[t])];
          if (best < 0) continue;
          taken[to][best] = 1;
          left.push([to, best]);
        }
      }
      if (bins >= fewest) out.push({ at, bins });
    }
  return out.sort((a, b) => b.bins - a.bins);
}
