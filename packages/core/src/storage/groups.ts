import { cutSlices, threadKernels } from '@lithagon/kernels';
import type { ArrayRef } from '../earth/objects.ts';
import { chunkLength } from './keys.ts';

/** A part of a copy as it is written: a whole chunk, somewhere in a buffer of them. */
export interface Piece {
  at: [number, number, number];
  /** First value in the buffer. */
  from: number;
  length: number;
}

/** How many values the chunks of a copy take that hold one group of inlines. */
export function roomFor(ref: ArrayRef): number {
  return piecesOfGroup(ref, 0, ref.chunk[0]).length * chunkLength(ref);
}

/** The chunks that hold a group of `lines` inlines from `i0` on, one after the other in their buffer. */
export function piecesOfGroup(ref: ArrayRef, i0: number, lines: number): Piece[] {
  const [ci, cj, ck] = ref.chunk;
  const length = chunkLength(ref);
  const out: Piece[] = [];
  for (let a = Math.floor(i0 / ci); a * ci < Math.min(ref.shape[0], i0 + lines); a++)
    for (let b = 0; b * cj < ref.shape[1]; b++)
      for (let c = 0; c * ck < ref.shape[2]; c++) out.push({ at: [a, b, c], from: out.length * length, length });
  return out;
}

/** Put the `n`-th line of a group, `[crossline][sample]`, where it belongs among the chunks of the copy for crosslines. */
export function putCrosslines(ref: ArrayRef, room: Float32Array, n: number, line: Float32Array): void {
  const [, nj, nk] = ref.shape;
  const thick = ref.chunk[1];
  const length = chunkLength(ref);
  for (let s = 0; s * thick < nj; s++) {
    const from = s * thick * nk;
    room.set(line.subarray(from, from + Math.min(thick, nj - s * thick) * nk), s * length + n * thick * nk);
  }
}

/** The same for the copy for slices. */
export function putSlices(ref: ArrayRef, room: Float32Array, n: number, line: Float32Array): void {
  const [, nj, nk] = ref.shape;
  const thick = ref.chunk[2];
  const length = chunkLength(ref);
  const cut = cutSlices(threadKernels(), line, nj, thick);
  for (let s = 0; s * thick < nk; s++)
    room.set(cut.pieces.subarray(s * cut.length, (s + 1) * cut.length), s * length + n * cut.length);
}
