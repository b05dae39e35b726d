/** A GeoTIFF of one strip of float32 or int16, made from the tables of TIFF 6.0 and OGC 19-008r4. */
export interface MadeTiff {
  columns: number;
  rows: number;
  values: number[];
  /** Bits and kind of cells: float32, or int16. */
  sample?: 'float32' | 'int16';
  littleEndian?: boolean;
  /** Upper left corner of the upper left pixel, and the size of one; null where the file does not say. */
  corner: [number, number] | null;
  pixel: number;
  point?: boolean;
  keys?: Record<number, number | string>;
  nodata?: string;
  metadata?: string;
}

export function makeTiff(spec: MadeTiff): Uint8Array {
  const { columns, rows, values, sample = 'float32', littleEndian: le = true, corner, pixel, keys = {} } = spec;
  const bytes = sample === 'float32' ? 4 : 2;
  const ascii = (text: string) => new TextEncoder().encode(`${text}\0`);
  const doubles: number[] = [];
  let texts = '';
  const directory: number[] = [];
  const all: Record<number, number | string> = { 1024: 1, 1025: spec.point ? 2 : 1, ...keys };
  const codes = Object.keys(all)
    .map(Number)
    .sort((a, b) => a - b);
  for (const code of codes) {
    const value = all[code];
    if (typeof value === 'string') {
      directory.push(code, 34737, value.length + 1, texts.length);
      texts += `${value}|`;
    } else if (
      Number.isInteger(value) &&
      value >= 0 &&
      value <= 65535 &&
      code !== 3077 &&
      !(code >= 3078 && code < 4096)
    )
      directory.push(code, 0, 1, value);
    else {
      directory.push(code, 34736, 1, doubles.length);
      doubles.push(value);
    }
  }
  const shorts = [1, 1, 0, codes.length, ...directory];
  type Tag = [tag: number, type: 2 | 3 | 4 | 12, values: number[] | Uint8Array];
  const tags: Tag[] = [
    [256, 4, [columns]],
    [257, 4, [rows]],
    [258, 3, [8 * bytes]],
    [259, 3, [1]],
    [262, 3, [1]],
    [273, 4, [8]],
    [277, 3, [1]],
    [278, 4, [rows]],
    [279, 4, [columns * rows * bytes]],
    [339, 3, [sample === 'float32' ? 3 : 2]],
  ];
  if (corner) {
    tags.push([33550, 12, [pixel, pixel, 0]]);
    tags.push([33922, 12, [0, 0, 0, corner[0], corner[1], 0]]);
  }
  tags.push([34735, 3, shorts]);
  if (doubles.length > 0) tags.push([34736, 12, doubles]);
  if (texts) tags.push([34737, 2, ascii(texts)]);
  if (spec.metadata) tags.push([42112, 2, ascii(spec.metadata)]);
  if (spec.nodata) tags.push([42113, 2, ascii(spec.nodata)]);
  const size = { 2: 1, 3: 2, 4: 4, 12: 8 };
  const cells = columns * rows * bytes;
  const head = 8 + cells + (cells % 2);
  let more = head + 2 + 12 * tags.length + 4;
  const total = tags.reduce((n, [, type, v]) => n + (v.length * size[type] > 4 ? v.length * size[type] + 8 : 0), more);
  const out = new Uint8Array(total);
  const view = new DataView(out.buffer);
  view.setUint16(0, le ? 0x4949 : 0x4d4d);
  view.setUint16(2, 42, le);
  view.setUint32(4, head, le);
  values.forEach((v, n) => {
    if (sample === 'float32') view.setFloat32(8 + 4 * n, v, le);
    else view.setInt16(8 + 2 * n, v, le);
  });
  view.setUint16(head, tags.length, le);
  tags.forEach(([tag, type, v], n) => {
    const at = head + 2 + 12 * n;
    view.setUint16(at, tag, le);
    view.setUint16(at + 2, type, le);
    view.setUint32(at + 4, v.length, le);
    const long = v.length * size[type] > 4;
    if (long) {
      more += more % 8 === 0 ? 0 : 8 - (more % 8);
      view.setUint32(at + 8, more, le);
    }
    let to = long ? more : at + 8;
    for (const value of v) {
      if (type === 2) view.setUint8(to, value);
      else if (type === 3) view.setUint16(to, value, le);
      else if (type === 4) view.setUint32(to, value, le);
      else view.setFloat64(to, value, le);
      to += size[type];
    }
    if (long) more = to;
  });
  return out;
}

type Attribute = string | number;
/** A variable of a netCDF file: its dimensions by name, its kind of number and its attributes. */
export interface MadeVariable {
  name: string;
  dimensions: string[];
  type: 'short' | 'float' | 'double';
  values: number[];
  attributes?: Record<string, Attribute>;
}

/** A file of the classic format of netCDF (CDF-1), made from its specification. */
export function makeNetcdf(
  dimensions: [name: string, size: number][],
  variables: MadeVariable[],
  attributes: Record<string, Attribute> = {},
): Uint8Array {
  const bytes: number[] = [];
  const u32 = (v: number) => bytes.push((v >>> 24) & 255, (v >>> 16) & 255, (v >>> 8) & 255, v & 255);
  const pad = () => {
    while (bytes.length % 4 !== 0) bytes.push(0);
  };
  const name = (text: string) => {
    u32(text.length);
    bytes.push(...new TextEncoder().encode(text));
    pad();
  };
  const f64 = (v: number) => {
    const view = new DataView(new ArrayBuffer(8));
    view.setFloat64(0, v);
    bytes.push(...new Uint8Array(view.buffer));
  };
  const list = (of: Record<string, Attribute>) => {
    const all = Object.entries(of);
    u32(all.length > 0 ? 12 : 0);
    u32(all.length);
    for (const [key, value] of all) {
      name(key);
      u32(typeof value === 'string' ? 2 : 6);
      if (typeof value === 'string') name(value);
      else {
        u32(1);
        f64(value);
      }
    }
  };
  const TYPES = { short: 3, float: 5, double: 6 };
  const SIZES = { short: 2, float: 4, double: 8 };
  bytes.push(67, 68, 70, 1);
  u32(0);
  u32(10);
  u32(dimensions.length);
  for (const [key, size] of dimensions) {
    name(key);
    u32(size);
  }
  list(attributes);
  u32(11);
  u32(variables.length);
  const begins: number[] = [];
  const length = (v: MadeVariable) => 4 * Math.ceil((v.values.length * SIZES[v.type]) / 4);
  for (const v of variables) {
    name(v.name);
    u32(v.dimensions.length);
    for (const d of v.dimensions) u32(dimensions.findIndex(([key]) => key === d));
    list(v.attributes ?? {});
    u32(TYPES[v.type]);
    u32(length(v));
    begins.push(bytes.length);
    u32(0);
  }
  let at = bytes.length;
  const out = new Uint8Array(at + variables.reduce((n, v) => n + length(v), 0));
  out.set(bytes);
  const view = new DataView(out.buffer);
  variables.forEach((v, k) => {
    view.setUint32(begins[k], at);
    v.values.forEach((value, n) => {
      const to = at + n * SIZES[v.type];
      if (v.type === 'short') view.setInt16(to, value);
      else if (v.type === 'float') view.setFloat32(to, value);
      else view.setFloat64(to, value);
    });
    at += length(v);
  });
  return out;
}

/** A shapefile of points, lines or polygons (ESRI Shapefile Technical Description, 1998). */
export function makeShp(type: 1 | 3 | 5, shapes: [number, number][][]): Uint8Array {
  const length = (points: unknown[]) => (type === 1 ? 20 : 48 + 16 * points.length);
  const out = new Uint8Array(100 + shapes.reduce((n, s) => n + 8 + length(s), 0));
  const view = new DataView(out.buffer);
  view.setInt32(0, 9994);
  view.setInt32(24, out.length / 2);
  view.setInt32(28, 1000, true);
  view.setInt32(32, type, true);
  let at = 100;
  shapes.forEach((points, n) => {
    view.setInt32(at, n + 1);
    view.setInt32(at + 4, length(points) / 2);
    view.setInt32(at + 8, type, true);
    let to = at + 12;
    if (type !== 1) {
      view.setInt32(at + 44, 1, true);
      view.setInt32(at + 48, points.length, true);
      view.setInt32(at + 52, 0, true);
      to = at + 56;
    }
    for (const [x, y] of points) {
      view.setFloat64(to, x, true);
      view.setFloat64(to + 8, y, true);
      to += 16;
    }
    at += 8 + length(points);
  });
  return out;
}

/** A dBASE III table of one column of text. */
export function makeDbf(field: string, rows: string[]): Uint8Array {
  const [width, head] = [20, 65];
  const out = new Uint8Array(head + rows.length * (width + 1) + 1).fill(32);
  out.fill(0, 0, head);
  const view = new DataView(out.buffer);
  out.set([3, 126, 1, 1]);
  view.setUint32(4, rows.length, true);
  view.setUint16(8, head, true);
  view.setUint16(10, width + 1, true);
  out.set(new TextEncoder().encode(field), 32);
  out[43] = 67;
  out[48] = width;
  out[64] = 13;
  for (const [n, row] of rows.entries())
    out.set(new TextEncoder().encode(row).subarray(0, width), head + n * (width + 1) + 1);
  return out;
}
