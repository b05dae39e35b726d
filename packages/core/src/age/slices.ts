/** Where a trace of ages passes an age: places between samples, from the top down; a reverse fault gives several. */
export function passesOf(ages: ArrayLike<number>, from: number, count: number, age: number): number[] {
  const out: number[] = [];
  for (let k = 0; k + 1 < count; k++) {
    const [a, b] = [ages[from + k], ages[from + k + 1]];
    // ages rise downwards: a fall is a fault, on which no bed lies
    if (a <= age && b > age) out.push(k + (age - a) / (b - a));
  }
  return out;
}
