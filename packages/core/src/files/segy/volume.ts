import type { BinGrid } from '../../earth/binGrid.ts';
import { toMap } from '../../earth/binGrid.ts';
import { stopIf } from '../../earth/errors.ts';
import type { Volume } from '../../earth/objects.ts';
import type { SegyFile } from '../../formats/segy/file.ts';
import { readGroup, type SubRange } from '../../formats/segy/groups.ts';
import type { SegyHeaders } from '../../formats/segy/headers.ts';
import { type DecodeReport, FORMATS } from '../../formats/segy/samples.ts';
import type { TraceIndex } from '../../formats/segy/traces.ts';
import type { Shape3 } from '../../numerics/block.ts';
import { hasher } from '../../numerics/hash.ts';
import { RunningStatistics } from '../../numerics/statistics.ts';
import { scaledFor } from '../../storage/arrays.ts';
import { behind } from '../../storage/behind.ts';
import type { Store } from '../../storage/store.ts';
import { groupsOf, volumeWriter } from '../../storage/volumes.ts';

/** Slabs that are being written while more is read. */
const BEHIND = 32;

export interface LoadedSamples {
  binGrid: BinGrid;
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
  const { inline, crossline } = index.binGrid;
  return { i: [0, inline.count], j: [0, crossline.count], k: [0, samplesOf(file, index)] };
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
    for await (const _ of readGroup(file, index, range, [i0, Math.min(ni, i0 + group)], held, { overflow: 0 }))
      stopIf(signal);
    for (let n = 0; n < held.length; n++) {
      const value = held[n];
      if (value < min) min = value;
      if (value > max && value !== Number.POSITIVE_INFINITY) max = value;
    }
  }
  return min <= max ? [min, max] : [0, 0];
}

/**
 * Read samples into slabs of inlines under `id`, a group at a time, so that memory is bounded whatever the file's size.
 * Copies for crosslines and slices are left to be cut when the volume is there.
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
  const writer = await volumeWriter(store, id, shape, { scaled, planes: ['inline'] });
  const statistics = new RunningStatistics();
  const hash = hasher();
  const report: DecodeReport = { overflow: 0 };
  const { slab, group } = writer;
  const line = nj * nk;
  const held = new Float32Array(Math.min(group, Math.ceil(ni / slab) * slab) * line);
  // every sample is written over where no trace is missing, late or short
  const full = index.missing === 0 && !index.late && !file.parts.some((p) => p.headers.varying);
  const writes = behind(BEHIND);
  let live = 0;
  try {
    for (let i0 = 0; i0 < ni; i0 += group) {
      const lines = Math.min(group, ni - i0);
      await writes.end();
      held.fill(Number.NaN, full ? lines * line : 0);
      // slabs are taken as soon as they are whole, while later ones are read
      let taken = 0;
      for await (const [part, whole] of readGroup(file, index, range, [i0, i0 + lines], held, report)) {
        stopIf(signal);
        for (; taken < whole && (whole === lines || taken + slab <= whole); taken += slab) {
          const real = held.subarray(taken * line, Math.min(taken + slab, lines) * line);
          statistics.add(real);
          hash.words(new Uint32Array(real.buffer, real.byteOffset, real.length));
          const from = taken;
          await writes.add(() => writer.write(i0 + from, held.subarray(from * line, (from + slab) * line)));
        }
        onProgress?.((i0 + part * lines) / ni);
      }
    }
  } finally {
    // nothing is written after a load that was stopped
    await writes.end();
  }
  stopIf(signal);
  await writer.finish();
  const { inline, crossline } = index.binGrid;
  for (let i = range.i[0]; i < range.i[1]; i++)
    for (let j = range.j[0]; j < range.j[1]; j++) if (index.traceOfBin[i * crossline.count + j] >= 0) live++;
  const finished = statistics.finish();
  const notNumbers = finished.nulls - (ni * nj - live) * nk;
  if (report.overflow > 0)
    warnings.push(`${report.overflow} samples are too large for a 32-bit float and were stored as infinite.`);
  const infinite = ni * nj * nk - finished.count - finished.nulls - report.overflow;
  if (infinite > 0)
    warnings.push(`${infinite} samples are infinite; they are kept, and left out of what is said of the others.`);
  const padded = index.late !== null || file.parts.some((p) => p.headers.varying);
  if (notNumbers > 0 && !padded) warnings.push(`${notNumbers} samples are not numbers (NaN); they are shown as empty.`);
  return {
    binGrid: {
      ...index.binGrid,
      inline: { ...inline, first: inline.first + range.i[0] * inline.step, count: ni },
      crossline: { ...crossline, first: crossline.first + range.j[0] * crossline.step, count: nj },
      origin: toMap(index.binGrid, range.i[0], range.j[0]),
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
