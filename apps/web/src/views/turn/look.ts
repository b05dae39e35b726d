import { quantityFacts, rotationWeights, type TurnedPair } from '@lithagon/core';
import type { FieldLook } from '../raster/field';

/** Part of the pairs that lie within the colours. */
const WITHIN = 0.98;

/** Colours of a pair turned by an angle: between the ends that all but a few of its pairs lie within. */
export function lookOfPair({ pairs }: TurnedPair, angleDeg: number): FieldLook {
  const [a, b] = rotationWeights(angleDeg);
  const sizes = pairs.map(([x, y]) => Math.abs(a * x + b * y)).sort((p, q) => p - q);
  const end = sizes[Math.floor(WITHIN * (sizes.length - 1))] || 1;
  return { ...quantityFacts('relative impedance').colors, low: -end, high: end };
}
