import { z } from 'zod';
import type { BinGrid } from '../binGrid.ts';
import { isQuantity, type Quantity } from '../quantities.ts';
import { visible } from '../text.ts';

/** Time or depth (or geological age): declared on everything that has a vertical position, never implied. */
export const domainSchema = z.enum(['twt', 'depth', 'age']);
export type Domain = z.infer<typeof domainSchema>;

export const quantitySchema = z.custom<Quantity>(isQuantity, 'is no quantity');

/** What ids and the parts of array keys are made of: nothing that a file system takes for another place. */
const PART = '[A-Za-z0-9][A-Za-z0-9._-]{0,119}';

/** Id of an object; its arrays are kept under it, or under it and a dot and more where it was made again. */
export const idSchema = z.string().regex(new RegExp(`^${PART}$`), 'is no id');

/** Where an array is kept: the id of its owner, then one to five names. */
export const arrayKeySchema = z.string().regex(new RegExp(`^${PART}(/${PART}){1,5}$`), 'is no key of an array');

/** A colour as red, green and blue in hexadecimal, with opacity where four numbers are given. */
export const colorSchema = z.string().regex(/^#([0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/i, 'is no colour like #2f6f8f');

/** Most samples of a chunk: 512 MB, an inline of 11 000 traces of 12 000 samples. */
const MOST_IN_CHUNK = 2 ** 27;
/** Most chunks of an array: at a megabyte each, 2 TB. */
const MOST_CHUNKS = 2 ** 21;

/** Counts along one to four axes. */
const extents = z
  .array(
    z
      .int()
      .positive()
      .max(2 ** 31),
  )
  .min(1)
  .max(4);

/** A reference to an array in the array store, chunked as Zarr v3 chunks are. */
export const arrayRefSchema = z
  .object({
    key: arrayKeySchema,
    shape: extents,
    chunk: extents,
    /** Whether its chunks lie in one folder. Of many chunks, a folder for every index takes as long as their writing. */
    flat: z.boolean().optional(),
    /** Where values are kept as 16-bit integers: `value = offset + factor·n`. */
    scaled: z.object({ factor: z.number().positive(), offset: z.number() }).optional(),
  })
  .refine((ref) => ref.chunk.length === ref.shape.length, 'has chunks of another rank than its own')
  .refine((ref) => ref.chunk.every((n, axis) => n <= ref.shape[axis]), 'has chunks larger than itself')
  .refine((ref) => ref.chunk.reduce((a, b) => a * b, 1) <= MOST_IN_CHUNK, 'has chunks of more than 512 MB')
  .refine(
    (ref) => ref.shape.reduce((a, n, axis) => a * Math.ceil(n / ref.chunk[axis]), 1) <= MOST_CHUNKS,
    'has more than two million chunks',
  );
export type ArrayRef = z.infer<typeof arrayRefSchema>;

/** Whether an array has one value for each bin. */
export function onBins(ref: ArrayRef, { inline, crossline }: BinGrid): boolean {
  return ref.shape.length === 2 && ref.shape[0] === inline.count && ref.shape[1] === crossline.count;
}

/** What belongs to a well: its id, as soon as the well is there, and its name for people. */
export const ofWell = { well: z.string(), wellId: idSchema.optional() };

/** How an object came to be. `inputs` hold `id@revision`. */
export const madeBySchema = z.object({
  step: z.string(),
  version: z.int(),
  params: z.record(z.string(), z.unknown()),
  inputs: z.record(z.string(), z.array(z.string())),
  /** Role of this object among the outputs of its run. */
  output: z.string().optional(),
  /** Id of that run, which its outputs share. */
  run: z.string().max(200).optional(),
  /** Name of the file that it was read from, where it was. */
  file: z.string().optional(),
  /** What it was called when it came, where it has been renamed since. */
  called: z.string().max(200).optional(),
  started: z.string(),
  tookMs: z.number(),
  warnings: z.array(z.string()),
  engine: z.string(),
});
export type MadeBy = z.infer<typeof madeBySchema>;

/** What every object has. */
export const base = {
  id: idSchema,
  name: z.string().min(1).max(200).transform(visible),
  /** Hash of what made it: for what was loaded, of its samples and declarations. */
  revision: z.string(),
  stage: z.string(),
  color: colorSchema.optional(),
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
/** A domain in words. */
export const domainName = (domain: Domain): string => ({ twt: 'TWT', depth: 'depth', age: 'relative age' })[domain];

export function domainUnit(domain: Domain): string {
  return domain === 'twt' ? 'ms' : domain === 'depth' ? 'm' : '';
}
