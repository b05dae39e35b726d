import { fromSpectrum, powerOfTwo, spectrum } from '../numerics/fft.ts';

/** Corners of a zero-phase band-pass, Hz: nothing below the first and above the last, all between the middle two. */
export type Corners = [number, number, number, number];

/** Gain of a band-pass at a frequency, with cosine ramps between its corners. */
export function bandPassGain([a, b, c, d]: Corners, hz: number): number {
  const ramp = (f: number) => 0.5 - 0.5 * Math.cos(Math.PI * f);
  if (hz <= a || hz >= d) return hz === a && a === b ? 1 : 0;
  if (hz < b) return ramp((hz - a) / (b - a));
  if (hz > c) return ramp((d - hz) / (d - c));
  return 1;
}

/** Runs of samples of a trace that are there: `[from, to)`. */
export function liveRuns(data: Float32Array, offset: number, count: number): [number, number][] {
  const runs: [number, number][] = [];
  let from = -1;
  for (let k = 0; k <= count; k++) {
    const there = k < count && !Number.isNaN(data[offset + k]);
    if (there && from < 0) from = k;
    if (!there && from >= 0) {
      runs.push([from, k]);
      from = -1;
    }
  }
  return runs;
}

/**
 * Filter traces by a gain and a phase at each frequency. Samples that are not there stay so and spread nothing: each run
 * of samples is filtered by itself, padded by its mirrored ends so that they do not ring.
 * @param data `[trace][sample]`, changed in place; @param stepMs sample interval, ms
 * @param gain at a frequency in Hz; @param phaseDeg added to every frequency
 */
export function filterTraces(
  data: Float32Array,
  count: number,
  stepMs: number,
  gain: (hz: number) => number,
  phaseDeg = 0,
): void {
  const [cos, sin] = [Math.cos((phaseDeg * Math.PI) / 180), Math.sin((phaseDeg * Math.PI) / 180)];
  const gains = new Map<number, Float64Array>();
  const gainsOf = (size: number) => {
    let table = gains.get(size);
    if (!table) {
      table = Float64Array.from({ length: size / 2 + 1 }, (_, n) => gain((1000 * n) / (size * stepMs)));
      gains.set(size, table);
    }
    return table;
  };
  for (let offset = 0; offset < data.length; offset += count)
    for (const [from, to] of liveRuns(data, offset, count)) {
      const length = to - from;
      if (length < 2) continue;
      const pad = Math.min(length - 1, 200);
      const size = powerOfTwo(length + 2 * pad);
      const padded = new Float64Array(size);
      for (let k = -pad; k < length + pad; k++) {
        const at = k < 0 ? -k : k >= length ? 2 * (length - 1) - k : k;
        // the mirrored ends die away, so that they do not break off
        const out = k < 0 ? -k : k >= length ? k - length + 1 : 0;
        padded[k + pad] = data[offset + from + at] * (0.5 + 0.5 * Math.cos((Math.PI * out) / (pad + 1)));
      }
      const s = spectrum(padded, size);
      const table = gainsOf(size);
      for (let n = 0; n < size; n++) {
        const g = table[n <= size / 2 ? n : size - n];
        // a phase turns positive and negative frequencies opposite ways; zero and Nyquist keep their real part
        const turn = n === 0 || n === size / 2 ? 0 : n < size / 2 ? sin : -sin;
        const [re, im] = [s[2 * n] * g, s[2 * n + 1] * g];
        s[2 * n] = re * cos - im * turn;
        s[2 * n + 1] = re * turn + im * cos;
      }
      const out = fromSpectrum(s);
      for (let k = 0; k < length; k++) data[offset + from + k] = out[pad + k];
    }
}

/** Mean amplitude spectrum of traces: decibels below its greatest, at `size / 2 + 1` frequencies up to Nyquist. */
export function meanSpectrum(data: Float32Array, count: number, stepMs: number): { hz: number[]; db: number[] } {
  const size = powerOfTwo(count);
  const power = new Float64Array(size / 2 + 1);
  const traces = data.length / count;
  const every = Math.max(1, Math.floor(traces / 200));
  const one = new Float64Array(count);
  for (let t = 0; t < traces; t += every) {
    for (let k = 0; k < count; k++) {
      const v = data[t * count + k];
      one[k] = v === v ? v * (0.5 - 0.5 * Math.cos((2 * Math.PI * k) / Math.max(1, count - 1))) : 0;
    }
    const s = spectrum(one, size);
    for (let n = 0; n < power.length; n++) power[n] += s[2 * n] ** 2 + s[2 * n + 1] ** 2;
  }
  const most = power.reduce((a, b) => Math.max(a, b), 1e-300);
  return {
    hz: Array.from(power, (_, n) => (1000 * n) / (size * stepMs)),
    db: Array.from(power, (p) => Math.max(-80, 10 * Math.log10(p / most + 1e-30))),
  };
}

/**
 * Spectral whitening: within a band every frequency is brought to the band's mean amplitude, as a smoothed spectrum has
 * it, by no more than a bound.
 * @param smoothHz width over which the spectrum is smoothed; @param mostDb most that a frequency is raised or lowered
 */
export function whiten(
  data: Float32Array,
  count: number,
  stepMs: number,
  corners: Corners,
  smoothHz: number,
  mostDb: number,
): void {
  const most = 10 ** (mostDb / 20);
  const edge = Math.max(1, count / 5);
  const ramp = (f: number) => (f >= 1 ? 1 : 0.5 - 0.5 * Math.cos(Math.PI * f));
  for (let offset = 0; offset < data.length; offset += count) {
    const trace = data.subarray(offset, offset + count);
    if (liveRuns(trace, 0, count).length === 0) continue;
    const size = powerOfTwo(2 * count);
    const s = spectrum(
      // ends that do not break off, so that strong frequencies do not hide weak ones
      Float64Array.from(trace, (v, k) =>
        v === v ? v * Math.min(1, ramp((k + 1) / edge), ramp((count - k) / edge)) : 0,
      ),
      size,
    );
    const half = size / 2;
    const amplitude = Float64Array.from({ length: half + 1 }, (_, n) => Math.hypot(s[2 * n], s[2 * n + 1]));
    const hz = 1000 / (size * stepMs);
    const reach = Math.max(1, Math.round(smoothHz / hz / 2));
    const sums = new Float64Array(half + 2);
    for (let n = 0; n <= half; n++) sums[n + 1] = sums[n] + amplitude[n];
    const smooth = (n: number) => {
      const [a, b] = [Math.max(0, n - reach), Math.min(half, n + reach)];
      return (sums[b + 1] - sums[a]) / (b - a + 1);
    };
    let [sum, inBand] = [0, 0];
    for (let n = 0; n <= half; n++)
      if (n * hz >= corners[1] && n * hz <= corners[2]) {
        sum += smooth(n);
        inBand++;
      }
    const level = inBand > 0 ? sum / inBand : 0;
    if (level <= 0) continue;
    filterTraces(trace, count, stepMs, (f) => {
      const band = bandPassGain(corners, f);
      if (band === 0) return 0;
      const n = Math.min(half, Math.round(f / hz));
      return band * Math.min(most, Math.max(1 / most, level / (smooth(n) + 1e-30)));
    });
  }
}
