/** Pairs of depth and two-way time down a well, both rising. */
export interface TimeDepth {
  /** Depth below mean sea level, metres. */
  tvdss: Float64Array;
  /** Two-way time below the seismic datum, ms. */
  twt: Float64Array;
}

/** A depth below mean sea level (m) and the time that belongs to it (ms). */
export interface TimedDepth {
  tvdss: number;
  twt: number;
}

/** Where times begin that are counted from the sea. */
export const AT_SEA: TimedDepth[] = [{ tvdss: 0, twt: 0 }];

/**
 * Where the times of a well begin: at no time at the seismic datum, and from there with the replacement velocity to the
 * kelly bushing, where the well begins below the datum.
 * @param datumM elevation of the datum above mean sea level, m; @param replacementVelocity m/s
 */
export function startOf(datumM: number, replacementVelocity: number, kbM: number | undefined): TimedDepth[] {
  const start = [{ tvdss: -datumM, twt: 0 }];
  if (kbM !== undefined && kbM < datumM && replacementVelocity > 0)
    start.push({ tvdss: -kbM, twt: (2000 * (datumM - kbM)) / replacementVelocity });
  return start;
}

/**
 * A relation from checkshots: sorted by depth, beginning at the datum; pairs whose time does not rise are left out. Null
 * where fewer than two remain.
 */
export function fromCheckshots(rows: TimedDepth[], start = AT_SEA): TimeDepth | null {
  const sorted = rows.filter((r) => r.twt > 0).sort((a, b) => a.tvdss - b.tvdss);
  const kept = [...start];
  for (const row of sorted) {
    const last = kept[kept.length - 1];
    if (row.tvdss > last.tvdss && row.twt > last.twt) kept.push(row);
  }
  if (kept.length < start.length + 2) return null;
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
