import type { Field } from '../model/field.ts';
import { randomFor } from '../model/random.ts';
import { ramp, wavyField } from '../model/shapes.ts';
import { type Extent, uOf, vOf } from '../model/survey.ts';
import { timeColumn } from './traces.ts';

/** A coarse velocity grid: every tenth line and trace, 20 ms samples to 1800 ms. */
export interface VelocityGrid {
  inlines: number[];
  crosslines: number[];
  sampleMs: number;
  samples: number;
  /** `[inline][crossline][sample]`, m/s: some per cent off, by amounts that vary smoothly. */
  interval: Float32Array;
  /** Root-mean-square velocity with picking noise. */
  stacking: Float32Array;
}

const EVERY = 10;
const STEP_MS = 20;
/** Two-way time (ms) between the maps that the error of the interval velocity runs through. */
const ERROR_EVERY_MS = 450;

/** Relative error of the interval velocity: a bias of its own, and what varies over kilometres and half seconds. */
export function velocityError(seed: number): (u: number, v: number, ms: number) => number {
  const random = randomFor(seed, 'velocity errors');
  const bias = (random() < 0.5 ? -1 : 1) * random.between(0.004, 0.018);
  const maps = [0, 1, 2, 3, 4, 5].map(() => wavyField(random, 0.022, 2500, 8000));
  return (u, v, ms) => {
    const k = Math.min(maps.length - 2, Math.floor(ms / ERROR_EVERY_MS));
    const f = ramp(ms / ERROR_EVERY_MS - k, 0, 1);
    return bias + (1 - f) * maps[k](u, v) + f * maps[k + 1](u, v);
  };
}

export function velocitiesOf(field: Field, extent: Extent): VelocityGrid {
  const pick = (from: number, count: number) =>
    Array.from({ length: Math.floor((count - 1) / EVERY) + 1 }, (_, n) => from + n * EVERY);
  const inlines = pick(extent.inline0, extent.inlines);
  const crosslines = pick(extent.crossline0, extent.crosslines);
  const samples = 91;
  const interval = new Float32Array(inlines.length * crosslines.length * samples);
  const stacking = new Float32Array(interval.length);
  const random = randomFor(field.seed, 'velocity picks');
  const error = velocityError(field.seed);
  const trend = wavyField(random, 0.008, 900, 3000);
  let n = 0;
  for (const il of inlines)
    for (const xl of crosslines) {
      const [u, v] = [uOf(xl), vOf(il)];
      const column = timeColumn(field, u, v);
      let j = 0;
      const depthAt = (ms: number) => {
        while (j < column.count - 2 && column.twt[j + 1] < ms) j++;
        return (j + (ms - column.twt[j]) / (column.twt[j + 1] - column.twt[j])) * column.dz;
      };
      let squares = 0;
      let before = 0;
      let noise = 0;
      for (let k = 0; k < samples; k++, n++) {
        const z = depthAt((k + 1) * STEP_MS);
        const velocity = (2000 * (z - before)) / STEP_MS;
        before = z;
        squares += velocity * velocity;
        interval[n] = velocity * (1 + error(u, v, (k + 0.5) * STEP_MS));
        noise = 0.9 * noise + 0.0035 * random.normal();
        stacking[n] = Math.sqrt(squares / (k + 1)) * (1 + noise + trend(u + 3 * k, v));
      }
    }
  return { inlines, crosslines, sampleMs: STEP_MS, samples, interval, stacking };
}
