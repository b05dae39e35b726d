declare module 'fft.js' {
  /** Radix-4 transform of a power-of-two size; complex arrays are interleaved. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    transform(out: number[], input: number[]): void;
    /** Of real input; the upper half of what comes out is left as it was. */
    realTransform(out: number[], input: number[]): void;
    inverseTransform(out: number[], input: number[]): void;
  }
}
