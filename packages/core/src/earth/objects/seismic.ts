import { z } from 'zod';
import { binGridSchema } from '../binGrid.ts';
import { arrayRefSchema, base, domainSchema, quantitySchema, statisticsSchema } from './common.ts';

const sameShape = (shape: number[], wanted: number[]) =>
  shape.length === wanted.length && shape.every((n, axis) => n === wanted[axis]);

export const volumeSchema = z
  .object({
    ...base,
    kind: z.literal('volume'),
    binGrid: binGridSchema,
    domain: domainSchema,
    quantity: quantitySchema,
    unit: z.string(),
    polarity: z.enum(['harder-positive', 'harder-negative']).optional(),
    /** Vertical samples: first and step in ms (twt) or m (depth). */
    vertical: z.object({ first: z.number(), step: z.number().positive(), count: z.int().positive() }),
    /**
     * The same samples chunked for each kind of plane; `inline` is always there. A volume without any is live: its samples are
     * worked out where they are looked at, by the step that is said to have made it.
     */
    layouts: z
      .object({
        inline: arrayRefSchema,
        crossline: arrayRefSchema.optional(),
        slice: arrayRefSchema.optional(),
        /** Every `by`-th trace of a large volume, cut the same three ways, for a first look. */
        coarse: z
          .object({ by: z.int().min(2), inline: arrayRefSchema, crossline: arrayRefSchema, slice: arrayRefSchema })
          .optional(),
      })
      .optional(),
    statistics: statisticsSchema,
    traces: z.object({ live: z.int(), missing: z.int(), duplicate: z.int() }),
    text: z.array(z.string()).optional(),
    /** Names of classes, from 1 on, where it holds such. */
    classes: z.array(z.string().max(80)).max(40).optional(),
    /** Angles of incidence that it stacks, where that was declared or follows from what it was made of, degrees. */
    angles: z
      .object({ middle: z.number().min(0).max(80), from: z.number().optional(), to: z.number().optional() })
      .optional(),
  })
  .refine(({ binGrid, vertical, layouts }) => {
    if (!layouts) return true;
    const shape = [binGrid.inline.count, binGrid.crossline.count, vertical.count];
    const { inline, crossline, slice } = layouts;
    return [inline, crossline, slice].every((ref) => !ref || sameShape(ref.shape, shape));
  }, 'has samples of another shape than its bins and times')
  .refine(({ layouts }) => {
    if (!layouts?.coarse) return true;
    const { inline, coarse } = layouts;
    const [ni, nj, nk] = inline.shape;
    const shape = [Math.ceil(ni / coarse.by), Math.ceil(nj / coarse.by), nk];
    return [coarse.inline, coarse.crossline, coarse.slice].every((ref) => sameShape(ref.shape, shape));
  }, 'has a coarse copy of another shape than itself')
  .refine(({ layouts }) => !layouts || sameShape(layouts.inline.chunk.slice(1), layouts.inline.shape.slice(1)), {
    error: 'is not kept by whole inlines',
  });
export type Volume = z.infer<typeof volumeSchema>;

/** Seismic along a 2D line. */
export const lineSchema = z
  .object({
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
  })
  .refine(
    ({ samples, vertical }) => samples.shape.length === 2 && samples.shape[1] === vertical.count,
    'has samples of another shape than its times',
  )
  .refine(
    ({ samples, path, cdps }) => cdps.length === samples.shape[0] && (path.length === 0 || path.length === cdps.length),
    'has not one place for each trace',
  );
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
