import { z } from 'zod';
import { QUANTITIES, type Quantity } from '../units.ts';

/** Time or depth (or geological age): declared on everything that has a vertical position, never implied. */
export const domainSchema = z.enum(['twt', 'depth', 'age']);
export type Domain = z.infer<typeof domainSchema>;

export const quantitySchema = z.enum(Object.keys(QUANTITIES) as [Quantity, ...Quantity[]]);

/** A reference to an array in the array store, chunked as Zarr v3 chunks are. */
export const arrayRefSchema = z.object({
  key: z.string(),
  shape: z.array(z.int().positive()),
  chunk: z.array(z.int().positive()),
  /** Whether its chunks lie in one folder. Of many chunks, a folder for every index takes as long as their writing. */
  flat: z.boolean().optional(),
  /** Where values are kept as 16-bit integers: `value = offset + factor·n`. */
  scaled: z.object({ factor: z.number().positive(), offset: z.number() }).optional(),
});
export type ArrayRef = z.infer<typeof arrayRefSchema>;

/** How an object came to be. `inputs` hold `id@revision`. */
export const madeBySchema = z.object({
  step: z.string(),
  version: z.int(),
  params: z.record(z.string(), z.unknown()),
  inputs: z.record(z.string(), z.array(z.string())),
  /** Role of this object among the outputs of its run. */
  output: z.string().optional(),
  /** Name of the file that it was read from, where it was. */
  file: z.string().optional(),
  started: z.string(),
  tookMs: z.number(),
  warnings: z.array(z.string()),
  engine: z.string(),
});
export type MadeBy = z.infer<typeof madeBySchema>;

/** What every object has. */
export const base = {
  id: z.string(),
  name: z.string().min(1).max(200),
  /** Hash of what made it: for what was loaded, of its samples and declarations. */
  revision: z.string(),
  stage: z.string(),
  color: z.string().optional(),
  tags: z.array(z.string()).optional(),
  /** What people wrote about it. */
  note: z.string().max(20000).optional(),
  madeBy: madeBySchema,
};

export const statisticsSchema = z.object({
  min: z.number(),
  max: z.number(),
  mean: z.number(),
  rms: z.number(),
  count: z.int(),
  nulls: z.int(),
  /** Absolute value below which 90, 95, 98, 99, 99.5 % of samples lie. */
  absolute: z.record(z.string(), z.number()),
  /** Value below which the given percentage lies. */
  percentiles: z.record(z.string(), z.number()),
});
export type Statistics = z.infer<typeof statisticsSchema>;

/** How values of an object's domain read: “TWT” in ms or “Depth” in m. */
export function domainUnit(domain: Domain): string {
  return domain === 'twt' ? 'ms' : domain === 'depth' ? 'm' : 'units of age';
}
