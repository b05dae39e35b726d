import type { Field } from '../model/field.ts';
import { type Extent, SURVEY, uOf, vOf } from '../model/survey.ts';
import { addFootprint, addNoise, blurLaterally, meanOf } from './image.ts';
import { modelTracesInParallel } from './pool.ts';
import { KEPT, MEETS } from './traces.ts';

/** The imaged survey: `[inline][crossline][sample]`. */
export interface Imaged {
  extent: Extent;
  /** Near, mid and far stacks with noise and footprint. */
  stacks: Float32Array[];
  /** The full stack without noise: what a perfect recording would show. */
  clean: Float32Array;
  /** `[trace][kept surface][meeting][depth, twt]`. */
  horizons: Float32Array;
}

/** Depth (m) and time (ms) at which a trace meets a kept surface for the `meeting`-th time; NaN where it does not. */
export function meeting(
  imaged: { horizons: Float32Array },
  trace: number,
  surface: number,
  n: number,
): [number, number] {
  const o = ((trace * KEPT.length + KEPT.indexOf(surface)) * MEETS + n) * 2;
  return [imaged.horizons[o], imaged.horizons[o + 1]];
}

export async function imageSurvey(field: Field, extent: Extent, onProgress?: (part: number) => void): Promise<Imaged> {
  const traces = extent.inlines * extent.crosslines;
  const places = new Float64Array(2 * traces);
  for (let i = 0; i < extent.inlines; i++)
    for (let j = 0; j < extent.crosslines; j++) {
      places[2 * (i * extent.crosslines + j)] = uOf(extent.crossline0 + j);
      places[2 * (i * extent.crosslines + j) + 1] = vOf(extent.inline0 + i);
    }
  const set = await modelTracesInParallel(field, places, onProgress);
  const shape = { lines: extent.inlines, traces: extent.crosslines };
  const stacks = set.stacks.map((stack) => blurLaterally(stack, shape));
  const clean = meanOf(stacks);
  const tolven = new Float32Array(traces);
  for (let n = 0; n < traces; n++) tolven[n] = meeting(set, n, 5, 0)[1];
  addNoise(field.seed, stacks, tolven, shape);
  addFootprint(stacks, shape, extent.inline0, extent.crossline0);
  return { extent, stacks, clean, horizons: set.horizons };
}

/** A 2D line in survey coordinates. */
export interface Line {
  name: string;
  from: [u: number, v: number];
  to: [u: number, v: number];
}

/** Two lines that cross the survey and run outside it. */
export const LINES: Line[] = [
  { name: 'QL-07', from: [-1200, 2350], to: [6100, 1150] },
  { name: 'QL-12', from: [1450, -1300], to: [2650, 5200] },
];

/** Spacing of CDPs along a 2D line, metres; every second one has a shotpoint. */
export const CDP_M = 12.5;

export interface ImagedLine {
  line: Line;
  places: Float64Array;
  data: Float32Array;
}

/** The full stack along a 2D line, noise included. */
export async function imageLine(field: Field, line: Line): Promise<ImagedLine> {
  const length = Math.hypot(line.to[0] - line.from[0], line.to[1] - line.from[1]);
  const traces = Math.floor(length / CDP_M) + 1;
  const places = new Float64Array(2 * traces);
  for (let n = 0; n < traces; n++) {
    const f = (n * CDP_M) / length;
    places[2 * n] = line.from[0] + f * (line.to[0] - line.from[0]);
    places[2 * n + 1] = line.from[1] + f * (line.to[1] - line.from[1]);
  }
  const set = await modelTracesInParallel(field, places);
  const shape = { lines: 1, traces };
  const stacks = set.stacks.map((stack) => blurLaterally(stack, shape));
  const tolven = new Float32Array(traces);
  for (let n = 0; n < traces; n++) tolven[n] = meeting(set, n, 5, 0)[1];
  addNoise(field.seed + 7 * line.name.length + line.name.charCodeAt(4), stacks, tolven, shape);
  return { line, places, data: meanOf(stacks) };
}

/** Samples of an imaged survey that lie at an inline and crossline number. */
export function traceOffset(extent: Extent, inline: number, crossline: number): number {
  return ((inline - extent.inline0) * extent.crosslines + crossline - extent.crossline0) * SURVEY.samples;
}
