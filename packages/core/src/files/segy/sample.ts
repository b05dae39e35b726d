import type { SegyFile } from '../../formats/segy/file.ts';
import { traceOffset, traceSamples } from '../../formats/segy/headers.ts';
import { decodeSamples, FORMATS } from '../../formats/segy/samples.ts';
import { runOfVelocities } from '../../velocity/plausible.ts';

const BARS = 61;

/** Read a line of traces as a picture of what is in the file. */
export async function sampleSection(file: SegyFile, traces: ArrayLike<number>) {
  const every = Math.max(1, Math.ceil(traces.length / 300));
  const count = Math.ceil(traces.length / every);
  const nk = file.samples;
  const data = new Float32Array(count * nk).fill(Number.NaN);
  for (let n = 0; n < count; n++) {
    const trace = traces[n * every];
    const part = trace < 0 ? undefined : file.parts.findLast((p) => p.from <= trace);
    if (!part) continue;
    const { headers } = part;
    const samples = traceSamples(headers, trace - part.from);
    const bytes = await part.source.read(
      traceOffset(headers, trace - part.from) + headers.headerBytes,
      samples * FORMATS[headers.format].bytes,
    );
    decodeSamples(bytes, 0, samples, headers.format, headers.littleEndian, data, n * nk, undefined, headers.weight);
  }
  const sorted = data.filter((v) => Number.isFinite(v)).sort();
  const at = (p: number) => sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))] ?? 0;
  const negative = sorted.length ? sorted.findIndex((v) => v >= 0) / sorted.length : 0;
  const [from, to] = [at(0.001), at(0.999)];
  const counts = new Array<number>(BARS).fill(0);
  let squares = 0;
  for (const v of sorted) {
    squares += v * v;
    if (to > from && v >= from && v <= to) counts[Math.min(BARS - 1, Math.floor(((v - from) / (to - from)) * BARS))]++;
  }
  return {
    sample: {
      traces: count,
      samples: nk,
      data,
      clip: Math.max(Math.abs(at(0.01)), Math.abs(at(0.99))),
      stepMs: file.intervalMs,
    },
    histogram: to > from ? { from, to, counts } : undefined,
    stats: {
      min: at(0),
      negative: negative < 0 ? 1 : negative,
      median: at(0.5),
      run: runOfVelocities(data, nk, 0, file.intervalMs),
    },
    extent: [at(0), sorted[sorted.length - 1] ?? 0] as [number, number],
    rms: Math.sqrt(squares / Math.max(1, sorted.length)),
  };
}
