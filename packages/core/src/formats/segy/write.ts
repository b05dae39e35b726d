import type { Statistics } from '../../earth/objects.ts';

/** How samples are written: IEEE or IBM floats, or 16-bit integers with a power of two as their weight. */
export type SegyOut = 'ieee' | 'ibm' | 'compact';

export interface SegyWriteFacts {
  revision: 1 | 2;
  format: SegyOut;
  samples: number;
  /** Sample interval, ms (or m in depth), and the first sample's time or depth. */
  step: number;
  first: number;
  traces: number;
  /** Map coordinates are feet. */
  feet: boolean;
  /** Lines of the text header, at most 40 of 80 characters. */
  text: string[];
  statistics: Statistics;
}

export interface TraceNumbers {
  trace: number;
  inline: number;
  crossline: number;
  cdp: number;
  shotpoint?: number;
  /** Map coordinates in the file's unit. */
  x: number;
  y: number;
}

// EBCDIC (code page 037) of the characters that a text header may hold
const EBCDIC = new Uint8Array(128).fill(0x6f);
for (const [from, chars] of [
  [0x40, ' '],
  [0x4b, '.<(+|&'],
  [0x5a, '!$*);'],
  [0x60, '-/'],
  [0x6b, ',%_>?'],
  [0x7a, ':#@\'="'],
  [0x81, 'abcdefghi'],
  [0x91, 'jklmnopqr'],
  [0xa2, 'stuvwxyz'],
  [0xc1, 'ABCDEFGHI'],
  [0xd1, 'JKLMNOPQR'],
  [0xe2, 'STUVWXYZ'],
  [0xf0, '0123456789'],
] as [number, string][])
  [...chars].forEach((ch, n) => {
    EBCDIC[ch.charCodeAt(0)] = from + n;
  });

const BYTES = { ieee: 4, ibm: 4, compact: 2 } as const;
const FORMAT = { ieee: 5, ibm: 1, compact: 3 } as const;
/** Coordinates are stored in hundredths. */
const SCALAR = -100;

/** Bits of the IBM hexadecimal float nearest to a number. */
export function ibmBits(value: number): number {
  if (value === 0 || !Number.isFinite(value)) return 0;
  const sign = value < 0 ? 0x80000000 : 0;
  let size = Math.abs(value);
  let exponent = 64;
  while (size >= 1) {
    size /= 16;
    exponent++;
  }
  while (size < 0.0625) {
    size *= 16;
    exponent--;
  }
  let fraction = Math.round(size * 0x1000000);
  if (fraction === 0x1000000) {
    fraction = 0x100000;
    exponent++;
  }
  return exponent < 0 ? 0 : (sign + exponent * 0x1000000 + fraction) >>> 0;
}

/** Power of two by which compact samples are weighted: the largest number fits 16 bits. */
export function weightOf(statistics: Statistics): number {
  const most = Math.max(Math.abs(statistics.min), Math.abs(statistics.max));
  return most > 0 && Number.isFinite(most) ? Math.floor(Math.log2(32767 / most)) : 0;
}

/** Text and binary header: 3600 bytes (SEG-Y rev 1, 2002; rev 2.0, 2017), big-endian. */
export function segyHead(facts: SegyWriteFacts): Uint8Array {
  const out = new Uint8Array(3600);
  const view = new DataView(out.buffer);
  for (let line = 0; line < 40; line++) {
    const number = `C${String(line + 1).padStart(2)} `;
    const last =
      line === 38 ? (facts.revision === 2 ? 'SEG-Y REV2.0' : 'SEG Y REV1') : line === 39 ? 'END TEXTUAL HEADER' : '';
    const text = (number + (last || (facts.text[line] ?? ''))).normalize('NFKD').slice(0, 80).padEnd(80);
    for (let c = 0; c < 80; c++) {
      const code = text.charCodeAt(c);
      out[line * 80 + c] = EBCDIC[code < 128 ? code : 63];
    }
  }
  const micro = Math.round(facts.step * 1000);
  view.setInt32(3204, 1);
  view.setUint16(3216, Math.min(65535, micro));
  view.setUint16(3220, facts.samples < 65536 ? facts.samples : 0);
  view.setInt16(3224, FORMAT[facts.format]);
  view.setInt16(3226, 1);
  view.setInt16(3228, 4);
  view.setInt16(3254, facts.feet ? 2 : 1);
  view.setUint8(3500, facts.revision);
  view.setInt16(3502, 1);
  if (facts.revision === 2) {
    view.setUint32(3268, facts.samples);
    view.setFloat64(3272, facts.step * 1000);
    view.setUint32(3296, 0x01020304);
    view.setBigUint64(3520, 3600n);
  }
  return out;
}

/**
 * One trace with its header, appended at `at` of `out`.
 * @param data samples of many traces, this one from `from`; NaN is written as 0
 */
export function writeTrace(
  out: Uint8Array,
  at: number,
  facts: SegyWriteFacts,
  numbers: TraceNumbers,
  data: Float32Array,
  from: number,
): void {
  const view = new DataView(out.buffer, out.byteOffset + at);
  const { samples, format } = facts;
  const weight = format === 'compact' ? weightOf(facts.statistics) : 0;
  let live = false;
  for (let k = 0; k < samples && !live; k++) live = data[from + k] === data[from + k];
  const coordinate = (v: number) => Math.round(v * -SCALAR);
  view.setInt32(0, numbers.trace + 1);
  view.setInt32(4, numbers.trace + 1);
  view.setInt32(8, numbers.inline);
  view.setInt32(20, numbers.cdp);
  view.setInt16(28, live ? 1 : 2);
  view.setInt16(68, SCALAR);
  view.setInt16(70, SCALAR);
  view.setInt32(72, coordinate(numbers.x));
  view.setInt32(76, coordinate(numbers.y));
  view.setInt16(88, 1);
  view.setInt16(108, Math.round(facts.first));
  view.setUint16(114, samples < 65536 ? samples : 0);
  view.setUint16(116, Math.min(65535, Math.round(facts.step * 1000)));
  view.setInt16(168, weight);
  view.setInt32(180, coordinate(numbers.x));
  view.setInt32(184, coordinate(numbers.y));
  view.setInt32(188, numbers.inline);
  view.setInt32(192, numbers.crossline);
  view.setInt32(196, numbers.shotpoint ?? numbers.cdp);
  view.setInt16(200, 1);
  const scale = 2 ** weight;
  for (let k = 0; k < samples; k++) {
    const v = data[from + k];
    const value = v === v ? v : 0;
    if (format === 'ieee') view.setFloat32(240 + 4 * k, value);
    else if (format === 'ibm') view.setUint32(240 + 4 * k, ibmBits(value));
    else view.setInt16(240 + 2 * k, Math.max(-32768, Math.min(32767, Math.round(value * scale))));
  }
}

export function traceBytes({ samples, format }: SegyWriteFacts): number {
  return 240 + samples * BYTES[format];
}
