import { LithagonError } from '../../earth/errors.ts';
import type { ByteSource } from '../source.ts';
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
  /** Distances are feet where the file says so. */
  feet: boolean;
  firstTrace: number;
  /** False where trace lengths may differ. */
  fixedLength: boolean;
  traceBytes: number;
  traces: number;
  problems: string[];
}

// prettier-ignore
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

interface Candidate {
  littleEndian: boolean;
  format: number;
  samples: number;
  intervalUs: number;
  worth: number;
}

function readCandidate(view: DataView, littleEndian: boolean): Candidate {
  const format = view.getInt16(24, littleEndian);
  const extendedSamples = view.getUint32(68, littleEndian);
  const short = view.getUint16(20, littleEndian);
  const rev2 = view.getUint8(littleEndian ? 301 : 300) >= 2;
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

/** Read and judge a file's headers; refuses with a reason what is not SEG-Y. */
export async function readHeaders(source: ByteSource): Promise<SegyHeaders> {
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
  if (!FORMATS[best.format])
    refuse(
      `its binary header names sample format ${best.format}, which no revision of the standard has in either byte order.`,
      'Check that it is a SEG-Y file and not another kind that was renamed.',
    );
  const { littleEndian, format } = best;
  const problems: string[] = [];
  const extended = view.getInt16(304, littleEndian);
  const major = view.getUint8(littleEndian ? 301 : 300);
  const revision = major === 0 ? '0' : `${major}.${view.getUint8(littleEndian ? 300 : 301)}`;
  let firstTrace = 3600;
  if (major >= 1 && extended > 0) firstTrace += 3200 * extended;
  else if (major >= 1 && extended < 0) firstTrace = await findEndOfText(source);
  const first = await source.read(firstTrace, 240);
  if (first.length < 240) refuse('it holds no trace.', 'It may have been cut short: copy it again.');
  const trace = new DataView(first.buffer, first.byteOffset, 240);
  const inTrace = trace.getUint16(114, littleEndian);
  let samples = best.samples;
  const bytes = FORMATS[format].bytes;
  const fits = (n: number) => n > 0 && (source.size - firstTrace) % (240 + n * bytes) === 0;
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
  let intervalUs = best.intervalUs;
  if (intervalUs === 0) {
    intervalUs = trace.getUint16(116, littleEndian);
    problems.push(`The binary header has no sample interval; the first trace says ${intervalUs} µs.`);
  }
  const traceBytes = 240 + samples * bytes;
  const whole = Math.floor((source.size - firstTrace) / traceBytes);
  const rest = source.size - firstTrace - whole * traceBytes;
  if (rest > 0)
    problems.push(
      `The last trace is cut short: ${rest} of its ${traceBytes} bytes are there. The ${whole} whole traces can be used.`,
    );
  if (whole === 0) refuse('its only trace is cut short.', 'Copy it again from where it came.');
  return {
    textLines: lines,
    textEncoding: encoding,
    littleEndian,
    revision,
    format,
    samples,
    intervalMs: intervalUs / 1000,
    feet: view.getInt16(54, littleEndian) === 2,
    firstTrace,
    fixedLength: major === 0 || view.getInt16(302, littleEndian) === 1,
    traceBytes,
    traces: whole,
    problems,
  };
}

/** A variable number of extended text headers ends with a stanza that says so. */
async function findEndOfText(source: ByteSource): Promise<number> {
  for (let at = 3600; at + 3200 <= source.size; at += 3200) {
    const { lines } = decodeText(await source.read(at, 3200));
    if (lines.some((line) => line.replace(/\s/g, '').toLowerCase().includes('((seg:endtext))'))) return at + 3200;
  }
  return 3600;
}
