import { quantityFacts } from '@lithagon/core';
import { z } from 'zod';
import { COLOR_MAPS } from '../../color/maps';

export const displaySchema = z.object({
  map: z.enum(COLOR_MAPS as [(typeof COLOR_MAPS)[number], ...typeof COLOR_MAPS]),
  reverse: z.boolean(),
  /** Percentile of absolute amplitude (or of the range) at which colours end. */
  clip: z.number().min(0).max(100),
  gain: z.number().positive(),
  /** Values at which colours end, where they were given: then neither percentile nor gain says. */
  ends: z.tuple([z.number(), z.number()]).nullable().default(null),
});
/** How a volume is drawn. */
export type Display = z.infer<typeof displaySchema>;

/** Displays by the id of what is drawn so. */
export const displaysSchema = z.record(z.string(), displaySchema);
export type Displays = z.infer<typeof displaysSchema>;

export function defaultDisplay(quantity: string): Display {
  const { colors, clip } = quantityFacts(quantity);
  return { ...colors, clip, gain: 1, ends: null };
}

export function displayOf(displays: Displays, volume: { id: string; quantity: string }): Display {
  return displays[volume.id] ?? defaultDisplay(volume.quantity);
}
