import { z } from 'zod';
import { binGridSchema } from '../binGrid.ts';
import { arrayRefSchema, base, domainSchema, onBins } from './common.ts';

/** Depths of fluid contacts, m below the datum; null where there is no such contact. */
export const contactsSchema = z.object({
  ...base,
  kind: z.literal('contacts'),
  /** Gas over oil; null where there is no gas, and the same as `owcM` where there is no oil between gas and water. */
  gocM: z.number().nullable(),
  /** Base of the hydrocarbons; the deepest that is known where no contact is seen. */
  owcM: z.number(),
  /** Fluids that the pressures show, from the top. */
  fluids: z.array(z.enum(['gas', 'oil', 'water'])).optional(),
  /** Whether the base was seen, comes of water that was assumed, or lies at or below `owcM`; nothing where typed. */
  base: z.enum(['seen', 'assumed', 'at or below']).optional(),
  /** What the data allow, about 95 %; null where typed. */
  gocRange: z.tuple([z.number(), z.number()]).nullable(),
  owcRange: z.tuple([z.number(), z.number()]).nullable(),
  /** rms misfit of the pressures. */
  misfitPa: z.number().optional(),
});
export type FluidContacts = z.infer<typeof contactsSchema>;

/** A quantity over the bins of a survey. */
export const mapSchema = z
  .object({
    ...base,
    kind: z.literal('map'),
    binGrid: binGridSchema,
    quantity: z.string(),
    unit: z.string(),
    /** `[inline][crossline]`, NaN where there is none. */
    values: arrayRefSchema,
    range: z.tuple([z.number(), z.number()]),
    /** Names of classes, from the first on, where it holds such. */
    classes: z.array(z.string().max(80)).max(40).optional(),
  })
  .refine(({ binGrid, values }) => onBins(values, binGrid), 'has values of another shape than its bins');
export type QuantityMap = z.infer<typeof mapSchema>;

/** Values at which a colour of a blend is absent and full: the first may be the greater. */
const blendEnds = z.object({ from: z.number(), to: z.number() });

/** How three quantities become a colour: by red, green and blue, or along blue and amber, which colour-blind people tell apart. */
export const BLEND_AXES = ['red, green, blue', 'blue, grey, amber'] as const;

/** Three maps or volumes as one colour, a fourth as its shade; which ones they are stands in its trail, under `red` to `shade`. */
export const blendSchema = z.object({
  ...base,
  kind: z.literal('blend'),
  /** Whether volumes are blended, which have a domain, or maps, which have none. */
  of: z.enum(['map', 'volume']),
  domain: domainSchema.optional(),
  red: blendEnds,
  green: blendEnds,
  blue: blendEnds,
  shade: blendEnds.optional(),
  /** How dark the shade makes what is nought in it, from 0 to 1. */
  strength: z.number().min(0).max(1),
  axes: z.enum(BLEND_AXES),
  /** Whether a person has set ends, axes or strength by hand, which stay when it is made again. */
  set: z.boolean().optional(),
});
export type Blend = z.infer<typeof blendSchema>;

/** What is plotted along one axis of a crossplot. */
export const plotAxisSchema = z.object({
  /** Class of curve, or id of a map or volume. */
  of: z.string(),
  log: z.boolean().default(false),
});

/** Points inside a polygon drawn in a crossplot, kept as a class of rock. */
export const plotClassSchema = z.object({
  ...base,
  kind: z.literal('crossplot class'),
  x: plotAxisSchema,
  y: plotAxisSchema,
  /** Values along x and y in SI units. */
  ring: z.array(z.tuple([z.number(), z.number()])).min(3),
  /** Ranges of further quantities, named as those of the axes are, outside of which nothing is of the class. */
  limits: z.array(z.object({ of: z.string(), from: z.number(), to: z.number() })).optional(),
});
export type PlotClass = z.infer<typeof plotClassSchema>;

/** Connected samples of a volume, as runs down its traces. */
export const bodiesSchema = z
  .object({
    ...base,
    kind: z.literal('bodies'),
    binGrid: binGridSchema,
    domain: domainSchema,
    vertical: z.object({ first: z.number(), step: z.number().positive(), count: z.int().positive() }),
    /** `[run][line, trace, first sample, sample after the last, body]`, line after line; bodies are numbered from one, the largest first. */
    runs: arrayRefSchema,
    /** Of each body its samples, bins, first and last sample, and down-dip edge in depth (m) where a surface was given. */
    bodies: z.array(
      z.object({
        samples: z.int(),
        bins: z.int(),
        top: z.int(),
        base: z.int(),
        volumeM3: z.number(),
        edgeM: z.number().optional(),
        lowestM: z.number().optional(),
        spreadM: z.number().optional(),
        chance: z.number().optional(),
      }),
    ),
  })
  .refine(({ runs }) => runs.shape.length === 2 && runs.shape[1] === 5, 'has runs of another shape than theirs');
export type Bodies = z.infer<typeof bodiesSchema>;

/** A table of results. */
export const resultTableSchema = z.object({
  ...base,
  kind: z.literal('result table'),
  columns: z.array(z.object({ name: z.string(), unit: z.string() })),
  rows: z.array(z.array(z.union([z.number(), z.string(), z.null()]))),
  /** The same as records for programs, where the table is one of volumes. */
  records: z.array(z.record(z.string(), z.unknown())).optional(),
});
export type ResultTable = z.infer<typeof resultTableSchema>;
