import { z } from 'zod';
import { arrayRefSchema, base, ofWell } from './common.ts';

/** A wavelet at a sample interval of its own. */
export const waveletSchema = z.object({
  ...base,
  kind: z.literal('wavelet'),
  stepMs: z.number().positive(),
  /** Time of the first sample, ms; 0 is the reflector. */
  firstMs: z.number(),
  samples: z.array(z.number()),
  method: z.enum([
    'Ricker',
    'Ormsby',
    'Butterworth',
    'Klauder',
    'statistical',
    'least squares',
    'average',
    'imported',
    'turned',
  ]),
  /** Constant phase it was given, degrees. */
  phaseDeg: z.number(),
  /** Angle of incidence of the stack that it belongs to, degrees. */
  angleDeg: z.number().optional(),
  /** Wells whose logs and traces it was made of, by whatever ways. */
  wells: z.array(z.string()).optional(),
  /** Of an estimate: half width of each sample's 90 % interval, part of the trace that it predicts, wells, length of the window. */
  estimate: z
    .object({
      halfWidth: z.array(z.number()),
      predictability: z.number(),
      /** Power signal-to-noise by frequency (Hz). */
      band: z.array(z.object({ hz: z.number(), signalToNoise: z.number() })),
      wells: z.array(z.string()),
      /** Cross-validated error relative to the trace, by length tried (ms). */
      tried: z.array(z.object({ lengthMs: z.number(), noise: z.number(), error: z.number() })),
    })
    .optional(),
});
export type Wavelet = z.infer<typeof waveletSchema>;

/** Depth against two-way time down a well, as a tie was accepted. */
export const relationSchema = z.object({
  ...base,
  kind: z.literal('time-depth relation'),
  ...ofWell,
  /** `[TVDSS m, TWT ms]`, both rising, from the datum down. */
  pairs: z.array(z.tuple([z.number(), z.number()])).min(2),
  /** Drift (checkshot − sonic, ms) at the knees of its correction. */
  knees: z.array(z.object({ tvdss: z.number(), driftMs: z.number() })),
  shiftMs: z.number(),
  phaseDeg: z.number(),
  /** Correlation of synthetic and seismic in the window (ms) that it was measured in. */
  correlation: z.number(),
  windowMs: z.tuple([z.number(), z.number()]),
  /** When it was last made the well's active one; its making, where it never was. */
  activated: z.string().optional(),
  /** Times that were pinned or found by alignment: TWT of the calibrated sonic, and what is added to it there, ms. */
  pins: z.array(z.object({ twt: z.number(), shiftMs: z.number() })).optional(),
  /** How the match stands against chance and against others. */
  evidence: z
    .object({
      /** Part of matches with noise of the same band, searched as widely, that are as good. */
      chance: z.number(),
      runnerUp: z.object({ shiftMs: z.number(), correlation: z.number() }).nullable(),
      /** Best correlation with either polarity. */
      asDeclared: z.number(),
      turnedOver: z.number(),
      predictability: z.number(),
      /** 90 % half width of the shift, ms. */
      uncertaintyMs: z.number(),
      /** 90 % half width of the phase, degrees. */
      uncertaintyDeg: z.number().optional(),
      /** The shift by the match alone and by checkshots alone, with 90 % half widths, ms. */
      byMatch: z.object({ shiftMs: z.number(), uncertaintyMs: z.number() }).optional(),
      byCheckshots: z.object({ shiftMs: z.number(), uncertaintyMs: z.number() }).nullable().optional(),
      /** Correlation with parts of the trace that a wavelet of this very well was not made of. */
      leftOut: z.number().nullable().optional(),
      /** Greatest difference of implied velocity from the calibrated sonic, part. */
      velocityChange: z.number(),
      /** Sentences that speak against the tie. */
      warnings: z.array(z.string()),
    })
    .optional(),
  /** Why it was accepted against its warnings. */
  reason: z.string().optional(),
});
export type TimeDepthRelation = z.infer<typeof relationSchema>;

/** Synthetic traces of a well at angles of incidence. */
export const gatherSchema = z
  .object({
    ...base,
    kind: z.literal('synthetic gather'),
    ...ofWell,
    anglesDeg: z.array(z.number()).min(1),
    firstMs: z.number(),
    stepMs: z.number().positive(),
    /** `[angle][sample]`. */
    samples: arrayRefSchema,
    /** How reflections were computed. */
    form: z.string(),
  })
  .refine(
    ({ samples, anglesDeg }) => samples.shape.length === 2 && samples.shape[0] === anglesDeg.length,
    'has not one trace for each angle',
  );
export type SyntheticGather = z.infer<typeof gatherSchema>;
