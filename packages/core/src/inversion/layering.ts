/**
 * How times correspond between places: the same number stands for the same bed everywhere. It is made of horizons, between which beds
 * keep their part of the thickness, over which and under which they run on.
 */
export interface Layering {
  /** Mean time of each horizon, rising: the number that it has. */
  marks: number[];
}

/** Numbers of horizons by their mean times. */
export function layeringOf(horizons: Float32Array[]): Layering {
  let last = Number.NEGATIVE_INFINITY;
  return {
    marks: horizons.map((values) => {
      let [sum, count] = [0, 0];
      for (const v of values)
        if (v === v) {
          sum += v;
          count++;
        }
      last = Math.max(last + 1e-3, count > 0 ? sum / count : 0);
      return last;
    }),
  };
}

/** Times of the horizons at a place, put in order: one that is not there lies where its neighbours have it, one that crosses is held. @returns how many crossed */
export function inOrder({ marks }: Layering, times: Float64Array): number {
  const n = marks.length;
  let crossed = 0;
  for (let a = 0; a < n; a++) {
    if (times[a] === times[a]) continue;
    let [before, after] = [a - 1, a + 1];
    while (before >= 0 && times[before] !== times[before]) before--;
    while (after < n && times[after] !== times[after]) after++;
    if (before >= 0 && after < n) {
      const f = (marks[a] - marks[before]) / (marks[after] - marks[before]);
      times[a] = times[before] + f * (times[after] - times[before]);
    } else if (before >= 0) times[a] = times[before] + marks[a] - marks[before];
    else if (after < n) times[a] = times[after] - (marks[after] - marks[a]);
    else times[a] = marks[a];
  }
  for (let a = 1; a < n; a++)
    if (times[a] < times[a - 1]) {
      if (times[a] < times[a - 1] - 0.5) crossed++;
      times[a] = times[a - 1];
    }
  return crossed;
}

/** The number of a time at a place whose horizons are in order. */
export function bedAt({ marks }: Layering, times: Float64Array, ms: number): number {
  const last = marks.length - 1;
  if (last < 0) return ms;
  if (ms <= times[0]) return marks[0] - (times[0] - ms);
  if (ms >= times[last]) return marks[last] + (ms - times[last]);
  let n = 0;
  while (times[n + 1] <= ms) n++;
  const thick = times[n + 1] - times[n];
  return marks[n] + (marks[n + 1] - marks[n]) * (thick > 0 ? (ms - times[n]) / thick : 0);
}
