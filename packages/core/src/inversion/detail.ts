/** How much the rock varies beyond a low-frequency background, and how alike samples of a trace are: by lag, none being one. */
export interface Detail {
  /** Standard deviation of the logarithm. */
  deviation: number;
  correlation: Float64Array;
}

/** Longest lag at which samples are alike, ms. */
const LONGEST_MS = 140;

/**
 * Spread and autocorrelation of logs less their low frequencies, over all wells; lags are tapered so that no spectrum is negative (Parzen
 * 1961, Technometrics 3, 167–190).
 * @param logs samples of each well at even steps, NaN where there are none
 */
export function detailOf(logs: Float64Array[], stepMs: number): Detail | null {
  const lags = Math.max(4, Math.round(LONGEST_MS / stepMs));
  const sums = new Float64Array(lags);
  const counts = new Float64Array(lags);
  for (const log of logs)
    for (let k = 0; k < log.length; k++)
      for (let lag = 0; lag < lags && k + lag < log.length; lag++) {
        const v = log[k] * log[k + lag];
        if (v !== v) continue;
        sums[lag] += v;
        counts[lag]++;
      }
  if (counts[0] < 20 || !(sums[0] > 0)) return null;
  const variance = sums[0] / counts[0];
  return {
    deviation: Math.sqrt(variance),
    correlation: sums.map((s, lag) => {
      const x = lag / lags;
      const window = x <= 0.5 ? 1 - 6 * x * x * (1 - x) : 2 * (1 - x) ** 3;
      return (window * s) / Math.max(1, counts[0]) / variance;
    }),
  };
}

/** Covariance by lag of what is smooth: a Gaussian of a low-pass. */
export const smoothCorrelation = (lagMs: number, cutHz: number): number =>
  Math.exp(-0.5 * ((lagMs * cutHz) / 500) ** 2);
