import { depthAfter, type LinearVelocity, timeBetween } from './layer.ts';

/** What lies above the layers: times begin at a datum, from there to the sea with a replacement velocity, then with water's. */
export interface Above {
  waterVelocity: number;
  /** m above mean sea level; 0 where not given. */
  datumM?: number;
  /** m/s; that of water where not given. */
  replacementVelocity?: number;
}

/** TWT (ms) of a depth (m below the sea, negative above it) where nothing but water or replacement lies above. */
export function timeAbove(
  { waterVelocity, datumM = 0, replacementVelocity = waterVelocity }: Above,
  depth: number,
): number {
  const fromSea = (z: number) => (2000 * z) / (z < 0 ? replacementVelocity : waterVelocity);
  return fromSea(depth) - fromSea(-datumM);
}

/** Depth of a TWT there. */
export function depthAbove(above: Above, twt: number): number {
  const { waterVelocity, replacementVelocity = waterVelocity } = above;
  const beyond = twt - timeAbove(above, 0);
  return (beyond * (beyond < 0 ? replacementVelocity : waterVelocity)) / 2000;
}

/** One place of a layered earth: TWT (ms) and depth (m) of the boundaries from the sea bed down, a law for each layer. */
export interface LayeredColumn {
  above: Above;
  t: number[];
  z: number[];
  laws: LinearVelocity[];
}

/**
 * Depths of boundaries from their times, layer by layer; boundaries that cross leave no layer between them.
 * @param times TWT of the bases, one a law, from the top down
 */
export function columnOf(seaBedM: number, above: Above, times: number[], laws: LinearVelocity[]): LayeredColumn {
  const t = [timeAbove(above, seaBedM)];
  const z = [seaBedM];
  for (let n = 0; n < laws.length; n++) {
    z.push(depthAfter(laws[n], z[n], Math.max(0, times[n] - t[n])));
    t.push(Math.max(t[n], times[n]));
  }
  return { above, t, z, laws };
}

/** TWT of a depth; below the last boundary the last layer goes on. */
export function timeOfDepth(column: LayeredColumn, depth: number): number {
  const { t, z, laws } = column;
  if (depth <= z[0]) return timeAbove(column.above, depth);
  let n = 0;
  while (n < laws.length - 1 && depth > z[n + 1]) n++;
  return t[n] + timeBetween(laws[n], z[n], depth);
}

/** Depth of a TWT; below the last boundary the last layer goes on. */
export function depthOfTime(column: LayeredColumn, twt: number): number {
  const { t, z, laws } = column;
  if (twt <= t[0]) return depthAbove(column.above, twt);
  let n = 0;
  while (n < laws.length - 1 && twt > t[n + 1]) n++;
  return depthAfter(laws[n], z[n], twt - t[n]);
}
