/** Value a part `f` of the way from `b` to `c`, by the cubic through even values `a`, `b`, `c`, `d` (Catmull & Rom 1974). */
export function cubicBetween(a: number, b: number, c: number, d: number, f: number): number {
  return b + 0.5 * f * (c - a + f * (2 * a - 5 * b + 4 * c - d + f * (3 * (b - c) + d - a)));
}
