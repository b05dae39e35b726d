import { z } from 'zod';
import { timeOfDepth } from '../../velocity/layered.ts';
import { number } from '../define.ts';

/** How samples lie in what is stretched to depth. */
export const stretchParams = z.object({
  stepM: number(
    { title: 'Sample interval', description: 'Distance between samples in depth.', unit: 'm' },
    { min: 1, max: 20, step: 0.5, initial: 4 },
  ),
  deepestM: number(
    { title: 'Down to', description: 'Depth of the last sample.', unit: 'm' },
    { min: 100, max: 12000, step: 50, initial: 1800 },
  ),
});

/** Even depths (m below the sea) from the sea or from a datum above it, down to what is asked for. */
export function depthsDown(model: { datumM?: number }, p: { stepM: number; deepestM: number }) {
  const first = -Math.ceil(Math.max(0, model.datumM ?? 0) / p.stepM) * p.stepM || 0;
  return { first, step: p.stepM, count: Math.floor((p.deepestM - first) / p.stepM) + 1 };
}

/** Times (ms) at even depths and one beyond the last: how far apart they are tells how samples are drawn together. */
export function timesDown(
  column: Parameters<typeof timeOfDepth>[0],
  { first, step, count }: ReturnType<typeof depthsDown>,
): Float64Array {
  return Float64Array.from({ length: count + 1 }, (_, k) => timeOfDepth(column, first + k * step));
}
