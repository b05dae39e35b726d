import { z } from 'zod';
import { VELOCITY_SAMPLES } from '../../velocity/column.ts';
import { LAW_FORMS } from '../../velocity/law.ts';
import { binGridSchema } from '../binGrid.ts';
import { arrayRefSchema, base } from './common.ts';

/** What wells say of a velocity, spread by kriging: logarithms of factors at places, and the distance at which they have faded to their mean. */
export const velocityCorrectionSchema = z.object({
  rangeM: z.number().positive(),
  mean: z.number(),
  points: z.array(z.object({ well: z.string(), x: z.number(), y: z.number(), value: z.number() })),
});
export type VelocityCorrection = z.infer<typeof velocityCorrectionSchema>;

/** A well between the top and the base of a layer. */
export const layerWellSchema = z.object({
  well: z.string(),
  /** Where it meets the base. */
  x: z.number(),
  y: z.number(),
  /** Depth (m) and TWT (ms) of the layer's top and base, the least and greatest of its points. */
  top: z.object({ z: z.number(), t: z.number() }),
  base: z.object({ z: z.number(), t: z.number() }),
  /** Misfit of the layer's law at the base, m. */
  miss: z.number(),
});
export type LayerWell = z.infer<typeof layerWellSchema>;

/**
 * Layers from the top down, each with its own way of having a velocity. A model holds the times of its boundaries and the
 * velocities that it rests on, so that it can be asked anywhere by itself.
 */
export const velocityModelSchema = z.object({
  ...base,
  kind: z.literal('velocity model'),
  /** Where its maps have values: bins, or the traces of a 2D line. One of the two where it has any map. */
  binGrid: binGridSchema.optional(),
  path: z.array(z.tuple([z.number(), z.number()])).optional(),
  /** Velocity of sea water, m/s. */
  waterVelocity: z.number(),
  /** Where times begin: the seismic datum (m above mean sea level) and the velocity (m/s) from there to the sea; the sea itself where not given. */
  datumM: z.number().optional(),
  replacementVelocity: z.number().positive().optional(),
  /** Depth of the sea bed or ground, at which layers begin; the datum where there is none. */
  seaBed: arrayRefSchema.optional(),
  layers: z.array(
    z.object({
      /** The horizon at the layer's base; empty of the last where it goes on for ever. */
      base: z.string(),
      /** The top of the wells that it is, where it is not called as that is. */
      top: z.string().optional(),
      form: z.enum(LAW_FORMS).optional(),
      v0: z.number(),
      k: z.number(),
      vBase: z.number().optional(),
      /** v0 place by place, where it differs from place to place. */
      v0Map: arrayRefSchema.optional(),
      /** TWT of the base, ms, everywhere; what the horizon lacks is filled. */
      times: arrayRefSchema.optional(),
      corrections: z.array(velocityCorrectionSchema).optional(),
      wells: z.array(layerWellSchema).optional(),
      /** rms misfit at the wells, metres, and how many points it rests on; zero points where typed or carried down. */
      rms: z.number(),
      points: z.int(),
    }),
  ),
  /** Interval velocities of layers that go by a velocity volume: `[inline][crossline][sample]`, m/s. */
  volume: z
    .object({
      name: z.string(),
      binGrid: binGridSchema,
      domain: z.enum(['twt', 'depth']),
      first: z.number(),
      step: z.number().positive(),
      samples: z.enum(VELOCITY_SAMPLES),
      values: arrayRefSchema,
    })
    .optional(),
});
export type VelocityModel = z.infer<typeof velocityModelSchema>;
export type ModelLayer = VelocityModel['layers'][number];
