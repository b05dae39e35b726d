import { stopIf } from '../../earth/errors.ts';
import type { Volume } from '../../earth/objects.ts';
import { hasher } from '../../numerics/hash.ts';
import { RunningStatistics } from '../../numerics/statistics.ts';
import type { Store } from '../../storage/store.ts';
import { type Shape3, volumeWriter } from '../../storage/volumes.ts';
import type { ByteSource } from '../source.ts';
import type { SegyHeaders } from './headers.ts';
import { type DecodeReport, decodeSamples, FORMATS } from './samples.ts';
import type { TraceIndex } from './traces.ts';

/** Samples held at once: 24 million, 96 MB, whatever the file's size. */
const HELD = 24e6;
/** Traces that lie closer together in the file than this are fetched in one read. */
const GAP_BYTES = 64 << 10;
const READ_BYTES = 8 << 20;

export interface LoadedSamples {
  layouts: Volume['layouts'];
  statistics: Volume['statistics'];
  /** Hash of all samples, in the order of bins. */
  hash: string;
  warnings: string[];
}

/**
 * Read every sample into slabs under `id`. Inlines are taken in groups that fit in memory; within a group traces
 * are read in the file's own order, so that any order of traces costs few passes.
 */
export async function loadSamples(
  source: ByteSource,
  headers: SegyHeaders,
  index: TraceIndex,
  store: Store,
  id: string,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<LoadedSamples> {
  const { inline, crossline } = index.lattice;
  const shape: Shape3 = [inline.count, crossline.count, headers.samples];
  const [ni, nj, nk] = shape;
  const writer = await volumeWriter(store, id, shape);
  const statistics = new RunningStatistics();
  const hash = hasher();
  const report: DecodeReport = { overflow: 0 };
  let notNumbers = 0;
  const group = Math.max(1, Math.floor(HELD / (nj * nk * writer.slab))) * writer.slab;
  for (let i0 = 0; i0 < ni; i0 += group) {
    const lines = Math.min(group, Math.ceil((ni - i0) / writer.slab) * writer.slab);
    const held = new Float32Array(lines * nj * nk).fill(Number.NaN);
    const bins = Math.min(lines, ni - i0) * nj;
    const wanted = new Int32Array(bins);
    let live = 0;
    for (let b = 0; b < bins; b++) if (index.traceOfBin[i0 * nj + b] >= 0) wanted[live++] = b;
    const ordered = wanted
      .subarray(0, live)
      .sort((p, q) => index.traceOfBin[i0 * nj + p] - index.traceOfBin[i0 * nj + q]);
    for (let a = 0; a < live; ) {
      stopIf(signal);
      const start = index.traceOfBin[i0 * nj + ordered[a]];
      let b = a;
      while (b + 1 < live) {
        const next = index.traceOfBin[i0 * nj + ordered[b + 1]];
        const last = index.traceOfBin[i0 * nj + ordered[b]];
        if ((next - last - 1) * headers.traceBytes > GAP_BYTES || (next - start + 1) * headers.traceBytes > READ_BYTES)
          break;
        b++;
      }
      const end = index.traceOfBin[i0 * nj + ordered[b]];
      const bytes = await source.read(
        headers.firstTrace + start * headers.traceBytes,
        (end - start + 1) * headers.traceBytes,
      );
      for (let n = a; n <= b; n++) {
        const trace = index.traceOfBin[i0 * nj + ordered[n]];
        const at = (trace - start) * headers.traceBytes + 240;
        decodeSamples(bytes, at, nk, headers.format, headers.littleEndian, held, ordered[n] * nk, report);
      }
      a = b + 1;
      onProgress?.((0.6 * (i0 * nj + a)) / (ni * nj));
    }
    const real = held.subarray(0, bins * nk);
    statistics.add(real);
    hash.words(new Uint32Array(real.buffer, real.byteOffset, real.length));
    for (let s = 0; s < lines; s += writer.slab) {
      stopIf(signal);
      await writer.write(i0 + s, held.subarray(s * nj * nk, (s + writer.slab) * nj * nk));
    }
  }
  await writer.finish(signal, (p) => onProgress?.(0.6 + 0.4 * p));
  const finished = statistics.finish();
  notNumbers = finished.nulls - index.missing * nk;
  const warnings: string[] = [];
  if (report.overflow > 0)
    warnings.push(`${report.overflow} samples are too large for a 32-bit float and were stored as infinite.`);
  if (notNumbers > 0) warnings.push(`${notNumbers} samples are not numbers (NaN); they are shown as empty.`);
  return { layouts: writer.layouts, statistics: finished, hash: hash.digest(), warnings };
}

export function formatName(headers: SegyHeaders): string {
  return `${FORMATS[headers.format].name}, ${headers.littleEndian ? 'little' : 'big'}-endian`;
}
