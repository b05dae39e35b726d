import { LithagonError } from '../../earth/errors.ts';
import { type ByteSource, type Piece, readAhead } from '../source.ts';
import { readHeaders, type SegyHeaders, traceOffset } from './headers.ts';

/** One of the files that hold the traces of a volume or line. */
export interface SegyPart {
  source: ByteSource;
  headers: SegyHeaders;
  /** Number of its first trace among those of all parts. */
  from: number;
}

/** Traces of one file, or of several that are parts of the same volume. */
export interface SegyFile {
  name: string;
  parts: SegyPart[];
  traces: number;
  samples: number;
  intervalMs: number;
  /** False where neither a header nor anyone has said the interval. */
  intervalKnown: boolean;
}

/**
 * Open files as parts of one volume; refuses parts whose traces are not of one kind.
 * @param intervalMs sample interval that was declared, over what the headers say
 */
export async function openSegy(sources: ByteSource[], intervalMs?: number): Promise<SegyFile> {
  const parts: SegyPart[] = [];
  let from = 0;
  for (const source of sources) {
    const headers = await readHeaders(source, intervalMs);
    const first = parts[0]?.headers;
    if (first && (first.samples !== headers.samples || first.intervalMs !== headers.intervalMs))
      throw new LithagonError(
        'parts',
        `${source.name} has ${headers.samples} samples by ${headers.intervalMs} ms a trace, and ${sources[0].name} has ${first.samples} by ${first.intervalMs}: they are no parts of one volume.`,
        { object: source.name, fix: 'Load it as a volume of its own. Nothing was loaded.' },
      );
    parts.push({ source, headers, from });
    from += headers.traces;
  }
  const { samples, intervalMs: interval, intervalKnown } = parts[0].headers;
  return { name: sources[0].name, parts, traces: from, samples, intervalMs: interval, intervalKnown };
}

/** The part that holds a trace. */
export function partOf(file: SegyFile, trace: number): SegyPart {
  let part = file.parts[0];
  for (const each of file.parts) if (each.from <= trace) part = each;
  return part;
}

/** Visit the 240-byte header of every trace, a few megabytes of file at a time. */
export async function eachHeader(
  file: SegyFile,
  visit: (view: DataView, at: number, trace: number, littleEndian: boolean) => void,
  progress?: (part: number) => void,
): Promise<void> {
  const BLOCK = 4 << 20;
  const pieces: (Piece & { part: SegyPart; first: number; last: number })[] = [];
  for (const part of file.parts) {
    const { source, headers } = part;
    for (let first = 0; first < headers.traces; ) {
      const offset = traceOffset(headers, first);
      // long traces are skipped over, not read
      let last = first;
      while (last + 1 < headers.traces && traceOffset(headers, last + 1) + 240 - offset <= BLOCK) last++;
      pieces.push({ source, offset, length: traceOffset(headers, last) + 240 - offset, part, first, last });
      first = last + 1;
    }
  }
  for await (const [bytes, { part, offset, first, last }] of readAhead(pieces)) {
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    for (let n = first; n <= last; n++)
      visit(view, traceOffset(part.headers, n) - offset, part.from + n, part.headers.littleEndian);
    progress?.((part.from + last + 1) / file.traces);
  }
}
