/** A SEG-Y writer for tests, made from the standard's tables and nothing of the reader's. */
export interface MadeSegy {
  format: number;
  littleEndian: boolean;
  revision: 0 | 1 | 2;
  inlines: number[];
  crosslines: number[];
  samples: number;
  intervalUs: number;
  bytes: {
    inline: number;
    crossline: number;
    x: number;
    y: number;
  };
  scalar: number;
  origin: [number, number];
  perInline: [number, number];
  perCrossline: [number, number];
  order: 'inline' | 'crossline' | 'shuffled';
  /** Bins left out and bins written twice, as indexes. */
  missing: Set<number>;
  twice: Set<number>;
  ascii: boolean;
  extended: number;
  delayMs: number;
}
/** A small file as most are: revision 1, the usual byte positions, nothing missing. */
export declare const PLAIN_SEGY: MadeSegy;
export declare const BYTES: Record<number, number>;
/** Sample values that every format holds exactly. */
export declare function exactValue(format: number, i: number, j: number, k: number): number;
/** The file, and the value of every bin's trace that should be read. */
export declare function makeSegy(spec: MadeSegy, shuffle: (n: number) => number[]): Uint8Array;
