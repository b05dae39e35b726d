import { LithagonError } from '../../earth/errors.ts';
import { visible } from '../../earth/text.ts';

/** A record of a shapefile: points, lines or rings, with its attributes. */
export interface ShapeRecord {
  kind: 'point' | 'line' | 'polygon';
  parts: [number, number][][];
  attributes: Record<string, string>;
}

const KINDS: Record<number, ShapeRecord['kind']> = {
  1: 'point',
  3: 'line',
  5: 'polygon',
  8: 'point',
  11: 'point',
  13: 'line',
  15: 'polygon',
  18: 'point',
  21: 'point',
  23: 'line',
  25: 'polygon',
  28: 'point',
};

/**
 * Read the shapes of a shapefile (ESRI Shapefile Technical Description, 1998); measures and heights are left out.
 * @param encoding of the table, as a .cpg file names it
 */
export function parseShapes(name: string, bytes: Uint8Array, table?: Uint8Array, encoding?: string): ShapeRecord[] {
  const refuse = (why: string): never => {
    throw new LithagonError('shapefile', `${name} cannot be read as a shapefile: ${why}.`, {
      object: name,
      fix: 'It may have been cut short: copy it again.',
    });
  };
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 100 || view.getInt32(0) !== 9994) refuse('it does not begin as one does');
  const rows = table ? parseDbf(table, encoding) : [];
  const out: ShapeRecord[] = [];
  for (let at = 100, n = 0; at + 12 <= bytes.length; n++) {
    const length = 2 * view.getInt32(at + 4);
    const body = at + 8;
    if (length < 4 || body + length > bytes.length) refuse(`its record ${n + 1} runs over the end of the file`);
    const kind = KINDS[view.getInt32(body, true)];
    const point = (offset: number): [number, number] => {
      if (offset + 16 > body + length) refuse(`its record ${n + 1} is damaged`);
      return [view.getFloat64(offset, true), view.getFloat64(offset + 8, true)];
    };
    const type = view.getInt32(body, true);
    const attributes = rows[n] ?? {};
    if (kind === 'point' && [1, 11, 21].includes(type)) out.push({ kind, parts: [[point(body + 4)]], attributes });
    else if (kind === 'point') {
      const count = length >= 40 ? view.getInt32(body + 36, true) : 0;
      if (count < 0 || count > length / 16) refuse(`its record ${n + 1} is damaged`);
      out.push({
        kind,
        parts: [Array.from({ length: count }, (_, p) => point(body + 40 + 16 * p))],
        attributes,
      });
    } else if (kind) {
      if (length < 44) refuse(`its record ${n + 1} is damaged`);
      const parts = view.getInt32(body + 36, true);
      const points = view.getInt32(body + 40, true);
      if (parts < 0 || points < 0 || 44 + 4 * parts + 16 * points > length) refuse(`its record ${n + 1} is damaged`);
      const starts = Array.from({ length: parts }, (_, p) => view.getInt32(body + 44 + 4 * p, true));
      if (starts.some((s, p) => s < 0 || s > points || (p > 0 && s < starts[p - 1])))
        refuse(`its record ${n + 1} is damaged`);
      const from = body + 44 + 4 * parts;
      out.push({
        kind,
        parts: starts.map((s, p) =>
          Array.from({ length: (starts[p + 1] ?? points) - s }, (_, q) => point(from + 16 * (s + q))),
        ),
        attributes,
      });
    }
    at = body + length;
  }
  if (out.length === 0) refuse('it holds no shape');
  return out;
}

/** A decoder for what a .cpg file names: an encoding, or the number of a code page; UTF-8 where it is none that is known. */
function decoderOf(encoding: string): TextDecoder {
  const name = encoding.trim().toLowerCase();
  const page = /^(?:ansi |cp|windows-?)?(\d{3,5})$/.exec(name)?.[1];
  for (const label of page ? (page === '65001' ? ['utf-8'] : [`windows-${page}`, `ibm${page}`]) : [name])
    try {
      return new TextDecoder(label);
    } catch {
      // the next, or what most are
    }
  return new TextDecoder('utf-8');
}

/** Rows of a dBASE III table as text by field; nothing where it is not one. */
function parseDbf(bytes: Uint8Array, encoding = 'utf-8'): Record<string, string>[] {
  if (bytes.length < 33) return [];
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const [count, head, size] = [view.getUint32(4, true), view.getUint16(8, true), view.getUint16(10, true)];
  const text = decoderOf(encoding);
  const fields: { name: string; at: number; length: number }[] = [];
  for (let at = 32, from = 1; at + 32 <= head && at + 32 <= bytes.length && bytes[at] !== 13; at += 32) {
    const name = text
      .decode(bytes.subarray(at, at + 11))
      .replace(/\0.*$/s, '')
      .trim();
    fields.push({ name, at: from, length: bytes[at + 16] });
    from += bytes[at + 16];
  }
  // a table whose rows are shorter than their fields is none
  if (size < fields.reduce((most, f) => Math.max(most, f.at + f.length), 1)) return [];
  const rows: Record<string, string>[] = [];
  for (let n = 0; n < count && head + (n + 1) * size <= bytes.length; n++) {
    const row: Record<string, string> = Object.create(null);
    for (const { name, at, length } of fields)
      row[name] = visible(text.decode(bytes.subarray(head + n * size + at, head + n * size + at + length)).trim());
    rows.push(row);
  }
  return rows;
}
