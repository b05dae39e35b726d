import { closeSync, openSync, writeSync } from 'node:fs';

/** Sample formats that these files use: 1 IBM float, 3 two-byte integer, 5 IEEE float. */
export type Format = 1 | 3 | 5;

export interface SegyLayout {
  format: Format;
  littleEndian: boolean;
  revision: 0 | 1 | 2;
  /** Byte positions (from 1) in the trace header. */
  inline: number;
  crossline: number;
  x: number;
  y: number;
  /** Coordinates are stored times this (negative: divided by). */
  scalar: number;
  /** Samples are divided by this before they are stored as integers. */
  sampleScale?: number;
  text: string[];
  sampleMs: number;
  samples: number;
}

export interface TraceHead {
  inline: number;
  crossline: number;
  x: number;
  y: number;
  /** Shotpoint (byte 197) and CDP of a 2D line. */
  shotpoint?: number;
  cdp?: number;
}

const EBCDIC: Record<string, number> = {};
{
  const rows: [number, string][] = [
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
  ];
  for (const [from, chars] of rows)
    [...chars].forEach((ch, n) => {
      EBCDIC[ch] = from + n;
    });
}

/** IEEE single to IBM hexadecimal float, rounded to nearest. */
export function toIbm(value: number): number {
  if (value === 0 || Number.isNaN(value)) return 0;
  const sign = value < 0 ? 0x80000000 : 0;
  let magnitude = Math.abs(value);
  let exponent = 64;
  while (magnitude >= 1) {
    magnitude /= 16;
    exponent++;
  }
  while (magnitude < 1 / 16) {
    magnitude *= 16;
    exponent--;
  }
  let fraction = Math.round(magnitude * 0x1000000);
  if (fraction === 0x1000000) {
    fraction = 0x100000;
    exponent++;
  }
  return (sign | (exponent << 24) | fraction) >>> 0;
}

/** Write a SEG-Y file trace by trace. `trace(n)` gives the samples of the n-th trace. */
export function writeSegy(
  path: string,
  layout: SegyLayout,
  heads: TraceHead[],
  trace: (n: number, out: Float32Array) => void,
): void {
  const { samples, format, littleEndian: le } = layout;
  const bytes = format === 3 ? 2 : 4;
  const file = openSync(path, 'w');
  const text = new Uint8Array(3200).fill(0x40);
  for (let line = 0; line < 40; line++) {
    const content = `C${String(line + 1).padStart(2)} ${layout.text[line] ?? ''}`.slice(0, 80);
    [...content].forEach((ch, n) => {
      text[line * 80 + n] = EBCDIC[ch] ?? 0x40;
    });
  }
  const binary = new DataView(new ArrayBuffer(400));
  binary.setInt32(4, 1, le);
  binary.setInt16(12, 1, le);
  binary.setInt16(16, Math.round(layout.sampleMs * 1000), le);
  binary.setInt16(20, samples, le);
  binary.setInt16(24, format, le);
  binary.setInt16(28, 4, le);
  binary.setInt16(54, 1, le);
  if (layout.revision === 2) binary.setUint32(96, 16909060, le);
  binary.setUint16(300, layout.revision === 2 ? 0x0200 : layout.revision === 1 ? 0x0100 : 0, le);
  if (layout.revision > 0) binary.setInt16(302, 1, le);
  writeSync(file, text);
  writeSync(file, new Uint8Array(binary.buffer));

  const size = 240 + samples * bytes;
  const batch = 200;
  const buffer = new ArrayBuffer(batch * size);
  const view = new DataView(buffer);
  const values = new Float32Array(samples);
  const scaled = layout.scalar < 0 ? -layout.scalar : 1 / layout.scalar;
  for (let n0 = 0; n0 < heads.length; n0 += batch) {
    const count = Math.min(batch, heads.length - n0);
    new Uint8Array(buffer).fill(0);
    for (let m = 0; m < count; m++) {
      const at = m * size;
      const head = heads[n0 + m];
      view.setInt32(at, n0 + m + 1, le);
      view.setInt32(at + 4, n0 + m + 1, le);
      if (head.cdp !== undefined) view.setInt32(at + 20, head.cdp, le);
      view.setInt16(at + 28, 1, le);
      view.setInt16(at + 70, layout.scalar, le);
      view.setInt16(at + 114, samples, le);
      view.setInt16(at + 116, Math.round(layout.sampleMs * 1000), le);
      view.setInt32(at + layout.x - 1, Math.round(head.x * scaled), le);
      view.setInt32(at + layout.y - 1, Math.round(head.y * scaled), le);
      if (head.shotpoint !== undefined) view.setInt32(at + 196, head.shotpoint, le);
      else {
        view.setInt32(at + layout.inline - 1, head.inline, le);
        view.setInt32(at + layout.crossline - 1, head.crossline, le);
      }
      trace(n0 + m, values);
      let o = at + 240;
      for (let k = 0; k < samples; k++, o += bytes) {
        if (format === 1) view.setUint32(o, toIbm(values[k]), le);
        else if (format === 5) view.setFloat32(o, values[k], le);
        else view.setInt16(o, Math.max(-32767, Math.min(32767, Math.round(values[k] / (layout.sampleScale ?? 1)))), le);
      }
    }
    writeSync(file, new Uint8Array(buffer, 0, count * size));
  }
  closeSync(file);
}
