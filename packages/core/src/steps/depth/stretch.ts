import { z } from 'zod';
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
