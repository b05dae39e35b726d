import { z } from 'zod';
import { binGridSchema } from '../binGrid.ts';
import { arrayRefSchema, base } from './common.ts';

/** Layers between horizons, from the sea bed down, each with `v(z) = v0 + k·z`, z below the datum. */
export const velocityModelSchema = z.object({
  ...base,
  kind: z.literal('velocity model'),
  /** Bins of the maps of v0, where there are any. */
  binGrid: binGridSchema.optional(),
  /** Velocity of sea water, m/s. */
  waterVelocity: z.number(),
  /** Where times begin: the seismic datum (m above mean sea level) and the velocity (m/s) from there to the sea; the sea itself where not given. */
  datumM: z.number().optional(),
  replacementVelocity: z.number().positive().optional(),
  layers: z.array(
    z.object({
      /** The horizon at the layer's base. */
      base: z.string(),
      v0: z.number(),
      k: z.number(),
      /** v0 bin by bin `[inline][crossline]` where a velocity volume guides the layer sideways. */
      v0Map: arrayRefSchema.optional(),
      /** rms misfit at the wells, metres, and how many points it rests on; zero points where typed or carried down. */
      rms: z.number(),
      points: z.int(),
    }),
  ),
});
export type VelocityModel = z.infer<typeof velocityModelSchema>;
