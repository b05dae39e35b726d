import { HEAP_BASE, type Kernels, reserve } from './load.ts';

/** Lines of traces around those wanted: `[2·radius + 1][traces + 2·radius][samples]`. */
export interface VarianceLine {
  data: Float32Array;
  /** 1 for every trace to be used; parallel to `data`. */
  live: Uint8Array;
  traces: number;
  samples: number;
  /** Neighbours on each side, in traces and lines. */
  radius: number;
  /** Samples above and below. */
  half: number;
}

/** Variance of one line by the compiled kernel: `[traces][samples]`, 0 (alike) to 1, NaN where there is no trace. */
export function varianceLine(kernels: Kernels, line: VarianceLine, out: Float32Array): void {
  const { data, live, traces, samples, radius, half } = line;
  const dataAt = HEAP_BASE;
  const liveAt = dataAt + data.byteLength;
  const scratchAt = (liveAt + live.length + 15) & ~15;
  const outAt = scratchAt + 16 * samples;
  reserve(kernels, outAt + 4 * traces * samples);
  new Float32Array(kernels.memory.buffer, dataAt, data.length).set(data);
  new Uint8Array(kernels.memory.buffer, liveAt, live.length).set(live);
  kernels.varianceLine(dataAt, liveAt, scratchAt, outAt, traces, samples, radius, half);
  out.set(new Float32Array(kernels.memory.buffer, outAt, traces * samples));
}

/** The same in plain TypeScript: what the kernel is tested and measured against. */
export function varianceLineTwin(line: VarianceLine, out: Float32Array): void {
  const { data, live, traces, samples, radius, half } = line;
  const width = traces + 2 * radius;
  const spread = new Float32Array(samples);
  const squares = new Float32Array(samples);
  for (let j = 0; j < traces; j++) {
    spread.fill(0);
    squares.fill(0);
    let used = 0;
    for (let di = 0; di <= 2 * radius; di++)
      for (let dj = 0; dj <= 2 * radius; dj++) {
        const n = di * width + j + dj;
        if (!live[n]) continue;
        const at = n * samples;
        for (let k = 0; k < samples; k++) {
          const v = data[at + k];
          spread[k] += v;
          squares[k] += v * v;
        }
        used++;
      }
    const to = j * samples;
    if (used < 2 || !live[radius * width + j + radius]) {
      out.fill(Number.NaN, to, to + samples);
      continue;
    }
    for (let k = 0; k < samples; k++) spread[k] = squares[k] - (spread[k] * spread[k]) / used;
    let a = 0;
    let b = 0;
    for (let k = 0; k <= Math.min(half, samples - 1); k++) {
      a += spread[k];
      b += squares[k];
    }
    for (let k = 0; k < samples; k++) {
      out[to + k] = b > 0 ? Math.min(1, Math.max(0, a / b)) : 0;
      if (k + half + 1 < samples) {
        a += spread[k + half + 1];
        b += squares[k + half + 1];
      }
      if (k - half >= 0) {
        a -= spread[k - half];
        b -= squares[k - half];
      }
    }
  }
}
