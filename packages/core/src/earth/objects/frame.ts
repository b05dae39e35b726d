import { z } from 'zod';

/** What a project is measured in. */
export const frameSchema = z.object({
  crs: z.string(),
  crsName: z.string(),
  /** Unit of the map's coordinates in files and on the screen; inside they are metres. */
  unit: z.enum(['m', 'ft', 'us-ft']),
  /** Elevation of the seismic datum, where TWT is 0, above mean sea level, metres. */
  datumM: z.number().default(0),
  /** Velocity between the datum and the ground or sea, m/s: what brings times of another datum to this one. */
  replacementVelocity: z.number().positive().default(1500),
  /** Sign of an increase of impedance that seismic is taken to have where a file does not say. */
  polarity: z.enum(['harder-positive', 'harder-negative']).default('harder-positive'),
  /** Units of depths, velocities, logs, pressures and volumes on the screen and in tables that go out. */
  display: z.enum(['metric', 'field']),
});
export type Frame = z.infer<typeof frameSchema>;
