import { stopIf } from '../../earth/errors.ts';
import type { ArrayRef, Statistics } from '../../earth/objects.ts';
import { partOf, type SegyFile } from '../../formats/segy/file.ts';
import { traceOffset, traceSamples } from '../../formats/segy/headers.ts';
import type { LineTraces } from '../../formats/segy/line.ts';
import { decodeSamples, FORMATS } from '../../formats/segy/samples.ts';
import { hasher } from '../../numerics/hash.ts';
import { RunningStatistics } from '../../numerics/statistics.ts';
import { createArray, writeChunk } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';

/** Traces in a chunk of a line, so that it is about a megabyte. */
export function chunkOfLine(traces: number, samples: number): number {
  return Math.min(traces, Math.max(1, Math.round((1 << 20) / (4 * samples))));
}

/** Read the samples of a 2D line `[trace][sample]` into chunks under `id`. */
export async function loadLineSamples(
  file: SegyFile,
  line: LineTraces,
  store: Store,
  id: string,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<{ ref: ArrayRef; statistics: Statistics; hash: string }> {
  const count = line.traces.length;
  const nk = file.samples;
  const thick = chunkOfLine(count, nk);
  const ref = await createArray(store, { key: `${id}/samples`, shape: [count, nk], chunk: [thick, nk] }, [
    'trace',
    'sample',
  ]);
  const statistics = new RunningStatistics();
  const hash = hasher();
  for (let t0 = 0; t0 < count; t0 += thick) {
    stopIf(signal);
    const held = new Float32Array(thick * nk).fill(Number.NaN);
    for (let t = t0; t < Math.min(count, t0 + thick); t++) {
      const part = partOf(file, line.traces[t]);
      const { headers } = part;
      const n = line.traces[t] - part.from;
      const samples = traceSamples(headers, n);
      const bytes = await part.source.read(
        traceOffset(headers, n) + headers.headerBytes,
        samples * FORMATS[headers.format].bytes,
      );
      decodeSamples(
        bytes,
        0,
        samples,
        headers.format,
        headers.littleEndian,
        held,
        (t - t0) * nk,
        undefined,
        headers.weight,
      );
    }
    const real = held.subarray(0, (Math.min(count, t0 + thick) - t0) * nk);
    statistics.add(real);
    hash.words(new Uint32Array(real.buffer, 0, real.length));
    await writeChunk(store, ref, [t0 / thick, 0], held);
    onProgress?.(Math.min(1, (t0 + thick) / count));
  }
  return { ref, statistics: statistics.finish(), hash: hash.digest() };
}
