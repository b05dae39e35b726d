import { depthAfter, type LinearVelocity, timeBetween } from './layer.ts';

/** One place of a layered earth: TWT (ms) and depth (m) of the boundaries from the sea bed down, a law for each layer. */
export interface LayeredColumn {
  waterVelocity: number;
  t: number[];
  z: number[];
  laws: LinearVelocity[];
}

/**
 * Depths of boundaries from their times, layer by layer; boundaries that cross leave no layer between them.
 * @param times TWT of the bases, one a law, from the top down
 */
export function columnOf(
  seaBedM: number,
  waterVelocity: number,
  times: number[],
  laws: LinearVelocity[],
): LayeredColumn {
  const t = [(2000 * seaBedM) / waterVelocity];
  const z = [seaBedM];
  for (let n = 0; n < laws.length; n++) {
    z.push(depthAfter(laws[n], z[n], Math.max(0, times[n] - t[n])));
    t.push(Math.max(t[n], times[n]));
  }
  return { waterVelocity, t, z, laws };
}

/** TWT of a depth; below the last boundary the last layer goes on. */
export function timeOfDepth(column: LayeredColumn, depth: number): number {
  const { t, z, laws } = column;
  if (depth <= z[0]) return (2000 * depth) / column.waterVelocity;
  let n = 0;
  while (n < laws.length - 1 && depth > z[n + 1]) n++;
  return t[n] + timeBetween(laws[n], z[n], depth);
}

/** Depth of a TWT; below the last boundary the last layer goes on. */
export function depthOfTime(column: LayeredColumn, twt: number): number {
  const { t, z, laws } = column;
  if (twt <= t[0]) return (twt * column.waterVelocity) / 2000;
  let n = 0;
  while (n < laws.length - 1 && twt > t[n + 1]) n++;
  return depthAfter(laws[n], z[n], twt - t[n]);
}
