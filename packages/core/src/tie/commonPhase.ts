/** What one well says of a wavelet's phase: the log likelihood of each, degrees, on a grid that all wells share. */
export interface WellPhase {
  well: string;
  deg: number[];
  log: number[];
}

export interface CommonPhase {
  deg: number;
  /** 90 % half width, degrees. */
  halfDeg: number;
  wells: {
    well: string;
    /** Its own likeliest phase. */
    deg: number;
    /** By how much the common phase is less likely to it: twice the loss of log likelihood, as chi-square of one degree. */
    loss: number;
  }[];
}

/** Chi-square of one degree of freedom that one in twenty exceeds. */
export const DISAGREES = 3.84;

/** Value, by a parabola, of the highest of even entries, and where it lies. */
function peak(deg: number[], log: number[]): number {
  const top = log.indexOf(Math.max(...log));
  if (top === 0 || top === log.length - 1) return deg[top];
  const [a, b, c] = [log[top - 1], log[top], log[top + 1]];
  const bend = a - 2 * b + c;
  return deg[top] + (bend < 0 ? ((0.5 * (a - c)) / bend) * (deg[1] - deg[0]) : 0);
}

/**
 * One phase for the wavelet of several wells: the wells are independent witnesses, so their log likelihoods add up; wells
 * that know it better count for more.
 */
export function commonPhase(wells: WellPhase[]): CommonPhase {
  const { deg } = wells[0];
  const sum = deg.map((_, n) => wells.reduce((s, w) => s + w.log[n], 0));
  const found = peak(deg, sum);
  const most = Math.max(...sum);
  const weights = sum.map((v) => Math.exp(v - most));
  const whole = weights.reduce((a, b) => a + b, 0);
  const spread = Math.sqrt(weights.reduce((s, w, n) => s + w * (deg[n] - found) ** 2, 0) / whole);
  const at = (log: number[]) => {
    const x = (found - deg[0]) / (deg[1] - deg[0]);
    const n = Math.min(deg.length - 2, Math.max(0, Math.floor(x)));
    return log[n] + (x - n) * (log[n + 1] - log[n]);
  };
  return {
    deg: found,
    halfDeg: 1.645 * spread,
    wells: wells.map(({ well, log }) => ({ well, deg: peak(deg, log), loss: 2 * (Math.max(...log) - at(log)) })),
  };
}
