declare module 'fft.js' {
  /** Radix-4 transform of a power-of-two size; complex arrays are interleaved. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    transform(out: number[], input: number[]): void;
    inverseTransform(out: number[], input: number[]): void;
  }
}
