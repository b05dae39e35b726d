import { HEAP_BASE, type Kernels, reserve } from './load.ts';

/** A field, where each pixel of a picture lies in it, and the colours of its values. */
export interface FieldPicture {
  /** `[rows][samples]`; NaN where there is no sample. */
  data: Float32Array;
  rows: number;
  samples: number;
  /** Pixels. */
  width: number;
  height: number;
  /** Sample of the first pixel, and what a pixel to the right and a pixel down add to it. */
  sample: [first: number, right: number, down: number];
  /** Row of the first pixel, likewise. */
  row: [first: number, right: number, down: number];
  /** Words of four bytes, from the value `low` to `high`. */
  colors: Uint32Array;
  low: number;
  high: number;
}

/** Room that pictures are drawn in, kept from one to the next while the field is the same. */
export interface PictureRoom {
  kernels: Kernels;
  held: Float32Array | null;
}

const align = (bytes: number) => (bytes + 15) & ~15;
const scaleOf = ({ colors, low, high }: FieldPicture) => (colors.length - 1) / (high === low ? 1 : high - low);

/**
 * Draw a field by the compiled kernel: a cubic along rows, linear across them, 0 where there is no sample.
 * @returns the pixels `[height][width]`, a view of the room's memory that lasts until the next picture
 */
export function fieldPicture(room: PictureRoom, picture: FieldPicture): Uint8ClampedArray<ArrayBuffer> {
  const { kernels } = room;
  const { data, rows, samples, width, height, sample, row, colors, low } = picture;
  const dataAt = HEAP_BASE;
  const colorsAt = align(dataAt + data.byteLength);
  const outAt = align(colorsAt + colors.byteLength);
  const scratchAt = align(outAt + 4 * width * height);
  reserve(kernels, scratchAt + 4 * (rows + 2));
  if (room.held !== data) new Float32Array(kernels.memory.buffer, dataAt, data.length).set(data);
  room.held = data;
  new Uint32Array(kernels.memory.buffer, colorsAt, colors.length).set(colors);
  kernels.fieldPicture(
    dataAt,
    rows,
    samples,
    outAt,
    scratchAt,
    width,
    height,
    ...sample,
    ...row,
    colorsAt,
    colors.length,
    low,
    scaleOf(picture),
  );
  return new Uint8ClampedArray(kernels.memory.buffer as ArrayBuffer, outAt, 4 * width * height);
}

/** Nothing is drawn beyond the ends; rounding may not lose the ends themselves. */
const EDGE = 1e-6;

/** The same in plain TypeScript: what the kernel is tested and measured against. */
export function fieldPictureTwin(picture: FieldPicture, out: Uint32Array): void {
  const { data, rows, samples, width, height, sample, row, colors, low } = picture;
  const [last, end, scale] = [samples - 1, rows - 1, scaleOf(picture)];
  const between = (start: number, k: number, f: number): number => {
    const [b, c] = [data[start + k], data[start + Math.min(last, k + 1)]];
    if (Number.isNaN(b) || Number.isNaN(c)) return f < 0.5 ? b : c;
    let [a, d] = [data[start + Math.max(0, k - 1)], data[start + Math.min(last, k + 2)]];
    if (Number.isNaN(a)) a = b;
    if (Number.isNaN(d)) d = c;
    return b + 0.5 * f * (c - a + f * (2 * a - 5 * b + 4 * c - d + f * (3 * (b - c) + d - a)));
  };
  for (let y = 0, to = 0; y < height; y++)
    for (let x = 0; x < width; x++, to++) {
      const k = sample[0] + x * sample[1] + y * sample[2];
      const r = row[0] + x * row[1] + y * row[2];
      out[to] = 0;
      if (!(k >= -EDGE && k <= last + EDGE && r >= -EDGE && r <= end + EDGE)) continue;
      const cell = Math.max(0, Math.min(last, Math.floor(k)));
      const line = Math.max(0, Math.min(end, Math.floor(r)));
      const g = r - line;
      const v0 = between(line * samples, cell, k - cell);
      const v1 = line < end ? between((line + 1) * samples, cell, k - cell) : v0;
      let v = v0 + g * (v1 - v0);
      if (Number.isNaN(v)) v = g < 0.5 ? v0 : v1;
      if (Number.isNaN(v)) continue;
      out[to] = colors[Math.floor(Math.max(0, Math.min(colors.length - 1, (v - low) * scale + 0.5)))];
    }
}
