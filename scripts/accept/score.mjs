// What a measure comes to: its rows, and the musts that are held against several of them.

/** One measured figure of a seed. */
export const row = (part, measure, seed, value, unit) => ({ part, measure, seed, value, unit });

export function median(values) {
  const sorted = [...values].sort((a, b) => a - b);
  const n = sorted.length >> 1;
  return sorted.length % 2 ? sorted[n] : 0.5 * (sorted[n - 1] + sorted[n]);
}

export const worst = (values) => values.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a), 0);

/** A must over the seeds that were run: `at most` or `at least` a bound. */
export const must = (part, measure, value, unit, sense, bound) => ({
  part,
  measure,
  seed: null,
  value,
  unit,
  must: `${sense} ${bound}`,
  pass: Number.isFinite(value) && (sense === 'at most' ? value <= bound : value >= bound),
});
