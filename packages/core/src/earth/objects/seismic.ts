import { z } from 'zod';
import { latticeSchema } from '../lattice.ts';
import { arrayRefSchema, base, domainSchema, quantitySchema, statisticsSchema } from './common.ts';

export const volumeSchema = z.object({
  ...base,
  kind: z.literal('volume'),
  lattice: latticeSchema,
  domain: domainSchema,
  quantity: quantitySchema,
  unit: z.string(),
  polarity: z.enum(['harder-positive', 'harder-negative']).optional(),
  /** Vertical samples: first and step in ms (twt) or m (depth). */
  vertical: z.object({ first: z.number(), step: z.number().positive(), count: z.int().positive() }),
  /** The same samples chunked for each kind of plane; `inline` is always there. */
  layouts: z.object({
    inline: arrayRefSchema,
    crossline: arrayRefSchema.optional(),
    slice: arrayRefSchema.optional(),
    /** Every `by`-th trace of a large volume, cut the same three ways, for a first look. */
    coarse: z
      .object({ by: z.int().min(2), inline: arrayRefSchema, crossline: arrayRefSchema, slice: arrayRefSchema })
      .optional(),
  }),
  statistics: statisticsSchema,
  traces: z.object({ live: z.int(), missing: z.int(), duplicate: z.int() }),
  text: z.array(z.string()).optional(),
});
export type Volume = z.infer<typeof volumeSchema>;

/** Seismic along a 2D line. */
export const lineSchema = z.object({
  ...base,
  kind: z.literal('seismic line'),
  domain: domainSchema,
  quantity: quantitySchema,
  unit: z.string(),
  polarity: z.enum(['harder-positive', 'harder-negative']).optional(),
  vertical: z.object({ first: z.number(), step: z.number().positive(), count: z.int().positive() }),
  /** Map coordinates of each trace, metres; empty where only its navigation has them. */
  path: z.array(z.tuple([z.number(), z.number()])),
  cdps: z.array(z.number()),
  /** Shotpoint of each trace, where the file or a table gives it. */
  shotpoints: z.array(z.number()).optional(),
  /** `[trace][sample]`. */
  samples: arrayRefSchema,
  statistics: statisticsSchema,
  text: z.array(z.string()).optional(),
});
export type SeismicLine = z.infer<typeof lineSchema>;

/** Where the traces or shots of a 2D line lie; it is found by the line's name. */
export const navigationSchema = z.object({
  ...base,
  kind: z.literal('navigation'),
  line: z.string(),
  by: z.enum(['cdp', 'shotpoint']),
  /** Number, then map coordinates in metres. */
  points: z.array(z.tuple([z.number(), z.number(), z.number()])),
});
export type Navigation = z.infer<typeof navigationSchema>;
