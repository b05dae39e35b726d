/** Even ages, from the youngest. */
export interface AgeAxis {
  first: number;
  step: number;
  count: number;
}

/** Which of several places of one age is taken, above and below a reverse fault. */
export const REPEATS = ['the upper', 'the lower'] as const;
export type Repeat = (typeof REPEATS)[number];

/**
 * Where a trace of ages passes even ages, in samples between its own; NaN where it does not, and where ages jump, which is a hiatus.
 * @param ages a trace of `count` samples from `from`; a fall is a fault, on which no bed lies
 * @param gap rise of age from a sample to the next above which the ages between are missing there
 */
export function placesOfAges(
  ages: ArrayLike<number>,
  from: number,
  count: number,
  { first, step, count: wanted }: AgeAxis,
  repeat: Repeat,
  gap: number,
): Float64Array {
  const out = new Float64Array(wanted).fill(Number.NaN);
  for (let k = 0; k + 1 < count; k++) {
    const [a, b] = [ages[from + k], ages[from + k + 1]];
    const rise = b - a;
    if (!(rise > 0) || rise > gap) continue;
    const to = Math.min(wanted - 1, Math.ceil((b - first) / step) - 1);
    for (let n = Math.max(0, Math.ceil((a - first) / step - 1e-9)); n <= to; n++)
      if (repeat === 'the lower' || Number.isNaN(out[n])) out[n] = k + Math.max(0, (first + n * step - a) / rise);
  }
  return out;
}

/** The ages of an axis that run from the first to the last of a range, by a step. */
export function ageAxis(from: number, to: number, step: number): AgeAxis {
  const first = Math.ceil(from / step - 1e-9) * step;
  return { first, step, count: Math.max(1, Math.floor((to - first) / step + 1e-9) + 1) };
}
