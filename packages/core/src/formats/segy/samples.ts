import { floatsOf, ibmOf, threadKernels } from '@lithagon/kernels';

/** SEG-Y sample formats (rev 2.0, binary header bytes 3225–3226) that are read, with bytes a sample. */
export const FORMATS: Record<number, { bytes: number; name: string }> = {
  1: { bytes: 4, name: '32-bit IBM float' },
  2: { bytes: 4, name: '32-bit integer' },
  3: { bytes: 2, name: '16-bit integer' },
  5: { bytes: 4, name: '32-bit IEEE float' },
  6: { bytes: 8, name: '64-bit IEEE float' },
  8: { bytes: 1, name: '8-bit integer' },
  10: { bytes: 4, name: '32-bit unsigned integer' },
  11: { bytes: 2, name: '16-bit unsigned integer' },
  16: { bytes: 1, name: '8-bit unsigned integer' },
};

/** 16^(e − 64) / 2^24 for every exponent of an IBM float. */
const IBM_SCALE = Float64Array.from({ length: 128 }, (_, e) => 16 ** (e - 64) / 16777216);

export interface DecodeReport {
  /** Values too large for a float32, stored as infinity. */
  overflow: number;
}

/**
 * Decode traces that follow each other in `bytes`, `run.stride` bytes apart from the first one's first sample at `offset`,
 * one after the other into `out[at…]` as float32 (nearest).
 * @param littleEndian byte order of the file; @param weight what every sample is multiplied by
 */
export function decodeTraces(
  bytes: Uint8Array,
  offset: number,
  run: { traces: number; stride: number; count: number },
  format: number,
  littleEndian: boolean,
  out: Float32Array,
  at: number,
  report?: DecodeReport,
  weight = 1,
): void {
  const { traces, stride, count } = run;
  const start = bytes.byteOffset + offset;
  // most files are of four-byte floats that lie on four bytes: their words are turned round many at once
  if ((format !== 1 && format !== 5) || start % 4 !== 0 || stride % 4 !== 0) {
    for (let t = 0; t < traces; t++)
      decodeSamples(bytes, offset + t * stride, count, format, littleEndian, out, at + t * count, report, weight);
    return;
  }
  const words = new Int32Array(bytes.buffer, start, ((traces - 1) * stride) / 4 + count);
  (format === 5 ? floatsOf : ibmOf)(
    threadKernels(),
    words,
    { traces, stride: stride / 4, count },
    !littleEndian,
    out,
    at,
  );
  finish(out, at, traces * count, format, report, weight);
}

/** Decode `count` samples at `offset` of `bytes` into `out[at…]`, as `decodeTraces` does. */
export function decodeSamples(
  bytes: Uint8Array,
  offset: number,
  count: number,
  format: number,
  littleEndian: boolean,
  out: Float32Array,
  at: number,
  report?: DecodeReport,
  weight = 1,
): void {
  const start = bytes.byteOffset + offset;
  const view = new DataView(bytes.buffer, start, count * FORMATS[format].bytes);
  switch (format) {
    case 1:
      for (let k = 0; k < count; k++) {
        const word = view.getUint32(k * 4, littleEndian);
        const value = (word & 0xffffff) * IBM_SCALE[(word >>> 24) & 0x7f];
        out[at + k] = word >>> 31 ? -value : value;
      }
      break;
    case 2:
      for (let k = 0; k < count; k++) out[at + k] = view.getInt32(k * 4, littleEndian);
      break;
    case 3:
      for (let k = 0; k < count; k++) out[at + k] = view.getInt16(k * 2, littleEndian);
      break;
    case 5:
      for (let k = 0; k < count; k++) out[at + k] = view.getFloat32(k * 4, littleEndian);
      break;
    case 6:
      for (let k = 0; k < count; k++) out[at + k] = view.getFloat64(k * 8, littleEndian);
      break;
    case 8:
      for (let k = 0; k < count; k++) out[at + k] = view.getInt8(k);
      break;
    case 10:
      for (let k = 0; k < count; k++) out[at + k] = view.getUint32(k * 4, littleEndian);
      break;
    case 11:
      for (let k = 0; k < count; k++) out[at + k] = view.getUint16(k * 2, littleEndian);
      break;
    case 16:
      for (let k = 0; k < count; k++) out[at + k] = view.getUint8(k);
      break;
  }
  finish(out, at, count, format, report, weight);
}

/** Weigh samples that were decoded, and count those that a float32 cannot hold. */
function finish(out: Float32Array, at: number, count: number, format: number, report?: DecodeReport, weight = 1): void {
  if (weight !== 1) for (let k = 0; k < count; k++) out[at + k] *= weight;
  // only these two hold numbers that a float32 cannot
  if (report && (format === 1 || format === 6))
    for (let k = 0; k < count; k++) if (!Number.isFinite(out[at + k]) && !Number.isNaN(out[at + k])) report.overflow++;
}
