/** Why ages are not valid below a place, by number; the first is where they are valid to the end. */
export const VALID_ENDS = ['to the end of the ages', 'crossed ages', 'low confidence', 'several values'] as const;

export interface ValidSpec {
  /** Misfit to the dips above which an age is not believed, ms or m from a trace to the next. */
  mostMisfit: number;
  /** Samples over which it is looked at, and what part of them may be bad. */
  window: number;
  mostBad: number;
  /** Age of a sample where nothing else is known, and the part of it by which ages that had to be put in order rise. */
  step: number;
  least: number;
}

/**
 * How far down a trace ages are valid: from the first height that is good (above the first reflections nothing is) to the first sample
 * below which, over a window, too many are bad.
 * @param ages, misfit a trace of `count` samples from `from`; NaN where there is none
 * @returns the last valid sample (−1 where none is), and the number of the reason that most of those below it are bad for
 */
export function validDown(
  ages: ArrayLike<number>,
  misfit: ArrayLike<number>,
  from: number,
  count: number,
  { mostMisfit, window, mostBad, step, least }: ValidSpec,
): { last: number; reason: number } {
  const why = new Uint8Array(count);
  let [highest, end] = [Number.NEGATIVE_INFINITY, -1];
  for (let k = 0; k < count; k++) {
    const a = ages[from + k];
    if (a !== a) continue;
    end = k;
    const before = k > 0 ? ages[from + k - 1] : Number.NaN;
    // beds that were met further up are met again
    if (a < highest - 1e-6 * Math.abs(highest)) why[k] = 3;
    else if (a - before < 1.05 * least * step) why[k] = 1;
    else if (misfit[from + k] > mostMisfit) why[k] = 2;
    highest = Math.max(highest, a);
  }
  let [bad, held] = [0, 0];
  const counted = (k: number) => ages[from + k] === ages[from + k];
  for (let k = 0; k < Math.min(window, end + 1); k++) {
    if (!counted(k)) continue;
    held++;
    if (why[k]) bad++;
  }
  const enough = held / 2;
  let begun = false;
  for (let k = 0; k <= end; k++) {
    const tooMany = bad > mostBad * Math.max(held, window / 2);
    if (!tooMany && held > 0 && held >= enough) begun = true;
    if (begun && why[k] && tooMany) {
      const votes = [0, 0, 0, 0];
      for (let n = k; n <= Math.min(end, k + window - 1); n++) votes[why[n]]++;
      return { last: k - 1, reason: [1, 2, 3].reduce((a, b) => (votes[b] > votes[a] ? b : a)) };
    }
    if (counted(k)) {
      held--;
      if (why[k]) bad--;
    }
    const next = k + window;
    if (next <= end && counted(next)) {
      held++;
      if (why[next]) bad++;
    }
  }
  return begun ? { last: end, reason: 0 } : { last: -1, reason: 2 };
}
