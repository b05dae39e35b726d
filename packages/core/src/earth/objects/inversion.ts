import { z } from 'zod';
import { base, domainSchema } from './common.ts';

/** Amplitude at the frequencies of the object that holds it. */
const amplitudes = z.array(z.number()).max(5000);

/** An operator that gives seismic the spectrum of impedance logs within a band. */
export const operatorSchema = z
  .object({
    ...base,
    kind: z.literal('operator'),
    /** Hz, evenly from nought; gain at each, and the phase of all of them. */
    hz: amplitudes,
    gain: amplitudes,
    phaseDeg: z.number(),
    /** Corners of its band, Hz. */
    band: z.tuple([z.number(), z.number(), z.number(), z.number()]),
    /** Amplitude of the seismic that it was designed on, and traces that this is of. */
    seismic: amplitudes,
    traces: z.int(),
    /** Amplitude of the logarithm of impedance of each well. */
    logs: z.array(z.object({ well: z.string(), amplitude: amplitudes })),
    /** The power law that it aims at: `factor · f^exponent`, and its rms misfit to logs; null where it was typed. */
    law: z.object({ exponent: z.number(), factor: z.number(), misfitDb: z.number().nullable() }),
    /** Spectrum of what it gives on those traces. */
    result: amplitudes,
    /** About time nought, from `firstMs` on. */
    stepMs: z.number().positive(),
    firstMs: z.number(),
    samples: z.array(z.number()),
  })
  .refine(({ hz, gain, seismic, result }) => [gain, seismic, result].every((a) => a.length === hz.length), {
    error: 'has not one value for each frequency',
  });
export type InversionOperator = z.infer<typeof operatorSchema>;

/** Intercept and gradient turned by an angle, which is drawn without being stored; which volumes they are stands in its trail. */
export const turnedPairSchema = z.object({
  ...base,
  kind: z.literal('turned pair'),
  domain: domainSchema,
  /** −90 to 90. */
  angleDeg: z.number().min(-90).max(90),
  /** The trend of the background, and the angle that washes it out. */
  background: z.object({ slope: z.number(), correlation: z.number(), angle: z.number() }),
  /** Pairs of intercept and gradient that this was seen on. */
  pairs: z.array(z.tuple([z.number(), z.number()])).max(4000),
  /** rms of each of the two. */
  rms: z.tuple([z.number(), z.number()]),
  /** Correlation with logs at −90° to 90°, by degrees. */
  curves: z.array(
    z.object({
      well: z.string(),
      log: z.string(),
      values: z.array(z.number()).length(181),
      best: z.object({ angle: z.number(), correlation: z.number(), from: z.number(), to: z.number() }),
    }),
  ),
});
export type TurnedPair = z.infer<typeof turnedPairSchema>;
