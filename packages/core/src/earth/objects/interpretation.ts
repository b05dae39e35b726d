import { z } from 'zod';
import { binGridSchema } from '../binGrid.ts';
import { arrayRefSchema, base, domainSchema, idSchema, onBins } from './common.ts';

export const faultSchema = z.object({
  ...base,
  kind: z.literal('fault'),
  domain: domainSchema,
  /** Sticks from the top down: map coordinates in metres and TWT (ms) or depth (m). */
  sticks: z.array(z.array(z.tuple([z.number(), z.number(), z.number()]))),
  /** Of one that was found in a volume: how large and strong it is, how it lies, and of which pieces it was joined and why. */
  found: z
    .object({
      areaM2: z.number(),
      strength: z.number(),
      dip: z.number(),
      azimuth: z.number(),
      joined: z.array(z.string()),
    })
    .optional(),
});
export type Fault = z.infer<typeof faultSchema>;

/** Faults sorted by how they lie. Members keep the orientation by which they were sorted. */
export const faultSetsSchema = z.object({
  ...base,
  kind: z.literal('fault sets'),
  sets: z
    .array(
      z.object({
        name: z.string().min(1).max(80),
        dip: z.number(),
        azimuth: z.number(),
        /** Of one that was found: how close its members lie to its middle, and its part of all. */
        kappa: z.number().optional(),
        share: z.number().optional(),
      }),
    )
    .max(12),
  members: z.array(
    z.object({
      fault: idSchema,
      name: z.string(),
      /** Number of its set; −1 where it is in none. */
      set: z.int(),
      dip: z.number(),
      azimuth: z.number(),
      areaM2: z.number(),
      /** Probability that it is of that set. */
      sure: z.number(),
    }),
  ),
});
export type FaultSets = z.infer<typeof faultSetsSchema>;

/** Throw over the surface of a fault, by strike and depth. */
export const faultThrowSchema = z
  .object({
    ...base,
    kind: z.literal('fault throw'),
    /** Name of the fault. */
    of: z.string(),
    domain: domainSchema,
    binGrid: binGridSchema,
    /** TWT (ms) or depth (m) of the first level, and from one to the next. */
    first: z.number(),
    step: z.number().positive(),
    /** Length of the rows together along strike, m. */
    alongM: z.number(),
    /** `[row][level]`, ms or m, positive where the hanging wall lies deeper; NaN where there is none. */
    values: arrayRefSchema,
    /** Correlation of the two sides, put back. */
    match: arrayRefSchema,
    /** `[row][level][inline, crossline]` in bins. */
    places: arrayRefSchema,
    /** Greatest of each row; null where none is sure. */
    profile: z.array(z.number().nullable()),
    greatest: z.number().nullable(),
    /** Whether it dies out at the first and at the last end along strike. */
    tapers: z.tuple([z.boolean(), z.boolean()]),
  })
  .refine(
    ({ values, match }) => values.shape.length === 2 && String(match.shape) === String(values.shape),
    'has a match of another shape than its throw',
  );
export type FaultThrow = z.infer<typeof faultThrowSchema>;

/** Which event of the waveform picks go to; none where they stand as they were drawn. */
export const eventSchema = z.enum([
  'trough',
  'peak',
  'zero rising',
  'zero falling',
  'largest gradient',
  'envelope',
  'free-hand',
]);

/** What a person picked of one horizon on sections, and where its track was taken out. */
export const picksSchema = z.object({
  ...base,
  kind: z.literal('picks'),
  domain: domainSchema,
  event: eventSchema,
  /** Map coordinates in metres and TWT (ms) or depth (m). */
  points: z.array(z.tuple([z.number(), z.number(), z.number()])),
  /** Rings on the map that a track enters only from a pick inside them. */
  erased: z.array(z.array(z.tuple([z.number(), z.number()]))),
});
export type Picks = z.infer<typeof picksSchema>;

export const polygonSchema = z.object({
  ...base,
  kind: z.literal('polygon'),
  closed: z.boolean(),
  rings: z.array(z.array(z.tuple([z.number(), z.number()]))),
});
export type Polygon = z.infer<typeof polygonSchema>;

/** Places by name: stations, leads, anything that is a point on the map. */
export const pointsSchema = z
  .object({
    ...base,
    kind: z.literal('points'),
    /** Map coordinates in metres. */
    points: z.array(z.tuple([z.number(), z.number()])),
    /** Name of each; empty where it has none. */
    names: z.array(z.string()),
  })
  .refine(({ points, names }) => points.length === names.length, 'has not one name for each point');
export type Points = z.infer<typeof pointsSchema>;

export const horizonSchema = z
  .object({
    ...base,
    kind: z.literal('horizon'),
    /** The top of the wells that it is, where it is not called as that is. */
    top: z.string().min(1).max(200).optional(),
    domain: domainSchema,
    binGrid: binGridSchema,
    /** `[inline][crossline]`, ms or m, NaN where there is none. */
    values: arrayRefSchema,
    confidence: arrayRefSchema.optional(),
    range: z.tuple([z.number(), z.number()]),
    filled: z.number(),
  })
  .refine(({ binGrid, values }) => onBins(values, binGrid), 'has values of another shape than its bins')
  .refine(
    ({ binGrid, confidence }) => !confidence || onBins(confidence, binGrid),
    'has confidence of another shape than its bins',
  );
export type Horizon = z.infer<typeof horizonSchema>;
