import { type Bodies, contourSegments, joinedSegments, toIndex } from '@lithagon/core';
import { pebble } from '../../color/maps';
import type { SectionLine } from '../../views/section/geometry';

/** Most bodies that views draw: the largest. */
export const MOST_DRAWN = 60;

/** The colour of a body, by its number: neighbours in size are told apart. */
export const bodyColor = (body: number): string => pebble(body - 1);

/** Outlines of what is 1 in a mask, as lines of row and column; what lies at its border is closed. */
export function outlinesOf(mask: Uint8Array, rows: number, columns: number): [number, number][][] {
  const [r, c] = [rows + 2, columns + 2];
  const padded = new Float32Array(r * c);
  for (let a = 0; a < rows; a++) for (let b = 0; b < columns; b++) padded[(a + 1) * c + b + 1] = mask[a * columns + b];
  const segments = contourSegments(padded, r, c, 0.5).get(0.5) ?? [];
  return joinedSegments(segments).map((line) => line.map(([a, b]): [number, number] => [a - 1, b - 1]));
}

/** A body where it is cut, or from above: its number and its outlines. */
export interface Outline {
  body: number;
  lines: [number, number][][];
}

/** Runs by their trace: where in the list those of each begin, by `line · traces + trace`. */
export function runsByTrace(runs: Float32Array, { binGrid }: Bodies): Map<number, number[]> {
  const out = new Map<number, number[]>();
  for (let n = 0; n < runs.length; n += 5) {
    if (runs[n + 4] > MOST_DRAWN) continue;
    const trace = runs[n] * binGrid.crossline.count + runs[n + 1];
    const own = out.get(trace);
    if (own) own.push(n);
    else out.set(trace, [n]);
  }
  return out;
}

/** Outlines along a section, as trace and sample. */
export function alongSection(
  runs: Float32Array,
  byTrace: Map<number, number[]>,
  object: Bodies,
  line: SectionLine,
): Outline[] {
  const { binGrid, vertical } = object;
  const held = new Map<number, Uint8Array>();
  for (let t = 0; t < line.traces; t++) {
    const [i, j] = toIndex(binGrid, ...line.place(t)).map(Math.round);
    if (i < 0 || j < 0 || i >= binGrid.inline.count || j >= binGrid.crossline.count) continue;
    for (const n of byTrace.get(i * binGrid.crossline.count + j) ?? []) {
      const body = runs[n + 4];
      let mask = held.get(body);
      if (!mask) {
        mask = new Uint8Array(line.traces * vertical.count);
        held.set(body, mask);
      }
      mask.fill(1, t * vertical.count + runs[n + 2], t * vertical.count + runs[n + 3]);
    }
  }
  return [...held]
    .sort(([a], [b]) => a - b)
    .map(([body, mask]) => ({ body, lines: outlinesOf(mask, line.traces, vertical.count) }));
}

/** Footprints of bodies, as line and trace. */
export function footprints(byTrace: Map<number, number[]>, runs: Float32Array, { binGrid }: Bodies): Outline[] {
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  const held = new Map<number, Uint8Array>();
  for (const [trace, own] of byTrace)
    for (const n of own) {
      const body = runs[n + 4];
      let mask = held.get(body);
      if (!mask) {
        mask = new Uint8Array(ni * nj);
        held.set(body, mask);
      }
      mask[trace] = 1;
    }
  return [...held].sort(([a], [b]) => a - b).map(([body, mask]) => ({ body, lines: outlinesOf(mask, ni, nj) }));
}
