import { type Piece, readAhead } from '../source.ts';
import { partOf, type SegyFile, type SegyPart } from './file.ts';
import { traceOffset, traceSamples } from './headers.ts';
import { type DecodeReport, decodeSamples, decodeTraces, FORMATS } from './samples.ts';
import type { TraceIndex } from './traces.ts';

/** Traces that lie closer together in the file than this are fetched in one read. */
const GAP_BYTES = 64 << 10;
const READ_BYTES = 4 << 20;

/** The part of a volume that is wanted: indexes into its lines and samples, ends excluded. */
export interface SubRange {
  i: [number, number];
  j: [number, number];
  k: [number, number];
}

/**
 * Read the traces of a group of lines into `held`, in the file's own order, so that any order of traces costs few passes.
 * @yields after each piece of the file, how much of it is read (0 to 1) and how many lines from the first are whole
 */
export async function* readGroup(
  file: SegyFile,
  index: TraceIndex,
  range: SubRange,
  lines: [number, number],
  held: Float32Array,
  report: DecodeReport,
): AsyncGenerator<[part: number, whole: number]> {
  const nj = range.j[1] - range.j[0];
  const nk = range.k[1] - range.k[0];
  const width = index.binGrid.crossline.count;
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
  for await (const [bytes, piece] of readAhead(piecesOf(file, traces, ordered))) {
    const { part, offset } = piece;
    const { headers } = part;
    const sampleBytes = FORMATS[headers.format].bytes;
    for (let a = piece.from; a < piece.to; ) {
      const bin = ordered[a];
      const first = traces[bin];
      const n = first - part.from;
      const count = traceSamples(headers, n);
      const late = index.late?.[first] ?? 0;
      const at = traceOffset(headers, n) - offset + headers.headerBytes;
      if (late === 0 && k[0] === 0 && count <= nk) {
        // traces that follow each other in the file and in the volume are taken together
        let run = 1;
        if (count === nk && !headers.varying && !index.late)
          while (a + run < piece.to && ordered[a + run] === bin + run && traces[bin + run] === first + run) run++;
        const stride = headers.headerBytes + count * sampleBytes;
        const { format, littleEndian, weight } = headers;
        decodeTraces(bytes, at, { traces: run, stride, count }, format, littleEndian, held, bin * nk, report, weight);
        a += run;
        continue;
      }
      decodeSamples(bytes, at, count, headers.format, headers.littleEndian, one, 0, report, headers.weight);
      for (let m = Math.max(k[0], late); m < Math.min(k[1], late + count); m++)
        held[bin * nk + m - k[0]] = one[m - late];
      a++;
    }
    if (piece.to < live) yield [piece.to / live, sorted ? Math.floor(ordered[piece.to] / nj) : 0];
  }
  yield [1, lines[1] - lines[0]];
}

/** Pieces of the file that hold the wanted traces: those between two places in their order by file. */
function piecesOf(file: SegyFile, traces: Int32Array, ordered: Int32Array) {
  const pieces: (Piece & { part: SegyPart; from: number; to: number })[] = [];
  for (let a = 0; a < ordered.length; ) {
    const part = partOf(file, traces[ordered[a]]);
    const { headers, source } = part;
    const offset = traceOffset(headers, traces[ordered[a]] - part.from);
    let end = offset + headers.headerBytes;
    const from = a;
    for (; a < ordered.length; a++) {
      const n = traces[ordered[a]] - part.from;
      if (n >= headers.traces) break;
      const at = traceOffset(headers, n);
      const after = at + headers.headerBytes + traceSamples(headers, n) * FORMATS[headers.format].bytes;
      if (a > from && (at - end > GAP_BYTES || after - offset > READ_BYTES)) break;
      end = after;
    }
    pieces.push({ part, source, offset, length: end - offset, from, to: a });
  }
  return pieces;
}
