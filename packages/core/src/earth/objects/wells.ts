import { z } from 'zod';
import { arrayRefSchema, base, colorSchema, ofWell } from './common.ts';

export const wellSchema = z.object({
  ...base,
  kind: z.literal('well'),
  x: z.number(),
  y: z.number(),
  /** Elevation of the kelly bushing above mean sea level, metres. */
  kbM: z.number(),
  totalMdM: z.number().optional(),
  status: z.string().optional(),
});
export type Well = z.infer<typeof wellSchema>;

/** Which curve a mnemonic stands for. */
export const curveClassSchema = z.enum([
  'gamma ray',
  'sonic',
  'shear sonic',
  'density',
  'neutron',
  'resistivity',
  'caliper',
  'density correction',
  'shale volume',
  'porosity',
  'effective porosity',
  'water saturation',
  'net flag',
  'bad hole',
  'P impedance',
  'S impedance',
  'velocity ratio',
  'facies probability',
  'distance to training',
  'other',
]);
export type CurveClass = z.infer<typeof curveClassSchema>;

export const logsSchema = z
  .object({
    ...base,
    kind: z.literal('logs'),
    ...ofWell,
    depth: z.object({ firstM: z.number(), stepM: z.number().positive(), count: z.int().positive() }),
    curves: z.array(
      z.object({
        mnemonic: z.string(),
        class: curveClassSchema,
        unit: z.string(),
        fileUnit: z.string(),
        description: z.string(),
        data: arrayRefSchema,
        min: z.number(),
        max: z.number(),
        nulls: z.int(),
      }),
    ),
    /** What the file said of the well, line by line, for when the logs leave again. */
    header: z
      .array(z.object({ mnemonic: z.string(), unit: z.string(), value: z.string(), description: z.string() }))
      .optional(),
    /** Unit of depth in the file, as it was spelt. */
    depthUnit: z.string().optional(),
    /** Depths (m) and values as they were loaded, where the depths were no regular axis: `[depth]` each. */
    uneven: z.object({ depths: arrayRefSchema, curves: z.array(arrayRefSchema) }).optional(),
  })
  .refine(
    ({ depth, curves }) => curves.every(({ data }) => data.shape.length === 1 && data.shape[0] === depth.count),
    'has a curve of another length than its depths',
  );
export type Logs = z.infer<typeof logsSchema>;

/**
 * Rows of tops are name and measured depth; those that were picked here or carried also say how sure they are (0 to 1),
 * whether they are a top or a fault cut, the section (m) that a cut misses (positive) or repeats (negative), and how
 * they came.
 */
export const TOP_COLUMNS = [
  { name: 'Top', unit: '' },
  { name: 'MD', unit: 'm' },
  { name: 'Confidence', unit: '' },
  { name: 'Kind', unit: '' },
  { name: 'Missing section', unit: 'm' },
  { name: 'How', unit: '' },
];

/** Depth that a file counted downwards from the kelly bushing; it is asked for by this name. */
export const TVD_COLUMN = 'TVD from kelly bushing';

/** A table of rows about one well: directional survey, tops, checkshots, pressures, fluid samples, core points, facies. */
export const wellTableSchema = z.object({
  ...base,
  kind: z.enum(['directional surveys', 'tops', 'checkshots', 'pressures', 'fluid samples', 'core points', 'facies']),
  ...ofWell,
  columns: z.array(z.object({ name: z.string(), unit: z.string() })),
  rows: z.array(z.array(z.union([z.number(), z.string(), z.null()]))),
  /** What times of checkshots are counted from; the seismic datum where it is not given. */
  reference: z.enum(['datum', 'msl', 'kb']).optional(),
  /** Seismic datum and replacement velocity of the project when times of another reference were loaded. */
  datumM: z.number().optional(),
  replacementVelocity: z.number().positive().optional(),
});
export type WellTable = z.infer<typeof wellTableSchema>;

/** Order and look of the rocks, youngest first: what lies below each top down to the next. */
export const stratigraphySchema = z.object({
  ...base,
  kind: z.literal('stratigraphic column'),
  units: z.array(
    z.object({
      /** The top that the unit begins with. */
      top: z.string().min(1).max(200),
      /** What the unit is called. */
      zone: z.string().min(1).max(200),
      color: colorSchema,
      pattern: z.enum(['none', 'sand', 'shale', 'silt', 'marl', 'limestone', 'basement']),
      /** Whether its top is an unconformity, below which beds may be missing. */
      unconformity: z.boolean(),
    }),
  ),
});
export type Stratigraphy = z.infer<typeof stratigraphySchema>;
