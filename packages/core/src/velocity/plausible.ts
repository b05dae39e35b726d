import type { Quantity } from '../earth/quantities.ts';
import { MEAN_OF } from './interval.ts';

/** How the velocities of some traces run, by which their kind may be told. */
export interface VelocityRun {
  /** The greatest step from one sample to the next that no mean from time nought down can take, and at what time (ms). */
  jump: { part: number; ms: number } | null;
  /** Whether they rise nearly everywhere, as means do. */
  rising: boolean;
}

/** No rock is faster than this, or slower, m/s: how far a mean may go from one sample to the next follows from that. */
const ROCK = { fastest: 8500, slowest: 300 };
/** What noise of picks may add to a step, as a part. */
const NOISE = 0.02;
/** Times before this say nothing, ms: means are as rough there as what they are of. */
const FROM_MS = 200;
/** Part of the traces that must take such a step. */
const MANY = 0.3;
/** Part of samples that may fall of what rises. */
const FALLS = 0.08;

/**
 * Look how velocities run down traces. A mean of velocities over the time t changes over a step dt by no more than
 * ½·((v/V)² − 1)·dt/t, whatever the rock between (from Dix 1955, Geophysics 20, 68–86).
 * @param data `[trace][sample]`, m/s, at `first + k·step` ms
 */
export function runOfVelocities(data: ArrayLike<number>, samples: number, first: number, step: number): VelocityRun {
  const traces = Math.floor(data.length / samples);
  let [worst, at, jumped, falls, count] = [0, 0, 0, 0, 0];
  for (let n = 0; n < traces; n++) {
    let own = false;
    for (let k = 1; k < samples; k++) {
      const t = first + k * step;
      const [a, b] = [data[n * samples + k - 1], data[n * samples + k]];
      if (t < FROM_MS || !(a > 0 && b > 0)) continue;
      count++;
      const part = (b - a) / a;
      if (part < -1e-4) falls++;
      const most = part > 0 ? 0.5 * ((ROCK.fastest / a) ** 2 - 1) : 0.5 * (1 - (ROCK.slowest / a) ** 2);
      if (Math.abs(part) <= (most * step) / t + NOISE) continue;
      own = true;
      if (Math.abs(part) > worst) [worst, at] = [Math.abs(part), t];
    }
    if (own) jumped++;
  }
  return {
    jump: traces > 0 && jumped / traces >= MANY ? { part: worst, ms: at } : null,
    rising: count > 0 && falls / count <= FALLS,
  };
}

const jumps = ({ part, ms }: NonNullable<VelocityRun['jump']>) =>
  `from one sample to the next they change by ${Math.round(100 * part)} % at ${Math.round(ms)} ms, as no mean from time 0 can`;

/** What kind velocities look to be, and why; null where their run leaves it open. */
export function kindByRun({ jump, rising }: VelocityRun): { kind: Quantity | null; why: string } {
  if (jump) return { kind: 'interval velocity', why: `${jumps(jump)}: they look like interval velocities.` };
  return {
    kind: null,
    why: rising
      ? 'They rise evenly: they may be means from time 0 (RMS, stacking, average) or smooth interval velocities.'
      : 'They neither rise all the way nor jump.',
  };
}

/** Why velocities cannot be what they were declared to be, in a sentence; null where they can. */
export function doubtOf(name: string, quantity: Quantity, run: VelocityRun): string | null {
  if (!(quantity in MEAN_OF) || !run.jump) return null;
  return `${name} was declared ${quantity}, but ${jumps(run.jump)}: they look like interval velocities. Declare it anew if that is what they are.`;
}
