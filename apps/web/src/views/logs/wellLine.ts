import type { Well } from '@lithagon/core';

type Place = Pick<Well, 'x' | 'y'>;

const apart = (a: Place, b: Place) => Math.hypot(a.x - b.x, a.y - b.y);

/**
 * Where a well goes into a line of wells so that the line grows least: before the well of this index, or at the end. Of
 * places that are equally good the last is taken.
 */
export function placeInLine(line: Place[], well: Place): number {
  const grows = (at: number) => {
    const [before, after] = [line[at - 1], line[at]];
    if (!before || !after) return apart(before ?? after ?? well, well);
    return apart(before, well) + apart(well, after) - apart(before, after);
  };
  let best = line.length;
  for (let at = line.length - 1; at >= 0; at--) if (grows(at) < grows(best)) best = at;
  return best;
}

/** Ids of a line of wells with one more in its place. */
export function withWell(ids: string[], wells: Well[], id: string): string[] {
  const placed = ids.filter((one) => one !== id);
  const of = (one: string) => wells.find((w) => w.id === one);
  const well = of(id);
  const line = placed.map(of);
  // a line with a well that is gone has no places to compare
  if (!well || line.some((w) => !w)) return [...placed, id];
  return placed.toSpliced(placeInLine(line as Well[], well), 0, id);
}
