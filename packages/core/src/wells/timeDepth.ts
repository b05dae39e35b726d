/** Pairs of depth and two-way time down a well, both rising. */
export interface TimeDepth {
  /** Depth below mean sea level, metres. */
  tvdss: Float64Array;
  /** Two-way time below the seismic datum, ms. */
  twt: Float64Array;
}

/**
 * A relation from checkshots: sorted by depth, beginning at zero time at the datum; pairs whose time does not rise are
 * left out. Null where fewer than two remain.
 */
export function fromCheckshots(rows: { tvdss: number; twt: number }[]): TimeDepth | null {
  const sorted = rows.filter((r) => r.tvdss > 0 && r.twt > 0).sort((a, b) => a.tvdss - b.tvdss);
  const kept = [{ tvdss: 0, twt: 0 }];
  for (const row of sorted) {
    const last = kept[kept.length - 1];
    if (row.tvdss > last.tvdss && row.twt > last.twt) kept.push(row);
  }
  if (kept.length < 3) return null;
  return { tvdss: Float64Array.from(kept, (r) => r.tvdss), twt: Float64Array.from(kept, (r) => r.twt) };
}

/** Interpolate `y` at `x` in rising pairs; straight on beyond the last, NaN above the first. */
function between(x: Float64Array, y: Float64Array, at: number): number {
  if (at < x[0]) return Number.NaN;
  let k = 0;
  while (k < x.length - 2 && x[k + 1] < at) k++;
  return y[k] + ((at - x[k]) * (y[k + 1] - y[k])) / (x[k + 1] - x[k]);
}

export function twtOfDepth(relation: TimeDepth, tvdss: number): number {
  return between(relation.tvdss, relation.twt, tvdss);
}

export function depthOfTwt(relation: TimeDepth, twt: number): number {
  return between(relation.twt, relation.tvdss, twt);
}
