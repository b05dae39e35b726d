import { LithagonError } from '../../earth/errors.ts';
import type { ByteSource } from '../source.ts';
import { type Angles, anglesOf } from './coordinates.ts';
import { FORMATS } from './samples.ts';

/** What the file's own headers say about how it is laid out (SEG-Y rev 0 1975, rev 1 2002, rev 2.0 2017). */
export interface SegyHeaders {
  textLines: string[];
  textEncoding: 'EBCDIC' | 'ASCII';
  littleEndian: boolean;
  revision: string;
  format: number;
  samples: number;
  intervalMs: number;
  /** False where no header says the interval and no one has: it is then 1 until somebody does. */
  intervalKnown: boolean;
  /** Distances are feet where the file says so. */
  feet: boolean;
  firstTrace: number;
  /** Bytes of header before a trace's samples: 240, and 240 more for each extension that revision 2 allows. */
  headerBytes: number;
  /** Bytes of a trace; of the longest where lengths differ. */
  traceBytes: number;
  traces: number;
  /** Where each trace begins and how many samples it has, where these differ from trace to trace. */
  varying: { offsets: Float64Array; counts: Int32Array } | null;
  /** What samples are multiplied by: integers may stand for numbers by a power of two (trace header bytes 169–170). */
  weight: number;
  /** How coordinates are written where they are longitude and latitude. */
  angles: Angles | null;
  /** The binary header, field by field. */
  binary: { byte: number; meaning: string; value: number; says?: string }[];
  problems: string[];
}

/** Where trace `n` begins in its file. */
export function traceOffset(headers: SegyHeaders, n: number): number {
  return headers.varying ? headers.varying.offsets[n] : headers.firstTrace + n * headers.traceBytes;
}

/** Samples of trace `n`. */
export function traceSamples(headers: SegyHeaders, n: number): number {
  return headers.varying ? headers.varying.counts[n] : headers.samples;
}

const EBCDIC_ROWS: [number, string][] = [
  [0x40, ' '],
  [0x4a, '¢.<(+|&'],
  [0x5a, '!$*);¬-/'],
  [0x6b, ',%_>?'],
  [0x79, '`:#@\'="'],
  [0x81, 'abcdefghi'],
  [0x91, 'jklmnopqr'],
  [0xa1, '~stuvwxyz'],
  [0xc0, '{ABCDEFGHI'],
  [0xd0, '}JKLMNOPQR'],
  [0xe0, '\\'],
  [0xe2, 'STUVWXYZ'],
  [0xf0, '0123456789'],
];
const EBCDIC = new Array<string>(256).fill(' ');
for (const [from, chars] of EBCDIC_ROWS)
  [...chars].forEach((ch, n) => {
    EBCDIC[from + n] = ch;
  });
EBCDIC[0x60] = '-';
EBCDIC[0x61] = '/';
EBCDIC[0x50] = '&';

/** Whether a byte is a letter, a figure, a mark, a blank or an end of line of EBCDIC. */
export function isEbcdicText(b: number): boolean {
  return b === 0x40 || b === 0x25 || b === 0x15 || b === 0x0d || EBCDIC[b] !== ' ';
}

function decodeText(bytes: Uint8Array): { lines: string[]; encoding: 'EBCDIC' | 'ASCII' } {
  let ascii = 0;
  let ebcdic = 0;
  for (const b of bytes) {
    if (b === 0x20 || (b >= 0x30 && b <= 0x39) || (b >= 0x41 && b <= 0x5a)) ascii++;
    if (b === 0x40 || b >= 0xf0 || (b >= 0xc1 && b <= 0xe9)) ebcdic++;
  }
  const encoding = ebcdic > ascii ? 'EBCDIC' : 'ASCII';
  const lines: string[] = [];
  for (let n = 0; n < 40; n++) {
    let line = '';
    for (let c = 0; c < 80; c++) {
      const b = bytes[n * 80 + c];
      line += encoding === 'EBCDIC' ? EBCDIC[b] : b >= 32 && b < 127 ? String.fromCharCode(b) : ' ';
    }
    lines.push(line.trimEnd());
  }
  return { lines, encoding };
}

export interface Candidate {
  littleEndian: boolean;
  format: number;
  samples: number;
  intervalUs: number;
  worth: number;
}

/**
 * Revision of the standard. It is one number of two bytes in revision 1, which turn round with the byte order, and two
 * numbers of a byte each in revision 2, which do not; writers do either.
 */
function revisionOf(view: DataView): { major: number; minor: number } {
  const [a, b] = [view.getUint8(300), view.getUint8(301)];
  return a === 0 || (a === 1 && b === 2) ? { major: b, minor: a } : { major: a, minor: b };
}

/** What the binary header says of samples if it is of one byte order, and how well that goes together. */
export function readCandidate(view: DataView, littleEndian: boolean): Candidate {
  const format = view.getInt16(24, littleEndian);
  const extendedSamples = view.getUint32(68, littleEndian);
  const short = view.getUint16(20, littleEndian);
  const rev2 = revisionOf(view).major >= 2;
  const samples = rev2 && extendedSamples > 0 && extendedSamples < 1e7 ? extendedSamples : short;
  const intervalUs = view.getUint16(16, littleEndian);
  let worth = 0;
  if (view.getUint32(96, littleEndian) === 0x01020304) worth += 10;
  if (FORMATS[format]) worth += 4;
  if (samples > 0 && samples < 60000) worth += 1;
  if (intervalUs > 0 && intervalUs <= 32000) worth += 1;
  if (intervalUs % 50 === 0) worth += 1;
  return { littleEndian, format, samples, intervalUs, worth };
}

/**
 * Read and judge a file's headers; refuses with a reason what is not SEG-Y.
 * @param intervalMs sample interval that was declared, over what the headers say
 */
export async function readHeaders(source: ByteSource, intervalMs?: number): Promise<SegyHeaders> {
  const refuse = (why: string, fix: string): never => {
    throw new LithagonError('segy', `${source.name} cannot be read as SEG-Y: ${why}`, { object: source.name, fix });
  };
  if (source.size < 3600 + 240)
    refuse(
      source.size === 0
        ? 'it is empty.'
        : `it is only ${source.size} bytes long, shorter than the headers of a SEG-Y file.`,
      'Copy it again from where it came.',
    );
  const head = await source.read(0, 3600);
  const { lines, encoding } = decodeText(head.subarray(0, 3200));
  const view = new DataView(head.buffer, head.byteOffset + 3200, 400);
  const [big, little] = [readCandidate(view, false), readCandidate(view, true)];
  const best = little.worth > big.worth ? little : big;
  if ([0x02010403, 0x03040102].includes(view.getUint32(96)))
    refuse('its bytes are swapped in pairs.', 'Write it again in the byte order of the standard.');
  if (!FORMATS[best.format])
    refuse(
      `its binary header names sample format ${best.format}, which no revision of the standard has in either byte order.`,
      'Check that it is a SEG-Y file and not another kind that was renamed.',
    );
  const { littleEndian, format } = best;
  const problems: string[] = [];
  const extended = view.getInt16(304, littleEndian);
  const { major, minor } = revisionOf(view);
  const revision = major === 0 ? '0' : `${major}.${minor}`;
  const firstTrace =
    major >= 1
      ? await endOfText(source, extended, problems)
      : await endOfUnsaidText(source, 240 + best.samples * FORMATS[format].bytes, problems);
  const extensions = major >= 2 ? view.getInt32(306, littleEndian) : 0;
  const headerBytes = 240 * (1 + (extensions > 0 && extensions < 100 ? extensions : 0));
  const first = await source.read(firstTrace, 240);
  if (first.length < 240) refuse('it holds no trace.', 'It may have been cut short: copy it again.');
  const trace = new DataView(first.buffer, first.byteOffset, 240);
  const inTrace = trace.getUint16(114, littleEndian);
  let samples = best.samples;
  const bytes = FORMATS[format].bytes;
  const fits = (n: number) => n > 0 && (source.size - firstTrace) % (headerBytes + n * bytes) === 0;
  if (samples === 0 || (!fits(samples) && fits(inTrace))) {
    problems.push(
      `The binary header says ${samples} samples a trace; the traces themselves say ${inTrace}, which fits the file's length.`,
    );
    samples = inTrace;
  }
  if (samples === 0)
    refuse(
      'neither its binary header nor its first trace says how many samples a trace has.',
      'It needs mending by whoever made it.',
    );
  // revision 2 has room for intervals that are no whole number of microseconds
  const exact = major >= 2 ? view.getFloat64(72, littleEndian) : 0;
  const interval = intervalOf(
    exact > 0 && exact < 1e7 ? exact : 0,
    best.intervalUs,
    trace.getUint16(116, littleEndian),
    major,
  );
  if (intervalMs !== undefined) interval.us = 1000 * intervalMs;
  else if (interval.says) problems.push(interval.says);
  const mayVary = major > 0 && view.getInt16(302, littleEndian) !== 1;
  const varying =
    mayVary && !fits(samples) ? await scanTraces(source, firstTrace, headerBytes, bytes, littleEndian) : null;
  if (varying) {
    samples = varying.counts.reduce((a, b) => Math.max(a, b), 0);
    const shorter = varying.counts.reduce((n, count) => n + (count < samples ? 1 : 0), 0);
    if (shorter > 0)
      problems.push(
        `Trace lengths differ: ${shorter} of ${varying.counts.length} traces are shorter than ${samples} samples and are filled up as empty.`,
      );
  }
  const traceBytes = headerBytes + samples * bytes;
  const whole = varying ? varying.counts.length : Math.floor((source.size - firstTrace) / traceBytes);
  const rest = varying ? varying.rest : source.size - firstTrace - whole * traceBytes;
  if (rest > 0)
    problems.push(`The last trace is cut short: ${rest} bytes of it are there. The ${whole} whole traces can be used.`);
  if (whole === 0) refuse('its only trace is cut short.', 'Copy it again from where it came.');
  const { angles, says: notAngles } = anglesOf(trace, littleEndian);
  if (notAngles) problems.push(notAngles);
  const power = [2, 3, 8, 10, 11, 16].includes(format) && major > 0 ? trace.getInt16(168, littleEndian) : 0;
  const weight = power !== 0 && Math.abs(power) <= 40 ? 2 ** -power : 1;
  if (weight !== 1)
    problems.push(
      `Samples are integers with a weight of 2^${-power} (trace header bytes 169–170) and were multiplied by it.`,
    );
  return {
    textLines: lines,
    textEncoding: encoding,
    littleEndian,
    revision,
    format,
    samples,
    intervalMs: interval.us > 0 ? interval.us / 1000 : 1,
    intervalKnown: interval.us > 0,
    feet: view.getInt16(54, littleEndian) === 2,
    firstTrace,
    headerBytes,
    traceBytes,
    traces: whole,
    varying,
    weight,
    angles,
    binary: binaryFields(view, littleEndian),
    problems,
  };
}

/** Traces of differing length are found one after the other, from the sample count in each header. */
async function scanTraces(
  source: ByteSource,
  firstTrace: number,
  headerBytes: number,
  sampleBytes: number,
  littleEndian: boolean,
): Promise<{ offsets: Float64Array; counts: Int32Array; rest: number } | null> {
  const offsets: number[] = [];
  const counts: number[] = [];
  const BLOCK = 4 << 20;
  let at = firstTrace;
  let block: Uint8Array = new Uint8Array(0);
  let from = 0;
  while (at + headerBytes <= source.size) {
    if (at < from || at + 240 > from + block.length) {
      block = await source.read(at, BLOCK);
      from = at;
    }
    const view = new DataView(block.buffer, block.byteOffset + at - from, 240);
    const count = view.getUint16(114, littleEndian);
    const next = at + headerBytes + count * sampleBytes;
    if (count === 0 || next > source.size) break;
    offsets.push(at);
    counts.push(count);
    at = next;
  }
  // a chain that does not reach the end of the file is no chain
  if (offsets.length < 2 || source.size - at > headerBytes + 65535 * sampleBytes) return null;
  return { offsets: Float64Array.from(offsets), counts: Int32Array.from(counts), rest: source.size - at };
}

const SORTING = ['unknown', 'as recorded', 'by CDP', 'single fold', 'stacked', 'by source', 'by receiver'];
// SEG-Y rev 2.0, table 2: byte from the start of the file, bytes of the number, meaning
const BINARY: [byte: number, size: 2 | 4, meaning: string][] = [
  [3201, 4, 'Job'],
  [3205, 4, 'Line'],
  [3209, 4, 'Reel'],
  [3213, 2, 'Traces in an ensemble'],
  [3215, 2, 'Auxiliary traces in an ensemble'],
  [3217, 2, 'Sample interval, µs or mm'],
  [3219, 2, 'Sample interval as recorded'],
  [3221, 2, 'Samples in a trace'],
  [3223, 2, 'Samples as recorded'],
  [3225, 2, 'Sample format'],
  [3227, 2, 'Fold'],
  [3229, 2, 'Sorting'],
  [3255, 2, 'Measurement system'],
  [3257, 2, 'Impulse polarity'],
  [3259, 2, 'Vibrator polarity'],
  [3501, 2, 'Revision'],
  [3503, 2, 'Fixed trace length'],
  [3505, 2, 'Extended text headers'],
  [3507, 4, 'Trace header extensions'],
];

function binaryFields(view: DataView, littleEndian: boolean): SegyHeaders['binary'] {
  const says = (byte: number, value: number): string | undefined => {
    if (byte === 3225) return FORMATS[value]?.name;
    if (byte === 3229) return SORTING[value];
    if (byte === 3255) return value === 1 ? 'metres' : value === 2 ? 'feet' : 'not said';
    if (byte === 3257)
      return value === 1
        ? 'an increase of pressure is negative'
        : value === 2
          ? 'an increase of pressure is positive'
          : 'not said';
    if (byte === 3503) return value === 1 ? 'all of one length' : 'may differ';
    return undefined;
  };
  return BINARY.map(([byte, size, meaning]) => {
    const at = byte - 3201;
    const value =
      byte === 3501
        ? revisionOf(view).major
        : size === 4
          ? view.getInt32(at, littleEndian)
          : view.getInt16(at, littleEndian);
    return { byte, meaning, value, says: says(byte, value) };
  });
}

/**
 * Sample interval in µs, 0 where no header says one, with what is odd about it. Both headers have 16 bits for it, with a
 * sign before revision 2.
 */
function intervalOf(
  exact: number,
  inFile: number,
  inTrace: number,
  major: number,
): { us: number; says: string | null } {
  if (exact > 0) return { us: exact, says: null };
  const [says, us] = inFile > 0 ? ['The binary header', inFile] : ['The first trace', inTrace];
  if (us === 0)
    return {
      us: 0,
      says: 'Neither its binary header nor its first trace says the sample interval: it has to be declared.',
    };
  if (us > 32767 && major < 2)
    return {
      us: 65536 - us,
      says: `${says} says a sample interval of ${us - 65536} µs, which was taken for ${65536 - us} µs.`,
    };
  return {
    us,
    says: inFile > 0 ? null : `The binary header has no sample interval; the first trace says ${us} µs.`,
  };
}

const TEXT = 3200;
/** Most extended text headers that are looked through for their end. */
const MOST_TEXTS = 1000;

/**
 * Where the extended text headers end and the traces begin.
 * @param claimed how many there are; negative where the last of them says so itself (SEG-Y rev 1, section 6)
 */
async function endOfText(source: ByteSource, claimed: number, problems: string[]): Promise<number> {
  if (claimed === 0) return 3600;
  if (claimed > 0) {
    const end = 3600 + TEXT * claimed;
    if (end + 240 <= source.size) return end;
    problems.push(
      `The binary header says that ${claimed} more text headers follow, for which there is no room; the traces were taken to begin at once.`,
    );
    return 3600;
  }
  const bytes = await source.read(3600, TEXT * MOST_TEXTS);
  for (let at = 0; at + TEXT <= bytes.length; at += TEXT) {
    const { lines } = decodeText(bytes.subarray(at, at + TEXT));
    if (lines.some((line) => line.replace(/\s/g, '').toLowerCase().includes('((seg:endtext))')))
      return 3600 + at + TEXT;
  }
  problems.push(
    'The binary header says that more text headers follow, and none of them says that it is the last; the traces were taken to begin at once.',
  );
  return 3600;
}

/** Most text headers that a file of revision 0 may have after its binary header. */
const MOST_UNSAID = 20;

/** Where the traces of a file of revision 0 begin, which has no place to say that more text headers follow. */
async function endOfUnsaidText(source: ByteSource, traceBytes: number, problems: string[]): Promise<number> {
  if ((source.size - 3600) % traceBytes === 0 && !(await isTextAt(source, 3600))) return 3600;
  let count = 0;
  while (count < MOST_UNSAID && (await isTextAt(source, 3600 + TEXT * count))) count++;
  if (count === 0) return 3600;
  problems.push(
    `${count} more text ${count === 1 ? 'header follows' : 'headers follow'} the binary header, which a file of revision 0 cannot say; the traces were taken to begin after ${count === 1 ? 'it' : 'them'}.`,
  );
  return 3600 + TEXT * count;
}

/** Whether a text header stands at a place of a file: nothing but letters, figures and blanks. */
async function isTextAt(source: ByteSource, at: number): Promise<boolean> {
  const bytes = await source.read(at, TEXT);
  if (bytes.length < TEXT || at + TEXT + 240 > source.size) return false;
  const [first] = bytes;
  return bytes.every(isEbcdicText)
    ? bytes.some((b) => b !== first)
    : bytes.every((b) => b === 10 || b === 13 || (b >= 32 && b < 127)) && bytes.some((b) => b !== first);
}
