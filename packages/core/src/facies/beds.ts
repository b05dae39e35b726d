/**
 * Classes down a well with no bed thinner than a least number of samples: of all such successions the one with the
 * greatest sum of log probabilities, by dynamic programming over class and the length of the bed so far.
 * @param probabilities `[sample][class]`; NaN where nothing is known, which ends a bed
 */
export function bedded(probabilities: Float64Array, classes: number, least: number): Int32Array {
  const count = probabilities.length / classes;
  const out = new Int32Array(count).fill(-1);
  for (let from = 0; from < count; ) {
    if (Number.isNaN(probabilities[from * classes])) {
      from++;
      continue;
    }
    let to = from;
    while (to < count && !Number.isNaN(probabilities[to * classes])) to++;
    run(probabilities, classes, Math.max(1, Math.min(least, to - from)), from, to, out);
    from = to;
  }
  return out;
}

function run(p: Float64Array, classes: number, least: number, from: number, to: number, out: Int32Array): void {
  const length = to - from;
  // sums[c][n]: log probability of class c over the first n samples
  const sums = Array.from({ length: classes }, () => new Float64Array(length + 1));
  for (let c = 0; c < classes; c++)
    for (let n = 0; n < length; n++)
      sums[c][n + 1] = sums[c][n] + Math.log(Math.max(1e-9, p[(from + n) * classes + c]));
  // best[c][n]: best score of the first n samples with a bed of class c, long enough, ending at n
  const none = Number.NEGATIVE_INFINITY;
  const best = Array.from({ length: classes }, () => new Float64Array(length + 1).fill(none));
  const began = Array.from({ length: classes }, () => new Int32Array(length + 1));
  const top = new Float64Array(length + 1).fill(none);
  const topClass = new Int32Array(length + 1);
  top[0] = 0;
  for (let n = least; n <= length; n++) {
    for (let c = 0; c < classes; c++) {
      // a new bed of the least length, or one sample more on the bed before
      const fresh = top[n - least] + sums[c][n] - sums[c][n - least];
      const longer = best[c][n - 1] + sums[c][n] - sums[c][n - 1];
      best[c][n] = Math.max(fresh, longer);
      began[c][n] = longer > fresh ? began[c][n - 1] : n - least;
      if (best[c][n] > top[n]) {
        top[n] = best[c][n];
        topClass[n] = c;
      }
    }
  }
  for (let n = length; n > 0; ) {
    const c = topClass[n];
    const start = began[c][n];
    out.fill(c, from + start, from + n);
    n = start;
  }
}

/** Succession of classes as intervals of sample indexes, `to` exclusive; −1 is no class and no interval. */
export function intervals(classes: Int32Array): { from: number; to: number; class: number }[] {
  const out: { from: number; to: number; class: number }[] = [];
  for (let n = 0; n < classes.length; n++) {
    const last = out.at(-1);
    if (last && last.to === n && last.class === classes[n]) last.to = n + 1;
    else if (classes[n] >= 0) out.push({ from: n, to: n + 1, class: classes[n] });
  }
  return out;
}
