import { type Blend, CHANNELS, partOf, primariesOf } from '@lithagon/core';
import type { Lit } from '../../state/blends';
import type { Mix } from '../raster/mix';

/** How far around a colour others are lit with it, as a part of each channel. */
export const REACH = 0.14;

/** What the shader needs of a blend, from the samples of its channels; null while some are read. */
export function mixOf(blend: Blend, fields: (Float32Array | null)[], lit: Lit | null): Mix | null {
  const held = fields.slice(0, blend.shade ? 4 : 3);
  if (held.some((f) => !f)) return null;
  return {
    more: held.slice(1) as Float32Array[],
    ends: CHANNELS.flatMap((c) => blend[c] ?? []),
    primaries: primariesOf(blend.axes),
    strength: blend.shade ? blend.strength : 0,
    lit: lit?.blend === blend.id ? { at: lit.at, reach: lit.reach } : null,
  };
}

/** Where the colour of a sample lies in the cube; null where a channel has none. */
export function placeInCube(blend: Blend, fields: (Float32Array | null)[], n: number): [number, number, number] | null {
  const parts = (['red', 'green', 'blue'] as const).map((c, f) => partOf(fields[f]?.[n] ?? Number.NaN, blend[c]));
  return parts.some(Number.isNaN) ? null : (parts as [number, number, number]);
}
