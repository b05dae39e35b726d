import type { z } from 'zod';
import type { Volume } from '../../earth/objects.ts';
import { type Quantity, SEISMIC_LIKE } from '../../earth/quantities.ts';
import { oneVolume } from '../../engine/local.ts';
import { type AnyStep, defineStep } from '../define.ts';

/** Quantities whose samples swing about zero, which filters and gains are for. */
const SEISMIC = SEISMIC_LIKE;

/** What a conditioning of whole traces is told of the volume. */
export interface TraceFacts {
  /** Samples of a trace, the first one's time or depth, and the step between them. */
  count: number;
  first: number;
  step: number;
  /** rms of the whole volume. */
  rms: number;
}

/** A step that changes traces one by one, whole: `apply` changes `[trace][sample]` in place. */
export function traceStep<P extends z.ZodObject>(declared: {
  id: string;
  purpose?: string;
  formula?: string;
  avoid?: string;
  title: string;
  summary: string;
  source: string;
  params: P;
  output?: string;
  /** Quantities that it takes; those that swing about zero where it is not given, any where it is null. */
  quantity?: Quantity[] | null;
  apply(data: Float32Array, params: z.infer<P>, facts: TraceFacts): void;
  response?(params: z.infer<P>, hz: number): number;
  /** Polarity of the result, where it differs from that of the input. */
  polarity?(before: Volume['polarity'], params: z.infer<P>): Volume['polarity'];
}): AnyStep {
  const { apply, output, quantity = SEISMIC, polarity, ...facts } = declared;
  const local = oneVolume<z.infer<P>, undefined, TraceFacts>('seismic', 'conditioned', {
    halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
    ready: (_, __, { seismic: { vertical, statistics } }) => ({ ...vertical, rms: statistics.rms }),
    evaluate: (block, params, facts) => {
      const data = block.data.slice();
      apply(data, params, facts);
      return data;
    },
    outputOf: (volume, params) => (polarity ? { polarity: polarity(volume.polarity, params) } : {}),
  });
  return defineStep({
    ...facts,
    version: 1,
    stage: 'data',
    reach: 'trace',
    inputs: { seismic: { kind: 'volume', title: 'Seismic', ...(quantity ? { quantity } : {}) } },
    outputs: { conditioned: { kind: 'volume', title: output ?? facts.title } },
    local,
  }) as AnyStep;
}
