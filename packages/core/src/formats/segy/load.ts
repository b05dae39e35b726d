import { stopIf } from '../../earth/errors.ts';
import type { Lattice } from '../../earth/lattice.ts';
import { toMap } from '../../earth/lattice.ts';
import type { Volume } from '../../earth/objects.ts';
import { hasher } from '../../numerics/hash.ts';
import { RunningStatistics } from '../../numerics/statistics.ts';
import { scaledFor } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';
import { groupsOf, type Shape3, volumeWriter } from '../../storage/volumes.ts';
import { partOf, type SegyFile } from './file.ts';
import { type SegyHeaders, traceOffset, traceSamples } from './headers.ts';
import { type DecodeReport, decodeSamples, FORMATS } from './samples.ts';
import type { TraceIndex } from './traces.ts';

/** Traces that lie closer together in the file than this are fetched in one read. */
const GAP_BYTES = 64 << 10;
const READ_BYTES = 8 << 20;

/** The part of a volume that is wanted: indexes into its lines and samples, ends excluded. */
export interface SubRange {
  i: [number, number];
  j: [number, number];
  k: [number, number];
}

export interface LoadedSamples {
  lattice: Lattice;
  vertical: Volume['vertical'];
  layouts: Volume['layouts'];
  statistics: Volume['statistics'];
  traces: Volume['traces'];
  /** Hash of all samples, in the order of bins. */
  hash: string;
  warnings: string[];
}

/** Samples of a volume, with what traces that begin late add at its end. */
export function samplesOf(file: SegyFile, index: TraceIndex): number {
  return file.samples + (index.late ? index.late.reduce((a, b) => Math.max(a, b), 0) : 0);
}

export function wholeRange(file: SegyFile, index: TraceIndex): SubRange {
  const { inline, crossline } = index.lattice;
  return { i: [0, inline.count], j: [0, crossline.count], k: [0, samplesOf(file, index)] };
}

/** Read the traces of a group of lines into `held`, in the file's own order, so that any order of traces costs few passes. */
async function readGroup(
  file: SegyFile,
  index: TraceIndex,
  range: SubRange,
  lines: [number, number],
  held: Float32Array,
  report: DecodeReport,
  each: (part: number) => void,
): Promise<void> {
  const nj = range.j[1] - range.j[0];
  const nk = range.k[1] - range.k[0];
  const width = index.lattice.crossline.count;
  const bins = (lines[1] - lines[0]) * nj;
  const traceOf = (b: number) =>
    index.traceOfBin[(range.i[0] + lines[0] + Math.floor(b / nj)) * width + range.j[0] + (b % nj)];
  const wanted = new Int32Array(bins);
  const traces = new Int32Array(bins);
  let live = 0;
  let sorted = true;
  for (let b = 0; b < bins; b++) {
    const trace = traceOf(b);
    traces[b] = trace;
    if (trace < 0) continue;
    if (live > 0 && trace < traces[wanted[live - 1]]) sorted = false;
    wanted[live++] = b;
  }
  const ordered = wanted.subarray(0, live);
  if (!sorted) ordered.sort((p, q) => traces[p] - traces[q]);
  const one = new Float32Array(file.samples);
  const { k } = range;
  for (let a = 0; a < live; ) {
    const part = partOf(file, traces[ordered[a]]);
    const { headers } = part;
    const start = traceOffset(headers, traces[ordered[a]] - part.from);
    let end = start + headers.headerBytes;
    let b = a;
    for (; b < live; b++) {
      const n = traces[ordered[b]] - part.from;
      if (n >= headers.traces) break;
      const at = traceOffset(headers, n);
      const after = at + headers.headerBytes + traceSamples(headers, n) * FORMATS[headers.format].bytes;
      if (b > a && (at - end > GAP_BYTES || after - start > READ_BYTES)) break;
      end = after;
    }
    const bytes = await part.source.read(start, end - start);
    for (; a < b; a++) {
      const bin = ordered[a];
      const n = traces[bin] - part.from;
      const count = traceSamples(headers, n);
      const late = index.late?.[traces[bin]] ?? 0;
      const at = traceOffset(headers, n) - start + headers.headerBytes;
      if (late === 0 && k[0] === 0 && count <= nk) {
        decodeSamples(bytes, at, count, headers.format, headers.littleEndian, held, bin * nk, report, headers.weight);
        continue;
      }
      decodeSamples(bytes, at, count, headers.format, headers.littleEndian, one, 0, report, headers.weight);
      for (let m = Math.max(k[0], late); m < Math.min(k[1], late + count); m++)
        held[bin * nk + m - k[0]] = one[m - late];
    }
    each(b / live);
  }
}

/** Least and greatest sample of the wanted part of a file. */
async function extent(
  file: SegyFile,
  index: TraceIndex,
  range: SubRange,
  group: number,
  signal: AbortSignal | undefined,
): Promise<[number, number]> {
  let [min, max] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  const ni = range.i[1] - range.i[0];
  const plane = (range.j[1] - range.j[0]) * (range.k[1] - range.k[0]);
  const held = new Float32Array(group * plane);
  for (let i0 = 0; i0 < ni; i0 += group) {
    held.fill(Number.NaN);
    await readGroup(file, index, range, [i0, Math.min(ni, i0 + group)], held, { overflow: 0 }, () => stopIf(signal));
    for (let n = 0; n < held.length; n++) {
      const value = held[n];
      if (value < min) min = value;
      if (value > max && value !== Number.POSITIVE_INFINITY) max = value;
    }
  }
  return min <= max ? [min, max] : [0, 0];
}

/**
 * Read samples into slabs under `id`, a group of inlines at a time, so that memory is bounded whatever the file's size.
 * @param compact keep samples in 16 bits, scaled to their least and greatest
 */
export async function loadSamples(
  file: SegyFile,
  index: TraceIndex,
  range: SubRange,
  store: Store,
  id: string,
  compact: boolean,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<LoadedSamples> {
  const shape = [range.i, range.j, range.k].map(([a, b]) => b - a) as Shape3;
  const [ni, nj, nk] = shape;
  const warnings: string[] = [];
  let scaled: ReturnType<typeof scaledFor> | undefined;
  if (compact) {
    const [min, max] = await extent(file, index, range, groupsOf(shape).group, signal);
    scaled = scaledFor(min, max);
    warnings.push(
      `Kept in 16 bits: no sample is off by more than ${(scaled.factor / 2).toPrecision(3)}, 1/${Math.round((max - min) / (scaled.factor / 2))} of their range.`,
    );
  }
  const writer = await volumeWriter(store, id, shape, scaled);
  const statistics = new RunningStatistics();
  const hash = hasher();
  const report: DecodeReport = { overflow: 0 };
  // one group is read while the one before it is written
  const buffers = Array.from({ length: ni > writer.group ? 2 : 1 }, () => new Float32Array(writer.group * nj * nk));
  let writing: Promise<void> = Promise.resolve();
  let live = 0;
  try {
    for (let i0 = 0, n = 0; i0 < ni; i0 += writer.group, n++) {
      const held = buffers[n % buffers.length].fill(Number.NaN);
      const lines = Math.min(writer.group, ni - i0);
      await readGroup(file, index, range, [i0, i0 + lines], held, report, (part) => {
        stopIf(signal);
        onProgress?.((i0 + part * lines) / ni);
      });
      const real = held.subarray(0, lines * nj * nk);
      statistics.add(real);
      hash.words(new Uint32Array(real.buffer, real.byteOffset, real.length));
      await writing;
      stopIf(signal);
      writing = writer.write(i0, held.subarray(0, Math.ceil(lines / writer.slab) * writer.slab * nj * nk));
      // heard of when it is waited for
      writing.catch(() => undefined);
    }
    await writing;
  } finally {
    // nothing is written after a load that was stopped
    await writing.catch(() => undefined);
  }
  await writer.finish();
  const { inline, crossline } = index.lattice;
  for (let i = range.i[0]; i < range.i[1]; i++)
    for (let j = range.j[0]; j < range.j[1]; j++) if (index.traceOfBin[i * crossline.count + j] >= 0) live++;
  const finished = statistics.finish();
  const notNumbers = finished.nulls - (ni * nj - live) * nk;
  if (report.overflow > 0)
    warnings.push(`${report.overflow} samples are too large for a 32-bit float and were stored as infinite.`);
  const padded = index.late !== null || file.parts.some((p) => p.headers.varying);
  if (notNumbers > 0 && !padded) warnings.push(`${notNumbers} samples are not numbers (NaN); they are shown as empty.`);
  return {
    lattice: {
      ...index.lattice,
      inline: { ...inline, first: inline.first + range.i[0] * inline.step, count: ni },
      crossline: { ...crossline, first: crossline.first + range.j[0] * crossline.step, count: nj },
      origin: toMap(index.lattice, range.i[0], range.j[0]),
    },
    vertical: { first: index.first + range.k[0] * file.intervalMs, step: file.intervalMs, count: nk },
    layouts: writer.layouts,
    statistics: finished,
    traces: { live, missing: ni * nj - live, duplicate: index.duplicates },
    hash: hash.digest(),
    warnings,
  };
}

export function formatName(headers: SegyHeaders): string {
  return `${FORMATS[headers.format].name}, ${headers.littleEndian ? 'little' : 'big'}-endian`;
}
