/** Least and greatest of any number of values, those that are no numbers left out; ±∞ the wrong way round where there are none. */
export function extentOf(values: Iterable<number>): [min: number, max: number] {
  let [min, max] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const value of values) {
    if (value < min) min = value;
    if (value > max) max = value;
  }
  return [min, max];
}
