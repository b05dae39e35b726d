import type { FieldLook } from './field';
import type { Mix } from './mix';

/** Two grids as one: changing the weights draws again and computes nothing. */
export interface Sum {
  second: Float32Array;
  weights: readonly [number, number];
}

/** A grid of samples laid on four corners, and the part of the plane that is in view. */
export interface Quad {
  /** `[row][sample]`. */
  data: Float32Array;
  rows: number;
  samples: number;
  /** x and y of sample 0 of row 0, its last sample, the last of the last row, the first of the last row. */
  corners: number[];
  /** left, right, top, bottom. */
  window: [number, number, number, number];
  look: FieldLook;
  /** What the samples are mixed with instead of being drawn in the colours of the look. */
  mix?: Mix;
  /** A second grid of the same shape, with what both are multiplied by before they are added and drawn in the colours of the look. */
  sum?: Sum;
  width: number;
  height: number;
}

/** Draws grids into a canvas; keeps what it made of the samples for as long as they are the same. */
export interface Painter {
  /** `width` × `height` device pixels. */
  paint(canvas: HTMLCanvasElement, quad: Quad, width: number, height: number): void;
  free(): void;
}
