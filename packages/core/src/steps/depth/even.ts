import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { Domain } from '../../earth/objects.ts';
import { type Column, depthOfTime, timeOfDepth } from '../../velocity/column.ts';
import { number } from '../define.ts';

/** How samples lie in what is stretched to the other domain. */
export const stretchParams = z.object({
  stepM: number(
    { title: 'Sample interval in depth', description: 'Distance between samples of what goes to depth.', unit: 'm' },
    { min: 0.5, max: 50, step: 0.5, initial: 4 },
  ),
  deepestM: number(
    { title: 'Down to', description: 'Depth of the last sample; at 0 as deep as the data go.', unit: 'm' },
    { min: 0, max: 30000, step: 50, initial: 0 },
  ),
  stepMs: number(
    { title: 'Sample interval in time', description: 'Time between samples of what goes to time.', unit: 'ms' },
    { min: 0.5, max: 16, step: 0.5, initial: 4 },
  ),
  latestMs: number(
    { title: 'Down to', description: 'TWT of the last sample; at 0 as late as the data go.', unit: 'ms' },
    { min: 0, max: 30000, step: 50, initial: 0 },
  ),
});
export type Stretch = z.infer<typeof stretchParams>;

export interface Even {
  first: number;
  step: number;
  count: number;
}

/** Most samples that a trace is given. */
const MOST = 20000;

/**
 * Even positions in the other domain, from the sea (or the datum) down to where data end in any of the columns.
 */
export function evenIn(
  { name, domain, vertical }: { name: string; domain: Domain; vertical: Even },
  columns: (Column | null)[],
  datumM: number,
  p: Stretch,
): Even {
  const last = vertical.first + vertical.step * (vertical.count - 1);
  const known = columns.filter((c) => c !== null);
  if (known.length === 0)
    throw new LithagonError('velocity', `No trace of ${name} lies where the velocities are.`, {
      object: name,
      fix: 'Choose a model or velocity volume of the same place. Nothing was changed.',
    });
  const toDepth = domain === 'twt';
  const step = toDepth ? p.stepM : p.stepMs;
  const typed = toDepth ? p.deepestM : p.latestMs;
  const ends = typed > 0 ? typed : Math.max(...known.map((c) => (toDepth ? depthOfTime : timeOfDepth)(c, last)));
  const first = toDepth ? -Math.ceil(Math.max(0, datumM) / step) * step || 0 : 0;
  // what ends a hair's breadth after a sample ends with it
  const count = Math.ceil((ends - first) / step - 1e-6) + 1;
  if (count > MOST || count < 2)
    throw new LithagonError('params', `Traces of ${name} would have ${count} samples.`, {
      object: name,
      fix: `Choose another sample interval or end; at most ${MOST} samples can be. Nothing was changed.`,
    });
  return { first, step, count };
}
