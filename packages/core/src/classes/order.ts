import { squareTo } from './kinds.ts';

/**
 * An order of classes in which neighbours look alike: the shortest way through all centres, from the nearest neighbour of each and bettered
 * by turning parts round while that shortens it (2-opt, Croes 1958, Operations Research 6, 791–812).
 * @returns numbers of the centres in their new order
 */
export function orderOfCentres(centres: Float64Array, d: number): number[] {
  const k = centres.length / d;
  const far = (a: number, b: number) =>
    Math.sqrt(squareTo(Float32Array.from(centres.subarray(a * d, (a + 1) * d)), 0, centres, b * d, d));
  const between = Array.from({ length: k }, (_, a) => Array.from({ length: k }, (__, b) => far(a, b)));
  const lengthOf = (way: number[]) => way.slice(1).reduce((s, c, n) => s + between[way[n]][c], 0);
  let best: number[] = [];
  for (let begin = 0; begin < k; begin++) {
    let way = [begin];
    const left = new Set(Array.from({ length: k }, (_, n) => n).filter((n) => n !== begin));
    while (left.size > 0) {
      const last = way[way.length - 1];
      const next = [...left].reduce((a, b) => (between[last][b] < between[last][a] ? b : a));
      way.push(next);
      left.delete(next);
    }
    for (let turned = true; turned; ) {
      turned = false;
      for (let a = 0; a < k - 1; a++)
        for (let b = a + 1; b < k; b++) {
          const other = [...way.slice(0, a), ...way.slice(a, b + 1).reverse(), ...way.slice(b + 1)];
          if (lengthOf(other) < lengthOf(way) - 1e-12) {
            way = other;
            turned = true;
          }
        }
    }
    if (best.length === 0 || lengthOf(way) < lengthOf(best) - 1e-12) best = way;
  }
  // of both directions that in which the centre of lesser sum comes first
  const sum = (c: number) => centres.subarray(c * d, (c + 1) * d).reduce((s, v) => s + v, 0);
  return sum(best[0]) <= sum(best[k - 1]) ? best : best.reverse();
}

/** How far two ways of parting the same points agree, one where they do and about nought by chance (Hubert & Arabie 1985, J. Classification 2, 193–218). */
export function randIndex(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const pairs = (n: number) => (n * (n - 1)) / 2;
  const [table, rows, columns] = [new Map<string, number>(), new Map<number, number>(), new Map<number, number>()];
  for (let n = 0; n < a.length; n++) {
    const key = `${a[n]} ${b[n]}`;
    table.set(key, (table.get(key) ?? 0) + 1);
    rows.set(a[n], (rows.get(a[n]) ?? 0) + 1);
    columns.set(b[n], (columns.get(b[n]) ?? 0) + 1);
  }
  const sum = (counts: Iterable<number>) => [...counts].reduce((s, v) => s + pairs(v), 0);
  const [both, first, second] = [sum(table.values()), sum(rows.values()), sum(columns.values())];
  const chance = (first * second) / pairs(a.length);
  const most = (first + second) / 2;
  return most === chance ? 1 : (both - chance) / (most - chance);
}
