import { HEAP_BASE, type Kernels, reserve } from './load.ts';

/** Places in the memory of the kernels, taken one after the other. Views are good until more is taken. */
export interface Room {
  /** Room for so many values; @returns where it begins, bytes */
  take(values: number): number;
  floats(at: number, values: number): Float32Array;
  ints(at: number, values: number): Int32Array;
}

export function roomIn(kernels: Kernels): Room {
  let end = (HEAP_BASE + 15) & ~15;
  return {
    take(values) {
      const at = end;
      // kernels read up to three values beyond the last, and one before the first
      end = (at + 4 * values + 31) & ~15;
      reserve(kernels, end + 64);
      return at;
    },
    floats: (at, values) => new Float32Array(kernels.memory.buffer, at, values),
    ints: (at, values) => new Int32Array(kernels.memory.buffer, at, values),
  };
}
