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

/** Times (ms) at even depths from 0 and one beyond the last: how far apart they are tells how samples are drawn together. */
export function timesDown(column: Parameters<typeof timeOfDepth>[0], count: number, stepM: number): Float64Array {
  return Float64Array.from({ length: count + 1 }, (_, k) => timeOfDepth(column, k * stepM));
}
