import FFT from 'fft.js';

/** The next power of two that holds `n`. */
export function powerOfTwo(n: number): number {
  return 2 ** Math.ceil(Math.log2(Math.max(2, n)));
}

const transforms = new Map<number, FFT>();

/** The transform of a size; its tables are made once. */
export function transformOf(size: number): FFT {
  let fft = transforms.get(size);
  if (!fft) {
    fft = new FFT(size);
    transforms.set(size, fft);
  }
  return fft;
}

/** Spectrum of a real series padded with zeros to `size`: interleaved real and imaginary parts, `size` frequencies. */
export function spectrum(values: ArrayLike<number>, size: number): Float64Array {
  const fft = transformOf(size);
  const input = fft.createComplexArray();
  for (let n = 0; n < input.length; n++) input[n] = 0;
  for (let n = 0; n < Math.min(size, values.length); n++) input[2 * n] = values[n];
  const out = fft.createComplexArray();
  fft.transform(out, input);
  const complex = new Float64Array(2 * size);
  for (let n = 0; n < complex.length; n++) complex[n] = out[n];
  return complex;
}

/** The series (its real part) of a spectrum, `size` samples. */
export function fromSpectrum(values: Float64Array): Float64Array {
  const size = values.length / 2;
  const fft = transformOf(size);
  const out = fft.createComplexArray();
  // it only reads them by their place, as it would of an array
  fft.inverseTransform(out, values as unknown as number[]);
  const real = new Float64Array(size);
  for (let n = 0; n < size; n++) real[n] = out[2 * n];
  return real;
}

/** Hilbert transform of a real series: the series with its phase turned by −90°. */
export function hilbert(values: ArrayLike<number>): Float64Array {
  const size = powerOfTwo(2 * values.length);
  const s = spectrum(values, size);
  for (let n = 0; n < size; n++) {
    // −i for positive frequencies, +i for negative ones, nothing at zero and Nyquist
    const turn = n === 0 || n === size / 2 ? 0 : n < size / 2 ? 1 : -1;
    const [re, im] = [s[2 * n], s[2 * n + 1]];
    s[2 * n] = turn * im;
    s[2 * n + 1] = -turn * re;
  }
  return fromSpectrum(s).slice(0, values.length);
}
